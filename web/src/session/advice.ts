import type { Bout, Schemas, Step } from "@/data/client";
import { numberOf } from "./counting";
import type { Done } from "./done";
import { positionKey, positionOf } from "./position";

type Advice = Schemas["Advice"];

/**
 * Look up what the rules say after a bout; where the set before was to be watched too, what they say then. Nothing is
 * worked out here: the table has an answer for everything that can be said (`golden/advice.json` holds it to that).
 */
export function adviceFor(
  table: Schemas["AdviceTable"],
  steps: Step[],
  done: Done,
  index: number,
): Advice | null {
  const own = lookedUp(table, steps[index], done.get(index)?.bout);
  const step = steps[index];
  if (!own?.again || !step) return own;
  const before = steps.findIndex(
    (each) =>
      each.kind === "work" &&
      each.group === step.group &&
      each.entry === step.entry &&
      each.set === step.set - 1 &&
      each.bout === step.bout,
  );
  return lookedUp(table, steps[before], done.get(before)?.bout)?.course === "watch" ? own.again : own;
}

/** What the table says of one bout, done with the load that its step asks for. */
export function lookedUp(
  { advice, tables, positions, reserves, ended }: Schemas["AdviceTable"],
  step: Step | undefined,
  bout: Bout | undefined,
): Advice | null {
  if (!step || !bout || bout.exercise !== step.exercise || bout.kg === null) return null;
  const table = tables[positions[positionKey(positionOf(step))]?.[String(bout.kg)] ?? -1];
  const left = bout.reserve === null ? "" : `${bout.reserve}${bout.or_more ? "+" : ""}`;
  const row = table?.[numberOf(step, bout)]?.[reserves[left] ?? -1];
  return advice[row?.[ended[bout.ended ?? ""] ?? -1] ?? -1] ?? null;
}

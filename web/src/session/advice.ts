import isEqual from "fast-deep-equal/es6";
import type { Bout, Schemas, Step } from "@/data/client";
import { numberOf } from "./counting";
import type { Done } from "./done";
import type { Adjustments } from "./played";
import { entryKey, positionKey, positionOf } from "./position";

type Advice = Schemas["Advice"];
type Load = Schemas["LoadChange"];

/**
 * Look up what the rules say after a bout; where the set before was off the same way, what they say then. Nothing is
 * worked out here: the table has an answer for everything that can be said (`golden/advice.json` holds it to that).
 */
export function adviceFor(
  table: Schemas["AdviceTable"],
  steps: Step[],
  done: Done,
  index: number,
): Advice | null {
  const step = steps[index];
  const bout = done.get(index)?.bout;
  const other = withOther(table, steps, step, bout);
  if (other) return other;
  const own = lookedUp(table, step, bout);
  if (!own?.again || !step) return own;
  const before = steps.findIndex(
    (each) =>
      each.kind === "work" &&
      each.group === step.group &&
      each.entry === step.entry &&
      each.set === step.set - 1 &&
      each.bout === step.bout,
  );
  return lookedUp(table, steps[before], done.get(before)?.bout)?.was === own.was ? own.again : own;
}

/** The changes of loads that advice makes after a bout, by entry. */
function changesOf(advice: Advice, step: Step): [string, Load[]][] {
  const own = advice.loads.map((load) => ({ ...load, set: step.set + load.set }));
  return [[entryKey(step), own], ...advice.others.map((line): [string, Load[]] => [line.entry, line.loads])];
}

/** Whether a change of load concerns any bout that is to have one of some loads. */
const concerns = (steps: Step[], entry: string, { set, bout }: Load, kgs: (number | null | undefined)[]) =>
  steps.some(
    (step) =>
      step.kind === "work" &&
      !step.warm_up &&
      entryKey(step) === entry &&
      step.set >= set &&
      (bout == null || step.bout === bout) &&
      kgs.some((kg) => (kg ?? null) === (step.load?.kg ?? null)),
  );

/** Advice with those of its changes that are still to be made, or were made and stand. */
export function inForce(advice: Advice | null, steps: Step[], step: Step | undefined): Advice | null {
  if (!advice || !step) return advice;
  const [own, ...others] = changesOf(advice, step).map(([entry, changes]) =>
    changes.map((each) => concerns(steps, entry, each, [each.was_kg, each.kg])),
  );
  return {
    ...advice,
    loads: advice.loads.filter((_, index) => own?.[index]),
    others: advice.others.filter((_, index) => others[index]?.some(Boolean)),
  };
}

/** What changes of the plan with advice taken after a bout; null where nothing does. */
export function proposedChange(
  advice: Advice | null,
  steps: Step[],
  step: Step | undefined,
  { loads, skipped }: Adjustments,
): Pick<Adjustments, "loads" | "skipped"> | null {
  if (!advice || !step) return null;
  const moved = { ...loads };
  for (const [entry, changes] of changesOf(advice, step)) {
    const open = changes.filter((each) => concerns(steps, entry, each, [each.was_kg]));
    if (open.length) moved[entry] = [...(moved[entry] ?? []), ...open];
  }
  if (isEqual(moved, loads)) return null;
  return { loads: moved, skipped: [...new Set([...skipped, ...advice.skipped])] };
}

/** The rest with another load than the planned one, where that was lifted and what is to come would have the old one. */
function withOther(
  { advice, lifted }: Schemas["AdviceTable"],
  steps: Step[],
  step: Step | undefined,
  bout: Bout | undefined,
): Advice | null {
  const planned = step?.load?.kg;
  if (!step || planned == null || bout?.kg == null || bout.kg === planned) return null;
  const found = advice[lifted[entryKey(step)]?.[String(planned)]?.[String(bout.kg)] ?? -1];
  return found && inForce(found, steps, step)?.loads.length ? found : null;
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

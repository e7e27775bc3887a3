import isEqual from "fast-deep-equal/es6";
import type { Bout, Schemas, Step } from "@/data/client";
import { numberOf } from "./counting";
import type { Done } from "./done";
import type { Adjustments } from "./played";
import { entryKey, positionKey, positionOf } from "./position";

type Advice = Schemas["Advice"];

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

/** What changes of the plan with advice taken after a bout; null where nothing does. */
export function proposedChange(
  advice: Advice | null,
  step: Step | undefined,
  { loads, skipped }: Adjustments,
): Pick<Adjustments, "loads" | "skipped"> | null {
  if (!advice || !step || !(advice.loads.length || advice.others.length)) return null;
  const own = advice.loads.map((load) => ({ ...load, set: step.set + load.set }));
  const changes: Adjustments["loads"] = own.length ? { [entryKey(step)]: own } : {};
  for (const line of advice.others) {
    changes[line.entry] = [...(changes[line.entry] ?? []), ...line.loads];
  }
  const missing = Object.entries(changes).filter(
    ([entry, more]) => !isEqual((loads[entry] ?? []).slice(-more.length), more),
  );
  if (!missing.length) return null;
  const moved = missing.map(([entry, more]) => [entry, [...(loads[entry] ?? []), ...more]]);
  return {
    loads: { ...loads, ...Object.fromEntries(moved) },
    skipped: [...new Set([...skipped, ...advice.skipped])],
  };
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
  const follows = (later: Step) =>
    later.kind === "work" &&
    !later.warm_up &&
    entryKey(later) === entryKey(step) &&
    later.set > step.set &&
    found?.loads.some((load) => load.was_kg === later.load?.kg || load.kg === later.load?.kg);
  return found && steps.some(follows) ? found : null;
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

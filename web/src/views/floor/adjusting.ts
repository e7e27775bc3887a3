import { group } from "d3-array";
import type { Schemas, Step } from "@/data/client";

export type Adjustments = Schemas["Adjustments"];

export const entryKey = ({ group, entry }: Pick<Step, "group" | "entry">) => `${group}.${entry}`;

/** The plan as it was changed on the floor: groups in another order, more sets, other lifts, loads and set-ups. */
export function adjusted(steps: Step[], changed: Adjustments): Step[] {
  const grown = Object.entries(changed.extra ?? {}).reduce(
    (all, [key, count]) => withExtraSets(all, key, count),
    steps,
  );
  return inOrder(turnedAbout(grown, changed.within ?? {}), changed.order ?? []).map((step) =>
    changedStep(step, changed),
  );
}

function changedStep(step: Step, { swapped = {}, loads = {}, setups = {} }: Adjustments): Step {
  const key = entryKey(step);
  const exercise = swapped[key];
  const from = loads[key];
  let next = setups[key] ? { ...step, setup: { items: setups[key] } } : step;
  if (from && step.set >= from.set && next.load && next.kind === "work") {
    const settled = next.settled && {
      ...next.settled,
      kg: from.kg,
      side: from.side ?? [],
      change: "",
      percent: null,
      reasons: [],
    };
    next = { ...next, load: { ...next.load, kg: from.kg }, settled };
  }
  return exercise ? { ...next, exercise, load: null, settled: null } : next;
}

/** Copies of the last set of an entry after it, each with the rest that led to that one. */
function withExtraSets(steps: Step[], key: string, count: number): Step[] {
  const own = steps.filter((step) => entryKey(step) === key);
  const last = Math.max(...own.map((step) => step.set));
  const pattern = own.filter((step) => step.set === last);
  const end = steps.findLastIndex((step) => entryKey(step) === key);
  if (!pattern.length || end < 0) return steps;
  const rest =
    pattern[0]?.kind === "rest" ? [] : steps.filter((step) => step.kind === "rest" && !step.short).slice(-1);
  const added = Array.from({ length: count }, (_, extra) =>
    [...rest, ...pattern].map((step) => ({
      ...step,
      ...(pattern[0] && { exercise: pattern[0].exercise, group: pattern[0].group, entry: pattern[0].entry }),
      set: last + extra + 1,
      round: step.round + extra + 1,
    })),
  ).flat();
  return [...steps.slice(0, end + 1), ...added, ...steps.slice(end + 1)];
}

/** The members of a pair or circuit in another order, round by round; its rests stay where they are. */
function turnedAbout(steps: Step[], within: Adjustments["within"]): Step[] {
  if (!Object.keys(within).length) return steps;
  return [...group(steps, (step) => `${step.group}.${step.round}`).values()].flatMap((round) => {
    const order = within[String(round[0]?.group)];
    if (!order) return round;
    const turns = [...group(round, (step) => `${step.entry}.${step.set}`).values()].map((turn) => {
      const begins = turn.findIndex((step) => step.kind === "work");
      return { rests: turn.slice(0, begins), work: turn.slice(begins) };
    });
    const at = ({ work }: (typeof turns)[number]) => {
      const place = order.indexOf(work[0]?.entry ?? 0);
      return work[0]?.warm_up ? place - order.length : place < 0 ? order.length : place;
    };
    const sorted = [...turns].sort((one, other) => at(one) - at(other));
    return turns.flatMap(({ rests }, place) => {
      const work = sorted[place]?.work ?? [];
      const leads = rests.map((step) => ({ ...step, ...(work[0] && placed(work[0])) }));
      return [...leads, ...work];
    });
  });
}

/** Whose step this is: what a rest or a change takes from the work it leads to. */
const placed = ({ exercise, group, round, entry, set, bout, side }: Step) => ({
  exercise,
  group,
  round,
  entry,
  set,
  bout,
  side,
});

function inOrder(steps: Step[], order: number[]): Step[] {
  if (!order.length) return steps;
  const place = new Map(order.map((group, at) => [group, at]));
  const groups = [...group(steps, (step) => step.group)];
  const at = (group: number) => place.get(group) ?? order.length + group;
  return groups.sort(([a], [b]) => at(a) - at(b)).flatMap(([, own]) => own);
}

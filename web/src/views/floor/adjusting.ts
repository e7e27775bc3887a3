import { group } from "d3-array";
import type { Schemas, Step } from "@/data/client";

export type Adjustments = Schemas["Adjustments"];

export const entryKey = ({ group, entry }: Pick<Step, "group" | "entry">) => `${group}.${entry}`;

const MOST_EXTRA = 20;

/** One more set of some entries, as far as the record takes them. */
export const oneMore = ({ extra }: Adjustments, entries: Iterable<string>): Pick<Adjustments, "extra"> => ({
  extra: {
    ...extra,
    ...Object.fromEntries([...entries].map((key) => [key, Math.min((extra[key] ?? 0) + 1, MOST_EXTRA)])),
  },
});

/** The plan as it was changed on the floor: groups in another order, more sets, other lifts, loads and set-ups. */
export function adjusted(steps: Step[], changed: Adjustments): Step[] {
  const grown = withExtraSets(steps, changed.extra ?? {});
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

/** After each group the sets that were added to its lifts, round by round. */
function withExtraSets(steps: Step[], extra: Adjustments["extra"]): Step[] {
  if (!Object.keys(extra).length) return steps;
  return [...group(steps, (step) => step.group).values()].flatMap((own) => {
    const entries = [...group(own, entryKey)];
    const added = entries.flatMap(([key, ofEntry]) => extraSets(ofEntry, extra[key] ?? 0, steps));
    return [...own, ...added.sort((one, other) => one.round - other.round)];
  });
}

/** Copies of the last set of an entry, each with the rest that led to that one, or else the usual one of the plan. */
function extraSets(own: Step[], count: number, plan: Step[]): Step[] {
  const last = Math.max(...own.map((step) => step.set));
  const pattern = own.filter((step) => step.set === last);
  const [first] = pattern;
  if (!first) return [];
  const needsRest = first.kind === "work" && !first.block;
  const rest = needsRest ? plan.filter((step) => step.kind === "rest" && !step.short).slice(-1) : [];
  return Array.from({ length: count }, (_, extra) =>
    [...rest, ...pattern].map((step) => ({
      ...step,
      exercise: first.exercise,
      group: first.group,
      entry: first.entry,
      set: last + extra + 1,
      round: first.round + extra + 1,
    })),
  ).flat();
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

import isEqual from "fast-deep-equal/es6";
import type { Schemas, Step } from "@/data/client";
import { entryKey, positionKey } from "./position";

/*
 * The session as it is played, for a phone without a connection. The rules are those of `fortis/core/played.py` and
 * `fortis/core/structure/timeline.py`; both sides are held to the same cases (`golden/played.json`).
 */

export type Adjustments = Schemas["Adjustments"];
type Pace = Schemas["Pace"];

/** One set in its place: its bouts, and the rest after it. */
interface PlannedSet {
  group: number;
  round: number;
  entry: number;
  set: number;
  warmUp: boolean;
  rest: number;
  every: number | null;
  bouts: Step[];
}

/** The plan with what was changed of it on the floor. */
export function asPlayed(steps: Step[], changed: Adjustments, pace: Pace): Step[] {
  if (isUnchanged(changed)) return steps;
  const groups = runs(setsOf(steps), (each) => each.group);
  const sets = groups.flatMap((group) => {
    const grown = withExtraSets(group, changed.extra).map((each) => changedSet(each, changed, pace));
    return inTurn(grown, changed.within[String(group[0]?.group)]);
  });
  const skipped = new Set(changed.skipped);
  return inTime(inOrder(sets, changed.order), skipped, pace);
}

const isUnchanged = ({ prepared: _, ...changed }: Adjustments) =>
  Object.values(changed).every((each) => Object.keys(each).length === 0);

/** Runs of neighbours that share a key. */
function runs<T>(items: T[], key: (item: T) => unknown): T[][] {
  const found: T[][] = [];
  for (const [at, item] of items.entries()) {
    if (at && key(items[at - 1] as T) === key(item)) found.at(-1)?.push(item);
    else found.push([item]);
  }
  return found;
}

export function setsOf(steps: Step[]): PlannedSet[] {
  const work = steps.filter((step) => step.kind === "work");
  return runs(work, (step) => `${step.group}.${step.entry}.${step.set}`).map((bouts) => {
    const last = bouts.at(-1) as Step;
    const { group, round, entry, set, warm_up: warmUp } = last;
    return { group, round, entry, set, warmUp, rest: last.then_rest ?? 0, every: last.then_every, bouts };
  });
}

/** A group with copies of the last set of the entries that were given more; an added round rests as rounds do. */
function withExtraSets(group: PlannedSet[], extra: Adjustments["extra"]): PlannedSet[] {
  const lasts = new Map(group.filter((each) => !each.warmUp).map((each) => [entryKey(each), each]));
  const added = [...lasts].flatMap(([key, last]) =>
    Array.from({ length: extra[key] ?? 0 }, (_, more) => ({
      ...last,
      set: last.set + more + 1,
      round: last.round + more + 1,
    })),
  );
  if (!added.length) return group;
  added.sort((one, other) => one.round - other.round);
  const { rest, every } = group.at(-1) as PlannedSet;
  const rounds = runs(added, (each) => each.round);
  return [
    ...group,
    ...rounds.flatMap((turns) =>
      turns.map((each, at) => (at + 1 < turns.length ? each : { ...each, rest, every })),
    ),
  ];
}

/** A set with the lift, the set-up and the loads that were chosen for its entry. */
function changedSet(each: PlannedSet, { swapped, loads, setups }: Adjustments, pace: Pace): PlannedSet {
  const key = entryKey(each);
  const setup = setups[key];
  const instead = swapped[key];
  const bouts = each.bouts.map((bout) => {
    if (instead && each.set >= instead.set) {
      const { load_change: load_seconds } = pace;
      const own = { exercise: instead.lift, setup: { items: setup ?? [] }, gear: [], load_seconds };
      return { ...bout, ...own, load: null, settled: null, pitch: UNKNOWN_PITCH };
    }
    const loaded = each.warmUp ? bout : withLoads(bout, each.set, loads[key] ?? [], pace);
    return setup ? { ...loaded, setup: { items: setup }, gear: [] } : loaded;
  });
  return { ...each, bouts };
}

const UNKNOWN_PITCH = 100;

function withLoads(bout: Step, set: number, changes: Schemas["LoadChange"][], pace: Pace): Step {
  let now = bout;
  for (const change of changes) {
    const { settled } = now;
    if (set < change.set) continue;
    if (change.bout != null && change.bout !== now.bout) continue;
    if (!settled) {
      if (change.bout != null && change.was_kg == null) now = found(now, change, pace);
      continue;
    }
    if ((change.was_kg != null && change.was_kg !== settled.kg) || change.kg === settled.kg) continue;
    now = reloaded(now, settled, change, pace);
  }
  return now;
}

/** A bout with a load where it had none. */
const found = (
  bout: Step,
  { kg, sleeve, bar, bar_kg, advised }: Schemas["LoadChange"],
  pace: Pace,
): Step => ({
  ...bout,
  load: { ...NO_LOAD, kg },
  setup: wornWith(bout, kg),
  settled: {
    kg,
    wanted_kg: kg,
    percent: null,
    bar: bar ?? null,
    bar_kg: bar_kg ?? null,
    sleeve,
    body: false,
    bottom_kg: null,
    top_kg: null,
    mean_kg: null,
    change: "",
    plates: 0,
    note: "",
    reasons: [],
    advised,
  },
  load_seconds: pace.load_change,
  pitch: kg,
});

const NO_LOAD: NonNullable<Step["load"]> = {
  kg: null,
  low_kg: null,
  high_kg: null,
  body: null,
  percent: null,
  rep_max: null,
  of_previous: null,
  of_top: null,
};

/** A bout with another load; what bands and chains add stays. */
function reloaded(
  bout: Step,
  settled: Schemas["Settled"],
  { kg, sleeve, advised }: Schemas["LoadChange"],
  pace: Pace,
): Step {
  const more = kg - settled.kg;
  const moved = (pull: number | null) => (pull === null ? null : Math.round((pull + more) * 1e6) / 1e6);
  const { bottom_kg, top_kg, mean_kg } = settled;
  const pulls = { bottom_kg: moved(bottom_kg), top_kg: moved(top_kg), mean_kg: moved(mean_kg) };
  const fresh = { change: "", plates: 0, reasons: [], percent: null };
  return {
    ...bout,
    load: bout.load && { ...bout.load, kg },
    settled: { ...settled, ...pulls, ...fresh, kg, sleeve, advised },
    setup: wornWith(bout, kg),
    load_seconds: pace.load_change,
    pitch: kg,
  };
}

/** What of a set-up is worn with a load: some of it comes on from so many kilograms or reps. */
const wornWith = ({ setup, gear, most, warm_up }: Step, kg: number): Step["setup"] =>
  gear.length === 0
    ? setup
    : {
        items: gear
          .filter(({ from_kg, from_reps }) => {
            const reps = warm_up ? 0 : (most ?? 0);
            return !(from_kg !== null && kg < from_kg) && !(from_reps !== null && reps < from_reps);
          })
          .map(({ item }) => item),
      };

/** The members of a pair or circuit in another order, round by round; rests belong to the turn in the round. */
function inTurn(group: PlannedSet[], order: number[] | undefined): PlannedSet[] {
  if (!order?.length) return group;
  return runs(group, (each) => `${each.warmUp} ${each.round}`).flatMap((turns) => {
    const sorted = turns[0]?.warmUp ? turns : [...turns].sort(byRank(order, (each) => each.entry));
    return sorted.map((each, at) => {
      const { rest, every } = turns[at] as PlannedSet;
      return { ...each, rest, every };
    });
  });
}

/** The groups in another order; those it does not name follow in theirs. */
const inOrder = (sets: PlannedSet[], order: number[]): PlannedSet[] =>
  order.length ? [...sets].sort(byRank(order, (each) => each.group)) : sets;

function byRank<T>(order: number[], number: (item: T) => number) {
  const rank = (item: T) => {
    const at = order.indexOf(number(item));
    return at < 0 ? order.length + number(item) : at;
  };
  return (one: T, other: T) => rank(one) - rank(other);
}

/** Sets as steps with seconds: the rests between them, and what changes hands. */
export function inTime(sets: PlannedSet[], skipped: ReadonlySet<string>, pace: Pace): Step[] {
  const steps: Step[] = [];
  const lastLoad = new Map<string, Step>();
  let cameFrom: string | null = null;
  let rest = 0;
  let every: number | null = null;
  for (const [at, each] of sets.entries()) {
    if (sets[at - 1]?.group !== each.group) every = null;
    for (const [index, planned] of each.bouts.entries()) {
      const last = index + 1 === each.bouts.length;
      const bout: Step = {
        ...planned,
        round: each.round,
        set: each.set,
        then_rest: last ? each.rest : planned.then_rest,
        then_every: last ? each.every : null,
      };
      const left_out = skipped.has(positionKey(bout));
      const leading = { ...BLANK, ...placeOf(bout), left_out };
      if (rest) steps.push({ ...leading, kind: "rest", seconds: rest, short: index > 0, every });
      if (!left_out) {
        steps.push(...changes(bout, lastLoad.get(bout.exercise), cameFrom, rest, pace, leading));
        lastLoad.set(bout.exercise, bout);
        cameFrom = bout.exercise;
      }
      steps.push(bout.left_out === left_out ? bout : { ...bout, left_out });
      rest = planned.then_rest ?? 0;
      every = null;
    }
    rest = each.every === null ? each.rest : Math.max(each.every - sinceRound(steps, each), 0);
    every = each.every;
  }
  return steps;
}

/** Seconds from the start of the round that a set ends, the rest before the round left out. */
function sinceRound(steps: Step[], each: PlannedSet): number {
  const from = steps.findLastIndex(
    (step) => step.group !== each.group || step.round !== each.round || step.warm_up !== each.warmUp,
  );
  const counted = steps.slice(from + 1);
  const first = counted[0];
  const lead = first?.kind === "rest" && !first.left_out ? first.seconds : 0;
  return counted.reduce((sum, step) => sum + (step.left_out ? 0 : step.seconds), 0) - lead;
}

/** What has to change hands before a bout. It takes the time that a rest leaves over. */
function changes(
  bout: Step,
  before: Step | undefined,
  cameFrom: string | null,
  rest: number,
  pace: Pace,
  leading: Step,
): Step[] {
  let left = rest;
  const change = (what: NonNullable<Step["what"]>, seconds: number): Step => {
    const over = Math.max(seconds - left, 0);
    left = Math.max(left - seconds, 0);
    return { ...leading, kind: "change", seconds: over, what };
  };
  const found: Step[] = [];
  if (cameFrom !== null && cameFrom !== bout.exercise) found.push(change("station", pace.station_change));
  else if (before && before.side !== bout.side && before.side !== "both" && bout.side !== "both")
    found.push(change("side", pace.side_change));
  if (before && differs(before, bout)) found.push(change("load", bout.load_seconds ?? 0));
  return found;
}

const differs = (before: Step, { load }: Step): boolean =>
  load !== null && (load.of_previous !== null || !isEqual(load, before.load));

const placeOf = ({ exercise, group, round, entry, set, bout, side, warm_up }: Step) => ({
  exercise,
  group,
  round,
  entry,
  set,
  bout,
  side,
  warm_up,
});

/** A step of which nothing is known yet. */
export const BLANK: Step = {
  kind: "rest",
  seconds: 0,
  exercise: "",
  group: 1,
  round: 1,
  entry: 1,
  set: 1,
  bout: 1,
  short: false,
  warm_up: false,
  every: null,
  block: null,
  what: null,
  side: "both",
  setup: { items: [] },
  gear: [],
  lifting: "alone",
  reps: null,
  target: null,
  asked: "",
  load: null,
  effort: null,
  tempo: null,
  range_of_motion: "full",
  settled: null,
  then_rest: null,
  then_every: null,
  load_seconds: null,
  counts: null,
  least: null,
  most: null,
  as_planned: null,
  reserve: null,
  shape: "",
  pitch: null,
  left_out: false,
  finds: false,
  foretold: null,
};

const MOST_EXTRA = 20;

/** One more set of some entries, as far as the record takes them. */
export const oneMore = ({ extra }: Adjustments, entries: Iterable<string>): Pick<Adjustments, "extra"> => ({
  extra: {
    ...extra,
    ...Object.fromEntries([...entries].map((key) => [key, Math.min((extra[key] ?? 0) + 1, MOST_EXTRA)])),
  },
});

/** A plan nobody changed. */
export const UNCHANGED: Adjustments = {
  skipped: [],
  extra: {},
  swapped: {},
  loads: {},
  setups: {},
  order: [],
  within: {},
  prepared: [],
};

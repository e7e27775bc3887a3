import type { Step } from "@/data/client";

interface Asked {
  exercise?: string;
  set?: number;
  bout?: number;
  kg?: number | null;
  percent?: number | null;
  reps?: number | null;
  leave?: number;
  hold?: number;
}

const EMPTY: Step = {
  kind: "work",
  seconds: 10,
  exercise: "Front squat",
  group: 1,
  round: 1,
  entry: 1,
  set: 1,
  bout: 1,
  short: false,
  what: null,
  side: "both",
  setup: { items: [] },
  lifting: "alone",
  reps: null,
  target: null,
  asked: "",
  load: null,
  effort: null,
  tempo: null,
  range_of_motion: "full",
  warm_up: false,
  every: null,
  block: null,
  settled: null,
};

const NO_LOAD = {
  kg: null,
  body: null,
  percent: null,
  rep_max: null,
  low_kg: null,
  high_kg: null,
  of_previous: null,
  of_top: null,
};

/** A bout to do, for tests. */
export function work({ kg = null, percent = null, reps = null, leave, hold, ...place }: Asked): Step {
  const target = hold
    ? ({ kind: "hold", seconds: hold } as const)
    : reps === null
      ? null
      : ({ kind: "reps", count: reps } as const);
  return {
    ...EMPTY,
    ...place,
    round: place.set ?? 1,
    reps,
    target,
    load: kg === null && percent === null ? null : { ...NO_LOAD, kg, percent },
    effort: leave === undefined ? null : { kind: "leave", low: leave, high: leave },
  };
}

/** A rest before a bout, for tests. */
export const rest = (
  place: Pick<Asked, "exercise" | "set" | "bout"> & { seconds: number; short?: boolean },
): Step => ({
  ...EMPTY,
  ...place,
  kind: "rest",
});

import type { Step } from "@/data/client";
import { BLANK } from "@/session/played";

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
  ...BLANK,
  kind: "work",
  seconds: 10,
  exercise: "Front squat",
  counts: "reps",
  least: 0,
};

export const NO_LOAD = {
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
  const number = hold ?? reps;
  return {
    ...EMPTY,
    ...place,
    round: place.set ?? 1,
    reps,
    target,
    counts: hold ? "seconds" : "reps",
    least: hold ? Math.floor(hold * 0.95) : (reps ?? 0),
    most: number,
    as_planned: number,
    reserve: leave ?? null,
    pitch: kg ?? percent ?? 100,
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

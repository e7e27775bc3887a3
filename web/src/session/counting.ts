import type { Schemas, Step } from "@/data/client";

/*
 * How the reps of a bout are counted. The rules are those of `fortis/core/structure/counting.py` and
 * `fortis/core/performance.py`; both sides are held to the same cases (`golden/counting.json`).
 */

type BoutDone = Schemas["BoutDone"];
type Count = Pick<BoutDone, "reps" | "partial_reps" | "seconds">;
type Counted = Pick<Step, "counts">;

/** What a number told of a bout means: reps, half reps where those were asked for, the seconds of a hold. */
export function countOf({ counts }: Counted, number: number): Count {
  const none = { reps: 0, partial_reps: 0, seconds: 0 };
  switch (counts) {
    case "seconds":
      return { ...none, seconds: number };
    case "half reps":
      return { ...none, partial_reps: number };
    case "full and half reps in turn":
      return { ...none, reps: Math.ceil(number / 2), partial_reps: Math.floor(number / 2) };
    default:
      return { ...none, reps: number };
  }
}

/** What counts of a bout beside its target. */
export function numberOf({ counts }: Counted, { reps, partial_reps, seconds }: Count): number {
  switch (counts) {
    case "seconds":
      return seconds;
    case "half reps":
      return partial_reps;
    case "full and half reps in turn":
      return reps + partial_reps;
    default:
      return reps;
  }
}

/** What a lifter's word implies: why it ended follows from the number, and who could not move it had none left. */
export function completed<T extends Count & Pick<BoutDone, "ended" | "reserve" | "or_more">>(
  step: Counted & Pick<Step, "least">,
  bout: T,
  endedGiven: boolean,
): T {
  const next = { ...bout };
  if (!endedGiven) {
    const short = numberOf(step, next) < (step.least ?? 0);
    if (short && next.ended === "target met") next.ended = null;
    if (!short && !next.ended) next.ended = "target met";
  }
  if (next.ended === "could not move it") Object.assign(next, { reserve: 0, or_more: false });
  return next;
}

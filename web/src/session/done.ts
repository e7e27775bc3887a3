import type { Bout, Schemas, Step } from "@/data/client";
import { countOf } from "./counting";
import { positionKey, positionOf } from "./position";

export type BoutDone = Schemas["BoutDone"];

/** Bouts done, by the index of the step they belong to. */
export type Done = Map<number, Schemas["Recorded"]>;

export function byStep(steps: Step[], recorded: Schemas["Recorded"][]): Done {
  const byPosition = new Map(recorded.map((each) => [positionKey(each.bout.position), each]));
  const done: Done = new Map();
  for (const [index, step] of steps.entries()) {
    const found = step.kind === "work" ? byPosition.get(positionKey(positionOf(step))) : undefined;
    if (found) done.set(index, found);
  }
  return done;
}

/** When a bout began and ended, in milliseconds, and the moments of its reps. */
export interface Times {
  at: number;
  began?: number | null;
  taps?: number[];
}

/**
 * A bout done just as planned, as far as the plan says: reps that were tapped, seconds that were held. What only the
 * lifter can say, the reps of a `max`, is left at none.
 */
export function asPlanned(step: Step, { at, began = null, taps = [] }: Times): BoutDone {
  const held = step.counts === "seconds" && began !== null ? Math.round((at - began) / 1000) : 0;
  return {
    exercise: step.exercise,
    setup: step.setup,
    side: step.side,
    kg: step.load?.kg ?? null,
    ...countOf(step, held || taps.length || (step.as_planned ?? 0)),
    reserve: null,
    or_more: false,
    ended: "target met",
    note: "",
    rep_seconds: taps,
    began_at: began === null ? null : new Date(began).toISOString(),
    done_at: new Date(at).toISOString(),
  };
}

/** Whether only the lifter can say how many reps were done: the target is open and nothing was tapped. */
export const mustAsk = (step: Step, taps: readonly number[]): boolean =>
  step.as_planned === null && step.counts !== "seconds" && !taps.length;

/** A recorded bout as what is sent to correct it. */
export const toSend = ({
  bout,
  began_at,
  done_at,
}: Pick<Schemas["Recorded"], "bout" | "began_at" | "done_at">): BoutDone => ({
  exercise: bout.exercise,
  setup: bout.setup,
  side: bout.side,
  kg: bout.kg,
  reps: bout.reps,
  partial_reps: bout.partial_reps,
  seconds: bout.seconds,
  reserve: bout.reserve,
  or_more: bout.or_more,
  ended: bout.ended,
  note: bout.note,
  rep_seconds: bout.rep_seconds,
  began_at,
  done_at,
});

/** What was said of a bout, as the record will have it once it has been taken. */
export const boutOf = (position: Bout["position"], done: BoutDone): Bout => ({
  position,
  exercise: done.exercise,
  lift_id: "",
  setup: { items: done.setup?.items ?? [] },
  side: done.side ?? "both",
  kg: done.kg ?? null,
  body: false,
  bottom_kg: null,
  top_kg: null,
  mean_kg: null,
  reps: done.reps,
  partial_reps: done.partial_reps ?? 0,
  seconds: done.seconds ?? 0,
  reserve: done.reserve ?? null,
  or_more: done.or_more ?? false,
  ended: done.ended ?? null,
  note: done.note ?? "",
  rep_seconds: done.rep_seconds ?? [],
  asked: null,
  source: null,
});

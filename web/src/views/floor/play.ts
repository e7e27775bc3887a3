import type { Bout, Position, Schemas, Step } from "@/data/client";
import { placeKey } from "@/data/outbox";

/** What the lifter did to the clock, about the bout at `place` only. Kept on this device. */
export interface Mark {
  place: string;
  startedAt: number | null;
  extra: number;
}

export const NO_MARK: Mark = { place: "", startedAt: null, extra: 0 };

export type Mode = "ready" | "working" | "resting" | "over";

/** Where the session stands. `work` and `before` are indexes of steps. */
export interface Place {
  mode: Mode;
  /** The bout that is on or comes next; null when all are done. */
  work: number | null;
  /** The bout done last. */
  before: number | null;
  /** The rest that leads to `work`, in seconds, what was added to it included. */
  rest: number;
  /** Whether that rest is inside a set. */
  short: boolean;
  /** Seconds left of the rest, below zero when it is over; seconds since the start while working. */
  clock: number;
}

export const positionOf = ({ group, round, entry, set, bout }: Step): Position => ({
  group,
  round,
  entry,
  set,
  bout,
});

export type Done = Map<number, Schemas["Recorded"]>;

/** Bouts done, by the index of the step they belong to. */
export function byStep(steps: Step[], recorded: Schemas["Recorded"][]): Done {
  const byPlace = new Map(recorded.map((each) => [placeKey(each.bout.position), each]));
  const done: Done = new Map();
  for (const [index, step] of steps.entries()) {
    const found = step.kind === "work" ? byPlace.get(placeKey(positionOf(step))) : undefined;
    if (found) done.set(index, found);
  }
  return done;
}

/** Derive where the session stands from what was done, the lifter's mark and the time. Times in milliseconds. */
export function placeOf(steps: Step[], done: Done, mark: Mark, now: number): Place {
  const next = steps.findIndex((step, index) => step.kind === "work" && !done.has(index));
  const work = next < 0 ? null : next;
  const before = lastDone(done);
  const nothing = { work, before, rest: 0, short: false };
  if (work === null) return { ...nothing, mode: "ready", clock: 0 };
  const own = mark.place === placeKey(positionOf(steps[work] as Step)) ? mark : NO_MARK;
  if (own.startedAt !== null) return { ...nothing, mode: "working", clock: (now - own.startedAt) / 1000 };
  const rest = restBefore(steps, work);
  if (!rest || before === null) return { ...nothing, mode: "ready", clock: 0 };
  const since = (now - Date.parse((done.get(before) as Schemas["Recorded"]).done_at)) / 1000;
  const total = rest.seconds + own.extra;
  const clock = Math.min(total - since, total);
  return { work, before, rest: total, short: rest.short, mode: clock > 0 ? "resting" : "over", clock };
}

function lastDone(done: Done): number | null {
  let last: number | null = null;
  let at = Number.NEGATIVE_INFINITY;
  for (const [index, { done_at }] of done) {
    const moment = Date.parse(done_at);
    if (moment >= at) [last, at] = [index, moment];
  }
  return last;
}

function restBefore(steps: Step[], work: number): Step | undefined {
  for (let index = work - 1; index >= 0 && steps[index]?.kind !== "work"; index--) {
    if (steps[index]?.kind === "rest") return steps[index];
  }
  return undefined;
}

/** Seconds the plan still takes from step `from` on. */
export const secondsLeft = (steps: Step[], from: number | null): number =>
  from === null ? 0 : steps.slice(from).reduce((sum, step) => sum + step.seconds, 0);

export type BoutDone = Schemas["BoutDone"];

/** A bout done just as planned, as far as the plan says. */
export function asPlanned(step: Step, at: number): BoutDone {
  const hold = step.target?.kind === "hold";
  return {
    exercise: step.exercise,
    setup: step.setup,
    side: step.side,
    kg: step.load?.kg ?? null,
    reps: hold ? 0 : (step.reps ?? 0),
    seconds: hold && step.target?.kind === "hold" ? step.target.seconds : 0,
    partial_reps: 0,
    reserve: null,
    ended: "target met",
    done_at: new Date(at).toISOString(),
  };
}

/** A recorded bout as what is sent to correct it. */
export const toSend = (bout: Bout, doneAt: string): BoutDone => ({
  exercise: bout.exercise,
  setup: bout.setup,
  side: bout.side,
  kg: bout.kg,
  reps: bout.reps,
  partial_reps: bout.partial_reps,
  seconds: bout.seconds,
  reserve: bout.reserve,
  ended: bout.ended,
  done_at: doneAt,
});

/** The fewest reps that meet a target. */
export const leastReps = (target: Step["target"]): number =>
  target?.kind === "reps" ? target.count : target?.kind === "range" ? target.low : 0;

/** The most reps the row of notes offers: two past the target, or a full dozen where there is none. */
export function mostReps(target: Step["target"]): number {
  if (target?.kind === "reps") return target.count + 2;
  if (target?.kind === "range") return target.high + 2;
  return 14;
}

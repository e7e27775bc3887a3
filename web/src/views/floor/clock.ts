import type { Schemas, Step } from "@/data/client";
import type { Done } from "@/session/done";
import { positionKey, positionOf } from "@/session/position";
import { type Begun, blockEnd, blockOf, roundStart } from "./blocks";

/** What the lifter did to the clock, about the bout at `position` only. Kept on this device. */
export interface Mark {
  position: string;
  startedAt: number | null;
  /** Seconds added to the rest. */
  extra: number;
  /** Since when the clock stands still. */
  pausedAt?: number | null;
  /** When each rep was tapped, in seconds from the start of the bout. */
  taps?: number[];
  /** The round and the block that were begun last: they outlast the bout. */
  begun?: Begun | null;
}

export const NO_MARK: Mark = {
  position: "",
  startedAt: null,
  extra: 0,
  pausedAt: null,
  taps: [],
  begun: null,
};

export type Mode = "ready" | "working" | "resting" | "over";

/** Where the session stands. `work` and `before` are indexes of steps. */
export interface Standing {
  mode: Mode;
  /** The bout that is on or comes next; null when all are done. */
  work: number | null;
  /** The bout done last. */
  before: number | null;
  /** The rest that leads to `work`, in seconds, what was added to it included. */
  rest: number;
  /** Whether that rest is inside a set. */
  short: boolean;
  /** Where rounds start by the clock: every so many seconds. */
  every: number | null;
  /** When the clock shows zero, in milliseconds: the start of the bout that is on, else the end of the rest. */
  zero: number;
  /** Since when the clock stands still; null while it goes. */
  stoodAt: number | null;
  /** When the block against the clock that is on will be over, in milliseconds. */
  blockEndsAt: number | null;
  /** Whether that block has run out and no bout of it is being done. */
  blockOver: boolean;
}

/** Seconds since the start while working; else seconds left of the rest, below zero when it is over. */
export function clockAt({ mode, zero, rest, stoodAt }: Standing, now: number): number {
  const since = ((stoodAt ?? now) - zero) / 1000;
  if (mode === "working") return since;
  return mode === "ready" ? 0 : Math.min(-since, rest);
}

/** What a standing has become as time went by: a rest runs out. */
export const modeAt = ({ mode, zero, stoodAt }: Standing, now: number): Mode =>
  mode !== "resting" && mode !== "over" ? mode : (stoodAt ?? now) < zero ? "resting" : "over";

/** Seconds left of the block that is on, below zero when it is over; null where none is. */
export const blockLeft = ({ blockEndsAt, stoodAt }: Standing, now: number): number | null =>
  blockEndsAt === null ? null : (blockEndsAt - (stoodAt ?? now)) / 1000;

/** Whether the block that is on has run out as time went by. */
export function isBlockOver(standing: Standing, now: number): boolean {
  const left = blockLeft(standing, now);
  return left !== null && left <= 0 && standing.mode !== "working";
}

/** Derive where the session stands from what was done, the lifter's mark and the time. Times in milliseconds. */
export function standingOf(steps: Step[], done: Done, mark: Mark, now: number): Standing {
  const next = steps.findIndex((step, index) => step.kind === "work" && !step.left_out && !done.has(index));
  const work = next < 0 ? null : next;
  const before = lastDone(done);
  const ready: Standing = { ...NOWHERE, work, before };
  const step = work === null ? undefined : steps[work];
  if (work === null || !step) return ready;
  const own = mark.position === positionKey(positionOf(step)) ? mark : NO_MARK;
  const begun = mark.begun ?? null;
  const previous = before === null ? undefined : steps[before];
  const inBlock = own.startedAt !== null || (previous && blockOf(previous) === blockOf(step));
  const blockEndsAt = inBlock ? blockEnd(steps, done, step, begun) : null;
  const here: Standing = { ...ready, stoodAt: own.pausedAt ?? null, blockEndsAt };
  if (own.startedAt !== null) return { ...here, mode: "working", zero: own.startedAt };
  const rest = restBefore(steps, work);
  if (!rest || before === null || !previous) return { ...here, blockOver: isBlockOver(here, now) };
  const ended = Date.parse((done.get(before) as Schemas["Recorded"]).done_at);
  const every = rest.every ?? null;
  const start = every === null ? null : roundStart(steps, done, previous, begun);
  const due = every === null || start === null ? ended + rest.seconds * 1000 : start + every * 1000;
  const zero = due + own.extra * 1000;
  const seconds = Math.max((zero - ended) / 1000, 0);
  const resting: Standing = { ...here, mode: "resting", rest: seconds, short: rest.short, every, zero };
  return { ...resting, mode: modeAt(resting, now), blockOver: isBlockOver(resting, now) };
}

const NOWHERE: Standing = {
  mode: "ready",
  work: null,
  before: null,
  rest: 0,
  short: false,
  every: null,
  zero: 0,
  stoodAt: null,
  blockEndsAt: null,
  blockOver: false,
};

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

/** Seconds the session still takes: the steps that lead to bouts still to be done, and those bouts. */
export function secondsLeft(steps: Step[], done: Done, from: number | null): number {
  if (from === null) return 0;
  let sum = 0;
  let leading = 0;
  for (const [index, step] of steps.entries()) {
    if (step.left_out) continue;
    if (step.kind !== "work") leading += step.seconds;
    else {
      if (index >= from && !done.has(index)) sum += (index === from ? 0 : leading) + step.seconds;
      leading = 0;
    }
  }
  return sum;
}

/** What is asked for at the same moment on the score: the next bout after one, and the rest before it. */
export function following(steps: Step[], from: number): { rest: Step | undefined; work: Step | undefined } {
  const at = steps.findIndex((step, index) => index > from && step.kind === "work");
  return { rest: at < 0 ? undefined : restBefore(steps, at), work: steps[at] };
}

const SHOWN = 16;

/**
 * The numbers that the row of notes offers, `count` among them: none, and up to two past the target (a full dozen
 * and two where there is none); of a hold seconds in even steps.
 */
export function offered({ counts, most }: Pick<Step, "counts" | "most">, count: number | null): number[] {
  if (counts === "seconds" && most !== null) {
    const apart = Math.max(Math.ceil(most / 6 / 5) * 5, 5);
    const steps = Array.from({ length: Math.ceil(most / apart) + 2 }, (_, place) => place * apart);
    return [...new Set([...steps, most, count ?? 0])].sort((a, b) => a - b);
  }
  const last = Math.max((most ?? 12) + 2, (count ?? 0) + 1);
  const first = Math.max(last - SHOWN + 1, 0);
  return Array.from({ length: last - first + 1 }, (_, place) => first + place);
}

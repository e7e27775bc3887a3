import type { Bout, Position, Schemas, Step } from "@/data/client";
import { placeKey } from "@/data/overlay";
import { type Begun, blockEnd, blockOf, roundStart } from "./begun";

/** What the lifter did to the clock, about the bout at `place` only. Kept on this device. */
export interface Mark {
  place: string;
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

export const NO_MARK: Mark = { place: "", startedAt: null, extra: 0, pausedAt: null, taps: [], begun: null };

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
export function clockAt({ mode, zero, rest, stoodAt }: Place, now: number): number {
  const since = ((stoodAt ?? now) - zero) / 1000;
  if (mode === "working") return since;
  return mode === "ready" ? 0 : Math.min(-since, rest);
}

/** What a place has become as time went by: a rest runs out. */
export const modeAt = ({ mode, zero, stoodAt }: Place, now: number): Mode =>
  mode !== "resting" && mode !== "over" ? mode : (stoodAt ?? now) < zero ? "resting" : "over";

/** Seconds left of the block that is on, below zero when it is over; null where none is. */
export const blockLeft = ({ blockEndsAt, stoodAt }: Place, now: number): number | null =>
  blockEndsAt === null ? null : (blockEndsAt - (stoodAt ?? now)) / 1000;

/** Whether the block of a place has run out as time went by. */
export function isBlockOver(place: Place, now: number): boolean {
  const left = blockLeft(place, now);
  return left !== null && left <= 0 && place.mode !== "working";
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
export function placeOf(
  steps: Step[],
  done: Done,
  mark: Mark,
  now: number,
  skipped: ReadonlySet<string> = NONE,
): Place {
  const next = steps.findIndex(
    (step, index) => step.kind === "work" && !done.has(index) && !skipped.has(placeKey(positionOf(step))),
  );
  const work = next < 0 ? null : next;
  const before = lastDone(done);
  const ready: Place = { ...NOWHERE, work, before };
  const step = work === null ? undefined : steps[work];
  if (work === null || !step) return ready;
  const own = mark.place === placeKey(positionOf(step)) ? mark : NO_MARK;
  const begun = mark.begun ?? null;
  const previous = before === null ? undefined : steps[before];
  const inBlock = own.startedAt !== null || (previous && blockOf(previous) === blockOf(step));
  const blockEndsAt = inBlock ? blockEnd(steps, done, step, begun) : null;
  const here: Place = { ...ready, stoodAt: own.pausedAt ?? null, blockEndsAt };
  if (own.startedAt !== null) return { ...here, mode: "working", zero: own.startedAt };
  const rest = restBefore(steps, work);
  if (!rest || before === null || !previous) return { ...here, blockOver: isBlockOver(here, now) };
  const ended = Date.parse((done.get(before) as Schemas["Recorded"]).done_at);
  const every = rest.every ?? null;
  const start = every === null ? null : roundStart(steps, done, previous, begun);
  const due = every === null || start === null ? ended + rest.seconds * 1000 : start + every * 1000;
  const zero = due + own.extra * 1000;
  const seconds = Math.max((zero - ended) / 1000, 0);
  const resting: Place = { ...here, mode: "resting", rest: seconds, short: rest.short, every, zero };
  return { ...resting, mode: modeAt(resting, now), blockOver: isBlockOver(resting, now) };
}

const NONE: ReadonlySet<string> = new Set();

const NOWHERE: Place = {
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

/** Seconds the plan still takes from step `from` on. */
export const secondsLeft = (steps: Step[], from: number | null): number =>
  from === null ? 0 : steps.slice(from).reduce((sum, step) => sum + step.seconds, 0);

export type BoutDone = Schemas["BoutDone"];

/** Whether the reps of a step are half reps all of them. */
export const isHalf = ({ range_of_motion }: Pick<Step, "range_of_motion">): boolean =>
  range_of_motion === "stretched halves" || range_of_motion === "shortened halves";

type Counted = Pick<Step, "range_of_motion" | "target">;
type Count = Pick<BoutDone, "reps"> & Partial<Pick<BoutDone, "partial_reps" | "seconds">>;

/** What a number said of a bout means: reps, half reps where those were asked for, the seconds of a hold. */
export function repsSaid(step: Counted, said: number): Count {
  if (step.target?.kind === "hold") return { reps: 0, seconds: said };
  return isHalf(step) ? { reps: 0, partial_reps: said } : { reps: said };
}

/** What counts of a bout: its reps, the half ones where those were asked for, the seconds of a hold. */
export function countOf(step: Counted, bout: Count): number {
  if (step.target?.kind === "hold") return bout.seconds ?? 0;
  return isHalf(step) ? (bout.partial_reps ?? 0) : bout.reps;
}

/** A bout done just as planned, as far as the plan says. */
export function asPlanned(step: Step, at: number, elapsed = 0, taps: number[] = []): BoutDone {
  const { target } = step;
  const count = target?.kind === "hold" ? Math.round(elapsed) || target.seconds : taps.length || step.reps;
  return {
    exercise: step.exercise,
    setup: step.setup,
    side: step.side,
    kg: step.load?.kg ?? null,
    partial_reps: 0,
    seconds: 0,
    ...repsSaid(step, count ?? 0),
    reserve: null,
    ended: "target met",
    note: "",
    rep_seconds: taps,
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
  note: bout.note,
  rep_seconds: bout.rep_seconds,
  done_at: doneAt,
});

/** The least that meets what a step asks: in reps, or in seconds of a hold, where letting go takes a moment. */
export function leastOf({ target }: Pick<Step, "target">): number {
  if (target?.kind === "hold") return Math.floor(target.seconds * 0.95);
  return target?.kind === "reps" ? target.count : target?.kind === "range" ? target.low : 0;
}

/** What is asked for at the same moment on the score: the next bout after one, and the rest before it. */
export function following(steps: Step[], from: number): { rest: Step | undefined; work: Step | undefined } {
  const at = steps.findIndex((step, index) => index > from && step.kind === "work");
  return { rest: at < 0 ? undefined : restBefore(steps, at), work: steps[at] };
}

/** The key under which the advice for an outcome is found. */
export function outcomeKey(bout: Pick<Bout, "reps" | "reserve" | "ended">): string {
  const left = bout.reserve === null ? "-" : Math.min(bout.reserve, 5);
  return `${bout.reps}/${left}${bout.ended === "form slipped" ? "/form" : ""}`;
}

type Advice = Schemas["Advice"];

/** Look up what the rules say after a bout; where the set before was to be watched too, what they say then. */
export function adviceFor(
  table: Schemas["AdviceTable"],
  steps: Step[],
  done: Done,
  index: number,
): Advice | null {
  const own = lookedUp(table, steps, done, index);
  const step = steps[index];
  if (!own?.again || !step) return own;
  const before = steps.findIndex(
    (each) =>
      each.kind === "work" &&
      each.group === step.group &&
      each.entry === step.entry &&
      each.set === step.set - 1 &&
      each.bout === step.bout,
  );
  return lookedUp(table, steps, done, before)?.course === "watch" ? own.again : own;
}

function lookedUp(table: Schemas["AdviceTable"], steps: Step[], done: Done, index: number): Advice | null {
  const step = steps[index];
  const bout = done.get(index)?.bout;
  if (!step || !bout || bout.exercise !== step.exercise) return null;
  const of = table.tables[table.places[placeKey(positionOf(step))] ?? -1];
  return table.advice[of?.[outcomeKey(bout)] ?? -1] ?? null;
}

/** How the tapped reps went: the usual time of one, and how much longer the last took. Null under three reps. */
export function slowingOf(taps: readonly number[]): { usual: number; last: number; times: number } | null {
  const each = taps.map((at, place) => at - (taps[place - 1] ?? 0));
  if (each.length < 3) return null;
  const early = each.slice(0, Math.max(Math.floor(each.length / 2), 2));
  const usual = early.reduce((sum, seconds) => sum + seconds, 0) / early.length;
  const last = each.at(-1) ?? usual;
  return { usual, last, times: usual > 0 ? last / usual : 1 };
}

const SHOWN = 16;

/**
 * The numbers that the row of notes offers, `count` among them: none, and up to two past the target (a full dozen
 * and two where there is none); of a hold seconds in even steps.
 */
export function offered(target: Step["target"], count: number | null): number[] {
  if (target?.kind === "hold") {
    const apart = Math.max(Math.ceil(target.seconds / 6 / 5) * 5, 5);
    const steps = Array.from({ length: Math.ceil(target.seconds / apart) + 2 }, (_, place) => place * apart);
    return [...new Set([...steps, target.seconds, count ?? 0])].sort((a, b) => a - b);
  }
  const asked = target?.kind === "reps" ? target.count : target?.kind === "range" ? target.high : 12;
  const most = Math.max(asked + 2, (count ?? 0) + 1);
  const first = Math.max(most - SHOWN + 1, 0);
  return Array.from({ length: most - first + 1 }, (_, place) => first + place);
}

import type { Bout, Step } from "@/data/client";
import { numberOf } from "@/session/counting";
import { loadWords, overWords, plain, restLabel } from "./words";

/** How a note stands to the moment: behind it, at it, or still to come. */
export type Tense = "done" | "now" | "planned";

export interface Head {
  x: number;
  kind: "full" | "half" | "missed";
  tense: Tense;
}

export interface BoutMark {
  index: number;
  x: number;
  y: number;
  width: number;
  heads: Head[];
  tense: Tense;
  label: string;
  hold: string;
  reserve: number;
  /** What is said over the beam: the side, the tempo, who lowers. */
  over: string;
  /** Whether it goes on until no rep is left: a closing bar after the last note. */
  toFailure: boolean;
  /** Where it would stand with another load that is proposed: beside itself, so that nothing moves. */
  instead: { y: number; label: string } | null;
}

export interface RestMark {
  x: number;
  y: number;
  width: number;
  label: string;
  short: boolean;
  past: boolean;
}

export interface DropMark {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  label: string;
}

export interface Line {
  y: number;
  label: string;
}

export interface Stave {
  exercise: string;
  top: number;
  /** Where its highest load is drawn. */
  base: number;
  bottom: number;
  lines: Line[];
  bouts: BoutMark[];
  rests: RestMark[];
  drops: DropMark[];
}

export interface ScoreLayout {
  width: number;
  height: number;
  staves: Stave[];
  now: number | null;
  titled: boolean;
}

export interface ScoreInput {
  /** The steps of one group, in order. */
  steps: Step[];
  /** Bouts done, by the index of their step in `steps`. */
  done?: Map<number, Bout>;
  /** Loads that are proposed instead, in kilograms, by the index of their step. */
  instead?: Map<number, number>;
  /** The index of the step that is on now. */
  at?: number | null;
  /** The width to fill; longer scores keep their own width and are scrolled. */
  width: number;
  /** Where the staves begin, right of the load labels. */
  left?: number;
  /** How far a score may be squeezed before it is scrolled instead; 1 is not at all. */
  tightest?: number;
  /** Steps of another time that the heights are to be the same with, so that both are read on one scale. */
  alongside?: Step[];
  /** Whether there is room over each stave for the name of its lift. */
  titled?: boolean;
}

export const HEAD = 14;
/** How wide a letter of a load is, and the time of a rest with some room. */
const LETTER = 7.6;
const TIME = 29;
/** How far a score is squeezed before it is scrolled instead. */
export const TIGHTEST = 0.72;
const MOST_HEADS = 40;
const LEAD = 26;
const EDGE = 8;
const GAP = 20;
const STEM = 26;
const STAVE_TITLE = 34;
/** Room for what is said over the beams, where anything is. */
const OVER = 14;
/** What is said over the beams is clear of the edge, where no name stands above it. */
const CLEAR = 6;
const STAVE_BELOW = 34;
const PITCH = 34;
const APART = 9;

/** Lay out one group as a score: a stave an exercise, load as pitch, the steps in order from left to right. */
export function layoutScore({
  steps,
  done = new Map(),
  instead = new Map(),
  at = null,
  width,
  left = 64,
  tightest = TIGHTEST,
  titled = true,
  alongside = [],
}: ScoreInput): ScoreLayout {
  const names = [...new Set(steps.map((step) => step.exercise))];
  const pitches = names.map((name) =>
    pitchOf([...steps, ...alongside].filter((step) => step.exercise === name && step.kind === "work")),
  );
  const spans = spansOf(steps, done);
  const natural = spans.reduce((sum, span) => sum + span, LEAD);
  const room = width - left - 2 * EDGE;
  const squeeze = natural > room ? Math.max(room / natural, tightest) : Math.min(room / natural, 1.35);
  const staves: Stave[] = [];
  let top = 0;
  for (const [place, exercise] of names.entries()) {
    const pitch = pitches[place] as Pitch;
    const over = steps.some((step) => step.exercise === exercise && overWords(step, null) !== "");
    const base = top + (titled ? STAVE_TITLE : 0) + (over ? OVER : 0) + (over && !titled ? CLEAR : 0) + STEM;
    const bottom = base + pitch.height + STAVE_BELOW;
    const lines = pitch.lines.map((line) => ({ y: base + pitch.y(line.load), label: line.label }));
    staves.push({ exercise, top, base, bottom, lines, bouts: [], rests: [], drops: [] });
    top = bottom;
  }
  const placed = new Placing(staves, names, pitches, squeeze);
  let x = left + LEAD * squeeze;
  let now: number | null = null;
  for (const [index, step] of steps.entries()) {
    const span = (spans[index] as number) * squeeze;
    const tense: Tense = done.has(index) ? "done" : index === at ? "now" : "planned";
    if (index === at) now = x;
    placed.place(step, index, x, span, tense, done.get(index), instead.get(index));
    x += span;
  }
  return { width: Math.max(x + EDGE, width), height: top, staves, now, titled };
}

/** Puts marks on their staves, remembering what stands before each. */
class Placing {
  private last = new Map<string, { x: number; mark: BoutMark; load: string; step: Step }>();
  private rest: { step: Step; x: number; span: number } | null = null;
  private lastExercise: string | null = null;
  private staves: Stave[];
  private names: string[];
  private pitches: Pitch[];
  private squeeze: number;

  constructor(staves: Stave[], names: string[], pitches: Pitch[], squeeze: number) {
    this.staves = staves;
    this.names = names;
    this.pitches = pitches;
    this.squeeze = squeeze;
  }

  place(
    step: Step,
    index: number,
    x: number,
    span: number,
    tense: Tense,
    bout: Bout | undefined,
    instead: number | undefined,
  ) {
    if (step.kind === "rest") this.rest = { step, x, span };
    if (step.kind !== "work") return;
    const stave = this.staves[this.names.indexOf(step.exercise)] as Stave;
    const pitch = this.pitches[this.names.indexOf(step.exercise)] as Pitch;
    const y = stave.base + pitch.y(pitch.of(step));
    const load = bout?.kg != null && !step.load?.body ? plain(bout.kg) : loadWords(step);
    const before = this.last.get(step.exercise);
    const mark = boutMark(step, index, x, y, span, tense, bout, this.squeeze);
    if (before && before.load === load && before.mark.y === y && step.bout > 1) mark.label = "";
    else mark.label = [load, mark.label].filter(Boolean).join(" ");
    if (instead !== undefined)
      mark.instead = { y: y + (instead > pitch.of(step) ? -APART : APART), label: plain(instead) };
    stave.bouts.push(mark);
    this.join(step, stave, mark, before?.mark, x);
    mark.over = overWords(step, before?.step ?? null);
    this.last.set(step.exercise, { x, mark, load, step });
    this.lastExercise = step.exercise;
    this.rest = null;
  }

  /** Draw what lies between this bout and the one before: a rest, or the fall of a drop. */
  private join(step: Step, stave: Stave, mark: BoutMark, before: BoutMark | undefined, x: number) {
    const within = step.bout > 1 && before && !step.warm_up;
    if (within && before.y !== mark.y) {
      const label = `${this.rest?.step.seconds ?? 0} s`;
      stave.drops.push({ x1: before.x + before.width + 4, y1: before.y, x2: x - 10, y2: mark.y, label });
      return;
    }
    if (!this.rest) return;
    const of = this.staves[this.names.indexOf(this.lastExercise ?? step.exercise)] ?? stave;
    const { x: from, span, step: rest } = this.rest;
    const y = of.bouts.at(-1)?.y ?? mark.y;
    const inset = rest.short ? 5 : 12;
    of.rests.push({
      x: from + inset,
      y,
      width: Math.max(span - 2 * inset - 7, 8),
      label: restLabel(rest.seconds),
      short: rest.short,
      past: mark.tense === "done",
    });
  }
}

function boutMark(
  step: Step,
  index: number,
  x: number,
  y: number,
  span: number,
  tense: Tense,
  bout: Bout | undefined,
  squeeze: number,
): BoutMark {
  const count = headCount(step, bout);
  const halves = Math.min(bout?.partial_reps ?? 0, MOST_HEADS);
  const spacing = headSpacing(count + halves) * squeeze;
  const missed = Math.min(missing(step, bout), MOST_HEADS);
  const halfAsked = (place: number) =>
    step.range_of_motion === "alternating halves" ? place % 2 === 1 : step.range_of_motion !== "full";
  const kinds: Head["kind"][] = [
    ...Array.from({ length: count }, (_, place): Head["kind"] => (halfAsked(place) ? "half" : "full")),
    ...Array<Head["kind"]>(halves).fill("half"),
    ...Array<Head["kind"]>(missed).fill("missed"),
  ];
  const heads = kinds.map((kind, place) => ({ x: x + place * spacing, kind, tense }));
  const target = step.target;
  const label =
    target?.kind === "range" && !bout
      ? `× ${target.low}–${target.high}`
      : target?.kind === "max" && !bout
        ? "× max"
        : "";
  const hold = target?.kind === "hold" ? `${bout?.seconds || target.seconds} s` : "";
  const width = hold ? span - GAP * squeeze : Math.max((heads.length - 1) * spacing, 0);
  return {
    index,
    x,
    y,
    width,
    heads: hold ? [] : heads,
    tense,
    label,
    hold,
    reserve: reserve(step, bout),
    over: "",
    toFailure: step.effort?.kind === "failure",
    instead: null,
  };
}

const headCount = (step: Step, bout: Bout | undefined) =>
  Math.min(bout ? bout.reps : (step.reps ?? 0) - short(step), MOST_HEADS);

/** The reps that are likely to be missing to what a bout asks; one that goes to the end has as many as it has. */
const short = ({ foretold, reps, effort }: Step) =>
  foretold && effort?.kind !== "failure" ? Math.max((reps ?? 0) - foretold.reps, 0) : 0;

const headSpacing = (count: number) => (count <= 8 ? HEAD : count <= 15 ? 11 : 8);

/** The reps missing to what was asked: done short, or foretold to be. */
function missing(step: Step, bout: Bout | undefined): number {
  if (!bout) return short(step);
  return step.counts === "seconds" ? 0 : Math.max((step.least ?? 0) - numberOf(step, bout), 0);
}

/** The reps left: as told, as foretold, or as planned. */
const reserve = (step: Step, bout: Bout | undefined) =>
  Math.floor(Math.min((bout ? bout.reserve : leftOf(step)) ?? 0, 5));

const leftOf = (step: Step) =>
  step.foretold ? (short(step) > 0 ? 0 : Math.round(step.foretold.left)) : step.reserve;

/** How wide each step is. Rests grow with their length, but slowly: the eye wants order more than scale. */
function spansOf(steps: Step[], done: Map<number, Bout>): number[] {
  return steps.map((step, index) => {
    if (step.kind === "rest")
      return step.short ? 34 : Math.max(44 + Math.min(step.seconds / 9, 26), besides(steps.slice(index + 1)));
    if (step.kind === "change") return step.what === "load" && step.seconds > 0 ? 22 : 0;
    if (step.target?.kind === "hold") return 70 + GAP;
    const bout = done.get(index);
    const heads = headCount(step, bout) + (bout?.partial_reps ?? 0) + missing(step, bout);
    const labels = step.target?.kind === "range" || step.target?.kind === "max" ? 18 : 0;
    return (heads - 1) * headSpacing(heads) + reserve(step, bout) * 9 + GAP + labels;
  });
}

/** How wide a rest is whose time is clear of the load of the next bout: few notes have a load longer than they are. */
function besides(following: Step[]): number {
  const next = following.find((step) => step.kind === "work");
  if (!next) return 0;
  const notes = (headCount(next, undefined) - 1) * HEAD;
  return (loadWords(next).length * LETTER - notes + TIME) / TIGHTEST;
}

interface Pitch {
  height: number;
  lines: { load: number; label: string }[];
  of: (step: Step) => number;
  y: (load: number) => number;
}

/** The staff of one exercise: a line for each load used, heavier higher; ticks where there are many. */
function pitchOf(work: Step[]): Pitch {
  const known = (step: Step) => step.load?.kg ?? step.load?.percent ?? null;
  const distinct = [...new Set(work.map((step) => step.pitch ?? 0))].sort((a, b) => b - a);
  const [high, low] = [distinct[0] ?? 0, distinct.at(-1) ?? 0];
  const height = distinct.length > 1 ? PITCH * Math.min(distinct.length - 1, 2) : 0;
  const shown = distinct.length <= 3 ? distinct : [high, (high + low) / 2, low];
  const step = work[0];
  const label = (load: number) => {
    if (!step?.load) return "";
    if (step.load.body) return load === 0 ? "bw" : `${load > 0 ? "+" : "−"}${plain(Math.abs(load))}`;
    return known(step) === null ? "" : plain(load);
  };
  return {
    height,
    lines: shown.map((load) => ({ load, label: label(load) })),
    of: (of) => of.pitch ?? low,
    y: (load) => (height ? (height * (high - load)) / (high - low) : 0),
  };
}

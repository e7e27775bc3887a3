import type { Bout, Reason, Schemas, Step } from "@/data/client";

/** A number as a lifter writes it: no trailing zeros, two decimals at most. */
export const plain = (number: number): string => String(Math.round(number * 100) / 100);

/** A number to its tenth. */
export const tenth = (number: number): number => Math.round(number * 10) / 10;

/** A number to its half. */
export const half = (number: number): number => Math.round(number * 2) / 2;

/** A whole number with its thousands set apart: 12,340. By hand, because the browser's own takes a slow phone a moment. */
export const grouped = (whole: number): string => String(whole).replace(/\B(?=(\d{3})+$)/g, ",");

/** Kilograms with thousands set apart, rounded to whole ones from a thousand up. */
export const kilograms = (kg: number): string => `${kg >= 1000 ? grouped(Math.round(kg)) : plain(kg)} kg`;

/** The average load of a rep, where there is one. */
export const averageWords = (of: { average_kg: number | null } | undefined): string =>
  of?.average_kg == null ? "–" : `${plain(of.average_kg)} kg`;

/** A clock: 7 → 0:07, 151 → 2:31, 3720 → 1:02:00. Below zero it counts on with a plus. */
export function clock(seconds: number): string {
  const whole = Math.abs(Math.trunc(seconds));
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const tail = `${hours ? String(minutes).padStart(2, "0") : minutes}:${String(rest).padStart(2, "0")}`;
  return `${seconds < 0 && whole ? "+" : ""}${hours ? `${hours}:` : ""}${tail}`;
}

/** A rest on the score: bare seconds inside a set, a clock between sets. */
export const restLabel = (seconds: number): string => (seconds < 60 ? String(seconds) : clock(seconds));

export const restWords = (seconds: number): string => (seconds < 60 ? `${seconds} s` : clock(seconds));

/** What is done before the first lift: hip drills (5 min), heat on the elbow. */
export const preparationWords = (items: Schemas["Preparation"][]): string =>
  items.map(({ what, seconds }) => (seconds === null ? what : `${what} (${timeWords(seconds)})`)).join(", ");

/** A time in minutes where it is whole ones: 5 min, 1:30. */
export const timeWords = (seconds: number): string => (seconds % 60 ? restWords(seconds) : minutes(seconds));

export const minutes = (seconds: number): string => `${Math.max(Math.round(seconds / 60), 1)} min`;

/** The load of a step, as far as it is settled: 170, bw+20, 87 %, 12RM. */
export function loadWords(step: Pick<Step, "load">): string {
  const load = step.load;
  if (!load) return "";
  if (load.kg !== null) return load.body ? bodyWords(load.kg) : plain(load.kg);
  if (load.percent !== null) return `${plain(load.percent)} %`;
  if (load.rep_max !== null) return `${load.rep_max}RM`;
  if (load.low_kg !== null && load.high_kg !== null) return `${plain(load.low_kg)}–${plain(load.high_kg)}`;
  const shift = load.of_previous ?? load.of_top;
  return shift ? `${shift.amount > 0 ? "+" : "−"}${plain(Math.abs(shift.amount))} ${shift.unit}` : "";
}

/** The load to put on as far as it is known: a share of a max that is not known is none. */
export const knownLoadWords = (step: Pick<Step, "load">): string =>
  asksUnknownMax(step) ? "" : loadWords(step);

/** Whether a step asks for a share of a max that is not known: that is no load to put on. */
export const asksUnknownMax = (step: Pick<Step, "load">): boolean =>
  step.load !== null && step.load.kg === null && (step.load.percent !== null || step.load.rep_max !== null);

/** Added or assisting load beside body weight. */
export const bodyWords = (kg: number): string =>
  kg === 0 ? "bw" : `bw${kg > 0 ? "+" : "−"}${plain(Math.abs(kg))}`;

/** The unit a load is told in: kg where it is a weight, nothing where the words say it all. */
export const loadUnit = (step: Pick<Step, "load">): string =>
  step.load && (step.load.kg !== null || step.load.low_kg !== null) && !(step.load.body && step.load.kg === 0)
    ? "kg"
    : "";

/** What a rep target asks for, in short: 5, 8–10, max, 30 s. */
export function targetWords(target: Step["target"]): string {
  switch (target?.kind) {
    case "reps":
      return String(target.count);
    case "range":
      return `${target.low}–${target.high}`;
    case "max":
      return "max";
    case "hold":
      return `${target.seconds} s`;
    default:
      return "";
  }
}

const SIDES: Record<string, string> = { left: " left", right: " right" };

export const sideWords = (side: Step["side"]): string => SIDES[side] ?? "";

/** What is said over the notes of a bout: L or R; and tempo and who lowers, where they are not as just before. */
export function overWords(step: Step, before: Step | null): string {
  const words = step.side === "left" ? ["L"] : step.side === "right" ? ["R"] : [];
  const tempo = step.tempo ? tempoWords(step.tempo) : "";
  if (tempo !== (before?.tempo ? tempoWords(before.tempo) : "")) words.push(tempo || "any tempo");
  if (step.lifting !== (before?.lifting ?? "alone")) words.push(LIFTING[step.lifting]);
  return words.join("  ");
}

const LIFTING: Record<Step["lifting"], string> = {
  alone: "alone",
  "two up one down": "2↑ 1↓",
  "helped up": "helped ↑",
};

export const tempoWords = ({ lowering, bottom, lifting, top }: NonNullable<Step["tempo"]>): string =>
  `${lowering}-${bottom}-${lifting}-${top}`;

/** How hard a bout is asked to be: leave 2, RPE 8, to failure. */
export function effortWords(effort: Step["effort"]): string {
  switch (effort?.kind) {
    case "leave":
      return effort.low === effort.high ? `leave ${effort.low}` : `leave ${effort.low} to ${effort.high}`;
    case "rpe":
      return `RPE ${plain(effort.value)}`;
    case "failure":
      return effort.how === "any" ? "to failure" : `to ${effort.how} failure`;
    default:
      return "";
  }
}

/** Reps left as they were told: 2, 1½, 5 or more. */
export function reserveWords({ reserve, or_more }: Pick<Bout, "reserve" | "or_more">): string {
  if (reserve === null) return "";
  const whole = Math.floor(reserve);
  const number = reserve === whole ? String(whole) : `${whole || ""}½`;
  return or_more ? `${number} or more` : number;
}

/** The load of a bout as it was: 75, bw+20. */
export const loadOf = ({ kg, body }: Pick<Bout, "kg" | "body">): string =>
  kg === null ? "" : body ? bodyWords(kg) : plain(kg);

/** The same with its unit: 75 kg, bw+20. */
export const weightOf = (load: Pick<Bout, "kg" | "body">): string =>
  load.kg === null || load.body ? loadOf(load) : `${loadOf(load)} kg`;

/** A bout as it went: 5 at 75 kg, 2 left. */
export function doneWords(bout: Bout): string {
  const count = bout.seconds ? `${bout.seconds} s` : String(bout.reps);
  const half = bout.partial_reps ? ` + ${bout.partial_reps} half` : "";
  const load = loadOf(bout);
  const kg = load && ` at ${load}${bout.body && bout.kg === 0 ? "" : " kg"}`;
  const left = bout.reserve === null ? "" : `, ${reserveWords(bout).replace(" or more", "+")} left`;
  return `${count}${half}${kg}${left}`;
}

const MANNERS: Partial<Record<Step["range_of_motion"] | Step["lifting"], string>> = {
  "stretched halves": "in the stretched half only",
  "shortened halves": "in the shortened half only",
  "alternating halves": "a full rep and a stretched half in turn",
  "two up one down": "up with two, down with one",
  "helped up": "helped up, lowered alone",
};

/** How the reps of a step are done, where that is not the usual way. */
export const mannerWords = ({
  range_of_motion,
  lifting,
}: Pick<Step, "range_of_motion" | "lifting">): string =>
  [MANNERS[range_of_motion], MANNERS[lifting]].filter(Boolean).join(", ");

/** Words as they begin a sentence. */
export const beginning = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** A plan read aloud: every bout and rest of one group in a sentence each. The score's text equivalent. */
export function read(steps: Step[]): string[] {
  return steps.flatMap((step) => {
    if (step.kind === "rest")
      return [`Rest ${step.seconds < 60 ? `${step.seconds} seconds` : clock(step.seconds)}.`];
    if (step.kind === "change") return [];
    const load = loadWords(step);
    const at = load ? ` at ${load}${loadUnit(step) ? " kg" : ""}` : "";
    const unit = step.target?.kind === "reps" ? (step.target.count === 1 ? " rep" : " reps") : "";
    const more = [
      step.range_of_motion === "full" ? "" : step.range_of_motion,
      step.lifting === "alone" ? "" : step.lifting,
      effortWords(step.effort),
      step.tempo ? `tempo ${tempoWords(step.tempo)}` : "",
      foretoldWords(step),
    ].filter(Boolean);
    const what = [`${targetWords(step.target)}${unit}${at}`, ...more].join(", ");
    return [`${step.exercise}${sideWords(step.side)}, set ${step.set}: ${what}.`];
  });
}

/** What is to be expected of a bout, in words. */
export function foretoldWords(step: Step): string {
  const { foretold, reps, effort, target } = step;
  if (!foretold) return "";
  if (effort?.kind === "failure" || target?.kind === "max") return `about ${foretold.reps} expected`;
  if (foretold.reps < (reps ?? 0)) return `likely to stop after ${foretold.reps}`;
  return `about ${Math.round(foretold.left)} left expected`;
}

export const reasonText = (reasons: Reason[]): string => reasons.map((reason) => reason.text).join(" ");

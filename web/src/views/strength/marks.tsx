import type { Schemas } from "@/data/client";
import { weightOf } from "@/score/words";
import { fullDate } from "../dates";

export type Observation = Schemas["Observation"];
/** What a mark on the plot says of the bout: a bound, or where in its set it stood. */
export type MarkKind = Observation["kind"] | "at least";

export const markOf = (each: Observation): MarkKind => (each.at_least ? "at least" : each.kind);

export const LEGEND: readonly MarkKind[] = [
  "fresh",
  "tired",
  "in a cluster",
  "in a drop",
  "at least",
  "missed",
  "remembered",
];

/** The mark of a bout: its shape says the structure it came from. */
export function Mark({ kind, x, y }: { kind: MarkKind; x: number; y: number }) {
  const at = `translate(${x} ${y})`;
  switch (kind) {
    case "missed":
      return (
        <path transform={at} d="M-5-5l10 10m0-10l-10 10" className="fill-none stroke-work" strokeWidth={2} />
      );
    case "at least":
      return (
        <path
          transform={at}
          d="M0 6v-12m-4 4l4-4 4 4m-9 8h10"
          className="fill-none stroke-rest"
          strokeWidth={2}
        />
      );
    case "in a cluster":
      return (
        <g transform={at}>
          <ellipse cx={-5} rx={4.5} ry={4} className="fill-ink" />
          <ellipse cx={5} rx={4.5} ry={4} className="fill-ink" />
          <path d="M-1-1v-11h10v11" className="fill-none stroke-ink" strokeWidth={1.5} />
        </g>
      );
    case "in a drop":
      return <path transform={at} d="M-7-5h7v6h7v5" className="fill-none stroke-ink" strokeWidth={2} />;
    default:
      return (
        <ellipse
          transform={at}
          rx={5}
          ry={4.5}
          strokeWidth={1.5}
          strokeDasharray={kind === "remembered" ? "2 2" : undefined}
          className={kind === "fresh" ? "fill-ink stroke-ink" : "fill-paper stroke-ink"}
        />
      );
  }
}

/** A record of a day beside what it beat: 6 at 100 kg, before that 5 at 100 kg on Mon, 2 Mar 2026. */
export function recordWords({ kg, reps, tempo, body, ...was }: Schemas["RecordMark"]): string {
  const new_ = `${reps} at ${weightOf({ kg, body })}${tempo && ` at tempo ${tempo}`}`;
  const before = `${was.was_reps} at ${weightOf({ kg: was.was_kg, body })}`;
  return `${new_}, before that ${before} on ${fullDate(was.was_on)}`;
}

import type { Schemas } from "@/data/client";

type SmallSet = Schemas["SmallSet"];

const GAP = { bout: 0.6, set: 1.3, lift: 2.4 };
const WIDEST = 5;
const STEM = 13;
const RISE = 14;
const BELOW = 5;
/** From so many pixels a note on, every note has its stem. */
const FINE = 3.2;

interface SmallMark {
  x: number;
  y: number;
  full: number;
  half: number;
  missed: number;
}

interface Placed extends Omit<SmallMark, "x" | "y"> {
  at: number;
  height: number;
}

/** Where every bout begins, in notes, and how many notes wide all of it is. */
function placed(score: SmallSet[]): { marks: Placed[]; notes: number } {
  let at = 0;
  const marks: Placed[] = [];
  score.forEach((set, number) => {
    const before = score[number - 1];
    if (before) at += before.exercise === set.exercise ? GAP.set : GAP.lift;
    set.bouts.forEach((bout, index) => {
      if (index) at += GAP.bout;
      const { reps: full, partial_reps: half, missed, height } = bout;
      marks.push({ at, height, full, half, missed });
      at += Math.max(full + half + missed, 1);
    });
  });
  return { marks, notes: at };
}

/** How wide a note may be, so that each of some scores fits into `width`: all in one measure compare by sight. */
export const unitFor = (scores: SmallSet[][], width: number): number =>
  Math.min(WIDEST, width / Math.max(...scores.map((score) => placed(score).notes), 1));

/** Where everything stands, in pixels, a note `unit` wide. */
export function layoutSmallScore(score: SmallSet[], unit: number): { width: number; marks: SmallMark[] } {
  const { marks, notes } = placed(score);
  return {
    width: notes * unit,
    marks: marks.map(({ at, height, ...counts }) => ({
      ...counts,
      x: at * unit,
      y: STEM + RISE * (1 - height) + 2,
    })),
  };
}

/**
 * A session small enough for a calendar: as it was played, or with `open` notes as it is planned. It is drawn only: its
 * text stands beside it.
 */
export function SmallScore({
  score,
  unit,
  open = false,
}: {
  score: SmallSet[];
  unit: number;
  open?: boolean;
}) {
  const { width, marks } = layoutSmallScore(score, unit);
  const height = STEM + RISE + BELOW + 2;
  const radius = Math.min(Math.max(unit * 0.5, 0.9), 2.6);
  return (
    <svg aria-hidden width={Math.max(width + 2, 8)} height={height} className="block">
      {marks.map((mark) => {
        const done = mark.full + mark.half;
        const x = (note: number) => mark.x + unit * (note + 0.5);
        const stems = unit >= FINE ? done : Math.min(done, 1);
        const beam = mark.y - STEM;
        return (
          <g key={mark.x}>
            {done > 1 && (
              <line
                x1={x(0) + radius}
                x2={x(done - 1) + radius}
                y1={beam}
                y2={beam}
                className="stroke-ink"
                strokeWidth={1.6}
              />
            )}
            {Array.from({ length: stems }, (_, note) => (
              <line
                // biome-ignore lint/suspicious/noArrayIndexKey: notes are their places
                key={note}
                x1={x(note) + radius}
                x2={x(note) + radius}
                y1={beam}
                y2={mark.y}
                className="stroke-ink"
                strokeWidth={0.8}
              />
            ))}
            {Array.from({ length: done }, (_, note) => (
              <ellipse
                // biome-ignore lint/suspicious/noArrayIndexKey: notes are their places
                key={note}
                cx={x(note)}
                cy={mark.y}
                rx={radius}
                ry={Math.max(radius * 0.8, 1.2)}
                className={note < mark.full && !open ? "fill-ink" : "fill-paper stroke-ink"}
              />
            ))}
            {Array.from({ length: mark.missed }, (_, note) => {
              const middle = x(done + note);
              const arm = Math.max(radius, 1.8);
              return (
                <path
                  // biome-ignore lint/suspicious/noArrayIndexKey: notes are their places
                  key={note}
                  d={`M${middle - arm} ${mark.y - arm}l${2 * arm} ${2 * arm}M${middle + arm} ${mark.y - arm}l${-2 * arm} ${2 * arm}`}
                  className="stroke-work"
                  strokeWidth={1.5}
                />
              );
            })}
          </g>
        );
      })}
    </svg>
  );
}

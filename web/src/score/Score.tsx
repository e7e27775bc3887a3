import { clsx } from "clsx";
import { Fragment, type Ref } from "react";
import type { Step } from "@/data/client";
import { Scroller } from "@/parts/Scroller";
import type { BoutMark, ScoreLayout, Stave, Tense } from "./layout";
import { read } from "./words";

const STEM = 26;
const INK: Record<Tense, string> = {
  done: "fill-ink stroke-ink",
  now: "fill-transparent stroke-work",
  planned: "fill-transparent stroke-ink",
};

/**
 * A group drawn as a score. The drawing is one picture to a screen reader, with its text equivalent beside it;
 * where it is wider than its place it scrolls, and the names of the lifts stay.
 */
export function Score({
  ref,
  layout,
  steps,
  captions,
  left = 64,
  zoom = 1,
  bare = false,
}: {
  ref?: Ref<HTMLDivElement> | undefined;
  layout: ScoreLayout;
  steps: Step[];
  captions: Record<string, string>;
  left?: number;
  zoom?: number;
  /** Without names, text equivalent or scrolling: a picture of its shape only. */
  bare?: boolean;
}) {
  const names = layout.staves.map((stave) => stave.exercise).join(" and ");
  const drawing = (
    <svg
      aria-hidden
      width={layout.width * zoom}
      height={layout.height * zoom}
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      className="block"
    >
      {layout.staves.length > 1 && <Bracket layout={layout} />}
      {layout.now !== null && <Now x={layout.now} layout={layout} />}
      {layout.staves.map((stave) => (
        <StaveDrawing key={stave.exercise} stave={stave} left={left} right={layout.width} bare={bare} />
      ))}
    </svg>
  );
  if (bare) return drawing;
  return (
    <figure className="relative m-0">
      <Scroller ref={ref} label={`Score of ${names}`}>
        {drawing}
      </Scroller>
      {layout.titled &&
        layout.staves.map((stave) => (
          <p
            key={stave.exercise}
            aria-hidden
            className="pointer-events-none absolute right-0 truncate text-[17px] leading-6 font-bold"
            style={{ top: stave.top * zoom, left: left * zoom }}
          >
            {stave.exercise}
            <span className="ml-4 text-[14px] font-normal text-faint">{captions[stave.exercise]}</span>
          </p>
        ))}
      <figcaption className="sr-only">{read(steps).join(" ")}</figcaption>
    </figure>
  );
}

function Bracket({ layout }: { layout: ScoreLayout }) {
  const [top, bottom] = [30, layout.height - 14];
  return <path d={`M10 ${top}H4V${bottom}H10`} className="fill-none stroke-ink" strokeWidth={2} />;
}

function StaveDrawing({
  stave,
  left,
  right,
  bare,
}: {
  stave: Stave;
  left: number;
  right: number;
  bare: boolean;
}) {
  return (
    <g>
      {stave.lines.map((line) => (
        <Fragment key={line.y}>
          <line x1={left} x2={right} y1={line.y} y2={line.y} className="stroke-hairline" />
          {!bare && (
            <text x={left - 8} y={line.y + 4} textAnchor="end" className="fill-faint text-[12px]">
              {line.label}
            </text>
          )}
        </Fragment>
      ))}
      {stave.rests.map((rest) => (
        <g key={rest.x} className={clsx(rest.past && "opacity-60")}>
          <line
            x1={rest.x}
            x2={rest.x + rest.width}
            y1={rest.y}
            y2={rest.y}
            className="stroke-rest"
            strokeWidth={rest.short ? 2 : 4}
            strokeLinecap="round"
          />
          {!bare && (
            <text
              x={rest.x + rest.width / 2}
              y={rest.y + 20}
              textAnchor="middle"
              className="fill-rest text-[12px] font-semibold"
            >
              {rest.label}
            </text>
          )}
        </g>
      ))}
      {stave.drops.map(({ x1, y1, x2, y2, label }) => (
        <g key={x1}>
          <line {...{ x1, y1, x2, y2 }} className="stroke-work" strokeWidth={1.5} strokeDasharray="3 3" />
          {!bare && (
            <text
              x={y2 > y1 ? x2 - 5 : x1 + 11}
              y={Math.max(y1, y2) + 20}
              textAnchor={y2 > y1 ? "end" : "start"}
              className="fill-work text-[12px] font-semibold"
            >
              {label}
            </text>
          )}
        </g>
      ))}
      {stave.bouts.map((bout) => (
        <BoutDrawing key={bout.index} bout={bout} bare={bare} />
      ))}
    </g>
  );
}

function BoutDrawing({ bout, bare }: { bout: BoutMark; bare: boolean }) {
  const first = bout.heads[0];
  const last = bout.heads.at(-1);
  const beamed = bout.heads.findLast((head) => head.kind !== "missed");
  const stroke = bout.tense === "now" ? "stroke-work" : "stroke-ink";
  const end = bout.hold ? bout.x + bout.width : (last?.x ?? bout.x);
  return (
    <g>
      {bout.instead && (
        <g className="fill-transparent stroke-rest" strokeWidth={1.2} strokeDasharray="2 2">
          {bout.heads.map((head) => (
            <ellipse key={head.x} cx={head.x} cy={bout.instead?.y} rx={5.6} ry={4.6} />
          ))}
        </g>
      )}
      {bout.hold && (
        <g className={clsx(stroke, bout.tense === "done" ? "fill-ink" : "fill-transparent")}>
          <rect x={bout.x - 6} y={bout.y - 5} width={bout.width} height={10} rx={5} strokeWidth={1.5} />
        </g>
      )}
      {bout.heads.map((head) => (
        <g key={head.x} className={INK[head.tense]} strokeWidth={1.5}>
          {head.kind === "missed" ? (
            <path d={`M${head.x - 4} ${bout.y - 4}l8 8m0-8l-8 8`} className="stroke-work" />
          ) : (
            <>
              <line x1={head.x} x2={head.x} y1={bout.y - STEM} y2={bout.y - 4} strokeWidth={1.2} />
              {head.kind === "half" ? (
                <path d={`M${head.x - 6} ${bout.y}a6 5 0 0 0 12 0z`} />
              ) : (
                <ellipse cx={head.x} cy={bout.y} rx={5.6} ry={4.6} />
              )}
            </>
          )}
        </g>
      ))}
      {first && beamed && first.kind !== "missed" && beamed !== first && (
        <line
          x1={first.x - 0.6}
          x2={beamed.x + 0.6}
          y1={bout.y - STEM}
          y2={bout.y - STEM}
          className={stroke}
          strokeWidth={3.5}
        />
      )}
      {bout.over && (
        <text
          x={bout.hold ? bout.x : bout.x - 6}
          y={bout.y - STEM - 7}
          className="fill-faint stroke-paper stroke-[4px] text-[11px] font-semibold [paint-order:stroke]"
        >
          {bout.over}
        </text>
      )}
      {bout.toFailure && (
        <g className={stroke}>
          <line x1={end + 10} x2={end + 10} y1={bout.y - 8} y2={bout.y + 8} strokeWidth={1.2} />
          <line x1={end + 13.5} x2={end + 13.5} y1={bout.y - 8} y2={bout.y + 8} strokeWidth={3} />
        </g>
      )}
      {Array.from({ length: bout.reserve }, (_, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the dots have no identity but their place
        <circle key={place} cx={end + 14 + place * 9} cy={bout.y} r={2.3} className="fill-faint opacity-60" />
      ))}
      {!bare && (bout.label || bout.hold || bout.instead) && (
        <text
          x={(bout.x + end) / 2}
          y={bout.y + (bout.instead && bout.instead.y > bout.y ? 27 : 20)}
          textAnchor="middle"
          className="fill-ink stroke-paper stroke-[4px] text-[12px] font-semibold [paint-order:stroke]"
        >
          {[bout.label, bout.hold].filter(Boolean).join(" · ")}
          {bout.instead && <tspan className="fill-rest">{` → ${bout.instead.label}`}</tspan>}
        </text>
      )}
    </g>
  );
}

function Now({ x, layout }: { x: number; layout: ScoreLayout }) {
  return (
    <g className="fill-work stroke-work" aria-hidden>
      <line x1={x} x2={x} y1={24} y2={layout.height - 8} strokeWidth={1.5} />
      <path d={`M${x - 6} 20h12l-6 8z`} stroke="none" />
    </g>
  );
}

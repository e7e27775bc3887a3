import { AxisBottom } from "@visx/axis";
import { scaleBand, scaleLinear } from "@visx/scale";
import { LinePath } from "@visx/shape";
import { extent, max } from "d3-array";
import { type PointerEvent, useState } from "react";
import type { Schemas } from "@/data/client";
import { Figure } from "@/parts/Figure";
import { ReadByKey } from "@/parts/ReadByKey";
import { useWidth } from "@/parts/useWidth";
import { kilograms, plain } from "@/score/words";
import { dayAndMonth } from "../dates";
import { Levels, TICK } from "../strength/Levels";

type Week = Schemas["Week"];

const HEIGHT = 300;
const EDGE = { top: 14, right: 10, bottom: 28, left: 58 };
/** The average load stands over the tonnage, in its own third. */
const SPLIT = 110;
const APART = 22;
/** A date takes so much room. */
const A_DATE = 62;

/**
 * Tonnage and average load, week by week, read together: two plots over one another, on the same weeks. Weeks of two
 * blocks, of which the `second` is another, stand apart.
 */
export function WorkAndLoad({ weeks: first, second = [] }: { weeks: Week[]; second?: Week[] }) {
  const weeks = [...first, ...second];
  const [ref, width] = useWidth<HTMLDivElement>();
  const [picked, pick] = useState<number | null>(null);
  const at = picked ?? weeks.length - 1;
  const x = scaleBand({
    domain: weeks.map((week) => week.monday),
    range: [EDGE.left, width - EDGE.right],
    padding: 0.3,
  });
  const tonnage = scaleLinear({
    domain: [0, max(weeks, (week) => week.tonnage_kg) || 1],
    range: [HEIGHT - EDGE.bottom, SPLIT + APART],
    nice: true,
  });
  const loads = weeks.flatMap((week) => (week.average_kg === null ? [] : [week.average_kg]));
  const [low = 0, high = 1] = extent(loads);
  const load = scaleLinear({ domain: [low - 2, high + 2], range: [SPLIT, EDGE.top], nice: true });
  const middle = (week: Week) => (x(week.monday) ?? 0) + x.bandwidth() / 2;
  const point = ({ currentTarget, clientX }: PointerEvent<SVGSVGElement>) => {
    const from = clientX - currentTarget.getBoundingClientRect().left - EDGE.left;
    const found = Math.floor((from / (width - EDGE.left - EDGE.right)) * weeks.length);
    pick(Math.min(Math.max(found, 0), weeks.length - 1));
  };
  const step = (by: number) => pick(Math.min(Math.max(at + by, 0), weeks.length - 1));
  const shown = weeks[at];
  return (
    <Figure
      title="Tonnage and average load"
      numbers={{
        columns: ["Week of", "Tonnage, kg", "Average load, kg", "Sessions"],
        rows: weeks.map((week) => [week.monday, week.tonnage_kg, week.average_kg, week.sessions]),
      }}
    >
      <ReadByKey
        ref={ref}
        label="Tonnage and average load by week; arrows go from week to week"
        onStep={step}
      >
        <svg aria-hidden width={width} height={HEIGHT} onPointerMove={point} onPointerDown={point}>
          <Levels scale={load} left={EDGE.left} width={width - EDGE.left - EDGE.right} many={3} />
          <Levels scale={tonnage} left={EDGE.left} width={width - EDGE.left - EDGE.right} many={4} />
          {weeks.map((week, number) => (
            <rect
              key={week.monday}
              x={x(week.monday)}
              y={tonnage(week.tonnage_kg)}
              width={x.bandwidth()}
              height={HEIGHT - EDGE.bottom - tonnage(week.tonnage_kg)}
              className={number === at ? "fill-ink" : "fill-faint"}
              fillOpacity={number === at ? 1 : 0.55}
            />
          ))}
          {[first, second].map((block) => (
            <LinePath
              key={block[0]?.monday ?? "none"}
              data={block.filter((week) => week.average_kg !== null)}
              x={middle}
              y={(week) => load(week.average_kg ?? 0)}
              className="stroke-ink"
              strokeWidth={2}
            />
          ))}
          {second[0] && (
            <line
              x1={(x(second[0].monday) ?? 0) - (x.step() - x.bandwidth()) / 2}
              x2={(x(second[0].monday) ?? 0) - (x.step() - x.bandwidth()) / 2}
              y1={EDGE.top}
              y2={HEIGHT - EDGE.bottom}
              className="stroke-work"
              strokeDasharray="3 3"
            />
          )}
          {weeks.map(
            (week, number) =>
              week.average_kg !== null && (
                <circle
                  key={week.monday}
                  cx={middle(week)}
                  cy={load(week.average_kg)}
                  r={number === at ? 5 : 3}
                  className="fill-ink"
                />
              ),
          )}
          <AxisBottom
            scale={x}
            top={HEIGHT - EDGE.bottom}
            stroke="var(--hairline)"
            hideTicks
            tickValues={weeks
              .filter((_, number) => x.step() > A_DATE || (weeks.length - number) % 2 === 1)
              .map((week) => week.monday)}
            tickFormat={dayAndMonth}
            tickLabelProps={TICK}
          />
        </svg>
        <p aria-live="polite" className="min-h-6 text-[15px]">
          {shown && (
            <>
              Week of {dayAndMonth(shown.monday)}: <b>{kilograms(shown.tonnage_kg)}</b>
              {shown.average_kg === null ? "" : `, ${plain(shown.average_kg)} kg a rep on average`}
              {shown.sessions === 0 && ", nothing was lifted"}
            </>
          )}
        </p>
      </ReadByKey>
    </Figure>
  );
}

import { AxisBottom } from "@visx/axis";
import { scaleLinear, scaleTime } from "@visx/scale";
import { LinePath } from "@visx/shape";
import { extent, leastIndex } from "d3-array";
import { type PointerEvent, useState } from "react";
import type { Schemas } from "@/data/client";
import { Figure } from "@/parts/Figure";
import { ReadByKey } from "@/parts/ReadByKey";
import { useWidth } from "@/parts/useWidth";
import { plain, tenth } from "@/score/words";
import { dayAndMonth, fullDate } from "../dates";
import { Levels, TICK } from "./Levels";

type Day = Schemas["SidesDay"];

const HEIGHT = 170;
const EDGE = { top: 10, right: 60, bottom: 26, left: 40 };

/** Left against right over time: solid is left, dashed is right. */
export function Sides({ days }: { days: Day[] }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const [picked, pick] = useState<number | null>(null);
  const last = days.at(-1);
  if (days.length < 2 || !last) return null;
  const x = scaleTime({
    domain: extent(days, (day) => new Date(day.at)) as [Date, Date],
    range: [EDGE.left + 8, width - EDGE.right],
  });
  const y = scaleLinear({
    domain: extent(days.flatMap((day) => [day.left_kg, day.right_kg])) as [number, number],
    range: [HEIGHT - EDGE.bottom, EDGE.top],
    nice: true,
  });
  const at = (day: Day) => x(new Date(day.at));
  const reading = picked ?? days.length - 1;
  const read = days[reading] ?? last;
  const point = ({ currentTarget, clientX }: PointerEvent<SVGSVGElement>) => {
    const from = clientX - currentTarget.getBoundingClientRect().left;
    pick(leastIndex(days, (one, other) => Math.abs(at(one) - from) - Math.abs(at(other) - from)) ?? null);
  };
  const step = (by: number) => pick(Math.min(Math.max(reading + by, 0), days.length - 1));
  return (
    <div className="mt-6">
      <Figure
        title="Left against right"
        numbers={{
          columns: ["Session of", "Left, kg", "Right, kg"],
          rows: days.map((day) => [day.at.slice(0, 16), tenth(day.left_kg), tenth(day.right_kg)]),
        }}
      >
        <ReadByKey ref={ref} label="Left against right; arrows go from session to session" onStep={step}>
          <svg
            width={width}
            height={HEIGHT}
            role="img"
            onPointerMove={point}
            onPointerDown={point}
            aria-label={`The max of each side over ${days.length} sessions, left ${plain(tenth(last.left_kg))} and right ${plain(tenth(last.right_kg))} kg at last`}
          >
            <Levels scale={y} left={EDGE.left} width={width - EDGE.left - EDGE.right} many={3} />
            <LinePath data={days} x={at} y={(day) => y(day.left_kg)} className="stroke-ink" strokeWidth={2} />
            <LinePath
              data={days}
              x={at}
              y={(day) => y(day.right_kg)}
              className="stroke-ink"
              strokeWidth={2}
              strokeDasharray="5 4"
            />
            {[read.left_kg, read.right_kg].map((kg, side) => (
              <circle
                key={side === 0 ? "left" : "right"}
                cx={at(read)}
                cy={y(kg)}
                r={4}
                className={side === 0 ? "fill-ink" : "fill-paper stroke-ink"}
              />
            ))}
            {labels(y(last.left_kg), y(last.right_kg)).map(([name, top]) => (
              <text key={name} x={width - EDGE.right + 8} y={top} className="fill-ink" fontSize={13}>
                {name}
              </text>
            ))}
            <AxisBottom
              scale={x}
              top={HEIGHT - EDGE.bottom}
              numTicks={Math.min(width > 600 ? 6 : 3, days.length)}
              stroke="var(--hairline)"
              hideTicks
              tickFormat={(moment) => dayAndMonth(moment as Date)}
              tickLabelProps={TICK}
            />
          </svg>
          <p aria-live="polite" className="text-[15px]">
            {fullDate(read.at)}: <b>{apartWords(read)}</b>{" "}
            <span className="text-faint">Solid is left, dashed right; each session by itself.</span>
          </p>
        </ReadByKey>
      </Figure>
    </div>
  );
}

/** Which side was stronger in a session. */
function apartWords({ left_kg: left, right_kg: right }: Day): string {
  const apart = (left / right - 1) * 100;
  if (Math.abs(apart) < 2) return "both sides equal, as far as can be told.";
  const stronger = apart > 0 ? "left" : "right";
  const loads = `left ${plain(tenth(left))} kg, right ${plain(tenth(right))} kg`;
  return `${loads}, the ${stronger} ${plain(tenth(Math.abs(apart)))} % stronger.`;
}

/** The names of the lines at their ends, kept apart where the ends meet. */
function labels(left: number, right: number): [string, number][] {
  const middle = (left + right) / 2;
  const half = Math.max(Math.abs(left - right) / 2, 8);
  const sign = left <= right ? -1 : 1;
  return [
    ["left", middle + sign * half + 4],
    ["right", middle - sign * half + 4],
  ];
}

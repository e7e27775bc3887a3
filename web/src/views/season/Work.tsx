import { scaleLinear } from "@visx/scale";
import { LinePath } from "@visx/shape";
import { extent, max } from "d3-array";
import type { WeekOfSeason } from "@/data/season";
import { Figure } from "@/parts/Figure";
import { ReadByKey } from "@/parts/ReadByKey";
import { kilograms, plain } from "@/score/words";
import { dayAndMonth } from "../dates";
import type { Columns } from "./Calendar";

const HEIGHT = 150;
const BASE = HEIGHT - 4;
/** The average load stands over the tonnage, in its own part. */
const SPLIT = 56;

/** Tonnage and average load of every week, done and to come, under the weeks. */
export function Work({
  weeks,
  columns,
  monday,
  onPick,
}: {
  weeks: WeekOfSeason[];
  columns: Columns;
  monday: string;
  onPick: (monday: string) => void;
}) {
  const at = weeks.findIndex((week) => week.monday === monday);
  const left = (number: number) => columns.label + columns.width * number;
  const tonnage = scaleLinear({
    domain: [0, max(weeks, (week) => week.all.tonnage_kg) || 1],
    range: [BASE, SPLIT + 12],
  });
  const [low = 0, high = 1] = extent(weeks.flatMap((week) => week.all.average_kg ?? []));
  const load = scaleLinear({ domain: [low - 1, high + 1], range: [SPLIT, 6] });
  const points = weeks.flatMap(({ all, done }, number) =>
    all.average_kg === null
      ? []
      : [
          {
            x: left(number) + columns.width / 2,
            y: load(all.average_kg),
            ahead: done.sessions < all.sessions,
          },
        ],
  );
  const turning = points.findIndex((each) => each.ahead);
  const past = turning < 0 ? points : points.slice(0, turning + 1);
  const ahead = turning < 0 ? [] : points.slice(Math.max(turning - 1, 0));
  const bar = columns.width * 0.6;
  const step = (by: number) => {
    const next = weeks[at + by];
    if (next) onPick(next.monday);
  };
  const shown = weeks[at];
  return (
    <div className="mt-3">
      <Figure
        small
        title="Tonnage and average load"
        numbers={{
          columns: ["Week of", "Done, kg", "Done and planned, kg", "Average load, kg"],
          rows: weeks.map(({ monday: of, done, all }) => [
            of,
            done.tonnage_kg,
            all.tonnage_kg,
            all.average_kg,
          ]),
        }}
      >
        <ReadByKey ref={null} label="Tonnage and average load; arrows go from week to week" onStep={step}>
          <svg aria-hidden width={columns.label + columns.width * weeks.length} height={HEIGHT}>
            {weeks.map(({ monday: of, done, all }, number) => (
              <g key={of}>
                <rect
                  x={left(number) + 2}
                  y={tonnage(all.tonnage_kg)}
                  width={bar}
                  height={BASE - tonnage(all.tonnage_kg)}
                  className={number === at ? "fill-none stroke-ink" : "fill-none stroke-faint"}
                  strokeDasharray={done.sessions ? undefined : "3 3"}
                />
                <rect
                  x={left(number) + 2}
                  y={tonnage(done.tonnage_kg)}
                  width={bar}
                  height={BASE - tonnage(done.tonnage_kg)}
                  className={number === at ? "fill-ink" : "fill-faint"}
                />
              </g>
            ))}
            <line x1={0} x2={left(weeks.length)} y1={BASE} y2={BASE} className="stroke-ink" />
            <LinePath
              data={past}
              x={(each) => each.x}
              y={(each) => each.y}
              className="stroke-look"
              strokeWidth={2.5}
            />
            <LinePath
              data={ahead}
              x={(each) => each.x}
              y={(each) => each.y}
              className="stroke-look"
              strokeWidth={2}
              strokeDasharray="2 4"
            />
          </svg>
          <p aria-live="polite" className="min-h-6 text-[15px]">
            {shown && (
              <>
                Week of {dayAndMonth(shown.monday)}: {kilograms(shown.done.tonnage_kg)} done of{" "}
                <b>{kilograms(shown.all.tonnage_kg)}</b>
                {shown.all.average_kg === null ? "" : `, ${plain(shown.all.average_kg)} kg a rep on average`}
              </>
            )}
          </p>
        </ReadByKey>
      </Figure>
      <p className="text-sm text-faint">
        Bars are the tonnage of a week, filled where it is done; the line is the average load of a rep.{" "}
        <span className="print:hidden">
          Drag a session to another day, or change its date where you open it; drag a week by its date to a
          later one, and all that follows goes with it.
        </span>
      </p>
    </div>
  );
}

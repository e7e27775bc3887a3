import { scaleLinear } from "@visx/scale";
import { Area, LinePath } from "@visx/shape";
import { extent } from "d3-array";
import { useState } from "react";
import type { Schemas } from "@/data/client";
import type { SeasonView } from "@/data/season";
import { Figure } from "@/parts/Figure";
import { ReadByKey } from "@/parts/ReadByKey";
import { plain, tenth } from "@/score/words";
import { dayAndMonth } from "../dates";
import { Levels } from "../strength/Levels";
import type { Columns } from "./Calendar";

type MaxOn = Schemas["MaxOn"];

const HEIGHT = 190;
const EDGE = { top: 14, bottom: 10 };
/** The room for the scale, where the weeks have no names of days before them. */
const SCALE = 36;
const A_WEEK = 7 * 86_400_000;

const noon = (day: string) => new Date(`${day}T12:00`).getTime();
const one = (kg: number) => plain(tenth(kg));

/** The max of the lifts that matter, on the same weeks: as it was known, and as sure as it is for those to come. */
export function Maxes({ season, columns: under }: { season: SeasonView; columns: Columns }) {
  const [at, choose] = useState(0);
  const [read, tell] = useState<number | null>(null);
  const { courses, weeks, attempts, aim } = season;
  const course = courses[at] ?? courses[0];
  const first = weeks[0]?.monday;
  if (!course || !first) return null;
  const columns = under.label ? under : { label: SCALE, width: under.width - SCALE / weeks.length };
  const days = [...course.past, ...course.ahead];
  const x = (day: string) => columns.label + (columns.width * (noon(day) - noon(first))) / A_WEEK;
  const tried = attempts.find(
    (each) => each.exercise === course.exercise && each.setup.items.join() === course.setup.items.join(),
  );
  const levels = [
    ...days.flatMap((day) => [day.low, day.high]),
    ...(tried?.attempts.map(({ kg }) => kg) ?? []),
  ];
  const y = scaleLinear({
    domain: extent(levels) as [number, number],
    range: [HEIGHT - EDGE.bottom, EDGE.top],
    nice: true,
  });
  const width = columns.label + columns.width * weeks.length;
  const last = course.past.at(-1);
  const later = last ? [last, ...course.ahead] : course.ahead;
  const shown = days[read ?? course.past.length - 1] ?? last;
  const step = (by: number) =>
    tell((now) => Math.min(Math.max((now ?? course.past.length - 1) + by, 0), days.length - 1));
  const name = [course.exercise, ...course.setup.items].join(", ");
  const drawn = (of: MaxOn[], dashed: boolean) => (
    <>
      <Area
        data={of}
        x={(day) => x(day.on)}
        y0={(day) => y(day.low)}
        y1={(day) => y(day.high)}
        className="fill-ink"
        fillOpacity={dashed ? 0.06 : 0.12}
      />
      <LinePath
        data={of}
        x={(day) => x(day.on)}
        y={(day) => y(day.kg)}
        className="stroke-ink"
        strokeWidth={2}
        strokeDasharray={dashed ? "2 4" : undefined}
      />
    </>
  );
  return (
    <div className="mt-4">
      <Figure
        small
        title={`${name}: the max`}
        numbers={{
          columns: ["Day", "Max, kg", "at least", "at most"],
          rows: days.map(({ on, kg, low, high }) => [on, tenth(kg), tenth(low), tenth(high)]),
        }}
      >
        {courses.length > 1 && (
          <p className="flex flex-wrap gap-x-5 print:hidden">
            {courses.map((each, index) => (
              <button
                key={each.exercise + each.setup.items.join()}
                type="button"
                aria-pressed={index === at}
                onClick={() => {
                  choose(index);
                  tell(null);
                }}
                className={index === at ? "min-h-11 font-semibold" : "min-h-11 underline underline-offset-4"}
              >
                {each.exercise}
              </button>
            ))}
          </p>
        )}
        <ReadByKey ref={null} label={`The max of ${name}; arrows go from day to day`} onStep={step}>
          <svg
            width={width}
            height={HEIGHT}
            role="img"
            aria-label={`The max of ${name}, ${one(last?.kg ?? 0)} kg after the last session`}
          >
            <Levels scale={y} left={columns.label} width={width - columns.label} many={4} />
            {drawn(course.past, false)}
            {drawn(later, true)}
            {shown && <circle cx={x(shown.on)} cy={y(shown.kg)} r={4} className="fill-ink" />}
            {aim &&
              tried?.attempts.map(({ kg }) => (
                <ellipse
                  key={kg}
                  cx={x(aim.on)}
                  cy={y(kg)}
                  rx={5}
                  ry={4}
                  className="fill-paper stroke-ink"
                  strokeWidth={1.5}
                />
              ))}
          </svg>
          <p aria-live="polite" className="text-[15px]">
            {shown && (
              <>
                {dayAndMonth(shown.on)}: <b>{one(shown.kg)} kg</b>, between {one(shown.low)} and{" "}
                {one(shown.high)}, four times in five.
              </>
            )}
          </p>
        </ReadByKey>
      </Figure>
      <p className="text-sm text-faint">
        Dotted is what is known now, ever less sure: no gain is foretold.
        {tried && " Open notes are the attempts."}
      </p>
    </div>
  );
}

import { AxisBottom } from "@visx/axis";
import { scaleLinear, scaleTime } from "@visx/scale";
import { Area, LinePath } from "@visx/shape";
import { extent, group, leastIndex } from "d3-array";
import { type PointerEvent, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/data/client";
import { useForget } from "@/data/queries";
import { Figure } from "@/parts/Figure";
import { ReadByKey } from "@/parts/ReadByKey";
import { useWidth } from "@/parts/useWidth";
import { plain, tenth } from "@/score/words";
import { dayAndMonth, fullDate } from "../dates";
import { Levels, TICK } from "./Levels";
import { LEGEND, Mark, markOf, type Observation, recordWords } from "./marks";

const HEIGHT = 420;
/** The mark nearest to the pointer is told, if it is not further off. */
const NEAR = 40;
const EDGE = { top: 16, right: 14, bottom: 30, left: 40 };
/** Marks of one session stand so far apart, on a plot that is `width` wide. */
const apart = (width: number) => Math.min(9, width / 90);
const A_DAY = 86_400_000;

const one = (kg: number) => plain(tenth(kg));

/** The max session by session with its band, and every bout by itself: what it says, and how surely. */
export function MaxOverTime({ found }: { found: Schemas["LiftStrength"] }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const [shown, show] = useState<Observation | null>(null);
  const { days, observations } = found;
  const [from, to] = extent([...days, ...observations], (each) => new Date(each.at)) as [Date, Date];
  const span = Math.max(to.getTime() - from.getTime(), A_DAY);
  const x = scaleTime({
    domain: [new Date(from.getTime() - span * 0.03), new Date(to.getTime() + span * 0.03)],
    range: [EDGE.left, width - EDGE.right],
  });
  const kilograms = [
    ...days.flatMap((day) => [day.max.low, day.max.high]),
    ...observations.map((each) => each.says.kg),
  ];
  const y = scaleLinear({
    domain: extent(kilograms) as [number, number],
    range: [HEIGHT - EDGE.bottom, EDGE.top],
    nice: true,
  });
  const marks = placed(observations).map(({ each, aside }) => ({
    each,
    aside,
    left: x(new Date(each.at)) + aside * apart(width),
    top: clamped(y(each.says.kg)),
  }));
  const point = ({ currentTarget, clientX, clientY }: PointerEvent<SVGSVGElement>) => {
    const box = currentTarget.getBoundingClientRect();
    const away = (mark: (typeof marks)[number]) =>
      Math.hypot(mark.left - (clientX - box.left), mark.top - (clientY - box.top));
    const nearest = marks[leastIndex(marks, (one, other) => away(one) - away(other)) ?? 0];
    if (nearest && away(nearest) < NEAR) show(nearest.each);
  };
  const day = (each: Schemas["Day"]) => x(new Date(each.at));
  const step = (by: number) => {
    const told = shown ?? strongest(observations);
    const next = told && observations[observations.indexOf(told) + by];
    if (next) show(next);
  };
  return (
    <div className="mt-4">
      <Figure
        title="The max over time"
        numbers={{
          columns: ["After the session of", "Max, kg", "at least", "at most", "Body weight, kg"],
          rows: days.map(({ at, max, body_kg }) => [
            at.slice(0, 16),
            ...[max.kg, max.low, max.high].map(tenth),
            body_kg === null ? "" : tenth(body_kg),
          ]),
        }}
      >
        <ReadByKey ref={ref} label="The max over time; arrows go from bout to bout" onStep={step}>
          <svg
            width={width}
            height={HEIGHT}
            role="img"
            onPointerMove={point}
            onPointerDown={point}
            aria-label={`The max over ${days.length} sessions, from ${one(days[0]?.max.kg ?? 0)} to ${one(days.at(-1)?.max.kg ?? 0)} kg, and ${observations.length} bouts it is known from`}
          >
            <Levels scale={y} left={EDGE.left} width={width - EDGE.left - EDGE.right} many={6} />
            <Area
              data={days}
              x={day}
              y0={(each) => y(each.max.low)}
              y1={(each) => y(each.max.high)}
              className="fill-ink"
              fillOpacity={0.1}
            />
            <LinePath
              data={days}
              x={day}
              y={(each) => y(each.max.kg)}
              className="stroke-ink"
              strokeWidth={2.5}
            />
            {marks.map(({ each, aside, left, top }) => {
              return (
                <g key={`${each.at} ${aside}`} opacity={0.4 + 0.6 * weight(each)}>
                  {!each.at_least && (
                    <line
                      x1={left}
                      x2={left}
                      y1={clamped(y(each.says.low))}
                      y2={clamped(y(each.says.high))}
                      className="stroke-faint"
                      strokeOpacity={0.2 + 0.8 * weight(each)}
                    />
                  )}
                  <Mark kind={markOf(each)} x={left} y={top} />
                </g>
              );
            })}
            <RecordMarks records={found.records.days} x={x} />
            <AxisBottom
              scale={x}
              top={HEIGHT - EDGE.bottom}
              numTicks={Math.min(width > 600 ? 6 : 3, Math.ceil(span / A_DAY))}
              stroke="var(--hairline)"
              hideTicks
              tickFormat={(at) => dayAndMonth(at as Date)}
              tickLabelProps={TICK}
            />
          </svg>
          <Told observation={shown ?? strongest(observations)} records={found.records.days} />
        </ReadByKey>
        <BodyWeight days={days} x={x} width={width} />
      </Figure>
      <ul className="mt-3 flex flex-wrap gap-x-6 gap-y-1 text-sm text-faint">
        {LEGEND.map((kind) => (
          <li key={kind} className="flex items-center gap-2">
            <svg width={24} height={24} aria-hidden>
              <Mark kind={kind} x={12} y={kind === "in a cluster" ? 15 : 12} />
            </svg>
            {kind}
          </li>
        ))}
        {found.records.days.length > 0 && (
          <li className="flex items-center gap-2">
            <svg width={24} height={24} aria-hidden>
              <path d={flag(8, 4)} className="fill-ink" />
              <line x1={8} x2={8} y1={4} y2={22} className="stroke-ink" />
            </svg>
            a record
          </li>
        )}
      </ul>
      <p className="text-sm text-faint">
        The bar through a mark is what the bout says by itself, four times in five; the darker, the more it
        counts.
      </p>
      <Bouts observations={observations} />
    </div>
  );
}

type Time = ReturnType<typeof scaleTime<number>>;

const flag = (x: number, y: number) => `M${x} ${y} l9 4 l-9 4 z`;

/** The days of records, each a flag at the top of the plot. */
function RecordMarks({ records, x }: { records: Schemas["RecordMark"][]; x: Time }) {
  return records.map((record) => {
    const left = x(new Date(`${record.on}T12:00:00`));
    return (
      <g key={record.on + record.tempo}>
        <title>{`${fullDate(record.on)}: ${recordWords(record)}`}</title>
        <line x1={left} x2={left} y1={2} y2={EDGE.top + 10} className="stroke-ink" />
        <path d={flag(left, 2)} className="fill-ink" />
      </g>
    );
  });
}

const STRIP = 72;
/** Room over the highest weight for its number. */
const NUMBER = 22;

/** Body weight on the same days, under the max. */
function BodyWeight({ days, x, width }: { days: Schemas["Day"][]; x: Time; width: number }) {
  const weighed = days.filter((day) => day.body_kg !== null);
  const [low, high] = extent(weighed, (day) => day.body_kg ?? 0);
  if (low === undefined || high === undefined) return null;
  const y = scaleLinear({ domain: [low - 0.5, high + 0.5], range: [STRIP - 8, NUMBER] });
  const last = weighed.at(-1);
  return (
    <svg
      width={width}
      height={STRIP}
      role="img"
      aria-label={`Body weight, between ${one(low)} and ${one(high)} kg, ${one(last?.body_kg ?? 0)} at last`}
      className="mt-2 border-t border-hairline"
    >
      <LinePath
        data={weighed}
        x={(day) => x(new Date(day.at))}
        y={(day) => y(day.body_kg ?? low)}
        className="stroke-faint"
        strokeWidth={1.5}
      />
      <text x={0} y={14} className="fill-faint" fontSize={13}>
        Body weight
      </text>
      <text
        x={width - EDGE.right}
        y={y(last?.body_kg ?? low) - 6}
        textAnchor="end"
        className="fill-ink"
        fontSize={13}
      >
        {one(last?.body_kg ?? 0)} kg
      </text>
    </svg>
  );
}

/** How much of the plot's ink a bout gets: all of it from a third of what its session says on. */
const weight = (each: Observation) => Math.min(each.share * 3, 1);

const clamped = (y: number) => Math.min(Math.max(y, EDGE.top - 8), HEIGHT - EDGE.bottom + 4);

/** The bouts of a session side by side around its day. */
function placed(observations: readonly Observation[]) {
  return [...group(observations, (each) => each.at).values()].flatMap((bouts) => {
    const most = Math.min(bouts.length, 7);
    return bouts.map((each, at) => ({
      each,
      aside: ((at / Math.max(bouts.length - 1, 1)) * 2 - 1) * (most - 1) * 0.25,
    }));
  });
}

const strongest = (observations: readonly Observation[]) => {
  const last = observations.filter((each) => each.at === observations.at(-1)?.at);
  return last.reduce<Observation | null>(
    (best, each) => (best && best.share >= each.share ? best : each),
    null,
  );
};

/** What one bout says, in words. */
function Told({
  observation,
  records,
}: {
  observation: Observation | null;
  records: Schemas["RecordMark"][];
}) {
  if (!observation) return null;
  const { says, words, at, share, at_least: atLeast } = observation;
  const ofThatDay = records.filter((record) => record.on === at.slice(0, 10)).map(recordWords);
  return (
    <p aria-live="polite" className="mt-1 border-ink border-l-4 pl-3">
      <b>{words}</b>, {markOf(observation)}, on {fullDate(at)}: by itself {atLeast ? "at least " : ""}
      {one(says.kg)} kg{!atLeast && ` (${one(says.low)} to ${one(says.high)})`}, {Math.round(share * 100)} %
      of what that session says.
      {ofThatDay.length > 0 && <span className="block">A record of that day: {ofThatDay.join("; ")}.</span>}
    </p>
  );
}

function TakeBack({ id }: { id: string }) {
  const forget = useForget();
  return (
    <button
      type="button"
      onClick={() => forget.mutate(id)}
      disabled={forget.isPending}
      className="ml-3 min-h-11 underline underline-offset-4"
    >
      Take it back
    </button>
  );
}

function Bouts({ observations }: { observations: readonly Observation[] }) {
  return (
    <details className="mt-3">
      <summary className="min-h-11 cursor-pointer py-2 underline underline-offset-4">
        {observations.length === 1
          ? "The bout it is known from"
          : `All ${observations.length} bouts it is known from`}
      </summary>
      <table className="w-full max-w-3xl text-[15px]">
        <thead className="text-left text-faint">
          <tr>
            <th className="py-1 font-normal">Day</th>
            <th className="font-normal">Bout</th>
            <th className="font-normal">Where</th>
            <th className="text-right font-normal">By itself, kg</th>
            <th className="text-right font-normal">Counts</th>
          </tr>
        </thead>
        <tbody>
          {[...observations].reverse().map((each, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a bout is told by its place
            <tr key={at} className="border-hairline border-t">
              <td className="py-1">
                {each.session_id ? (
                  <Link to={`/ledger/${each.session_id}`} className="underline underline-offset-4">
                    {fullDate(each.at)}
                  </Link>
                ) : (
                  fullDate(each.at)
                )}
              </td>
              <td>{each.words}</td>
              <td>
                {markOf(each)}
                {each.remembered_id && <TakeBack id={each.remembered_id} />}
              </td>
              <td className="text-right">{one(each.says.kg)}</td>
              <td className="text-right">{Math.round(each.share * 100)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

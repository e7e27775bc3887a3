import { memo } from "react";
import type { Schemas } from "@/data/client";
import { kilograms, minutes, plain } from "@/score/words";

type Costing = Schemas["Costing"];

/** What the session comes to, beside the last one of its name. */
export const CostTable = memo(function CostTable({
  costing: now,
  before,
  likely,
}: Pick<Schemas["Examined"], "costing" | "before" | "likely">) {
  const then = before?.costing ?? null;
  const row = (name: string, of: (costing: Costing) => string | null) => {
    const value = of(now);
    const last = then && of(then);
    if (value === null && last === null) return null;
    return <Row key={name} name={name} value={value ?? "–"} last={then ? (last ?? "–") : null} />;
  };
  const lift = (exercise: string) => (costing: Costing) => {
    const found = costing.lifts.find((each) => each.exercise === exercise);
    if (!found) return null;
    if (found.average_kg === null) return "not settled";
    const percent = found.average_percent === null ? "" : `, ${Math.round(found.average_percent)} %`;
    return `${plain(found.average_kg)} kg${percent}`;
  };
  const counted = (list: Schemas["Count"][], name: string) => {
    const found = list.find((each) => each.name === name);
    return found ? plain(found.count) : null;
  };
  const some = (count: number) => (count ? String(count) : null);
  return (
    <>
      <table className="mt-5 w-full text-[15px]">
        <caption className="sr-only">What this session comes to</caption>
        <thead className={then ? "text-right text-sm text-faint" : "sr-only"}>
          <tr>
            <th>
              <span className="sr-only">What</span>
            </th>
            <th className="font-normal">planned</th>
            {then && <th className="pl-3 font-normal">last time</th>}
          </tr>
        </thead>
        <tbody>
          {row("Time on the floor", (costing) => minutes(costing.seconds))}
          {row("Reps", (costing) => String(costing.reps))}
          {row("Tonnage", (costing) => kilograms(costing.tonnage_kg))}
          {now.lifts.map((each) => row(each.exercise, lift(each.exercise)))}
        </tbody>
      </table>
      <details className="text-[15px]">
        <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
          Zones, muscles, costly methods
        </summary>
        <table className="w-full">
          <caption className="sr-only">Zones, muscles and costly methods</caption>
          <tbody>
            {now.zones.map((zone) =>
              row(`Reps ${zone.name}`, (costing) => counted(costing.zones, zone.name)),
            )}
            {now.hard_sets
              .slice(0, 4)
              .map((muscle) =>
                row(`Hard sets, ${muscle.name}`, (costing) => counted(costing.hard_sets, muscle.name)),
              )}
            {row("Sets to failure", (costing) => some(costing.failure_sets))}
            {row("Half reps", (costing) => some(costing.partial_reps))}
            {row("Overloaded reps", (costing) => some(costing.overloaded_reps))}
            {row("Plate changes", (costing) => some(costing.plate_changes))}
          </tbody>
        </table>
      </details>
      <p className="mt-2 text-sm text-faint">
        {likely.sessions ? "Your own pace makes it " : "Rests drift: count on "}
        {minutes(likely.low_seconds)} to {minutes(likely.high_seconds)}
        {likely.sessions ? `, as your last ${likely.sessions} sessions went.` : "."}
      </p>
    </>
  );
});

const Row = ({ name, value, last }: { name: string; value: string; last: string | null }) => (
  <tr>
    <th scope="row" className="py-0.5 text-left font-normal">
      {name}
    </th>
    <td className="py-0.5 text-right font-bold whitespace-nowrap">{value}</td>
    {last !== null && <td className="py-0.5 pl-3 text-right whitespace-nowrap text-faint">{last}</td>}
  </tr>
);

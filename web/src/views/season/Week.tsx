import { Link } from "react-router";
import { type SeasonView, useAway, type WeekOfSeason } from "@/data/season";
import { Button } from "@/parts/Button";
import { Trouble } from "@/parts/Notice";
import { averageWords, kilograms, minutes } from "@/score/words";
import { dayAndMonth, fullDate } from "../dates";
import { whole } from "./Calendar";
import { Fit } from "./Fit";
import { Lighten } from "./Lighten";

/** The week that is looked at: where it stands, what it comes to, its sessions, and leaving it out. */
export function Week({
  season,
  week,
  thisWeek,
  today,
}: {
  season: SeasonView;
  week: WeekOfSeason;
  thisWeek: string;
  today: string;
}) {
  const away = useAway(season.id);
  const before = season.weeks[season.weeks.indexOf(week) - 1];
  const block = week.block === null ? undefined : season.blocks[week.block - 1];
  const title = week.number !== null ? `Week ${week.number}, ${block?.kind}` : week.light ? "Light" : "Away";
  const isChanged = week.number === null || week.missed || week.light !== null;
  const isPast = week.monday < thisWeek;
  return (
    <section aria-label="The week">
      <h2 className="text-2xl font-bold tracking-tight">{title}</h2>
      <p className="text-faint">
        {block?.name && `${whole(block.name).charAt(0).toUpperCase()}${whole(block.name).slice(1)}. `}From{" "}
        {dayAndMonth(week.monday)}
        {block && block.weeks > 1 && week.number !== null
          ? `, ${week.number - block.first + 1} of ${block.weeks} weeks of its block`
          : ""}
        {week.monday === thisWeek ? ", this week" : ""}.
      </p>
      {week.light && <p className="mt-1 text-faint first-letter:uppercase">{week.light}, as you chose.</p>}
      {week.away && <p className="mt-1 text-faint">{week.away}</p>}
      {week.of.length > 0 && (
        <>
          <dl className="mt-4 grid grid-cols-[1fr_auto_auto] gap-x-4 gap-y-1">
            <dt className="col-start-1 text-faint" />
            <dd className="text-right text-sm text-faint">all of it</dd>
            <dd className="text-right text-sm text-faint">week before</dd>
            {totals(week, before).map(([name, now, then]) => (
              <div key={name} className="contents">
                <dt>{name}</dt>
                <dd className="text-right font-semibold">{now}</dd>
                <dd className="text-right text-faint">{then}</dd>
              </div>
            ))}
          </dl>
          <ul className="mt-4 border-t border-hairline">
            {week.of.map((each) => (
              <li key={each.id} className="border-b border-hairline">
                <Link
                  to={each.state === "finished" ? `/ledger/${each.id}` : `/compose/${each.id}`}
                  className="flex min-h-11 items-center justify-between gap-3 hover:underline"
                >
                  <span className="font-semibold">{each.title}</span>
                  <span className="text-faint">
                    {each.day === today ? "today" : fullDate(each.day).split(",")[0]}
                    {each.state === "finished" ? ", done" : `, ${each.minutes} min`}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
      {!isPast && (
        <div className="mt-5 flex flex-wrap gap-2 print:hidden">
          {isChanged ? (
            <Button
              disabled={away.isPending}
              onClick={() => away.mutate({ monday: week.monday, how: "back" })}
            >
              {week.light ? "Train it as planned after all" : "Train this week after all"}
            </Button>
          ) : (
            <>
              <Button
                disabled={away.isPending}
                onClick={() => away.mutate({ monday: week.monday, how: "away" })}
              >
                Move it a week later
              </Button>
              <Button
                look="quiet"
                disabled={away.isPending}
                onClick={() => away.mutate({ monday: week.monday, how: "missed" })}
              >
                Leave it out
              </Button>
            </>
          )}
        </div>
      )}
      {away.error && <Trouble error={away.error} />}
      {!isPast && !isChanged && (
        <p className="mt-2 text-sm text-faint print:hidden">
          Ill, or away? A week later, and all that follows moves with it. Left out, the rest stays on its
          days, and the work of this week is lost.
        </p>
      )}
      {!isPast && !isChanged && <Lighten key={week.monday} season={season} week={week} />}
      {!isPast && week.number !== null && !week.missed && (
        <Fit key={`fit ${week.monday}`} season={season} week={week} />
      )}
    </section>
  );
}

/** What a week comes to, done and planned, beside the one before. */
function totals(week: WeekOfSeason, before: WeekOfSeason | undefined): [string, string, string][] {
  const beside = (words: (of: WeekOfSeason) => string) => (before?.of.length ? words(before) : "–");
  return [
    ["Tonnage", kilograms(week.all.tonnage_kg), beside((of) => kilograms(of.all.tonnage_kg))],
    ["Average load", averageWords(week.all), averageWords(before?.all)],
    ["Sets", String(week.all.sets), beside((of) => String(of.all.sets))],
    ["Time", minutes(week.all.seconds), beside((of) => minutes(of.all.seconds))],
  ];
}

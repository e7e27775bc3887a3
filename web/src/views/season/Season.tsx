import { useRef, useState } from "react";
import { type SeasonView, useSeason } from "@/data/season";
import { Loaded } from "@/parts/Loaded";
import { Notice } from "@/parts/Notice";
import { addDays, untilWords, weekdayOf } from "../dates";
import { Attempts } from "./Attempts";
import { Calendar } from "./Calendar";
import { Maxes } from "./Maxes";
import { Suggest } from "./Suggest";
import { Text } from "./Text";
import { Trials } from "./Trials";
import { Watch } from "./Watch";
import { Week } from "./Week";
import { Work } from "./Work";

/** The weeks of a season: what was done of it, what is to come, and its text. */
export default function Season() {
  return (
    <Loaded query={useSeason()} what="the season">
      {({ season, today }) => (season ? <Underway season={season} today={today} /> : <Begin today={today} />)}
    </Loaded>
  );
}

function Begin({ today }: { today: string }) {
  const [taken, take] = useState<string | null>(null);
  const text = useRef<HTMLElement>(null);
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-7">
      <h1 className="text-3xl font-bold tracking-tight">No season is under way</h1>
      <p className="mt-2 max-w-prose text-faint">
        A season is blocks of weeks: what is trained on which day, and what changes from week to week. Its
        sessions are planned week by week, and follow when you change it.
      </p>
      <Suggest
        onTake={(written) => {
          take(written);
          text.current?.scrollIntoView();
        }}
      />
      <section ref={text} className="mt-10 scroll-mt-4">
        <h2 className="text-2xl font-bold tracking-tight">
          {taken ? "The one you took" : "Or write your own"}
        </h2>
        <p className="text-faint">
          {taken ? "Change what you like, then plan it." : "Begin with this example, and change it."}
        </p>
        <Text key={taken} season={null} first={taken ?? example(today)} />
      </section>
      <Watch />
    </div>
  );
}

function Underway({ season, today }: { season: SeasonView; today: string }) {
  const thisWeek = addDays(today, -weekdayOf(today));
  const weeks = season.weeks;
  const [picked, pick] = useState<string | null>(null);
  const first = weeks[0]?.monday ?? thisWeek;
  const last = weeks.at(-1)?.monday ?? thisWeek;
  const nearest = thisWeek < first ? first : thisWeek > last ? last : thisWeek;
  const monday = weeks.some((week) => week.monday === picked) ? (picked ?? nearest) : nearest;
  const week = weeks.find((each) => each.monday === monday);
  return (
    <div className="grid lg:min-h-[calc(100dvh-58px)] lg:grid-cols-[minmax(0,1fr)_21rem] print:block">
      <div className="min-w-0 p-4 sm:px-7 sm:py-5">
        <header className="flex flex-wrap items-baseline justify-between gap-x-6">
          <h1 className="text-3xl font-bold tracking-tight">{season.title}</h1>
          {season.aim && <p className="text-faint">{untilWords(season.aim, today)}</p>}
        </header>
        <PastItsDay season={season} today={today} />
        <Calendar season={season} monday={monday} thisWeek={thisWeek} today={today} onPick={pick}>
          {(columns) => (
            <>
              <Work weeks={weeks} columns={columns} monday={monday} onPick={pick} />
              <Maxes season={season} columns={columns} />
            </>
          )}
        </Calendar>
      </div>
      <aside className="border-t border-ink bg-panel p-5 sm:p-7 lg:border-t-0 lg:border-l print:border-l-0">
        {week && <Week season={season} week={week} thisWeek={thisWeek} today={today} />}
        <Attempts season={season} />
        <Watch />
        <Trials season={season} />
        <details className="mt-8 print:hidden">
          <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
            The season as text
          </summary>
          <Text key={season.id} season={season} first={season.written} />
        </details>
      </aside>
    </div>
  );
}

/** Weeks that were to build up to the day, and were put off until it is over. */
function PastItsDay({ season: { aim, past_its_day: weeks }, today }: { season: SeasonView; today: string }) {
  if (!aim || aim.on < today || weeks.length === 0) return null;
  const many = weeks.length === 1 ? "One week that builds" : `${weeks.length} weeks that build`;
  return (
    <div className="mt-3 max-w-prose">
      <Notice>
        {many} up to the {aim.what} {weeks.length === 1 ? "begins" : "begin"} only after it. Leave a week out
        instead of moving it later, or take weeks out of the text.
      </Notice>
    </div>
  );
}

/** A season to begin with: it starts in the week after this one. */
const example = (today: string) => `# Winter
from ${addDays(today, 7 - weekdayOf(today))}

building (from 75 %), 2 rounds of 3 weeks:
  Tuesday, Lower body:
    Back squat: 3|4|5 x 5 at 75% +3% a round leave 2 rest 3:00
    Romanian deadlift: 2|3|3 x 8 leave 2 rest 2:00
    Leg extension: 2|3|3 x 10-12 leave 1 rest 90s
  Friday, Upper body:
    Bench press: 3|4|5 x 5 at 75% +3% a round leave 2 rest 3:00
    pair, 2|3|3 rounds, rest 1:30:
      Ring dip: 6-8 leave 2
      Ring row: 8-10 leave 1

light, 1 week, heavy and short

heavy, 3 weeks:
  Tuesday, Lower body:
    Back squat: 3|2|1 at 87|91|94% rest 4:00; 2 x 3 at top -10% rest 3:00
    Romanian deadlift: 2 x 6 leave 2 rest 2:00
  Friday, Upper body:
    Bench press: 3|2|1 at 87|91|94% rest 4:00; 2 x 3 at top -10% rest 3:00
    Ring row: 3 x 8-10 leave 1 rest 90s
`;

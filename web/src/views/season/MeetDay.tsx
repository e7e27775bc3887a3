import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/data/client";
import { type MeetDay as Day, useMeetDay } from "@/data/season";
import { Loaded } from "@/parts/Loaded";
import { plain } from "@/score/words";
import { fullDate } from "../dates";

type OnDay = Schemas["LiftOnDay"];
type DayStep = Schemas["DayStep"];

const BEGINS = "10:00";
/** Minutes from one lift to the next, where nobody said when it begins. */
const BETWEEN = { meet: 75, test: 35 } as const;

/** The page of the day: when to warm up with what, the attempts, and what to remember; it opens without a connection. */
export default function MeetDay() {
  return (
    <Loaded query={useMeetDay()} what="the day">
      {({ day, kept }) => (day ? <TheDay day={day} kept={kept} /> : <NoDay />)}
    </Loaded>
  );
}

function NoDay() {
  return (
    <div className="mx-auto max-w-3xl px-4 py-6 sm:px-7">
      <h1 className="text-3xl font-bold tracking-tight">No day is ahead</h1>
      <p className="mt-2 text-faint">
        A season with a meet or a test, and lifts that count whose max is known, has a page for its day.
      </p>
      <Link to="/season" className="mt-2 inline-block underline underline-offset-4">
        Open the season
      </Link>
    </div>
  );
}

function TheDay({ day, kept }: { day: Day; kept: string | null }) {
  return (
    <div className="mx-auto max-w-4xl px-4 py-6 sm:px-7">
      <header className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-3xl font-bold tracking-tight">{day.title}</h1>
        <p className="text-faint">{fullDate(day.on)}</p>
      </header>
      <p className="mt-1 text-faint">
        Counted back from the opener of each lift, with the plates of {day.place}. Attempts are what the maxes
        say today.
        {kept && ` ${kept}: this is as it was kept on this device.`}
      </p>
      {day.lifts.map((lift, at) => (
        <LiftOfDay
          key={nameOf(lift)}
          lift={lift}
          day={day}
          usual={timeOf(BEGINS, -at * (day.what === "test" ? BETWEEN.test : BETWEEN.meet))}
        />
      ))}
      {day.total.length > 0 && (
        <p className="mt-6 border-t border-ink pt-3">
          <b>Together: </b>
          {day.total
            .map(({ kg, chance }) => `${plain(kg)} kg (${Math.round(chance * 100)} %)`)
            .join(", then ")}
        </p>
      )}
      <p className="mt-6 border-l-4 border-look pl-4 text-faint">
        Open with what you have lifted before. Missed the opener? Take it again before you go up. Squat and
        bench with spotters or safeties; stop on sharp pain, dizziness or pressure in the chest.
      </p>
    </div>
  );
}

function LiftOfDay({ lift, day, usual }: { lift: OnDay; day: Day; usual: string }) {
  const [begins, begin] = useKeptHere(day, `${nameOf(lift)} begins`, usual);
  const [done, tick] = useKeptHere<readonly number[]>(day, `${nameOf(lift)} done`, []);
  return (
    <section aria-label={nameOf(lift)} className="mt-8 break-inside-avoid">
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <h2 className="text-2xl font-bold">
          {lift.exercise} <span className="font-normal text-faint">{lift.setup.items.join(", ")}</span>
        </h2>
        <label className="flex items-center gap-3">
          <span className="text-faint">Opener at</span>
          <input
            type="time"
            value={begins}
            onChange={(event) => event.target.value && begin(event.target.value)}
            className="min-h-11 rounded-card border border-hairline bg-panel px-3 font-semibold"
          />
        </label>
      </div>
      <ol className="mt-2 border-t border-ink">
        {lift.steps.map((each, at) => (
          <li
            key={`${each.name} ${each.minutes}`}
            className="border-b border-hairline has-checked:text-faint has-checked:line-through"
          >
            <label className="grid min-h-11 grid-cols-[auto_4rem_1fr] items-baseline gap-x-3 py-2 sm:grid-cols-[auto_4rem_10rem_1fr]">
              <input
                type="checkbox"
                aria-label={`Done: ${wordsOf(each)}`}
                className="accent-ink print:hidden"
                checked={done.includes(at)}
                onChange={() => tick(done.includes(at) ? done.filter((of) => of !== at) : [...done, at])}
              />
              <time className="font-semibold">{timeOf(begins, each.minutes)}</time>
              <span className={each.chance === null ? "" : "text-xl font-bold"}>{wordsOf(each)}</span>
              <span className="col-start-3 text-faint sm:col-start-4">{moreOf(each)}</span>
            </label>
          </li>
        ))}
      </ol>
      {lift.cues.length > 0 && (
        <p className="mt-2">
          <span className="text-faint">Remember: </span>
          {lift.cues.join("; ")}
        </p>
      )}
    </section>
  );
}

const nameOf = (lift: OnDay) => [lift.exercise, ...lift.setup.items].join(", ");

/** What is on the bar, and for an attempt which one it is and its chance. */
function moreOf({ name, bar, sleeve, makes, chance }: DayStep): string {
  const plates = sleeve.length ? `${sleeve.map(plain).join(" ")} a side` : bar ? "the bar alone" : "";
  const built = makes ? plates : "not with the plates here";
  return [built, chance !== null && `${name}, ${Math.round(chance * 100)} %`].filter(Boolean).join(", ");
}

function wordsOf({ name, kg, reps }: DayStep): string {
  if (kg === null) return "Move and warm up";
  return name === "warm up" ? `${plain(kg)} kg × ${reps}` : `${plain(kg)} kg`;
}

/** A time of day so many minutes before another one. */
function timeOf(begins: string, before: number): string {
  const [hours = 0, minutes = 0] = begins.split(":").map(Number);
  const at = (hours * 60 + minutes - before + 24 * 60) % (24 * 60);
  const two = (number: number) => String(number).padStart(2, "0");
  return `${two(Math.floor(at / 60))}:${two(at % 60)}`;
}

/** Something of the day that is kept on this device, so that closing the page loses nothing. */
function useKeptHere<T>(day: Day, what: string, first: T): [T, (value: T) => void] {
  const key = `${day.what} ${day.on} ${what}`;
  const [value, setValue] = useState<T>(() => {
    const kept = localStorage.getItem(key);
    return kept === null ? first : (JSON.parse(kept) as T);
  });
  const keep = (next: T) => {
    setValue(next);
    localStorage.setItem(key, JSON.stringify(next));
  };
  return [value, keep];
}

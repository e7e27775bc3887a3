import { ArrowLeft, ArrowRight } from "lucide-react";
import { Link, useParams } from "react-router";
import type { Schemas } from "@/data/client";
import { useWeeks } from "@/data/queries";
import { Loaded } from "@/parts/Loaded";
import { useWidth } from "@/parts/useWidth";
import { SmallScore, unitFor } from "@/score/SmallScore";
import { averageWords, clock, kilograms, minutes, plain, tenth } from "@/score/words";
import { addDays, dayAndMonth, fullDate } from "../dates";
import { Bars } from "./Bars";
import { WorkAndLoad } from "./WorkAndLoad";

type View = Schemas["WeeksView"];
type WeekView = Schemas["WeekView"];

const MANY = 12;

/** One week added up: beside the one before it, beside what is usual, and in a row with those that led to it. */
export default function Week() {
  const { monday = "" } = useParams();
  return (
    <Loaded query={useWeeks(monday, MANY)} what="the week">
      {(view) => <Shown view={view} />}
    </Loaded>
  );
}

function Shown({ view }: { view: View }) {
  const [before, week] = view.weeks.slice(-2);
  if (!week) return null;
  return (
    <div className="mx-auto max-w-6xl space-y-10 px-4 py-6 sm:px-7">
      <header>
        <div className="flex flex-wrap items-center justify-between gap-4">
          <h1 className="text-3xl font-bold tracking-tight">Week of {dayAndMonth(week.monday)}</h1>
          <nav aria-label="Weeks" className="flex gap-6">
            <Turn to={addDays(week.monday, -7)} />
            {week.is_over && <Turn to={addDays(week.monday, 7)} later />}
          </nav>
        </div>
        <p className="mt-1 text-lg">{summary(week)}</p>
        {week.beside && <p className="text-faint">{week.beside}</p>}
      </header>
      {week.sessions > 0 && <Sessions of={week.of} />}
      <div className="grid grid-cols-1 gap-x-12 gap-y-10 lg:grid-cols-[1fr_24rem]">
        <div className="min-w-0 space-y-10">
          <WorkAndLoad weeks={view.weeks} />
          {week.hard_sets.length > 0 && (
            <section>
              <Bars
                title="Hard sets by muscle"
                what="this week"
                bars={week.hard_sets.map(({ name, count }) => {
                  const usual = view.usual.find((each) => each.name === name);
                  return { name, count, low: usual?.low, high: usual?.high };
                })}
              />
              <p className="text-sm text-faint">
                Sets that ended within four reps of failure; a muscle that only helps counts half.
                {view.usual.length > 0 &&
                  " Shaded is what is usual for you: the middle half of the weeks shown here that you trained in."}
              </p>
            </section>
          )}
          {week.zones.length > 0 && (
            <section>
              <Bars title="Reps by share of the max" what="reps" bars={week.zones} />
              <p className="text-sm text-faint">
                Of the max as it was known on the day. Reps without a load or a known max are in none of them.
              </p>
            </section>
          )}
        </div>
        <div className="space-y-10">
          <Numbers week={week} before={before} />
          <ByLift week={week} before={before} />
        </div>
      </div>
    </div>
  );
}

function Turn({ to, later = false }: { to: string; later?: boolean }) {
  return (
    <Link to={`/ledger/week/${to}`} className="flex min-h-11 items-center gap-2 underline underline-offset-4">
      {!later && <ArrowLeft size={16} aria-hidden />}
      {later ? "The week after" : "The week before"}
      {later && <ArrowRight size={16} aria-hidden />}
    </Link>
  );
}

const summary = (week: WeekView) =>
  week.sessions === 0
    ? `Nothing was lifted in this week${week.is_over ? "" : " so far"}.`
    : `${week.is_over ? "" : "So far "}${week.sessions} ${week.sessions === 1 ? "session" : "sessions"}, ${minutes(week.seconds)}, ${week.sets} sets, ${week.reps} reps, ${kilograms(week.tonnage_kg)}`;

function Sessions({ of }: { of: WeekView["of"] }) {
  const [ref, width] = useWidth<HTMLUListElement>();
  const place = width < 600 ? width : Math.max(width - 380, 100);
  const unit = unitFor(
    of.map((session) => session.score),
    place,
  );
  return (
    <ul ref={ref} className="border-t border-ink">
      {of.map((session) => (
        <li key={session.id} className="border-b border-hairline">
          <Link
            to={`/ledger/${session.id}`}
            className="grid min-h-11 grid-cols-1 gap-x-6 py-2 hover:bg-panel sm:grid-cols-[12rem_1fr_auto] sm:items-end"
          >
            <span>
              <b>{session.title}</b>
              <br />
              <span className="text-[15px] text-faint">{fullDate(session.day)}</span>
            </span>
            <SmallScore score={session.score} unit={unit} />
            <span className="text-[15px] text-faint">
              {session.minutes} min, {kilograms(session.tonnage_kg)}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** Lift by lift, which compares also where the weeks had other lifts. */
function ByLift({ week, before }: { week: WeekView; before: WeekView | undefined }) {
  const then = new Map(before?.lifts.map((lift) => [lift.exercise, lift]));
  if (!week.lifts.length) return null;
  return (
    <section aria-labelledby="by-lift">
      <h2 id="by-lift" className="text-xl font-bold">
        Lift by lift
      </h2>
      <table className="mt-3 w-full text-[15px]">
        <thead className="text-right text-sm text-faint">
          <tr>
            <th className="text-left font-normal">
              <span className="sr-only">Lift</span>
            </th>
            <th className="font-normal">Tonnage</th>
            <th className="pl-4 font-normal" colSpan={2}>
              Average load <span className="sr-only">this week and the one before</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {week.lifts.map((lift) => (
            <tr key={lift.exercise} className="border-t border-hairline">
              <th scope="row" className="py-1 text-left font-normal">
                {lift.exercise}
              </th>
              <td className="py-1 text-right font-bold whitespace-nowrap">{kilograms(lift.tonnage_kg)}</td>
              <td className="py-1 pl-4 text-right font-bold whitespace-nowrap">{averageWords(lift)}</td>
              <td className="py-1 pl-3 text-right whitespace-nowrap text-faint">
                {averageWords(then.get(lift.exercise))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Numbers({ week, before }: { week: WeekView; before: WeekView | undefined }) {
  const then = before && before.sessions > 0 ? before : null;
  const row = (name: string, of: (week: WeekView) => string | null) => {
    const [now, last] = [of(week), then && of(then)];
    if (now === null && last === null) return null;
    return (
      <tr key={name} className="border-t border-hairline">
        <th scope="row" className="py-1 text-left font-normal">
          {name}
        </th>
        <td className="py-1 text-right font-bold whitespace-nowrap">{now ?? "–"}</td>
        {then && <td className="py-1 pl-4 text-right whitespace-nowrap text-faint">{last ?? "–"}</td>}
      </tr>
    );
  };
  const share = (count: (week: WeekView) => number, of: (week: WeekView) => number) => (each: WeekView) =>
    count(each) && of(each) ? `${count(each)} (${Math.round((count(each) / of(each)) * 100)} %)` : null;
  return (
    <section aria-labelledby="numbers">
      <h2 id="numbers" className="text-xl font-bold">
        In numbers
      </h2>
      <table className="mt-3 w-full text-[15px]">
        <thead className={then ? "text-right text-sm text-faint" : "sr-only"}>
          <tr>
            <th>
              <span className="sr-only">What</span>
            </th>
            <th className="font-normal">this week</th>
            {then && <th className="pl-4 font-normal">the one before</th>}
          </tr>
        </thead>
        <tbody>
          {row("Tonnage", (each) => kilograms(each.tonnage_kg))}
          {row("Average load", (each) => (each.average_kg === null ? null : `${plain(each.average_kg)} kg`))}
          {row("of the max", (each) =>
            each.average_percent === null ? null : `${plain(tenth(each.average_percent))} %`,
          )}
          {row("Sets", (each) => String(each.sets))}
          {row("Reps", (each) => String(each.reps))}
          {row("Time on the floor", (each) => (each.sessions ? minutes(each.seconds) : "0 min"))}
          {row("Time under load", (each) => clock(each.work_seconds))}
          {row("Tonnage a minute", (each) =>
            each.seconds ? kilograms(Math.round((each.tonnage_kg / each.seconds) * 60)) : null,
          )}
          {row(
            "Sets to failure",
            share(
              (each) => each.failure_sets,
              (each) => each.sets,
            ),
          )}
          {row(
            "Half reps",
            share(
              (each) => each.partial_reps,
              (each) => each.reps,
            ),
          )}
          {row(
            "Lowered only, or with help",
            share(
              (each) => each.overloaded_reps,
              (each) => each.reps,
            ),
          )}
          {row("Load by effort", (each) => (each.load === null ? null : String(Math.round(each.load))))}
          {row("Monotony", (each) => (each.monotony === null ? null : each.monotony.toFixed(2)))}
          {row("Strain", (each) => (each.strain === null ? null : String(Math.round(each.strain))))}
        </tbody>
      </table>
      <p className="mt-2 text-sm text-faint">
        {week.load === null
          ? "Say after each session how hard it was as a whole, and the week's load, monotony and strain stand here too."
          : "Load by effort is how hard each session was, 0 to 10, times its minutes; monotony its daily mean by its spread, strain the two together (Foster)."}
      </p>
    </section>
  );
}

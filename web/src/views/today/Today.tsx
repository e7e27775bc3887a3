import { clsx } from "clsx";
import { group } from "d3-array";
import { Link, useNavigate } from "react-router";
import { useShortcut } from "@/app/shortcuts";
import type { Schemas, Step } from "@/data/client";
import { outbox } from "@/data/outbox";
import { useStart, useToday } from "@/data/queries";
import { Builds } from "@/parts/Builds";
import { Button } from "@/parts/Button";
import { CardLink } from "@/parts/CardLink";
import { ForetoldNote } from "@/parts/ForetoldNote";
import { Loaded } from "@/parts/Loaded";
import { Trouble } from "@/parts/Notice";
import { Reasons, useWorkingKey } from "@/parts/Reasons";
import { Remember } from "@/parts/Remember";
import { WeighIn } from "@/parts/WeighIn";
import { PlannedScore } from "@/score/PlannedScore";
import { kilograms, loadOf, minutes, plain, preparationWords, weightOf } from "@/score/words";
import { dayWords, fullDate, untilWords } from "../dates";
import { FirstRun } from "./FirstRun";
import { LightWeekDue } from "./LightWeekDue";
import { Ready } from "./Ready";
import { Shorten } from "./Shorten";

type DueSession = Schemas["DueSession"];
type LiftLine = Schemas["LiftLine"];

/** What is on, with which loads and why. */
export default function Today() {
  return (
    <Loaded query={useToday()} what="today's session">
      {(view) => <Day view={view} />}
    </Loaded>
  );
}

function Day({ view }: { view: Schemas["TodayView"] }) {
  const [first, ...others] = view.due;
  useWorkingKey();
  return (
    <div className="mx-auto grid max-w-6xl grid-cols-1 gap-x-14 px-4 py-6 sm:px-7 lg:grid-cols-[minmax(0,1fr)_17rem]">
      <div className="space-y-12">
        {view.started && <Underway session={view.started} />}
        {view.body_weight_missing && (
          <section className="border-l-4 border-look pl-4">
            <p className="mb-2">
              These lifts move your body weight, and Fortis does not know it yet. Their maxes and some loads
              wait for it.
            </p>
            <WeighIn today={view.on} />
          </section>
        )}
        {first && <Due session={first} today={view.on} primary={!view.started} />}
        {others.map((session) => (
          <Due key={session.id} session={session} today={view.on} primary={false} />
        ))}
        {!first && !view.started && (view.is_new ? <FirstRun /> : <NothingDue />)}
      </div>
      <aside className="mt-12 space-y-8 lg:mt-2">
        <section>
          <h2 className="font-bold">Coming</h2>
          {view.coming.length === 0 && <p className="mt-1 text-faint">Nothing is planned yet.</p>}
          <ul className="mt-1">
            {view.coming.map((session) => (
              <li key={session.id}>
                <Link
                  to={`/compose/${session.id}`}
                  className="flex min-h-11 items-center justify-between gap-4 hover:underline"
                >
                  <span>{session.title}</span>
                  <span className="text-faint">
                    {session.planned_on ? dayWords(session.planned_on, view.on) : "no date"}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
          <Link to="/compose" className="flex min-h-11 items-center underline underline-offset-4">
            Compose a session
          </Link>
        </section>
        <LightWeekDue />
        {view.season && (
          <section>
            <h2 className="font-bold">Season</h2>
            <Link to="/season" className="flex min-h-11 items-center justify-between gap-4 hover:underline">
              <span>{view.season.title}</span>
              <span className="text-right text-faint">{seasonWords(view.season, view.on)}</span>
            </Link>
            {view.season.trial && <p className="text-faint">{view.season.trial}.</p>}
            {view.season.aim && view.season.aim.on >= view.on && (
              <p className="text-faint">{untilWords(view.season.aim, view.on)}.</p>
            )}
          </section>
        )}
        {view.last?.started_at && (
          <section>
            <h2 className="font-bold">Last time</h2>
            <Link
              to={`/ledger/${view.last.id}`}
              className="flex min-h-11 items-center justify-between hover:underline"
            >
              <span>{view.last.title}</span>
              <span className="text-faint">{dayWords(view.last.started_at.slice(0, 10), view.on)}</span>
            </Link>
          </section>
        )}
      </aside>
    </div>
  );
}

/** Where in its season a day is. */
function seasonWords({ begins, number, weeks, kind }: Schemas["SeasonNow"], on: string): string {
  if (begins) return `begins ${dayWords(begins, on)}`;
  return number === null ? "no week of it" : `week ${number} of ${weeks}, ${kind}`;
}

function Underway({ session }: { session: Schemas["SessionCard"] }) {
  const go = useNavigate();
  useShortcut("space", "Space", "Go on with the session", () => go(`/floor/${session.id}`));
  return (
    <section className="flex flex-wrap items-center justify-between gap-4 rounded-card bg-rest-panel p-5 text-rest-text">
      <div>
        <h2 className="text-2xl font-bold">{session.title} is under way</h2>
        <p className="opacity-80">Everything recorded so far is kept.</p>
      </div>
      <Button look="rest" hotkey="Space" onClick={() => go(`/floor/${session.id}`)}>
        Go on
      </Button>
    </section>
  );
}

function Due({ session, today, primary }: { session: DueSession; today: string; primary: boolean }) {
  const start = useStart();
  const go = useNavigate();
  const begin = () => start.mutate(session.id, { onSuccess: () => go(`/floor/${session.id}`) });
  const beginWithout = (skipped: string[]) =>
    start.mutate(session.id, {
      onSuccess: ({ id, adjustments }) => {
        if (skipped.length)
          void outbox.adjust(id, { before: adjustments, after: { ...adjustments, skipped } });
        go(`/floor/${id}`);
      },
    });
  useShortcut("space", "Space", "Start today's session", begin, primary && !start.isPending);
  const groups = group(session.lifts, (lift) => lift.group);
  const { prep } = session.timeline;
  const steps = group(session.timeline.steps, (step) => step.group);
  return (
    <section>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="text-faint first-letter:uppercase">{dayWords(session.planned_on ?? today, today)}</p>
          <h1 className="text-3xl font-bold tracking-tight">{session.title}</h1>
          <p className="flex flex-wrap items-center gap-x-6 text-faint">
            <span>
              about <b className="text-ink">{minutes(session.costing.seconds)}</b>, {session.costing.reps}{" "}
              reps, {kilograms(session.costing.tonnage_kg)}
            </span>
            <span className="print:hidden">
              <CardLink session={session.id} />
            </span>
          </p>
        </div>
        <div className="flex w-full gap-2 sm:w-auto">
          <Button
            look={primary ? "strong" : "plain"}
            {...(primary && { hotkey: "Space" })}
            className="flex-1"
            onClick={begin}
            disabled={start.isPending}
          >
            Start
          </Button>
          <Button look="quiet" onClick={() => go(`/compose/${session.id}`)}>
            Change
          </Button>
        </div>
      </header>
      <Shorten session={session} onStart={beginWithout} />
      <Ready session={session} />
      {start.error && <Trouble error={start.error} retry={begin} />}
      {prep.length > 0 && <p className="mt-4">Before you lift: {preparationWords(prep)}</p>}
      <div className="mt-5 border-t border-ink">
        {[...groups.values()].map((lifts) => (
          <div key={lifts[0]?.group} className={clsx(lifts.length > 1 && "relative")}>
            {lifts.length > 1 && <span aria-hidden className="absolute inset-y-0 -left-3 w-0.5 bg-ink" />}
            {lifts.length > 1 && (
              <p className="pt-3 text-sm text-faint">
                {lifts.length === 2 ? "A pair" : "A circuit"}
                {lifts[0]?.rounds ? `, ${lifts[0].rounds} rounds` : ""}
              </p>
            )}
            {lifts.length > 1 && <PlannedScore steps={steps.get(lifts[0]?.group ?? 0) ?? []} />}
            {lifts.map((lift) => (
              <Lift
                key={lift.exercise}
                lift={lift}
                cue={session.cues.findLast((cue) => cue.exercise === lift.exercise)?.text ?? ""}
                steps={lifts.length > 1 ? [] : (steps.get(lift.group) ?? [])}
              />
            ))}
          </div>
        ))}
      </div>
      <ForetoldNote steps={session.timeline.steps} />
    </section>
  );
}

/** A lift with its loads and why; with its score, where it has one of its own. */
function Lift({ lift, steps, cue }: { lift: LiftLine; steps: Step[]; cue: string }) {
  return (
    <article className="grid grid-cols-1 gap-x-8 gap-y-1 border-b border-hairline py-4 sm:grid-cols-[minmax(0,1fr)_auto]">
      <h2 className="text-lg font-bold">
        {lift.exercise}
        {lift.setup.items.length > 0 && (
          <span className="ml-2 text-[15px] font-normal text-faint">{lift.setup.items.join(", ")}</span>
        )}
      </h2>
      <p className="narrow text-3xl leading-8 font-bold sm:row-span-2 sm:text-right">
        {lift.loads.length ? (
          <Loads loads={lift.loads} />
        ) : (
          <span className="text-lg text-faint">choose on the day</span>
        )}
      </p>
      <p className="text-[15px]">
        {lift.written}
        {lift.instead && <b>, now {lift.instead}</b>}
      </p>
      {steps.length > 0 && (
        <div className="col-span-full mt-2">
          <PlannedScore steps={steps} titled={false} />
        </div>
      )}
      <div className="text-[15px] text-faint">
        {lift.waits_for_max && <Remember lift={lift} />}
        {cue && (
          <p>
            Cue from last time: <b className="text-ink">{cue}</b>
          </p>
        )}
        <Builds lift={lift} />
        {lift.last_kg != null && lift.loads.length > 0 && <p>{sinceWords(lift, lift.last_kg)}</p>}
        <Reasons reasons={lift.reasons} />
        {lift.reach && <p>{reachWords(lift.reach, lift.loads[0]?.body === true)}</p>}
      </div>
    </article>
  );
}

/** What differs from last time: the heaviest load beside the heaviest then, with the same set-up. */
function sinceWords({ loads }: LiftLine, last: number): string {
  const more = Math.round((Math.max(...loads.map((load) => load.kg)) - last) * 100) / 100;
  return more === 0
    ? "As heavy as last time."
    : `${plain(Math.abs(more))} kg ${more > 0 ? "more" : "less"} than last time.`;
}

/** A record that is likely at hand: said once, and not pressed. */
function reachWords({ kg, reps, was_reps, was_kg, was_on }: Schemas["Record"], body: boolean) {
  const load = (of: number) => weightOf({ kg: of, body });
  const was = was_kg === kg ? was_reps : `${was_reps} at ${load(was_kg)}`;
  return `A record within reach: ${reps} at ${load(kg)}. Until now ${was}, on ${fullDate(was_on)}.`;
}

function Loads({ loads }: { loads: Schemas["Settled"][] }) {
  const words = loads.slice(0, 5).map(loadOf);
  const needsUnit = loads.some((load) => !load.body || load.kg !== 0);
  return (
    <>
      {words.join(" · ")}
      {loads.length > 5 && " …"}
      {needsUnit && <span className="ml-1 text-lg font-normal">kg</span>}
    </>
  );
}

function NothingDue() {
  return (
    <section>
      <h1 className="text-3xl font-bold tracking-tight">Nothing is planned for today</h1>
      <p className="mt-2 max-w-prose text-faint">
        Write a session and put it on a date, or open a past one in the Ledger and plan it again.
      </p>
      <div className="mt-4 flex gap-6">
        <Link to="/compose" className="underline underline-offset-4">
          Compose a session
        </Link>
        <Link to="/ledger" className="underline underline-offset-4">
          Open the Ledger
        </Link>
      </div>
    </section>
  );
}

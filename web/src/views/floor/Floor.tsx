import { useQueryClient } from "@tanstack/react-query";
import { type ComponentProps, lazy, memo, Suspense, useDeferredValue, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { Status } from "@/app/Shell";
import { useShortcut } from "@/app/shortcuts";
import type { FloorView, Schemas } from "@/data/client";
import { keptViews } from "@/data/device";
import type { SeenView } from "@/data/entry";
import { floorKey, useFloor, useStart, useToday } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Loaded } from "@/parts/Loaded";
import { Notice, Trouble } from "@/parts/Notice";
import { sameFields, useStable } from "@/parts/stable";
import {
  clock,
  kilograms,
  mannerWords,
  minutes,
  preparationWords,
  sideWords,
  targetWords,
} from "@/score/words";
import { dayWords } from "../dates";
import { ClockPanel } from "./ClockPanel";
import { Conflicts } from "./Conflicts";
import { CurrentGroup } from "./CurrentGroup";
import { secondsLeft } from "./clock";
import { Finishing } from "./Finishing";
import { LoadPanel } from "./LoadPanel";
import { moment } from "./moment";
import { Prepare, preparationOf } from "./Prepare";
import { Preview } from "./Preview";
import { useEndSignals, useSignals, useWakeLock } from "./signals";
import { useMoment } from "./ticking";
import { useFloorKeys } from "./useFloorKeys";
import { type Playing, useSession } from "./useSession";
import { WhatHappened } from "./WhatHappened";

/** Fetched once the Floor is there; without it, cut off from the server, a session is played as it was planned. */
const More = lazy(() => import("./More").catch(() => ({ default: memo(() => null) })));

/** Play a session: the one in the address, else the one under way, else the one due. */
export default function Floor() {
  const { id } = useParams();
  return id ? <FloorOf id={id} /> : <WhichSession />;
}

function WhichSession() {
  const query = useToday();
  const kept = useKept(query.isError, (views) => views[0]);
  if (kept) return <FloorOf id={kept.id} />;
  return (
    <Loaded query={query} what="the session">
      {(today) => <Choice today={today} />}
    </Loaded>
  );
}

/** What this device keeps of a session, once the server cannot be asked. */
function useKept(
  wanted: boolean,
  which: (views: FloorView[]) => FloorView | undefined,
): FloorView | undefined {
  const queries = useQueryClient();
  const [kept, setKept] = useState<FloorView>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once, when the server is found gone
  useEffect(() => {
    if (!wanted) return;
    void keptViews().then((views) => {
      const view = which(views);
      if (view) queries.setQueryData<SeenView>(floorKey(view.id), { ...view, asOf: 0 });
      setKept(view);
    });
  }, [wanted]);
  return kept;
}

function Choice({ today }: { today: Schemas["TodayView"] }) {
  if (today.started) return <FloorOf id={today.started.id} />;
  const [due, ...others] = [...today.due, ...today.coming];
  return (
    <>
      {due ? (
        <FloorOf id={due.id} />
      ) : (
        <section className={SHEET}>
          <h1 className="text-3xl font-bold tracking-tight">Nothing is planned</h1>
          <p className="mt-2">
            <Link to="/compose" className="underline underline-offset-4">
              Compose a session
            </Link>
            , and it is here to start.
          </p>
        </section>
      )}
      {others.length > 0 && (
        <section aria-labelledby="others" className={SHEET}>
          <h2 id="others" className="font-bold">
            Or start another
          </h2>
          <ul className="mt-1 max-w-md divide-y divide-hairline border-y border-hairline">
            {others.slice(0, MOST_OFFERED).map((session) => (
              <li key={session.id}>
                <Link
                  to={`/floor/${session.id}`}
                  className="flex min-h-12 items-center justify-between gap-4 hover:underline"
                >
                  <span className="font-semibold">{session.title}</span>
                  <span className="text-faint">
                    {session.planned_on ? dayWords(session.planned_on, today.on) : "no date"}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

const SHEET = "mx-auto max-w-6xl px-4 py-6 sm:px-7";
const MOST_OFFERED = 6;

function FloorOf({ id }: { id: string }) {
  const query = useFloor(id);
  useKept(query.isError && !query.data, (views) => views.find((each) => each.id === id));
  return (
    <Loaded query={query} what="the session">
      {(view) => (view.state === "planned" ? <NotStarted view={view} /> : <Play key={view.id} told={view} />)}
    </Loaded>
  );
}

/** A session that is about to be played: how long it takes, its score, and the button that starts it. */
function NotStarted({ view }: { view: FloorView }) {
  const start = useStart();
  const { steps, total_seconds } = view.timeline;
  const prep = preparationOf(view);
  const warmUps = new Set(steps.filter((step) => step.warm_up).map((step) => step.exercise));
  const begin = () => start.mutate(view.id);
  useShortcut("space", "Space", "Start the session", begin, !start.isPending);
  return (
    <section className={SHEET}>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl font-bold tracking-tight">{view.title}</h1>
          <p className="mt-1 text-faint">
            about <b className="text-ink">{minutes(total_seconds)}</b>
            {prep.length > 0 && ", preparation included"}
            {warmUps.size > 0 && `, warm-ups for ${[...warmUps].join(" and ").toLowerCase()} included`}
          </p>
        </div>
        <Button look="strong" hotkey="Space" onClick={begin} disabled={start.isPending}>
          Start
        </Button>
      </header>
      {start.error && <Trouble error={start.error} />}
      {prep.length > 0 && <p className="mt-3">Before you lift: {preparationWords(prep)}.</p>}
      <Preview steps={steps} />
    </section>
  );
}

const BLOCK_OVER = "The block is over.";

/** A session under way: what is to be done before the first lift, until there is one, and the lifting. */
function Play({ told }: { told: SeenView }) {
  const playing = useSession(told);
  const [preparing, setPreparing] = useState<boolean | null>(null);
  const items = preparationOf(playing.view);
  const open = preparing ?? playing.done.size === 0;
  if (items.length > 0 && open && playing.state !== "finished") {
    return (
      <div className="px-4 pb-28 sm:px-7">
        <h1 className="sr-only">{playing.view.title}</h1>
        <Status>
          <FloorStatus playing={playing} preparing />
        </Status>
        <Prepare playing={playing} onLift={() => setPreparing(false)} />
      </div>
    );
  }
  return <Lift playing={playing} onPrepare={items.length > 0 ? () => setPreparing(true) : undefined} />;
}

function Lift({ playing, onPrepare }: { playing: Playing; onPrepare: (() => void) | undefined }) {
  const { view, standing, steps } = playing;
  const [signals, setSignals] = useSignals();
  const awake = useWakeLock();
  const queries = useQueryClient();
  const next = standing.work === null ? undefined : steps[standing.work];
  const say = next
    ? `Rest is over. ${[next.exercise + sideWords(next.side), targetWords(next.target), mannerWords(next)].filter(Boolean).join(", ")}.`
    : "";
  const held = standing.mode === "working" && next?.target?.kind === "hold" ? next.target.seconds : null;
  useEndSignals({
    runs: standing.stoodAt === null && (standing.mode === "resting" || held !== null),
    endsAt: standing.zero + (held ?? 0) * 1000,
    seconds: held ?? standing.rest,
    say: held === null ? say : `${held} seconds: let go.`,
    now: moment,
    signals,
  });
  useFloorKeys(playing);
  const drawn = useLater({
    steps,
    done: playing.done,
    at: standing.work,
    before: standing.before,
    wouldBe: playing.wouldBe,
  });
  useEndSignals({
    runs: standing.stoodAt === null && standing.blockEndsAt !== null,
    endsAt: standing.blockEndsAt ?? 0,
    seconds: next?.block?.seconds ?? 0,
    say: BLOCK_OVER,
    now: moment,
    signals,
  });
  const finished = standing.work === null || playing.state === "finished";
  return (
    <div className="mx-auto max-w-[1480px] px-3 pb-28 sm:px-7 lg:flex lg:min-h-[calc(100dvh-60px)] lg:flex-col lg:pb-6">
      <h1 className="sr-only">{view.title}</h1>
      <Status>
        <FloorStatus playing={playing} />
      </Status>
      <Conflicts
        playing={playing}
        onSettled={() => queries.invalidateQueries({ queryKey: floorKey(view.id) })}
      />
      {finished && playing.status.word && <Notice>{playing.status.word}</Notice>}
      <CurrentGroup {...drawn} />
      {finished ? (
        <Finishing playing={playing} />
      ) : (
        <div className="grid items-stretch gap-3 lg:flex-1 lg:grid-cols-[1fr_1fr_1.25fr] lg:gap-4">
          <ClockPanel
            standing={standing}
            steps={steps}
            done={playing.done}
            mark={playing.mark}
            acts={playing.acts}
            sound={signals.sound}
            className="order-1 lg:order-2"
          />
          <WhatHappened playing={playing} slowing={view.slowing} className="order-2 lg:order-3" />
          <LoadPanel
            standing={standing}
            steps={steps}
            done={playing.done}
            cues={view.cues}
            choices={view.choices}
            changed={playing.changed}
            onChange={playing.acts.change}
            className="order-3 lg:order-1"
          />
        </div>
      )}
      {!finished && (
        <div className="flex flex-wrap items-center gap-x-4 text-[15px] text-faint">
          <Suspense fallback={<span className="min-h-11 px-2 py-2.5">Change the plan</span>}>
            <More
              standing={standing}
              steps={steps}
              done={playing.done}
              changed={playing.changed}
              standIns={view.stand_ins}
              acts={playing.acts}
              signals={signals}
              onSignals={setSignals}
            />
          </Suspense>
          {onPrepare && (
            <button type="button" className="min-h-11 px-2 underline underline-offset-4" onClick={onPrepare}>
              Before you lift
            </button>
          )}
          {!awake && <span>This browser lets the screen sleep: set it to stay on while you train.</span>}
        </div>
      )}
      <p className="sr-only" role="status">
        {standing.blockOver ? BLOCK_OVER : standing.mode === "over" ? say : ""}
      </p>
    </div>
  );
}

/** What the score shows: it follows a tap once the tap itself has been painted. */
function useLater(now: ComponentProps<typeof CurrentGroup>) {
  return useDeferredValue(useStable(now, sameFields));
}

function FloorStatus({ playing, preparing = false }: { playing: Playing; preparing?: boolean }) {
  const { view, state, steps, standing } = playing;
  const tonnage = view.bouts.reduce((sum, bout) => sum + bout.tonnage_kg, 0);
  return (
    <>
      {state !== "finished" && (
        <>
          <span>
            <span className="hidden sm:inline">in </span>
            <b className="text-ink">{view.started_at && <Since start={view.started_at} />}</b>
          </span>
          <span className={standing.work === null || preparing ? "hidden" : "hidden md:inline"}>
            about <b className="text-ink">{minutes(secondsLeft(steps, playing.done, standing.work))}</b> to go
          </span>
        </>
      )}
      <span className="hidden md:inline">{kilograms(tonnage)} so far</span>
    </>
  );
}

function Since({ start }: { start: string }) {
  const seconds = (useMoment() - Date.parse(start)) / 1000;
  return clock(Math.max(seconds, 0));
}

import { useQueryClient } from "@tanstack/react-query";
import { type ComponentProps, useDeferredValue, useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { Status } from "@/app/Shell";
import type { FloorView, Schemas } from "@/data/client";
import { keptViews } from "@/data/device";
import { floorKey, useFloor, useStart, useToday } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Loaded } from "@/parts/Loaded";
import { Trouble } from "@/parts/Notice";
import { sameFields, useStable } from "@/parts/stable";
import { clock, kilograms, mannerWords, minutes, sideWords, targetWords } from "@/score/words";
import { ClockPanel } from "./ClockPanel";
import { Conflicts } from "./Conflicts";
import { CurrentGroup } from "./CurrentGroup";
import { Finishing } from "./Finishing";
import { LoadPanel } from "./LoadPanel";
import { More } from "./More";
import { moment } from "./moment";
import { secondsLeft } from "./play";
import { useEndSignals, useSignals, useWakeLock } from "./signals";
import { useMoment } from "./ticking";
import { useFloorKeys } from "./useFloorKeys";
import { type Playing, useSession } from "./useSession";
import { WhatHappened } from "./WhatHappened";

/** Play a session: the one in the address, else the one under way, else the one due. */
export default function Floor() {
  const { id } = useParams();
  return id ? <FloorOf id={id} /> : <WhichSession />;
}

function WhichSession() {
  const query = useToday();
  const kept = useKept(query.isError, (views) => views[0]);
  if (kept) return <Play key={kept.id} view={kept} />;
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
      if (view) queries.setQueryData(floorKey(view.id), view);
      setKept(view);
    });
  }, [wanted]);
  return kept;
}

function Choice({ today }: { today: Schemas["TodayView"] }) {
  const go = useNavigate();
  const start = useStart();
  if (today.started) return <FloorOf id={today.started.id} />;
  const due = today.due[0];
  return (
    <div className="p-8">
      <h1 className="text-2xl font-bold">No session is under way</h1>
      {due ? (
        <Button
          look="strong"
          className="mt-4"
          onClick={() => start.mutate(due.id, { onSuccess: () => go(`/floor/${due.id}`) })}
        >
          Start {due.title}
        </Button>
      ) : (
        <p className="mt-2">
          <Link to="/compose" className="underline underline-offset-4">
            Compose one
          </Link>
          , put it on today, and start it.
        </p>
      )}
    </div>
  );
}

function FloorOf({ id }: { id: string }) {
  const query = useFloor(id);
  useKept(query.isError && !query.data, (views) => views.find((each) => each.id === id));
  return (
    <Loaded query={query} what="the session">
      {(view) => (view.state === "planned" ? <NotStarted view={view} /> : <Play key={view.id} view={view} />)}
    </Loaded>
  );
}

function NotStarted({ view }: { view: FloorView }) {
  const start = useStart();
  return (
    <div className="p-8">
      <h1 className="text-2xl font-bold">{view.title}</h1>
      <p className="mt-1 text-faint">about {minutes(view.timeline.total_seconds)}</p>
      <Button look="strong" className="mt-4" onClick={() => start.mutate(view.id)} disabled={start.isPending}>
        Start
      </Button>
      {start.error && <Trouble error={start.error} />}
    </div>
  );
}

const BLOCK_OVER = "The block is over.";

function Play({ view }: { view: FloorView }) {
  const playing = useSession(view);
  const { place, steps } = playing;
  const [signals, setSignals] = useSignals();
  const awake = useWakeLock();
  const queries = useQueryClient();
  const next = place.work === null ? undefined : steps[place.work];
  const say = next
    ? `Rest is over. ${[next.exercise + sideWords(next.side), targetWords(next.target), mannerWords(next)].filter(Boolean).join(", ")}.`
    : "";
  const held = place.mode === "working" && next?.target?.kind === "hold" ? next.target.seconds : null;
  useEndSignals({
    runs: place.stoodAt === null && (place.mode === "resting" || held !== null),
    endsAt: place.zero + (held ?? 0) * 1000,
    seconds: held ?? place.rest,
    say: held === null ? say : `${held} seconds: let go.`,
    now: moment,
    signals,
  });
  useFloorKeys(playing);
  const drawn = useLater({ steps, done: playing.done, at: place.work, before: place.before });
  useEndSignals({
    runs: place.stoodAt === null && place.blockEndsAt !== null,
    endsAt: place.blockEndsAt ?? 0,
    seconds: next?.block?.seconds ?? 0,
    say: BLOCK_OVER,
    now: moment,
    signals,
  });
  const finished = place.work === null || playing.state === "finished";
  return (
    <div className="mx-auto max-w-[1480px] px-3 pb-28 sm:px-7 lg:flex lg:min-h-[calc(100dvh-60px)] lg:flex-col lg:pb-6">
      <h1 className="sr-only">{view.title}</h1>
      <Status>
        <FloorStatus view={view} playing={playing} />
      </Status>
      <Conflicts
        playing={playing}
        onSettled={() => queries.invalidateQueries({ queryKey: floorKey(view.id) })}
      />
      <CurrentGroup {...drawn} />
      {finished ? (
        <Finishing view={view} playing={playing} />
      ) : (
        <div className="grid items-stretch gap-3 lg:flex-1 lg:grid-cols-[1fr_1fr_1.25fr] lg:gap-4">
          <ClockPanel
            place={place}
            steps={steps}
            mark={playing.mark}
            acts={playing.acts}
            sound={signals.sound}
            className="order-1 lg:order-2"
          />
          <WhatHappened playing={playing} slowing={view.slowing} className="order-2 lg:order-3" />
          <LoadPanel place={place} steps={steps} cues={view.cues} className="order-3 lg:order-1" />
        </div>
      )}
      {!finished && (
        <div className="flex flex-wrap items-center gap-x-4 text-[15px] text-faint">
          <More
            place={place}
            steps={steps}
            done={playing.done}
            changed={playing.changed}
            acts={playing.acts}
            signals={signals}
            onSignals={setSignals}
          />
          {!awake && <span>This browser lets the screen sleep: set it to stay on while you train.</span>}
        </div>
      )}
      <p className="sr-only" role="status">
        {place.blockOver ? BLOCK_OVER : place.mode === "over" ? say : ""}
      </p>
    </div>
  );
}

/** What the score shows: it follows a tap once the tap itself has been painted. */
function useLater(now: ComponentProps<typeof CurrentGroup>) {
  return useDeferredValue(useStable(now, sameFields));
}

function FloorStatus({ view, playing }: { view: FloorView; playing: Playing }) {
  const { state, steps, place } = playing;
  return (
    <>
      {state !== "finished" && (
        <>
          <span>
            <span className="hidden sm:inline">in </span>
            <b className="text-ink">{view.started_at && <Since start={view.started_at} />}</b>
          </span>
          <span className={place.work === null ? "hidden" : "hidden md:inline"}>
            about <b className="text-ink">{minutes(secondsLeft(steps, place.work))}</b> to go
          </span>
        </>
      )}
      <span className="hidden md:inline">{kilograms(view.tonnage_kg)} so far</span>
    </>
  );
}

function Since({ start }: { start: string }) {
  const seconds = (useMoment() - Date.parse(start)) / 1000;
  return clock(Math.max(seconds, 0));
}

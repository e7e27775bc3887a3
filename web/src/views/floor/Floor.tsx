import { Link, useNavigate, useParams } from "react-router";
import { Status } from "@/app/Shell";
import type { FloorView, Schemas } from "@/data/client";
import { useFloor, useStart, useToday } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Loaded } from "@/parts/Loaded";
import { Trouble } from "@/parts/Notice";
import { clock, kilograms, minutes } from "@/score/words";
import { ClockPanel } from "./ClockPanel";
import { CurrentGroup } from "./CurrentGroup";
import { Finishing } from "./Finishing";
import { LoadPanel } from "./LoadPanel";
import { secondsLeft } from "./play";
import { useFloorKeys } from "./useFloorKeys";
import { type Playing, useSession } from "./useSession";
import { WhatHappened } from "./WhatHappened";

/** Play a session: the one in the address, else the one under way, else the one due. */
export default function Floor() {
  const { id } = useParams();
  return id ? <FloorOf id={id} /> : <WhichSession />;
}

function WhichSession() {
  return (
    <Loaded query={useToday()} what="the session">
      {(today) => <Choice today={today} />}
    </Loaded>
  );
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
  return (
    <Loaded query={useFloor(id)} what="the session">
      {(view) => (view.state === "planned" ? <NotStarted view={view} /> : <Play view={view} />)}
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

function Play({ view }: { view: FloorView }) {
  const playing = useSession(view);
  const { place, steps } = playing;
  useFloorKeys(playing);
  const finished = place.work === null || view.state === "finished";
  return (
    <div className="mx-auto max-w-[1480px] px-3 pb-28 sm:px-7 lg:flex lg:min-h-[calc(100dvh-60px)] lg:flex-col lg:pb-6">
      <h1 className="sr-only">{view.title}</h1>
      <Status>
        <FloorStatus view={view} playing={playing} />
      </Status>
      <CurrentGroup playing={playing} />
      {finished ? (
        <Finishing view={view} playing={playing} />
      ) : (
        <div className="grid items-stretch gap-3 lg:flex-1 lg:grid-cols-[1.1fr_1fr_1.2fr] lg:gap-4">
          <ClockPanel playing={playing} className="order-1 lg:order-2" />
          <WhatHappened playing={playing} className="order-2 lg:order-3" />
          <LoadPanel playing={playing} className="order-3 lg:order-1" />
        </div>
      )}
      <p className="sr-only" role="status">
        {place.mode === "over" && steps[place.work ?? 0] ? "Rest is over." : ""}
      </p>
    </div>
  );
}

function FloorStatus({ view, playing }: { view: FloorView; playing: Playing }) {
  const { status, now, steps, place } = playing;
  const into = view.started_at ? (now - Date.parse(view.started_at)) / 1000 : 0;
  const done = view.state === "finished";
  return (
    <>
      {!done && (
        <>
          <span>
            <span className="hidden sm:inline">in </span>
            <b className="text-ink">{clock(Math.max(into, 0))}</b>
          </span>
          <span className="hidden md:inline">
            about <b className="text-ink">{minutes(secondsLeft(steps, place.work))}</b> to go
          </span>
        </>
      )}
      <span className="hidden md:inline">{kilograms(view.tonnage_kg)} so far</span>
      <SaveState status={status} />
    </>
  );
}

function SaveState({ status }: { status: Playing["status"] }) {
  if (status.state === "refused")
    return (
      <span role="alert" className="text-work">
        not saved: {status.refusal}
      </span>
    );
  const words = status.state === "saved" ? "saved" : `kept on this device (${status.waiting.length})`;
  return (
    <span role="status" className="text-rest">
      <span aria-hidden>● </span>
      {words}
    </span>
  );
}

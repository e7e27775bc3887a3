import { Link, useSearchParams } from "react-router";
import type { Schemas } from "@/data/client";
import { useLiftStrength, useStrength } from "@/data/queries";
import { Loaded } from "@/parts/Loaded";
import { Menu, MenuItem } from "@/parts/Menu";
import { Progress } from "@/parts/Progress";
import { half, plain, tenth } from "@/score/words";
import { fullDate } from "../dates";
import { Bests } from "./Bests";
import { Calls, Foretold, Recovery } from "./Knowledge";
import { MaxOverTime } from "./MaxOverTime";
import { RepCurve } from "./RepCurve";
import { Sides } from "./Sides";

type View = Schemas["StrengthView"];
type KnownLift = Schemas["KnownLift"];

/** What every lift's max is, what it is known from, and how well the lifter is known. */
export default function Strength() {
  return (
    <Loaded query={useStrength()} what="what is known of your strength">
      {(view) => (view.lifts.length > 0 ? <Known view={view} /> : <Nothing />)}
    </Loaded>
  );
}

function Nothing() {
  return (
    <div className="max-w-xl p-8">
      <h1 className="text-2xl font-bold">Nothing is known of your strength yet</h1>
      <p className="mt-2">
        Finish a session and tell after a set how many reps were left: that is where a first estimate comes
        from, with how unsure it is. Or{" "}
        <Link to="/compose" className="underline underline-offset-4">
          compose a session
        </Link>{" "}
        by reps and reps left, and tell a recent set where its load is missing. Nobody needs to test a max.
      </p>
    </div>
  );
}

function Known({ view }: { view: View }) {
  const [chosen, choose] = useSearchParams();
  const lift =
    view.lifts.find(
      (each) => each.lift_id === chosen.get("lift") && each.setup_key === (chosen.get("setup") ?? ""),
    ) ?? (view.lifts[0] as KnownLift);
  const pick = (each: KnownLift) => choose({ lift: each.lift_id, setup: each.setup_key });
  return (
    <div className="grid grid-cols-1 lg:min-h-[calc(100dvh-58px)] lg:grid-cols-[1fr_26rem]">
      <div className="min-w-0 p-4 sm:p-8">
        <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <h1 className="text-3xl font-bold tracking-tight">
            {lift.exercise} <span className="text-xl font-normal text-faint">{lift.setup}</span>
          </h1>
          <Menu
            trigger={
              <button type="button" className="min-h-11 underline underline-offset-4">
                Another lift
              </button>
            }
          >
            {view.lifts.map((each) => (
              <MenuItem key={each.lift_id + each.setup_key} onSelect={() => pick(each)}>
                <span className="flex-1 pr-8">
                  {each.exercise} <span className="opacity-70">{each.setup}</span>
                </span>
                <b>{plain(half(each.max.kg))}</b>
              </MenuItem>
            ))}
          </Menu>
        </header>
        <OneLift lift={lift} />
      </div>
      <aside
        aria-label="How well you are known"
        className="space-y-8 border-hairline border-t bg-panel p-4 sm:p-7 lg:border-ink lg:border-t-0 lg:border-l"
      >
        <Person lift={lift} />
        <Foretold />
        <Recovery rests={view.recovery} />
      </aside>
    </div>
  );
}

function OneLift({ lift }: { lift: KnownLift }) {
  return (
    <>
      <div className="mt-3 flex flex-wrap items-center gap-x-9 gap-y-2">
        <p className="narrow text-[5.5rem] leading-none font-extrabold">
          {plain(Math.round(lift.max.kg))}
          <span className="ml-2 text-3xl font-medium">kg</span>
        </p>
        <p className="leading-relaxed">
          what you can lift once, fresh: between {plain(half(lift.max.low))} and {plain(half(lift.max.high))},
          four times in five
          <br />
          <span className="text-faint">
            {lift.sessions === 0 && `from what you remembered on ${fullDate(lift.last_on)}`}
            {lift.sessions > 0 &&
              `from ${lift.sessions} ${lift.sessions === 1 ? "session" : "sessions"}, the last on ${fullDate(lift.last_on)}`}
          </span>
        </p>
      </div>
      <Loaded query={useLiftStrength(lift)} what="its sessions">
        {(found) => (
          <>
            <BesideBody relative={found.records.relative} />
            <MaxOverTime found={found} />
            <div className="mt-4 text-[15px] text-faint">
              <Progress liftId={lift.lift_id} policy={found.policy} />
            </div>
            {found.stall && <Flat stall={found.stall} />}
            <SeenInLog seen={found.seen} />
            <Sides days={found.sides} />
            <Bests found={found} />
            {found.doubted.length > 0 && <Doubted bouts={found.doubted} />}
          </>
        )}
      </Loaded>
      <p className="mt-4 max-w-3xl text-sm text-faint">
        An estimate to plan sets with, no promise that a load is safe. For a heavy single use safeties or a
        spotter, and ask a coach or a physician where something hurts.
      </p>
    </>
  );
}

/** A lift that is flat for longer than usual: since when, and what the log suggests to try. */
function Flat({ stall }: { stall: NonNullable<Schemas["LiftStrength"]["stall"]> }) {
  const { since, weeks, usual, suggestions } = stall;
  return (
    <section className="mt-6 max-w-3xl border-l-4 border-look pl-4">
      <h2 className="font-bold">Flat for {Math.round(weeks)} weeks</h2>
      <p className="text-faint">
        It last rose on {fullDate(since)}
        {usual !== null &&
          `; before, it rose about every ${Math.round(usual) > 1 ? `${Math.round(usual)} weeks` : "week"}`}
        .
      </p>
      <ul className="mt-1 list-disc pl-5">
        {suggestions.map((each) => (
          <li key={each.code}>{each.text}</li>
        ))}
      </ul>
      <p className="mt-1 text-sm text-faint">
        By what three sessions show together, all read by what is known of you today: learning you better is
        no gain. Change one thing at a time. That a lift gets stuck where everybody’s does is no proof of a
        weak point there.
      </p>
    </section>
  );
}

/** What the sessions of a lift say of things that were never tried on purpose. */
function SeenInLog({ seen }: { seen: Schemas["LiftStrength"]["seen"] }) {
  if (!seen.length) return null;
  return (
    <section aria-labelledby="seen" className="mt-6 max-w-3xl">
      <h2 id="seen" className="font-bold">
        What your log says
      </h2>
      <ul className="mt-1 list-disc pl-5">
        {seen.map((each) => (
          <li key={each.contrast.what}>{each.text}</li>
        ))}
      </ul>
      <p className="mt-1 text-sm text-faint">
        Sets of three and more beside what was to be expected of them before each session. Seen, not tried:
        what went along with it is in the numbers too. To know,{" "}
        <Link to="/season" className="underline underline-offset-4">
          try it in weeks drawn by lot
        </Link>
        .
      </p>
    </section>
  );
}

/** The max beside body weight. */
function BesideBody({ relative }: { relative: Schemas["LiftRecords"]["relative"] }) {
  if (!relative) return null;
  const { times_body, body_kg, points, held } = relative;
  return (
    <p className="mt-2">
      <b>{times_body.toFixed(2)} times</b> body weight ({plain(tenth(body_kg))} kg)
      {points !== null && (
        <>
          , <b>{points.toFixed(1)}</b> points by DOTS
        </>
      )}
      .
      {held !== null &&
        ` You are ${plain(tenth(held))} kg lighter and just as strong here: that is progress.`}
    </p>
  );
}

/** Bouts that cannot be so by all that is known: asked about, and left out until then. */
function Doubted({ bouts }: { bouts: Schemas["Doubted"][] }) {
  return (
    <section aria-label="Is that so?" className="mt-4 border-look border-l-4 pl-3">
      <h2 className="font-bold">Is that so?</h2>
      <p className="text-[15px]">
        {bouts.length === 1 ? "This bout does" : "These bouts do"} not fit anything else you have done, as if
        a digit had slipped. Until corrected {bouts.length === 1 ? "it counts" : "they count"} for nothing
        here.
      </p>
      <ul>
        {bouts.map((each) => (
          <li key={each.at + each.words}>
            <b>{each.words}</b>
            {each.session_id && (
              <Link
                to={`/ledger/${each.session_id}`}
                className="ml-3 inline-flex min-h-11 items-center underline underline-offset-4"
              >
                Correct it, {fullDate(each.at)}
              </Link>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The lifter in this lift: their rep curve, and how their calls are read. */
function Person({ lift }: { lift: KnownLift }) {
  return (
    <Loaded query={useLiftStrength(lift)} what="the rep curve">
      {(found) => (
        <div className="space-y-8">
          <RepCurve found={found} />
          <Calls calls={found.calls} />
        </div>
      )}
    </Loaded>
  );
}

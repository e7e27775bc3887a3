import { group } from "d3-array";
import { Link, useNavigate, useParams } from "react-router";
import { v4 as newId } from "uuid";
import type { NextLoad, Schemas } from "@/data/client";
import { usePastSession, useSavePlan } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Loaded } from "@/parts/Loaded";
import { Trouble } from "@/parts/Notice";
import { bodyWords, doneWords, kilograms, plain, sideWords } from "@/score/words";
import { fullDate, isoDate } from "../dates";

type Past = Schemas["PastSession"];

/** One session in full: added up beside the last time, what it recommends, and all its bouts. */
export default function PastSession() {
  const { id = "" } = useParams();
  return (
    <Loaded query={usePastSession(id)} what="the session">
      {(session) => <Session session={session} />}
    </Loaded>
  );
}

function Session({ session }: { session: Past }) {
  return (
    <div className="mx-auto max-w-6xl space-y-10 px-4 py-6 sm:px-7">
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="text-faint">{session.started_at && fullDate(session.started_at)}</p>
          <h1 className="text-3xl font-bold tracking-tight">{session.title}</h1>
        </div>
        <PlanAgain session={session} />
      </header>
      <AddedUp session={session} />
      <NextLoads loads={session.next_loads} />
      <Bouts session={session} />
    </div>
  );
}

/** Puts the same session a week on; its loads are settled then by what this one recommends. */
function PlanAgain({ session }: { session: Past }) {
  const save = useSavePlan();
  const go = useNavigate();
  const week = new Date();
  week.setDate(week.getDate() + 7);
  const again = () =>
    save.mutate(
      { id: newId(), written: session.written, plannedOn: isoDate(week) },
      { onSuccess: () => go("/") },
    );
  return (
    <div>
      <Button onClick={again} disabled={save.isPending}>
        Plan it again in a week
      </Button>
      {save.error && <Trouble error={save.error} />}
    </div>
  );
}

function AddedUp({ session }: { session: Past }) {
  const { tally, before } = session;
  const cell = "py-1.5 text-right whitespace-nowrap";
  const then = new Map(before?.tally.lifts.map((lift) => [lift.exercise + lift.setup.items.join(), lift]));
  return (
    <section aria-labelledby="added-up">
      <h2 id="added-up" className="text-xl font-bold">
        Added up
      </h2>
      <p className="text-faint">
        {session.minutes} min on the floor, {tally.reps} reps,{" "}
        <b className="text-ink">{kilograms(tally.tonnage_kg)}</b>
        {before && (
          <>
            ; last time, on {fullDate(before.started_at)}, {before.minutes} min, {before.tally.reps} reps,{" "}
            {kilograms(before.tally.tonnage_kg)}
          </>
        )}
        .
      </p>
      <div className="mt-3 overflow-x-auto">
        <table className="w-full border-t border-ink">
          <thead className="text-[15px] text-faint">
            <tr>
              <th className="py-2 text-left font-normal">Lift</th>
              <th className="text-right font-normal" colSpan={2}>
                Tonnage <span className="sr-only">now and last time</span>
              </th>
              <th className="pl-6 text-right font-normal" colSpan={2}>
                Average load
              </th>
              <th className="pl-6 text-right font-normal" colSpan={2}>
                Estimated max
              </th>
            </tr>
          </thead>
          <tbody>
            {tally.lifts.map((lift) => {
              const last = then.get(lift.exercise + lift.setup.items.join());
              return (
                <tr key={lift.exercise + lift.setup.items.join()} className="border-t border-hairline">
                  <th scope="row" className="py-1.5 pr-4 text-left font-semibold">
                    {lift.exercise}{" "}
                    <span className="font-normal text-faint">{lift.setup.items.join(", ")}</span>
                  </th>
                  <td className={`${cell} font-semibold`}>{kilograms(lift.tonnage_kg)}</td>
                  <td className={`${cell} pl-3 text-faint`}>{last ? kilograms(last.tonnage_kg) : "–"}</td>
                  <td className={`${cell} pl-6 font-semibold`}>
                    {lift.average_kg === null ? "–" : kilograms(lift.average_kg)}
                  </td>
                  <td className={`${cell} pl-3 text-faint`}>
                    {last?.average_kg == null ? "–" : kilograms(last.average_kg)}
                  </td>
                  <td className={`${cell} pl-6 font-semibold`}>{estimateWords(lift.estimate)}</td>
                  <td className={`${cell} pl-3 text-faint`}>{estimateWords(last?.estimate ?? null)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-sm text-faint">
        Bold is this session, faint the last of the same name. The estimated max is of the whole weight moved,
        from the first fresh bout; the range is how far the published formulas and a rep misjudged could be
        off.
      </p>
    </section>
  );
}

const estimateWords = (estimate: Schemas["Estimate"] | null) =>
  estimate
    ? `${plain(Math.round(estimate.kg * 10) / 10)} (${Math.round(estimate.low)}–${Math.round(estimate.high)})`
    : "–";

const MOVES: Record<NextLoad["move"], string> = {
  raise: "up",
  "more reps": "same load, more reps",
  hold: "same again",
  cut: "down",
};

function NextLoads({ loads }: { loads: NextLoad[] }) {
  if (loads.length === 0) return null;
  const words = (load: NextLoad, kg: number) => (load.body ? bodyWords(kg) : plain(kg));
  return (
    <section aria-labelledby="next-loads">
      <h2 id="next-loads" className="text-xl font-bold">
        Next time
      </h2>
      <div className="mt-2 border-t border-ink">
        {loads.map((load) => (
          <article
            key={load.exercise + load.setup.items.join()}
            className="grid gap-x-6 border-b border-hairline py-3 sm:grid-cols-[14rem_12rem_1fr]"
          >
            <h3 className="font-semibold">{load.exercise}</h3>
            <p>
              <b className="narrow text-2xl">
                {words(load, load.kg)}
                {!(load.body && load.kg === 0) && <span className="text-base font-normal"> kg</span>}
              </b>
              <span className="ml-2 text-[15px] text-faint">
                {MOVES[load.move]}
                {load.kg !== load.was_kg && ` from ${words(load, load.was_kg)}`}
              </span>
            </p>
            <div className="text-[15px] text-faint">
              {load.reasons.map((reason) => (
                <p key={reason.text}>{reason.text}</p>
              ))}
            </div>
          </article>
        ))}
      </div>
    </section>
  );
}

function Bouts({ session }: { session: Past }) {
  const entries = group(session.bouts, ({ bout }) => `${bout.position.group}.${bout.position.entry}`);
  return (
    <section aria-labelledby="bouts">
      <div className="flex items-baseline justify-between border-b border-ink pb-1">
        <h2 id="bouts" className="text-xl font-bold">
          Every bout
        </h2>
        <Link to={`/floor/${session.id}`} className="text-[15px] underline underline-offset-4">
          Open on the Floor
        </Link>
      </div>
      <div className="grid gap-x-12 md:grid-cols-2">
        {[...entries.values()].map((bouts) => (
          <Entry key={bouts[0]?.bout.exercise} bouts={bouts} />
        ))}
      </div>
    </section>
  );
}

function Entry({ bouts }: { bouts: Schemas["LedgerBout"][] }) {
  const first = bouts[0]?.bout;
  if (!first) return null;
  return (
    <div className="py-4">
      <h3 className="font-bold">
        {first.exercise} <span className="font-normal text-faint">{first.setup.items.join(", ")}</span>
      </h3>
      <table className="mt-1 w-full text-[15px]">
        <thead className="sr-only">
          <tr>
            <th>Set</th>
            <th>Asked</th>
            <th>Done</th>
            <th>Ended</th>
          </tr>
        </thead>
        <tbody>
          {bouts.map(({ bout, asked }) => (
            <tr key={Object.values(bout.position).join(".")} className="border-t border-hairline">
              <td className="w-16 py-1 text-faint">
                {bout.position.bout === 1 ? bout.position.set : ""}
                {sideWords(bout.side)}
              </td>
              <td className="w-2/5 text-faint">{asked}</td>
              <td className="font-semibold">{doneWords(bout, false)}</td>
              <td className={bout.ended === "target met" ? "text-faint" : "text-work"}>
                {bout.ended === "target met" ? "" : bout.ended}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

import { useNavigate, useParams } from "react-router";
import { v4 as newId } from "uuid";
import type { Schemas } from "@/data/client";
import { usePastSession, useSavePlan } from "@/data/queries";
import { Button } from "@/parts/Button";
import { CardLink } from "@/parts/CardLink";
import { Loaded } from "@/parts/Loaded";
import { Trouble } from "@/parts/Notice";
import { kilograms, plain, preparationWords, tenth } from "@/score/words";
import { fullDate } from "../dates";
import { Bouts } from "./Bouts";
import { Felt } from "./Felt";
import { Learned } from "./Learned";
import { NextLoads } from "./NextLoads";
import { Played } from "./Played";

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
      <Played session={session} />
      <Felt session={session} />
      <AddedUp session={session} />
      <Learned session={session} />
      <NextLoads loads={session.next_loads} />
      <Bouts session={session} />
    </div>
  );
}

/** Puts the same session a week on; its loads are settled then by what this one recommends. */
function PlanAgain({ session }: { session: Past }) {
  const save = useSavePlan();
  const go = useNavigate();
  const { written, slot, again_on: plannedOn } = session;
  const again = () => save.mutate({ id: newId(), written, plannedOn, slot }, { onSuccess: () => go("/") });
  return (
    <div className="flex flex-wrap items-center gap-x-6">
      <CardLink session={session.id} />
      <Button onClick={again} disabled={save.isPending}>
        Plan it again in a week
      </Button>
      {save.error && <Trouble error={save.error} />}
    </div>
  );
}

/** What was done before the first lift, and what of it was not. */
function Prepared({ items }: { items: Past["prepared"] }) {
  if (!items.length) return null;
  const [done, left] = [true, false].map((was) =>
    preparationWords(items.filter((each) => each.done === was).map(({ item }) => item)),
  );
  return (
    <p className="mt-1 text-faint">
      Prepared with {done || "none of what was planned"}
      {done && left && `; left out: ${left}`}.
    </p>
  );
}

function AddedUp({ session }: { session: Past }) {
  const { tally, before } = session;
  const cell = "py-1.5 text-right whitespace-nowrap";
  const then = new Map(before?.tally.lifts.map((lift) => [lift.lift_id + lift.setup.items.join(), lift]));
  return (
    <section aria-labelledby="added-up">
      <h2 id="added-up" className="text-xl font-bold">
        Added up
      </h2>
      <p className="text-faint">
        {session.minutes} min on the floor, {tally.sets} sets, {tally.reps} reps,{" "}
        <b className="text-ink">{kilograms(tally.tonnage_kg)}</b>
        {before && (
          <>
            ; {before.between ? "beside it" : "last time, on"} {fullDate(before.started_at)}, {before.minutes}{" "}
            min, {before.tally.reps} reps, {kilograms(before.tally.tonnage_kg)}
          </>
        )}
        {tally.warm_ups > 0 && `; ${tally.warm_ups} warm-up bouts are not counted`}.
      </p>
      <Prepared items={session.prepared} />
      <div className="mt-3 overflow-x-auto">
        <table className="w-full border-t border-ink">
          <thead className="text-[15px] text-faint">
            <tr>
              <th className="py-2 text-left font-normal">Lift</th>
              <th className="text-right font-normal" colSpan={2}>
                Tonnage <span className="sr-only">now and then</span>
              </th>
              <th className="pl-6 text-right font-normal">Hard sets</th>
              <th className="pl-6 text-right font-normal" colSpan={2}>
                Average load
              </th>
              <th className="pl-6 text-right font-normal" colSpan={2}>
                Max <span className="sr-only">as known after it and before it</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {tally.lifts.map((lift, at) => {
              const max = session.learned[at];
              const last = then.get(lift.lift_id + lift.setup.items.join());
              return (
                <tr key={lift.lift_id + lift.setup.items.join()} className="border-t border-hairline">
                  <th scope="row" className="py-1.5 pr-4 text-left font-semibold">
                    {lift.exercise}{" "}
                    <span className="font-normal text-faint">{lift.setup.items.join(", ")}</span>
                  </th>
                  <td className={`${cell} font-semibold`}>{kilograms(lift.tonnage_kg)}</td>
                  <td className={`${cell} pl-3 text-faint`}>{last ? kilograms(last.tonnage_kg) : "–"}</td>
                  <td className={`${cell} pl-6`}>
                    {lift.hard_sets} of {lift.sets}
                  </td>
                  <td className={`${cell} pl-6 font-semibold`}>
                    {lift.average_kg === null ? "–" : kilograms(lift.average_kg)}
                  </td>
                  <td className={`${cell} pl-3 text-faint`}>
                    {last?.average_kg == null ? "–" : kilograms(last.average_kg)}
                  </td>
                  <td className={`${cell} pl-6 font-semibold`}>{maxWords(max?.after)}</td>
                  <td className={`${cell} pl-3 text-faint`}>{maxWords(max?.before)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-sm text-faint">
        Bold is this session, faint the one beside it. The max is of the whole weight moved, by all that was
        done until then: bold after this session, faint before it. It lies between the bounds four times in
        five.
      </p>
    </section>
  );
}

const maxWords = (max: Schemas["Bounds"] | null | undefined) =>
  max ? `${plain(tenth(max.kg))} (${Math.round(max.low)}–${Math.round(max.high)})` : "–";

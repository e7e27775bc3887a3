import type { NextLoad } from "@/data/client";
import { Progress } from "@/parts/Progress";
import { Reasons, useWorkingKey } from "@/parts/Reasons";
import { clock, loadOf } from "@/score/words";

const MOVES: Record<NextLoad["move"], string> = {
  raise: "up",
  "more reps": "same load, more reps",
  "more sets": "same load, one set more",
  "shorter rests": "same load, shorter rests",
  "longer holds": "held longer",
  "next rung": "the next rung",
  hold: "same again",
  cut: "down",
};

/** What a session recommends for the next one, line by line, with its reasons, and how each lift progresses. */
export function NextLoads({ loads }: { loads: NextLoad[] }) {
  useWorkingKey();
  if (loads.length === 0) return null;
  return (
    <section aria-labelledby="next-loads">
      <h2 id="next-loads" className="text-xl font-bold">
        Next time
      </h2>
      <div className="mt-2 border-t border-ink">
        {loads.map((load) => {
          const of = isApart(load, loads) ? load.aim : "";
          return (
            <article
              key={`${load.group}.${load.entry} ${load.exercise} ${load.unnamed}`}
              aria-label={`Next time: ${load.exercise}${of && `, ${of}`}`}
              className="grid gap-x-6 gap-y-2 border-b border-hairline py-3 sm:grid-cols-[14rem_12rem_1fr]"
            >
              <h3 className="font-semibold">
                {load.exercise}
                {of && <span className="block text-[15px] font-normal text-faint">{of}</span>}
              </h3>
              <p>
                <b className="narrow text-2xl">
                  {words(load, load.kg)}
                  {!(load.body && load.kg === 0) && <span className="text-base font-normal"> kg</span>}
                </b>
                <span className="ml-2 text-[15px] text-faint">
                  {MOVES[load.move]}
                  {load.reps !== null && ` (${load.reps})`}
                  {load.sets !== null && ` (${load.sets})`}
                  {load.rest !== null && ` (${clock(load.rest)})`}
                  {load.hold !== null && ` (${load.hold} s)`}
                  {load.rung !== null && ` (${rungWords(load.rung)})`}
                  {load.kg !== load.was_kg && ` from ${words(load, load.was_kg)}`}
                </span>
              </p>
              <div className="text-[15px] text-faint">
                <Reasons reasons={load.reasons} />
                <Progress liftId={load.lift_id} policy={load.policy} />
              </div>
            </article>
          );
        })}
      </div>
    </section>
  );
}

/** Whether other sets of its line have a next load of their own: then it says which ones it is of. */
const isApart = ({ group, entry, exercise }: NextLoad, loads: NextLoad[]) =>
  loads.filter((other) => other.group === group && other.entry === entry && other.exercise === exercise)
    .length > 1;

const rungWords = ({ exercise, setup }: NonNullable<NextLoad["rung"]>) =>
  [exercise, ...setup.items].join(", ").toLowerCase();

const words = (load: NextLoad, kg: number) => loadOf({ kg, body: load.body });

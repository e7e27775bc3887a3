import type { Schemas } from "@/data/client";
import { beginning, loadOf, plain } from "@/score/words";
import { buildWords } from "./Plates";

const MOST = 4;

/** The way up to a lift's loads, and for each load a side of the bar and what changes from the one before. */
export function Builds({ lift }: { lift: Schemas["LiftLine"] }) {
  const built = lift.loads.filter((load) => load.sleeve.length > 0 || load.change || load.top_kg !== null);
  const several = lift.loads.length > 1;
  return (
    <>
      {lift.warm_up.length > 0 && <p>{wayUpWords(lift)}</p>}
      {built.slice(0, MOST).map((load) => (
        <p key={load.kg} className="text-ink">
          {several && <b>{loadOf(load)}: </b>}
          {[buildWords(load), several && load.change && `${beginning(load.change)}.`, pullWords(load)]
            .filter(Boolean)
            .join(" ")}
        </p>
      ))}
    </>
  );
}

/** The way up: to loads that stand, or to the one that it finds. */
function wayUpWords({ warm_up, waits_for_max }: Schemas["LiftLine"]): string {
  if (!waits_for_max) return `Warm up: ${warm_up.map((set) => `${plain(set.kg)} × ${set.reps}`).join(", ")}.`;
  const first = warm_up.slice(0, MOST).map((set) => plain(set.kg));
  return `Way up: fives at ${first.join(", ")} kg and on, until fewer than 5 are left after one.`;
}

/** What bands or chains make of a load: bottom, top, mean. Empty without any. */
export function pullWords(load: Schemas["Settled"]): string {
  if (load.bottom_kg === null || load.top_kg === null || load.mean_kg === null) return "";
  return `Bottom ${plain(load.bottom_kg)}, top ${plain(load.top_kg)}, ${plain(load.mean_kg)} on average.`;
}

import type { Schemas } from "@/data/client";
import { half, plain, weightOf } from "@/score/words";
import { fullDate } from "../dates";

type Past = Schemas["PastSession"];

const CLEAR = 0.75;

/** What a session taught beside the maxes: records, and how far the calls of reps left were off. */
export function Learned({ session: { records, calls } }: { session: Past }) {
  const off = calls.filter((each) => Math.abs(each.off) >= CLEAR);
  const close = calls.filter((each) => Math.abs(each.off) < CLEAR);
  if (!records.length && !calls.length) return null;
  return (
    <section aria-labelledby="learned">
      <h2 id="learned" className="text-xl font-bold">
        Records and calls
      </h2>
      <ul className="mt-2 space-y-1.5 border-t border-ink pt-3">
        {records.map((record) => (
          <li key={[record.exercise, ...record.setup.items, record.tempo, record.kg, record.reps].join()}>
            <b>{named(record)}</b>: {record.reps} at {weightOf(record)}, never done before.{" "}
            <span className="text-faint">
              Until then {record.was_reps} at {weightOf({ kg: record.was_kg, body: record.body })}, on{" "}
              {fullDate(record.was_on)}.
            </span>
          </li>
        ))}
        {off.map((each) => (
          <li key={[each.exercise, ...each.setup.items].join()}>
            <b>{each.exercise}</b>: you called {plain(half(Math.abs(each.off)))}{" "}
            {each.off > 0 ? "more" : "fewer"} left than was to be expected,{" "}
            {each.bouts === 1 ? "in one bout" : `on average over ${each.bouts} bouts`}.
          </li>
        ))}
        {close.length > 0 && (
          <li className="text-faint">
            Called about as expected: {close.map((each) => each.exercise.toLowerCase()).join(", ")}.
          </li>
        )}
      </ul>
    </section>
  );
}

const named = ({ exercise, setup, tempo }: Schemas["SessionRecord"]) =>
  [exercise, ...setup.items, tempo && `tempo ${tempo}`].filter(Boolean).join(", ");

import { Link } from "react-router";
import type { Schemas } from "@/data/client";
import type { SeasonView } from "@/data/season";
import { plain } from "@/score/words";

type Attempt = Schemas["Attempt"];

/** Opener, second and third of each lift that counts on the day, with the chance of each. */
export function Attempts({ season }: { season: SeasonView }) {
  const { attempts, total, aim } = season;
  if (!aim || attempts.length === 0) return null;
  return (
    <section aria-label="Attempts" className="mt-8">
      <h2 className="font-bold">Attempts, were the {aim.what} today</h2>
      <table className="mt-1 w-full">
        <thead className="text-sm text-faint">
          <tr>
            <th className="text-left font-normal">Lift</th>
            {["Opener", "Second", "Third"].map((name) => (
              <th key={name} scope="col" className="pl-3 text-right font-normal">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {attempts.map((each) => (
            <Line
              key={each.exercise + each.setup.items.join()}
              name={each.exercise}
              setup={each.setup.items.join(", ")}
              of={each.attempts}
            />
          ))}
          {total.length > 0 && <Line name="All of them" setup="" of={total} />}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-faint">
        In kg, with the chance that it goes up, fresh, by all that is known now: an opener that is nearly
        certain, a second near the best, a third to win. Open with a spotter or safeties, and what you have
        lifted before.
      </p>
      <Link to="/season/day" className="flex min-h-11 items-center underline underline-offset-4 print:hidden">
        The page of the day
      </Link>
    </section>
  );
}

function Line({ name, setup, of }: { name: string; setup: string; of: readonly Attempt[] }) {
  return (
    <tr className="border-t border-hairline align-top">
      <th scope="row" className="py-1 text-left font-normal">
        {name} <span className="text-faint">{setup}</span>
      </th>
      {of.map(({ kg, chance }, at) => (
        <td
          // biome-ignore lint/suspicious/noArrayIndexKey: an attempt is its place
          key={at}
          className="py-1 pl-3 text-right"
        >
          <b>{plain(kg)}</b>
          <span className="block text-sm text-faint">{Math.round(chance * 100)} %</span>
        </td>
      ))}
    </tr>
  );
}

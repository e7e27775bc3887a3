import { Link } from "react-router";
import { useStrength } from "@/data/queries";
import { half, plain } from "@/score/words";
import { counted } from "../../counted";

const MOST_SHOWN = 8;

/** What the record tells now: the max of the lifts that were trained most, each leading to all that is known of it. */
export function MadeOfIt() {
  const { data } = useStrength();
  if (!data) return null;
  const lifts = data.lifts.toSorted((one, other) => other.sessions - one.sessions).slice(0, MOST_SHOWN);
  return (
    <section aria-labelledby="made-of-it" className="mt-8 max-w-2xl">
      <h2 id="made-of-it" className="text-xl font-bold">
        What Fortis makes of it
      </h2>
      {lifts.length > 0 ? (
        <>
          <p className="mt-1 text-faint">
            What you can lift once, fresh, and between what that lies four times in five.
          </p>
          <table className="mt-2 w-full">
            <tbody>
              {lifts.map(({ lift_id, setup_key, exercise, setup, max, sessions }) => (
                <tr key={lift_id + setup_key} className="border-t border-hairline">
                  <th scope="row" className="text-left font-normal">
                    <Link
                      to={`/strength?${new URLSearchParams({ lift: lift_id, setup: setup_key })}`}
                      className="inline-flex min-h-11 items-center underline underline-offset-4"
                    >
                      {setup ? `${exercise}, ${setup}` : exercise}
                    </Link>
                  </th>
                  <td className="px-2 text-right font-bold">{plain(half(max.kg))}&nbsp;kg</td>
                  <td className="px-2 text-right">
                    {plain(half(max.low))} to {plain(half(max.high))}
                  </td>
                  <td className="hidden pl-2 text-right text-faint sm:table-cell">
                    {counted(sessions, "session")}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      ) : (
        <p className="mt-1">
          Nothing of today’s strength: that takes sets of the last half year. What you lifted, your records
          and what you did a week stand in the Ledger.
        </p>
      )}
      <p className="mt-3">
        <Link to="/season" className="inline-flex min-h-11 items-center underline underline-offset-4">
          Suggest a season from here
        </Link>
      </p>
    </section>
  );
}

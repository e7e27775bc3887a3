import { Link } from "react-router";
import type { Schemas } from "@/data/client";
import { useLedger } from "@/data/queries";
import { Loaded } from "@/parts/Loaded";
import { kilograms } from "@/score/words";
import { fullDate } from "../dates";

/** Past sessions, the newest first. */
export default function Ledger() {
  return (
    <Loaded query={useLedger()} what="the ledger">
      {(view) => <Sessions view={view} />}
    </Loaded>
  );
}

function Sessions({ view }: { view: Schemas["LedgerView"] }) {
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 sm:px-7">
      <h1 className="text-3xl font-bold tracking-tight">Ledger</h1>
      {view.sessions.length === 0 ? (
        <p className="mt-2 text-faint">
          Nothing has been lifted yet. Finish a session on the Floor and it is here, to the last bout.
        </p>
      ) : (
        <table className="mt-4 w-full border-t border-ink">
          <thead className="text-left text-[15px] text-faint max-sm:sr-only">
            <tr>
              <th className="py-2 font-normal">Date</th>
              <th className="font-normal">Session</th>
              <th className="hidden font-normal lg:table-cell">Lifts</th>
              <th className="text-right font-normal">Sets</th>
              <th className="text-right font-normal">Time</th>
              <th className="text-right font-normal">Tonnage</th>
            </tr>
          </thead>
          <tbody>
            {view.sessions.map((session) => (
              <tr key={session.id} className="border-t border-hairline hover:bg-panel">
                <td className="py-2 pr-4 whitespace-nowrap text-faint">
                  {session.started_at && fullDate(session.started_at)}
                </td>
                <td className="pr-4">
                  <Link
                    to={`/ledger/${session.id}`}
                    className="flex min-h-11 items-center font-semibold hover:underline"
                  >
                    {session.title}
                  </Link>
                </td>
                <td className="hidden max-w-sm truncate pr-4 text-[15px] text-faint lg:table-cell">
                  {session.lifts.join(", ")}
                </td>
                <td className="text-right max-sm:hidden">{session.sets}</td>
                <td className="text-right whitespace-nowrap max-sm:hidden">{session.minutes} min</td>
                <td className="text-right font-semibold whitespace-nowrap">
                  {kilograms(session.tonnage_kg)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

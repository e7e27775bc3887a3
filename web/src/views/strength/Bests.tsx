import { group } from "d3-array";
import { Link } from "react-router";
import type { Schemas } from "@/data/client";
import { kilograms, plain, tenth, weightOf } from "@/score/words";
import { dayAndMonth, fullDate } from "../dates";
import { recordWords } from "./marks";

type Records = Schemas["LiftRecords"];

/** The records with this set-up, what the last weeks stay short of them, and what was noted at the lift. */
export function Bests({ found: { records, cues } }: { found: Schemas["LiftStrength"] }) {
  return (
    <div className="mt-6 grid gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      {records.bests.length > 0 && (
        <section aria-labelledby="bests">
          <h2 id="bests" className="font-bold">
            Records with this set-up
          </h2>
          {[...group(records.bests, (best) => best.tempo)].map(([tempo, own]) => (
            <table key={tempo} className="mt-1 w-full text-[15px]">
              {tempo && <caption className="pt-1 text-left text-faint">tempo {tempo}</caption>}
              <thead className="text-faint">
                <tr>
                  <th className="py-1 text-left font-normal">Reps</th>
                  <th className="text-right font-normal">Load</th>
                  <th className="pl-4 text-right font-normal">Of body weight</th>
                  <th className="pl-4 text-right font-normal">Last 4 weeks</th>
                  <th className="pl-4 text-right font-normal max-sm:hidden">First on</th>
                </tr>
              </thead>
              <tbody>
                {own.map((best) => (
                  <tr key={best.reps} className="border-t border-hairline">
                    <th scope="row" className="py-1 text-left font-normal">
                      {best.reps}
                    </th>
                    <td className="text-right font-semibold">{weightOf(best)}</td>
                    <td className="pl-4 text-right">
                      {best.times_body === null ? "–" : `${best.times_body.toFixed(2)} ×`}
                    </td>
                    <td className="pl-4 text-right">{shortWords(best.short_kg)}</td>
                    <td className="pl-4 text-right text-faint max-sm:hidden">{fullDate(best.on)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          ))}
          <Most records={records} />
          <Days records={records} />
        </section>
      )}
      {cues.length > 0 && (
        <section aria-labelledby="cues">
          <h2 id="cues" className="font-bold">
            Cues
          </h2>
          <ul className="mt-1 text-[15px]">
            {cues.map((cue) => (
              <li key={cue.text} className="border-t border-hairline">
                <Link
                  to={`/ledger/${cue.session_id}`}
                  className="flex min-h-11 items-center justify-between gap-4 hover:underline"
                >
                  <span>{cue.text}</span>
                  <span className="text-faint">{fullDate(cue.on)}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

const shortWords = (short: number | null) => {
  if (short === null) return "–";
  return short === 0 ? "the same" : `${plain(tenth(short))} kg off`;
};

/** What the flags over the plot stand for. */
function Days({ records: { days } }: { records: Records }) {
  if (days.length === 0) return null;
  return (
    <details className="mt-2">
      <summary className="min-h-11 cursor-pointer py-2 underline underline-offset-4">
        Records of the time shown, by day
      </summary>
      <ul className="text-[15px]">
        {[...days].reverse().map((record) => (
          <li key={record.on + record.tempo} className="border-t border-hairline py-1">
            <span className="text-faint">{fullDate(record.on)}</span> {recordWords(record)}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The most of other kinds. */
function Most({ records }: { records: Records }) {
  const most: [string, Schemas["Most"] | null, (on: string) => string][] = [
    ["Best max of the time shown", records.best_max, fullDate],
    ["Heaviest at the top", records.most_at_top, fullDate],
    ["Most in a session", records.most_in_session, fullDate],
    ["Most in a week", records.most_in_week, (monday) => `week of ${dayAndMonth(monday)}`],
  ];
  return (
    <dl className="mt-4 grid grid-cols-[1fr_auto_auto] gap-x-4 text-[15px]">
      {most.map(
        ([name, record, when]) =>
          record && (
            <div key={name} className="col-span-3 grid grid-cols-subgrid border-t border-hairline py-1">
              <dt>{name}</dt>
              <dd className="text-right font-semibold">{kilograms(record.kg)}</dd>
              <dd className="text-right text-faint">{when(record.on)}</dd>
            </div>
          ),
      )}
    </dl>
  );
}

import { group } from "d3-array";
import { Link } from "react-router";
import type { Schemas } from "@/data/client";
import { weightOf } from "@/score/words";
import { fullDate } from "../dates";

/** The heaviest load for so many reps with this set-up, and what was noted at the lift. */
export function Bests({ found: { bests, cues } }: { found: Schemas["LiftStrength"] }) {
  return (
    <div className="mt-6 grid gap-x-10 gap-y-6 sm:grid-cols-2">
      {bests.length > 0 && (
        <section aria-labelledby="bests">
          <h2 id="bests" className="font-bold">
            Records with this set-up
          </h2>
          {[...group(bests, (best) => best.tempo)].map(([tempo, own]) => (
            <table key={tempo} className="mt-1 w-full text-[15px]">
              {tempo && <caption className="pt-1 text-left text-faint">tempo {tempo}</caption>}
              <tbody>
                {own.map((best) => (
                  <tr key={best.reps} className="border-t border-hairline">
                    <th scope="row" className="py-1 text-left font-normal">
                      {best.reps} {best.reps === 1 ? "rep" : "reps"}
                    </th>
                    <td className="text-right font-semibold">{weightOf(best)}</td>
                    <td className="pl-4 text-right text-faint">{fullDate(best.on)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          ))}
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

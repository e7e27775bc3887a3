import type { Schemas } from "@/data/client";
import { useForetold } from "@/data/queries";
import { Loaded } from "@/parts/Loaded";
import { plain } from "@/score/words";

const US = "Fortis";

/** What the lifter calls, and how many reps that is worth by their log. */
export function Calls({ calls }: { calls: readonly Schemas["Called"][] }) {
  const two = calls.find((each) => each.called === 2);
  return (
    <section aria-label="What you call">
      <h2 className="font-bold">What you call, and what it is worth</h2>
      {two && (
        <p className="text-faint">
          By your log your “2 left” are worth about {plain(two.left)}, give or take a fifth. Sets to the end
          show it best. What you called stays as you said it.
        </p>
      )}
      <table className="mt-2 w-full">
        <tbody>
          {calls.map((each) => (
            <tr key={each.called}>
              <th scope="row" className="py-1 text-left font-normal">
                called {each.called}
              </th>
              <td>
                <Dots many={each.called} />
              </td>
              <td>
                <Dots many={each.left} filled />
              </td>
              <td className="text-right text-faint">{plain(each.left)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Dots({ many, filled = false }: { many: number; filled?: boolean }) {
  const whole = Array.from({ length: Math.ceil(many - 0.05) }, (_, at) => Math.min(many - at, 1));
  return (
    <svg width={whole.length * 15} height={16} aria-hidden>
      {whole.map((part, at) => (
        <ellipse
          // biome-ignore lint/suspicious/noArrayIndexKey: a dot is its place
          key={at}
          cx={at * 15 + 7}
          cy={8}
          rx={5}
          ry={4.5}
          className={filled ? "fill-faint" : "fill-none stroke-ink"}
          fillOpacity={filled ? part : 0}
          strokeDasharray={filled ? undefined : "2 2"}
        />
      ))}
    </svg>
  );
}

/** How far off the sets of the own log were foretold, beside the formulas. */
export function Foretold() {
  return (
    <section aria-label="How well Fortis knows you">
      <h2 className="font-bold">How well Fortis knows you</h2>
      <Loaded query={useForetold()} what="how well your sets were foretold">
        {(summary) => <Errors summary={summary} />}
      </Loaded>
    </section>
  );
}

function Errors({ summary }: { summary: Schemas["Summary"] }) {
  const own = summary.reps_error[US];
  if (own === undefined) {
    return <p className="text-faint">Not yet: it takes two sessions of a lift with reps left told.</p>;
  }
  const formulas = Object.entries(summary.reps_error).filter(([name]) => name !== US);
  const shown: [string, number][] = [[US, own], ...formulas.slice(0, 1), ...formulas.slice(-1)];
  const most = Math.max(...shown.map(([, reps]) => reps));
  const best = formulas[0]?.[1] ?? Number.POSITIVE_INFINITY;
  return (
    <>
      <p className="text-faint">
        {summary.judged} sets near failure were foretold before they were seen.
        {own > best && " So far the best formula foretells them better than Fortis."}
        {summary.coverage !== null &&
          ` ${Math.round(summary.coverage * 100)} % came out between the bounds; it should be 80.`}
      </p>
      <table className="mt-2 w-full">
        <tbody>
          {shown.map(([name, reps]) => (
            <tr key={name}>
              <th
                scope="row"
                className={`w-24 py-1 text-left ${name === US ? "font-bold" : "font-normal text-faint"}`}
              >
                {name}
              </th>
              <td>
                <svg width="100%" height={12} aria-hidden>
                  <rect
                    width={`${(100 * reps) / most}%`}
                    height={12}
                    className={name === US ? "fill-ink" : "fill-faint"}
                    fillOpacity={name === US ? 1 : 0.5}
                  />
                </svg>
              </td>
              <td className="w-32 pl-3 text-right text-faint">{reps.toFixed(1)} reps off</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-faint">
        The best and the worst of seven published formulas, used the usual way.
      </p>
    </>
  );
}

/** What a rest brings back: the same for everybody, as far as Fortis knows. */
export function Recovery({ rests }: { rests: readonly Schemas["Rested"][] }) {
  return (
    <section aria-label="Recovery">
      <h2 className="font-bold">What a rest brings back</h2>
      <p className="text-faint">
        Of what a set took; the same for everybody, until there is a way to know better.
      </p>
      <dl className="mt-2 flex justify-between text-center">
        {rests.map((each) => (
          <div key={each.seconds}>
            <dt className="text-sm text-faint">
              {each.seconds < 60 ? `${each.seconds} s` : `${each.seconds / 60} min`}
            </dt>
            <dd>{Math.round(each.share * 100)} %</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

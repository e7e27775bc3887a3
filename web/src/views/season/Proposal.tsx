import { clsx } from "clsx";
import { max, min } from "d3-array";
import type { Suggested } from "@/data/season";
import { Button } from "@/parts/Button";
import { plain } from "@/score/words";

const HEIGHT = 72;
const MOST_MUSCLES = 8;

/** A season to choose: what its weeks come to, why it is so, and its first week. */
export function Proposal({ proposal, onTake }: { proposal: Suggested; onTake: () => void }) {
  const { name, way, weeks, reasons, written } = proposal;
  const full = weeks.reduce((most, week) => (week.sets > most.sets ? week : most));
  const trained = weeks.filter((week) => week.kind === "building" && week.sessions > 0);
  const least = Math.round((min(trained, (week) => week.seconds / week.sessions) ?? 0) / 60);
  const most = Math.round((max(trained, (week) => week.seconds / week.sessions) ?? 0) / 60);
  return (
    <article aria-label={name}>
      <h3 className="text-xl font-bold tracking-tight">{name}</h3>
      <p className="text-faint first-letter:uppercase">
        {way}, {weeks.length} weeks
      </p>
      <Weeks weeks={weeks} />
      <p className="text-sm text-faint">
        Bars are work sets a week, pale in light weeks, dark in heavy ones; the fullest has {full.sets}. While
        building, a session takes {least === most ? most : `${least} to ${most}`} minutes before warm-ups.
      </p>
      <p className="mt-2 text-[15px]">
        <span className="text-faint">Hard sets in the fullest week: </span>
        {full.hard_sets
          .slice(0, MOST_MUSCLES)
          .map((each) => `${each.name} ${plain(each.count)}`)
          .join(", ")}
      </p>
      <ul className="mt-3 space-y-1.5">
        {reasons.map((reason) => (
          <li key={reason.code} className="border-t border-hairline pt-1.5">
            {reason.text}
          </li>
        ))}
      </ul>
      <details className="mt-2">
        <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
          All of it as text
        </summary>
        <pre className="overflow-x-auto rounded-card bg-slate p-3 text-sm text-slate-text">{written}</pre>
      </details>
      <Button look="strong" className="mt-2" onClick={onTake}>
        Take this one
      </Button>
    </article>
  );
}

/** The work sets of every week. */
function Weeks({ weeks }: { weeks: Suggested["weeks"] }) {
  const most = max(weeks, (week) => week.sets) || 1;
  return (
    <div aria-hidden className="mt-3 flex items-end gap-0.5 border-b border-ink" style={{ height: HEIGHT }}>
      {weeks.map((week) => (
        <span
          key={week.monday}
          className={clsx(
            "min-w-1 flex-1",
            week.kind === "light" ? "bg-rest/40" : week.kind === "building" ? "bg-faint" : "bg-ink",
          )}
          style={{ height: `${(100 * week.sets) / most}%` }}
        />
      ))}
    </div>
  );
}

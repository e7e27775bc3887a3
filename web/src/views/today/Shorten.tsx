import { useDeferredValue, useState } from "react";
import type { Schemas } from "@/data/client";
import { useShortened } from "@/data/queries";
import { Button } from "@/parts/Button";
import { Trouble } from "@/parts/Notice";
import { kilograms, minutes } from "@/score/words";

const FEWEST = 5;
const MOST = 300;

/** "I have 40 minutes": what would be left out, what that costs, and the session started so. */
export function Shorten({
  session,
  onStart,
}: {
  session: Schemas["DueSession"];
  onStart: (skipped: string[]) => void;
}) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("40");
  const wanted = Number(typed);
  const sound = Number.isInteger(wanted) && wanted >= FEWEST && wanted <= MOST;
  const asked = useDeferredValue(open && sound ? wanted : null);
  const { data, error } = useShortened(session.id, asked);
  if (!open)
    return (
      <button type="button" className="min-h-11 underline underline-offset-4" onClick={() => setOpen(true)}>
        I have less time
      </button>
    );
  return (
    <section aria-label="Less time" className="mt-3 border-l-4 border-rest pl-4 text-[15px]">
      <label className="flex items-center gap-2">
        I have
        <input
          inputMode="numeric"
          value={typed}
          onChange={(event) => setTyped(event.target.value.trim())}
          aria-invalid={!sound}
          className="min-h-11 w-20 rounded-card border border-hairline bg-panel px-3 text-right"
        />
        minutes
      </label>
      {!sound && <p role="alert">{`Write a whole number of minutes, ${FEWEST} to ${MOST}.`}</p>}
      {error && <Trouble error={error} />}
      {data && sound && <Proposal found={data} />}
      <div className="mt-2 flex flex-wrap gap-2">
        {data && sound && data.lost.length > 0 && (
          <Button onClick={() => onStart(data.skipped)}>
            {data.fits ? `Start it in ${wanted} minutes` : "Start the shortest"}
          </Button>
        )}
        <Button look="quiet" onClick={() => setOpen(false)}>
          Keep all of it
        </Button>
      </div>
    </section>
  );
}

function Proposal({ found }: { found: Schemas["InTime"] }) {
  if (!found.lost.length && found.fits)
    return <p className="mt-1">All of it fits: it is likely to take {minutes(found.likely_seconds)}.</p>;
  return (
    <div className="mt-1 space-y-1">
      <p>
        {found.fits ? "" : `Even the shortest takes ${minutes(found.likely_seconds)}. `}
        {found.lost.length > 0 && "Left out: "}
        {found.lost
          .map(({ exercise, sets, of }) =>
            sets === of
              ? `all of ${exercise.toLowerCase()}`
              : `${sets} of ${of} sets of ${exercise.toLowerCase()}`,
          )
          .join(", ")}
        .
      </p>
      <p className="text-faint">{lostWords(found)}</p>
    </div>
  );
}

/** What the session comes to without them: time, tonnage, and the hard sets that muscles lose. */
function lostWords({ likely_seconds, before, after }: Schemas["InTime"]): string {
  const left = new Map(after.hard_sets.map(({ name, count }) => [name, count]));
  const muscles = before.hard_sets
    .filter(({ name, count }) => (left.get(name) ?? 0) < count)
    .map(({ name, count }) => `${name} ${count} to ${left.get(name) ?? 0}`);
  const tonnage = `${kilograms(before.tonnage_kg)} become ${kilograms(after.tonnage_kg)}`;
  const hard = muscles.length ? `; hard sets: ${muscles.join(", ")}` : "";
  return `Likely ${minutes(likely_seconds)}. ${tonnage}${hard}.`;
}

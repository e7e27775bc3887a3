import { useState } from "react";
import type { Entry } from "@/data/entry";
import { outbox } from "@/data/outbox";
import { Button } from "@/parts/Button";
import { saveFile } from "@/parts/file";
import { doneWords } from "@/score/words";
import { boutOf } from "@/session/done";

/** Entries the record did not take, and why; the lifter says what becomes of them. */
export default function RefusedEntries({ refused }: { refused: Entry[] }) {
  const [letting, setLetting] = useState(false);
  const letGo = async () => {
    if (!letting) return setLetting(true);
    for (const entry of refused) await outbox.letGo(entry);
    setLetting(false);
  };
  return (
    <section
      aria-label="Not taken by the record"
      className="mx-3 my-3 border-l-4 border-look bg-panel sm:mx-7"
    >
      <details>
        <summary className="min-h-11 cursor-pointer px-4 py-2.5">
          <b>The record did not take {refused.length === 1 ? "one entry" : `${refused.length} entries`}</b> of
          this device. What to do?
        </summary>
        <ul className="max-h-60 overflow-auto px-4">
          {refused.map((entry, index) => (
            <li key={entry.key} className="py-1">
              {wordsOf(entry)}
              {entry.refusal !== refused[index + 1]?.refusal && (
                <span className="block text-faint">{entry.refusal}</span>
              )}
            </li>
          ))}
        </ul>
        <div className="flex flex-wrap gap-2 px-4 pt-2 pb-4">
          <Button onClick={() => outbox.sendAgain()}>Try again</Button>
          <Button
            look="quiet"
            onClick={() => saveFile("fortis-not-taken.json", written(refused), "application/json")}
          >
            Save as a file
          </Button>
          <Button look="quiet" onClick={letGo}>
            {letting ? "Really let go? They are nowhere else" : "Let go"}
          </Button>
        </div>
      </details>
    </section>
  );
}

function wordsOf({ position, done, finishedAt }: Entry): string {
  if (finishedAt) return "The end of a session";
  if (!position) return "Changes of the plan";
  const set = position.set ? `set ${position.set}` : `warm-up ${position.bout}`;
  return done
    ? `${done.exercise}, ${set}: ${doneWords(boutOf(position, done))}`
    : `A bout taken back: ${set}`;
}

/** The entries as a file that says what they are: JSON, as they would have been sent. */
const written = (entries: Entry[]) =>
  JSON.stringify({ "not taken by Fortis": entries.map(({ key, stamp, ...told }) => told) }, null, 2);

import { type FormEvent, useState } from "react";
import type { Schemas } from "@/data/client";
import { useCorrect } from "@/data/correction";
import { Button } from "@/parts/Button";
import { Trouble } from "@/parts/Notice";
import { reserveWords } from "@/score/words";
import { toSend } from "@/session/done";

type LedgerBout = Schemas["LedgerBout"];
type Ended = NonNullable<Schemas["PerformedBout"]["ended"]>;

const ENDED: [Ended, string][] = [
  ["target met", "target met"],
  ["form slipped", "form slipped"],
  ["could not move it", "could not move it"],
];
const LEFT = [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5];
const MORE = "5 or more";
const BOX = "min-h-11 w-full rounded-card border border-hairline bg-panel px-2";

const leftKey = ({ reserve, or_more }: Pick<LedgerBout["bout"], "reserve" | "or_more">) =>
  reserve === null ? "" : or_more ? reserveWords({ reserve, or_more }) : String(reserve);

/** A bout of a past session, to be set right in place. What it was stays in its history. */
export function Correct({ id, recorded, onDone }: { id: string; recorded: LedgerBout; onDone: () => void }) {
  /** As it was when the form was opened: what came since is not written over. */
  const [opened] = useState(recorded);
  const { bout, version } = opened;
  const correct = useCorrect(id, bout.position);
  const [wrong, setWrong] = useState("");
  const holds = bout.seconds > 0;
  const keep = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const told = new FormData(event.currentTarget);
    const number = (name: string) => Number(String(told.get(name)).trim().replace(",", "."));
    const kg = String(told.get("kg")).trim() === "" ? null : number("kg");
    const reps = holds ? bout.reps : number("reps");
    const seconds = holds ? number("seconds") : bout.seconds;
    const halves = holds ? bout.partial_reps : number("halves");
    if (kg !== null && !Number.isFinite(kg))
      return setWrong("The load is a number of kilograms, like 102.5.");
    if (![reps, seconds, halves].every(Number.isInteger)) return setWrong("Reps are whole numbers.");
    const left = String(told.get("left"));
    const ended = String(told.get("ended")) as Ended | "";
    const same = left === leftKey(bout);
    setWrong("");
    correct.mutate(
      {
        ...toSend(opened),
        kg,
        reps,
        seconds,
        partial_reps: halves,
        reserve: same ? bout.reserve : left === "" ? null : left === MORE ? 5 : Number(left),
        or_more: same ? bout.or_more : left === MORE,
        ended: ended || null,
        note: String(told.get("note")),
        seen: version,
      },
      { onSuccess: onDone },
    );
  };
  const choices = [...new Set([leftKey(bout), "", ...LEFT.map(String), MORE])];
  return (
    <form
      onSubmit={keep}
      className="py-2"
      aria-label={`Correct set ${bout.position.set} of ${bout.exercise}`}
    >
      <div className="grid grid-cols-2 gap-x-3 gap-y-2 sm:grid-cols-3">
        <label>
          <span className="block text-sm text-faint">{bout.body ? "Added, kg" : "Load, kg"}</span>
          <input name="kg" inputMode="decimal" defaultValue={bout.kg ?? ""} className={BOX} />
        </label>
        {holds ? (
          <label>
            <span className="block text-sm text-faint">Seconds</span>
            <input name="seconds" inputMode="numeric" defaultValue={bout.seconds} className={BOX} />
          </label>
        ) : (
          <>
            <label>
              <span className="block text-sm text-faint">Reps</span>
              <input name="reps" inputMode="numeric" defaultValue={bout.reps} className={BOX} />
            </label>
            <label>
              <span className="block text-sm text-faint">Half reps</span>
              <input name="halves" inputMode="numeric" defaultValue={bout.partial_reps} className={BOX} />
            </label>
          </>
        )}
        <label>
          <span className="block text-sm text-faint">Left in the tank</span>
          <select name="left" defaultValue={leftKey(bout)} className={BOX}>
            {choices.map((left) => (
              <option key={left} value={left}>
                {left === "" ? "not said" : left}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="block text-sm text-faint">It ended</span>
          <select name="ended" defaultValue={bout.ended ?? ""} className={BOX}>
            <option value="">not said</option>
            {ENDED.map(([ended, words]) => (
              <option key={ended} value={ended}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label className="col-span-2 sm:col-span-3">
          <span className="block text-sm text-faint">Note for next time</span>
          <input name="note" defaultValue={bout.note} maxLength={500} className={BOX} />
        </label>
      </div>
      {(wrong || correct.error) && (
        <div className="mt-2">
          {correct.error ? <Trouble error={correct.error} /> : <p role="alert">{wrong}</p>}
        </div>
      )}
      <div className="mt-3 flex gap-3">
        <Button type="submit" look="strong" disabled={correct.isPending}>
          Set it right
        </Button>
        <Button look="quiet" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  );
}

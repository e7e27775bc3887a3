import { useState } from "react";
import type { Bout, Schemas, Step } from "@/data/client";
import { plain, tenth } from "@/score/words";
import { entryKey } from "@/session/position";
import { slowedOf } from "@/session/slowing";
import type { Playing } from "./useSession";

const USUAL = ["belt", "straps", "wraps", "sleeves", "pause"];

/** What else is true of a bout: half reps, a hold's seconds, how the reps slowed, a cue for next time, the set-up. */
export function Extras({
  playing,
  index,
  step,
  bout,
  slowing,
}: {
  playing: Playing;
  index: number;
  step: Step;
  bout: Bout | null;
  slowing: Schemas["Slowing"][];
}) {
  const { record } = playing.acts;
  const taps = bout?.rep_seconds.length ? bout.rep_seconds : (playing.mark.taps ?? []);
  const slowed = slowedOf(taps, slowing);
  return (
    <div className="mt-1 text-[15px]">
      {slowed && (
        <p className="text-faint">
          A rep took {plain(tenth(slowed.usual))} s, the last one {plain(tenth(slowed.last))} s
          {slowed.left === null ? ": no slowing yet." : `: about ${slowed.left} left, by the look of it.`}
        </p>
      )}
      {bout && step.counts === "seconds" && (
        <Counter
          name="Seconds held"
          value={bout.seconds}
          step={1}
          onChange={(seconds) => record(index, { seconds })}
        />
      )}
      {bout && step.counts === "reps" && (
        <Counter
          name="Half reps"
          value={bout.partial_reps}
          step={1}
          onChange={(partial_reps) => record(index, { partial_reps })}
        />
      )}
      <SetUp playing={playing} step={step} index={index} bout={bout} />
      {bout && <Note key={index} note={bout.note} onKeep={(note) => record(index, { note })} />}
    </div>
  );
}

function Counter({
  name,
  value,
  step,
  onChange,
}: {
  name: string;
  value: number;
  step: number;
  onChange: (value: number) => void;
}) {
  const button =
    "grid size-11 place-items-center rounded-card border border-hairline text-lg hover:border-ink";
  return (
    <fieldset className="mt-1 flex items-center gap-2">
      <legend className="sr-only">{name}</legend>
      <button
        type="button"
        aria-label={`Fewer: ${name.toLowerCase()}`}
        className={button}
        onClick={() => onChange(Math.max(value - step, 0))}
      >
        −
      </button>
      <b className="w-9 text-center text-lg">{value}</b>
      <button
        type="button"
        aria-label={`More: ${name.toLowerCase()}`}
        className={button}
        onClick={() => onChange(value + step)}
      >
        +
      </button>
      <span className="text-faint">{name.toLowerCase()}</span>
    </fieldset>
  );
}

/** What is worn and used, remembered for the rest of the exercise. */
function SetUp({
  playing,
  step,
  index,
  bout,
}: {
  playing: Playing;
  step: Step;
  index: number;
  bout: Bout | null;
}) {
  const [open, setOpen] = useState(false);
  const { changed, acts } = playing;
  const items = bout?.setup.items ?? step.setup.items;
  const offered = [...new Set([...items, ...USUAL])];
  const turn = (item: string) => {
    const next = items.includes(item) ? items.filter((each) => each !== item) : [...items, item];
    const setups = { ...changed.setups, [entryKey(step)]: next };
    if (bout) acts.record(index, { setup: { items: next } }, { setups });
    else acts.change({ setups });
  };
  if (!open) {
    return (
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="min-h-11 text-left text-faint hover:text-ink"
      >
        Set-up: {items.join(", ") || "nothing extra"}.{" "}
        <span className="underline underline-offset-4">Change it</span>
      </button>
    );
  }
  return (
    <fieldset className="mt-1 flex flex-wrap gap-1.5">
      <legend className="text-faint">Set-up</legend>
      {offered.map((item) => (
        <button
          key={item}
          type="button"
          aria-pressed={items.includes(item)}
          onClick={() => turn(item)}
          className="min-h-11 rounded-card border border-hairline px-3 hover:border-ink aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
        >
          {item}
        </button>
      ))}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const field = event.currentTarget.elements.namedItem("other") as HTMLInputElement;
          const other = field.value.replace(/[[\]:;#,]/g, " ").trim();
          if (other) turn(other);
          field.value = "";
        }}
      >
        <input
          name="other"
          aria-label="Something else worn or used"
          placeholder="something else"
          maxLength={60}
          className="min-h-11 w-36 rounded-card border border-hairline bg-paper px-3"
        />
      </form>
    </fieldset>
  );
}

/** A cue for the next time this lift comes. */
function Note({ note, onKeep }: { note: string; onKeep: (note: string) => void }) {
  return (
    <input
      aria-label="Cue for next time"
      placeholder="Cue for next time: hips lower"
      defaultValue={note}
      maxLength={500}
      onBlur={(event) => event.target.value !== note && onKeep(event.target.value)}
      onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      className="mt-1 min-h-11 w-full rounded-card border border-hairline bg-paper px-3"
    />
  );
}

import { useState } from "react";
import type { Schemas } from "@/data/client";
import { useCalculated, useLifts, useWeighed } from "@/data/queries";
import { Plates } from "@/parts/Plates";
import { Sheet } from "@/parts/Sheet";
import { beginning, plain } from "@/score/words";
import { readNumbers } from "@/views/kit/lists";

/** What do I put on, and what is on this bar. */
export default function OnTheBar({ onClose }: { onClose: () => void }) {
  return (
    <Sheet title="On the bar" onClose={onClose} className="inset-x-3 top-[6vh] max-h-[88vh] max-w-xl">
      <PutOn />
      <WhatIsOn />
    </Sheet>
  );
}

const BOX = "min-h-12 rounded-card border border-ink bg-paper px-3 text-xl font-bold";

function PutOn() {
  const [typed, setTyped] = useState("");
  const [lift, setLift] = useState("");
  const [ramp, setRamp] = useState(false);
  const { data: lifts = [] } = useLifts();
  const wanted = readNumbers(typed);
  const asked: Schemas["ToLoad"] | null = wanted?.length
    ? { wanted, lift: lift.trim() || null, warm_up: ramp ? "few big jumps" : null }
    : null;
  const { data, error } = useCalculated(asked);
  return (
    <section aria-label="What to put on" className="mt-3">
      <div className="flex flex-wrap items-end gap-3">
        <label>
          <span className="block text-faint">What do I put on for, kg</span>
          <input
            // biome-ignore lint/a11y/noAutofocus: the dialog was opened to type here
            autoFocus
            inputMode="decimal"
            value={typed}
            placeholder="137.5"
            onChange={(event) => setTyped(event.target.value)}
            className={`${BOX} w-48`}
          />
        </label>
        <label>
          <span className="block text-faint">Lift, if not a plain bar</span>
          <input
            list="calculator-lifts"
            value={lift}
            onChange={(event) => setLift(event.target.value)}
            className="min-h-12 w-44 rounded-card border border-hairline bg-paper px-3"
          />
          <datalist id="calculator-lifts">
            {lifts.map((each) => (
              <option key={each.name} value={each.name} />
            ))}
          </datalist>
        </label>
        <label className="flex min-h-12 items-center gap-2">
          <input
            type="checkbox"
            checked={ramp}
            onChange={(event) => setRamp(event.target.checked)}
            className="size-5 accent-ink"
          />
          with warm-ups
        </label>
      </div>
      <p className="mt-1 text-sm text-faint">Several with commas show what to strip: 160, 120, 96.</p>
      <div aria-live="polite">
        {wanted === null && typed.trim() !== "" && (
          <p className="mt-3">Write kilograms: 137.5, or 160, 120, 96.</p>
        )}
        {error && <p className="mt-3">{error.message}</p>}
        {asked && data && (
          <>
            {data.warm_up.length > 0 && (
              <p className="mt-3">
                Way up: {data.warm_up.map((set) => `${plain(set.kg)} × ${set.reps}`).join(", ")}.
              </p>
            )}
            <ol className="mt-3 space-y-4">
              {data.loads.map((load, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the same load may come twice; its place is its identity
                <li key={at}>
                  <LoadedBar load={load} />
                </li>
              ))}
            </ol>
          </>
        )}
      </div>
    </section>
  );
}

function LoadedBar({ load }: { load: Schemas["Loaded"] }) {
  const beside = [load.below_kg, load.above_kg].filter((kg) => kg !== null).map((kg) => plain(kg));
  return (
    <div className="flex flex-wrap items-center gap-x-5">
      {load.bar && <Plates bar={load.bar} sleeve={load.sleeve} className="w-44" />}
      <div className="min-w-56 flex-1">
        <p className="text-3xl font-extrabold">
          {plain(load.total_kg)} <span className="text-lg font-semibold">kg</span>
        </p>
        {load.sleeve.length > 0 && (
          <p>
            {load.bar ? "Each side" : "On the belt"} <b>{load.sleeve.map(plain).join(" ")}</b>
            {load.bar ? ` on the ${load.bar}.` : "."}
          </p>
        )}
        {load.change && <p>{beginning(load.change)}.</p>}
      </div>
      {load.rounding_kg !== 0 && (
        <p className="w-full border-l-4 border-look pl-3">
          {plain(load.wanted_kg)} cannot be built here; {beside.join(" and ")} can.
          {load.would_need_kg !== null && ` A pair of ${plain(load.would_need_kg)} kg would make it.`}
        </p>
      )}
    </div>
  );
}

function WhatIsOn() {
  const [side, setSide] = useState("");
  const { data, error } = useWeighed(side);
  return (
    <section aria-label="What is on this bar" className="mt-6 border-t border-hairline pt-4">
      <label>
        <span className="block text-faint">What is on this bar? One side, from the collar</span>
        <input
          value={side}
          placeholder="25 25 5"
          onChange={(event) => setSide(event.target.value)}
          className={`${BOX} w-64`}
        />
      </label>
      <p aria-live="polite" className="mt-2 min-h-7">
        {side.trim() && error?.message}
        {side.trim() && !error && data && (
          <>
            <b className="text-xl">{plain(data.total_kg)} kg</b>
            {data.bar && ` with the ${data.bar}`}
          </>
        )}
      </p>
    </section>
  );
}

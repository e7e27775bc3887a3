import { useId, useState } from "react";
import type { Bout, Step } from "@/data/client";
import { Button } from "@/parts/Button";
import { bodyWords, plain } from "@/score/words";

/** The load that was lifted, where it was not the one planned. Takes decimal commas too. */
export function LoadLifted({
  step,
  bout,
  onChange,
}: {
  step: Step;
  bout: Bout | null;
  onChange: (kg: number) => void;
}) {
  const field = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const kg = bout ? bout.kg : (step.load?.kg ?? null);
  const body = step.load?.body === true;
  if (typed === null) {
    const words =
      kg === null ? "No load noted" : body ? `Lifted at ${bodyWords(kg)}` : `Lifted ${plain(kg)} kg`;
    return (
      <button
        type="button"
        onClick={() => setTyped(kg === null ? "" : plain(kg))}
        className="mt-2 min-h-11 text-left text-[15px] text-faint hover:text-ink"
      >
        {words}. <span className="underline underline-offset-4">Another load?</span>
      </button>
    );
  }
  const number = Number(typed.trim().replace(",", "."));
  const wrong =
    typed.trim() === "" || !Number.isFinite(number) || number > 2000 || number < (body ? -300 : 0);
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (wrong) return;
        onChange(number);
        setTyped(null);
      }}
    >
      <label htmlFor={field} className="text-[15px] text-faint">
        {body ? "Added to body weight, kg" : "Lifted, kg"}
      </label>
      <div className="mt-1 flex gap-2">
        <input
          id={field}
          // biome-ignore lint/a11y/noAutofocus: the lifter just asked for this field
          autoFocus
          inputMode="decimal"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          aria-invalid={wrong}
          className="min-h-11 w-28 rounded-card border border-ink bg-paper px-3 text-lg font-bold"
        />
        <Button type="submit" look="strong" disabled={wrong}>
          Note it
        </Button>
        <Button look="quiet" onClick={() => setTyped(null)}>
          Leave it
        </Button>
      </div>
    </form>
  );
}

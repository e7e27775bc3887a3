import { useState } from "react";
import { Link } from "react-router";
import { v4 as newId } from "uuid";
import type { Schemas } from "@/data/client";
import { useBegin } from "@/data/season";
import { Button } from "@/parts/Button";
import { Trouble } from "@/parts/Notice";
import { DAYS, EXPERIENCE, GOALS } from "../wish";

/** From nothing to a first session: three questions, and the rest has defaults that can be changed later. */
export function FirstRun() {
  const [goal, aimFor] = useState<Schemas["Goal"]>("both");
  const [days, comeOn] = useState(3);
  const [experience, tell] = useState<Schemas["Experience"]>("one to three years");
  const [id] = useState(() => newId());
  const begin = useBegin();
  return (
    <section aria-label="Begin">
      <h1 className="text-3xl font-bold tracking-tight">
        Three questions, and your first session is planned
      </h1>
      <form
        className="mt-5 space-y-5"
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate({ id, goal, days, experience });
        }}
      >
        <Question ask="What is it for?" of={GOALS} value={goal} onPick={aimFor} />
        <Question
          ask="How many days a week?"
          of={DAYS.map((each) => [each, String(each)])}
          value={days}
          onPick={comeOn}
        />
        <Question
          ask="How long have you trained?"
          of={EXPERIENCE.map((each) => [each, each])}
          value={experience}
          onPick={tell}
        />
        <Button look="strong" type="submit" disabled={begin.isPending}>
          {begin.isPending ? "Planning…" : "Plan my first weeks"}
        </Button>
        {begin.error && <Trouble error={begin.error} />}
      </form>
      <div className="mt-6 max-w-prose space-y-2 text-faint">
        <p>
          An hour a session, for an ordinary gym: what yours has is told in{" "}
          <Link to="/kit" className="underline underline-offset-4">
            Kit
          </Link>
          . Everything can be changed in{" "}
          <Link to="/season" className="underline underline-offset-4">
            Season
          </Link>
          , where more can be asked for: a date, lifts that matter, what hurts. Do you have a log already?{" "}
          <Link to="/ledger/import" className="underline underline-offset-4">
            Bring it
          </Link>
          , and Fortis begins with what it shows.
        </p>
        <p className="border-l-4 border-look pl-4">
          Fortis gives training arithmetic, not medical advice. Under 18, pregnant, after surgery or with a
          heart condition: ask a doctor first. Stop at sharp pain, dizziness or pressure in the chest. Squat
          and bench with safeties or a spotter, and learn how to fail a lift before you need it.
        </p>
      </div>
    </section>
  );
}

function Question<T extends string | number>({
  ask,
  of,
  value,
  onPick,
}: {
  ask: string;
  of: [T, string][];
  value: T;
  onPick: (picked: T) => void;
}) {
  return (
    <fieldset>
      <legend className="font-bold">{ask}</legend>
      <div className="mt-1 flex flex-wrap gap-2">
        {of.map(([each, words]) => (
          <label
            key={each}
            className="flex min-h-11 min-w-11 cursor-pointer items-center justify-center rounded-card border border-hairline px-4 has-checked:border-ink has-checked:bg-ink has-checked:font-bold has-checked:text-paper has-focus-visible:outline-3 has-focus-visible:outline-offset-2"
          >
            <input
              type="radio"
              name={ask}
              className="sr-only"
              checked={each === value}
              onChange={() => onPick(each)}
            />
            <span className="first-letter:uppercase">{words}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

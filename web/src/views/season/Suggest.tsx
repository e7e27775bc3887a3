import { useState } from "react";
import type { Schemas } from "@/data/client";
import { type Suggested, useSuggestions, type Wish } from "@/data/season";
import { Button } from "@/parts/Button";
import { Choice } from "@/parts/Field";
import { Trouble } from "@/parts/Notice";
import { DAYS, EXPERIENCE, GOALS } from "../wish";
import { Proposal } from "./Proposal";

const MINUTES = ["30", "45", "60", "75", "90", "120"].map((many) => [many, `${many} minutes`] as const);
const AIMS = [
  ["", "no date"],
  ["meet", "a meet"],
  ["test", "a test"],
] as const;
const JOINTS: Schemas["Joint"][] = ["knees", "hips", "lower back", "shoulders", "elbows", "wrists"];

/** What a season should be, and the ones that Fortis would plan, each with its reasons. */
export function Suggest({ onTake }: { onTake: (written: string) => void }) {
  const suggest = useSuggestions();
  const [wish, tell] = useState<Wish>({
    goal: "both",
    days: 3,
    minutes: 60,
    experience: "one to three years",
    at_once: false,
    lifts: "",
    sore: [],
  });
  const [aim, lead] = useState({ what: "" as (typeof AIMS)[number][0], on: "" });
  const put = (part: Partial<Wish>) => tell({ ...wish, ...part });
  const ask = () =>
    suggest.mutate({ ...wish, aim: aim.what && aim.on ? { what: aim.what, on: aim.on } : null });
  const needsDate = aim.what !== "" && aim.on === "";
  const box = "min-h-11 rounded-card border border-hairline bg-panel px-2";
  return (
    <section aria-label="Suggest a season" className="mt-6">
      <h2 className="text-2xl font-bold tracking-tight">Let Fortis suggest one</h2>
      <form
        className="mt-3 grid gap-x-8 gap-y-3 sm:grid-cols-2 lg:grid-cols-4"
        onSubmit={(event) => {
          event.preventDefault();
          ask();
        }}
      >
        <Choice above label="It is for" of={GOALS} value={wish.goal} onPick={(goal) => put({ goal })} />
        <Choice
          above
          label="Days a week"
          of={DAYS.map((days) => [String(days), String(days)])}
          value={String(wish.days)}
          onPick={(days) => put({ days: Number(days) })}
        />
        <Choice
          above
          label="A session takes"
          of={MINUTES}
          value={String(wish.minutes)}
          onPick={(many) => put({ minutes: Number(many) })}
        />
        <Choice
          above
          label="You have trained for"
          of={EXPERIENCE.map((each) => [each, each])}
          value={wish.experience}
          onPick={(experience) => put({ experience })}
        />
        <Choice
          above
          label="It leads to"
          of={AIMS}
          value={aim.what}
          onPick={(what) => lead({ ...aim, what })}
        />
        {aim.what && (
          <label className="flex flex-col">
            <span className="text-faint">On</span>
            <input
              type="date"
              required
              className={box}
              value={aim.on}
              onChange={(event) => lead({ ...aim, on: event.target.value })}
            />
          </label>
        )}
        <label className="flex flex-col sm:col-span-2">
          <span className="text-faint">Lifts that matter, with commas between</span>
          <input
            className={box}
            value={wish.lifts}
            maxLength={400}
            placeholder="Back squat [belt], Bench press"
            onChange={(event) => put({ lifts: event.target.value })}
          />
        </label>
        <fieldset className="sm:col-span-2 lg:col-span-4">
          <legend className="text-faint">What hurts, so that its lifts are left out</legend>
          <div className="flex flex-wrap gap-x-6">
            {JOINTS.map((joint) => (
              <label key={joint} className="flex min-h-11 items-center gap-2">
                <input
                  type="checkbox"
                  className="accent-ink"
                  checked={wish.sore.includes(joint)}
                  onChange={({ target }) =>
                    put({
                      sore: target.checked
                        ? [...wish.sore, joint]
                        : wish.sore.filter((each) => each !== joint),
                    })
                  }
                />
                <span className="first-letter:uppercase">{joint}</span>
              </label>
            ))}
          </div>
          {wish.sore.length > 0 && (
            <p className="text-sm text-faint">
              New or sharp pain, or after surgery: ask a licensed professional before you train.
            </p>
          )}
        </fieldset>
        <div className="sm:col-span-2 lg:col-span-4">
          <Button look="strong" type="submit" disabled={suggest.isPending || needsDate}>
            Suggest a season
          </Button>
        </div>
      </form>
      {suggest.error && <Trouble error={suggest.error} />}
      {suggest.data && <Proposals of={suggest.data} onTake={onTake} />}
    </section>
  );
}

function Proposals({ of, onTake }: { of: Suggested[]; onTake: (written: string) => void }) {
  return (
    <div className="mt-6 grid gap-x-8 gap-y-8 border-t border-ink pt-4 lg:grid-cols-3">
      {of.map((each) => (
        <Proposal key={each.name} proposal={each} onTake={() => onTake(each.written)} />
      ))}
    </div>
  );
}

import { clsx } from "clsx";
import { useState } from "react";
import type { Schemas } from "@/data/client";
import { type SeasonView, useBeginTrial, useEndTrial, useToTry, useTrials } from "@/data/season";
import { Button } from "@/parts/Button";
import { Choice } from "@/parts/Field";
import { Trouble } from "@/parts/Notice";
import { dayAndMonth } from "../dates";

type Trial = Schemas["TrialView"];
type LiftToTry = Schemas["LiftToTry"];

const OWN = "other sets";
const FEWEST_WEEKS = 4;
const USUAL_WEEKS = 8;

/** What is tried with a lift in weeks drawn by lot, what came of it, and the next thing to try. */
export function Trials({ season }: { season: SeasonView }) {
  const { data: trials } = useTrials();
  const { data: choice } = useToTry(season.id);
  if (!trials || !choice || !(trials.length || choice.lifts.length)) return null;
  return (
    <section aria-label="Trials" className="mt-8 print:hidden">
      <h2 className="font-bold">Does it work for you?</h2>
      {trials.map((trial) => (
        <Tried key={trial.monday} trial={trial} season={season} />
      ))}
      {choice.lifts.length > 0 && <Try choice={choice} season={season} />}
    </section>
  );
}

function Tried({ trial, season }: { trial: Trial; season: SeasonView }) {
  const end = useEndTrial(season.id);
  const goOn = useBeginTrial(season.id);
  const trouble = end.error ?? goOn.error;
  const runs = trial.outcome.verdict === "it runs";
  const weeks = Array.from({ length: trial.weeks }, (_, week) => week + 1);
  const words = weeks.map((week) => `week ${week} ${trial.tried.includes(week) ? "with it" : "as usual"}`);
  return (
    <div className="mt-2">
      <p>
        <span className="font-semibold">{nameOf(trial)}: </span>
        {trial.method ?? trial.sets}
      </p>
      <div role="img" aria-label={words.join(", ")} className="mt-1.5 flex gap-1">
        {weeks.map((week) => (
          <span
            key={week}
            className={clsx(
              "grid size-6 place-items-center border text-sm",
              trial.tried.includes(week) ? "border-ink bg-ink text-paper" : "border-faint text-faint",
              week === trial.week && "outline-2 outline-offset-2 outline-look",
            )}
          >
            {week}
          </span>
        ))}
      </div>
      <p className="mt-1 text-sm text-faint">
        Dark weeks with it, light ones as usual, {dayAndMonth(trial.monday)} to {dayAndMonth(trial.last)}.
      </p>
      <p className={clsx("mt-1", !runs && "border-l-3 border-look pl-3 font-semibold")}>{trial.text}</p>
      {trial.more_weeks !== null && (
        <Button
          className="mt-2 mr-4"
          disabled={goOn.isPending}
          onClick={() =>
            goOn.mutate({
              monday: trial.monday,
              exercise: trial.exercise,
              setup: trial.setup,
              method: trial.method,
              sets: trial.sets,
              weeks: trial.weeks + (trial.more_weeks ?? 0),
            })
          }
        >
          Go on for {trial.more_weeks} weeks
        </Button>
      )}
      <button
        type="button"
        className="min-h-11 underline underline-offset-4"
        disabled={end.isPending}
        onClick={() => end.mutate(trial.monday)}
      >
        {runs ? "Leave the trial" : "Take it off"}
      </button>
      {trouble && <Trouble error={trouble} />}
    </div>
  );
}

function Try({ choice, season }: { choice: Schemas["ToTry"]; season: SeasonView }) {
  const begin = useBeginTrial(season.id);
  const [told, tell] = useState({ lift: "", method: "", sets: "", weeks: "" });
  const lift = choice.lifts.find((each) => nameOf(each) === told.lift) ?? (choice.lifts[0] as LiftToTry);
  const methods = [...lift.methods.map(({ method }) => method as string), OWN];
  const method = methods.includes(told.method) ? told.method : (methods[0] ?? OWN);
  const many = evens(choice.weeks);
  const weeks = told.weeks || String(Math.min(USUAL_WEEKS, choice.weeks));
  const found = lift.methods.find((each) => each.method === method);
  const start = () =>
    begin.mutate({
      monday: choice.monday,
      exercise: lift.exercise,
      setup: lift.setup,
      method: found?.method ?? null,
      sets: found ? "" : told.sets,
      weeks: Number(weeks),
    });
  return (
    <details className="mt-1">
      <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">Try something</summary>
      <form
        className="space-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          start();
        }}
      >
        <Choice
          above
          label="The lift"
          of={choice.lifts.map((each) => [nameOf(each), nameOf(each)])}
          value={nameOf(lift)}
          onPick={(lift) => tell({ ...told, lift })}
        />
        <Choice
          above
          label="What to try"
          of={methods.map((each) => [each, each])}
          value={method}
          onPick={(method) => tell({ ...told, method })}
        />
        {!found && (
          <label className="flex flex-col">
            <span className="text-faint">Its sets, in the written notation</span>
            <input
              required
              className="min-h-11 rounded-card border border-hairline bg-paper px-2"
              value={told.sets}
              maxLength={500}
              placeholder="3 x 8-10 leave 2 rest 2:00"
              onChange={(event) => tell({ ...told, sets: event.target.value })}
            />
          </label>
        )}
        <Choice
          above
          label={`From ${dayAndMonth(choice.monday)} for`}
          of={many.map((each) => [each, `${each} weeks`])}
          value={weeks}
          onPick={(weeks) => tell({ ...told, weeks })}
        />
        <dl className="text-sm">
          <dt className="text-faint">As usual</dt>
          <dd className="mb-1">{lift.usual}</dd>
          {found && (
            <>
              <dt className="text-faint">With it</dt>
              <dd>{found.sets}</dd>
            </>
          )}
        </dl>
        <p className="text-sm text-faint">
          One of every two weeks is with it, drawn by lot; the season’s sessions follow. At the end the sets
          of both are set beside each other. Days differ by 2 % anyway: twice a week for eight weeks finds a
          true 2 % about every other time.
          {method === "heavy single first" && " A heavy single wants safeties or a spotter."}
        </p>
        <Button look="strong" type="submit" disabled={begin.isPending}>
          Draw the weeks
        </Button>
        {begin.error && <Trouble error={begin.error} />}
      </form>
    </details>
  );
}

const nameOf = ({ exercise, setup }: Pick<LiftToTry, "exercise" | "setup">) =>
  [exercise, ...setup.items].join(", ");

const evens = (most: number) =>
  Array.from({ length: Math.max(Math.floor((most - FEWEST_WEEKS) / 2) + 1, 0) }, (_, at) =>
    String(FEWEST_WEEKS + 2 * at),
  );

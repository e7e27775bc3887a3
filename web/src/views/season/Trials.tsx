import { clsx } from "clsx";
import { useState } from "react";
import type { Schemas } from "@/data/client";
import {
  type SeasonView,
  useBeginTrial,
  useDrawLot,
  useEndTrial,
  useLot,
  useToTry,
  useTrials,
} from "@/data/season";
import { Button } from "@/parts/Button";
import { Choice } from "@/parts/Field";
import { Trouble } from "@/parts/Notice";
import { dayAndMonth } from "../dates";

type Trial = Schemas["TrialView"];
type LiftToTry = Schemas["LiftToTry"];
type Way = Schemas["WayToTry"];

/** What is tried with a lift in weeks drawn by lot, what came of it, and the next thing to try. */
export function Trials({ season }: { season: SeasonView }) {
  const { data: trials } = useTrials();
  const { data: choice } = useToTry(season.id);
  const { data: lot } = useLot(season.id);
  if (!trials || !choice || !lot) return null;
  const hasLot = lot.to_draw.length > 0 || lot.text !== "";
  if (!trials.length && !choice.lifts.length && !hasLot) return null;
  return (
    <section aria-label="Trials" className="mt-8 print:hidden">
      <h2 className="font-bold">Does it work for you?</h2>
      {trials.map((trial) => (
        <Tried key={trial.monday} trial={trial} season={season} />
      ))}
      {choice.lifts.length > 0 && <Try choice={choice} season={season} />}
      {hasLot && <LightWeeks lot={lot} season={season} />}
    </section>
  );
}

function LightWeeks({ lot, season }: { lot: Schemas["LotView"]; season: SeasonView }) {
  const draw = useDrawLot(season.id);
  const many = lot.to_draw.length;
  const last = lot.to_draw.at(-1);
  return (
    <div className="mt-3">
      <h3 className="font-semibold">Light weeks by lot</h3>
      {lot.text && <p className="mt-1">{lot.text}</p>}
      {lot.drawn.length > 0 && (
        <ul className="mt-1 text-sm text-faint">
          {lot.drawn.map(({ monday, school }) => (
            <li key={monday}>
              {dayAndMonth(monday)}: {school}
            </li>
          ))}
        </ul>
      )}
      {last && (
        <details>
          <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
            {many > 1 ? `Draw how the ${many} light weeks to come are` : "Draw how the next light week is"}
          </summary>
          <p className="text-sm text-faint">
            Heavy and short, or half the load: of every two light weeks one of each, by lot. Then the first
            sessions after them are set beside the last ones before. From three of each a difference is told,
            when none is to come any more: it takes a year or so, and only a large one shows.
          </p>
          <Button className="mt-2" disabled={draw.isPending} onClick={() => draw.mutate()}>
            Draw until {dayAndMonth(last)}
          </Button>
          {draw.error && <Trouble error={draw.error} />}
        </details>
      )}
    </div>
  );
}

const LOOKS = {
  "with it": "border-ink bg-ink text-paper",
  "as usual": "border-faint text-faint",
  "left out": "border-faint border-dotted text-faint",
};

function Tried({ trial, season }: { trial: Trial; season: SeasonView }) {
  const end = useEndTrial(season.id);
  const goOn = useBeginTrial(season.id);
  const trouble = end.error ?? goOn.error;
  const runs = trial.outcome.verdict === "it runs";
  const weeks = Array.from({ length: trial.weeks }, (_, week) => week + 1);
  const kindOf = (week: number) =>
    trial.left_out.includes(week) ? "left out" : trial.tried.includes(week) ? "with it" : "as usual";
  return (
    <div className="mt-2">
      <p>
        <span className="font-semibold">{nameOf(trial)}: </span>
        {trial.method ?? trial.sets}
      </p>
      <div
        role="img"
        aria-label={weeks.map((week) => `week ${week} ${kindOf(week)}`).join(", ")}
        className="mt-1.5 flex gap-1"
      >
        {weeks.map((week) => (
          <span
            key={week}
            className={clsx(
              "grid size-6 place-items-center border text-sm",
              LOOKS[kindOf(week)],
              week === trial.week && "outline-2 outline-offset-2 outline-look",
            )}
          >
            {week}
          </span>
        ))}
      </div>
      <p className="mt-1 text-sm text-faint">
        Filled weeks with it, empty ones as usual
        {trial.left_out.length > 0 && ", dotted ones count for neither: light, free or away"};{" "}
        {dayAndMonth(trial.monday)} to {dayAndMonth(trial.last)}.
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
  const [told, tell] = useState({ lift: "", way: "", sets: "", weeks: "" });
  const lift = choice.lifts.find((each) => nameOf(each) === told.lift) ?? (choice.lifts[0] as LiftToTry);
  const way = lift.ways.find((each) => each.name === told.way) ?? (lift.ways[0] as Way);
  const isOwn = way.method === null && way.sets === "";
  const weeks = way.weeks.includes(Number(told.weeks)) ? told.weeks : String(way.usual_weeks);
  const start = () =>
    begin.mutate({
      monday: choice.monday,
      exercise: lift.exercise,
      setup: lift.setup,
      method: way.method,
      sets: isOwn ? told.sets : way.method ? "" : way.sets,
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
          of={lift.ways.map(({ name }) => [name, name])}
          value={way.name}
          onPick={(way) => tell({ ...told, way })}
        />
        {isOwn && (
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
          of={way.weeks.map((each) => [String(each), `${each} weeks`])}
          value={weeks}
          onPick={(weeks) => tell({ ...told, weeks })}
        />
        <dl className="text-sm">
          <dt className="text-faint">As usual</dt>
          <dd className="mb-1">{lift.usual}</dd>
          {way.sets && (
            <>
              <dt className="text-faint">With it</dt>
              <dd>{way.sets}</dd>
            </>
          )}
        </dl>
        <p className="text-sm text-faint">
          {way.round_weeks > 1
            ? `It goes over ${way.round_weeks} weeks: one of every two such rounds is with it, drawn by lot; `
            : "One of every two weeks is with it, drawn by lot; "}
          the season’s sessions follow. At the end the sets of both are set beside each other. Days differ by
          2 % anyway: twice a week for eight weeks finds a true 2 % one time in three.
          {!way.method &&
            " Sets of other reps are read by your curve, which is known less well: only large differences show."}
          {way.is_heavy && " Heavy singles want safeties or a spotter."}
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

import { clsx } from "clsx";
import { memo } from "react";
import type { FloorView, Schemas } from "@/data/client";
import { pullWords } from "@/parts/Builds";
import { buildWords, Plates } from "@/parts/Plates";
import {
  asksUnknownMax,
  beginning,
  knownLoadWords,
  loadUnit,
  loadWords,
  mannerWords,
  plain,
  sideWords,
  targetWords,
} from "@/score/words";
import { changeWords } from "./ClockPanel";
import { RangeChoice } from "./RangeChoice";
import type { Playing } from "./useSession";

/** What to lift: the load readable from two metres away, the plates, and why it is this load. */
export const LoadPanel = memo(function LoadPanel({
  standing,
  steps,
  done,
  cues,
  choices,
  changed,
  onChange,
  className,
}: Pick<Playing, "standing" | "steps" | "done" | "changed"> & {
  cues: Schemas["Cue"][];
  choices: FloorView["choices"];
  onChange: Playing["acts"]["change"];
  className?: string;
}) {
  const step = standing.work === null ? undefined : steps[standing.work];
  if (!step) return null;
  const sets = new Set(
    steps
      .filter(
        (each) =>
          each.kind === "work" && !each.warm_up && each.entry === step.entry && each.group === step.group,
      )
      .map((each) => each.set),
  ).size;
  const bouts = steps.filter(
    (each) =>
      each.kind === "work" && each.group === step.group && each.entry === step.entry && each.set === step.set,
  ).length;
  const settled = step.settled;
  const manner = mannerWords(step);
  const puts = putsOn(steps, standing.work ?? 0);
  const change = changeWords({ standing, steps, done });
  const cue = cues.filter((each) => each.exercise === step.exercise).at(-1);
  const setWords = step.warm_up
    ? `Warm-up ${step.bout} of ${bouts}`
    : `Set ${step.set} of ${sets}${bouts > 1 ? `, bout ${step.bout} of ${bouts}` : ""}`;
  return (
    <section
      aria-label="Load"
      className={clsx(className, "rounded-card border border-hairline bg-panel p-4 lg:p-6")}
    >
      <p className="text-[15px] text-faint">
        {step.exercise}
        {sideWords(step.side)} · {setWords}
      </p>
      <p className="narrow mt-1 text-6xl leading-none font-extrabold tracking-tight lg:text-7xl">
        {knownLoadWords(step) || <span className="text-4xl [word-spacing:0.2em]">your load</span>}
        <span className="ml-1 text-3xl font-semibold">{loadUnit(step)}</span>
        <span className="ml-4 text-4xl lg:text-5xl">× {targetWords(step.target)}</span>
      </p>
      <RangeChoice step={step} choices={choices} changed={changed} onChange={onChange} />
      {settled?.bar && <Plates bar={settled.bar} sleeve={settled.sleeve} className="mt-3 w-64 max-w-full" />}
      {manner && <p className="mt-2 text-lg font-bold">{beginning(manner)}</p>}
      <div className="mt-2 space-y-1 text-[15px] text-faint">
        {settled && buildWords(settled) && <p className="text-ink">{buildWords(settled)}</p>}
        {settled?.percent != null && <p>{plain(settled.percent)} % of your estimated max.</p>}
        {change && <p className="text-ink">{`${beginning(change)}.`}</p>}
        {puts.length > 0 && (
          <p className="font-bold text-ink">{`${beginning(puts.join(", "))} on from here.`}</p>
        )}
        {step.setup.items.length > 0 && <p>Set up: {step.setup.items.join(", ")}.</p>}
        {settled && pullWords(settled) && <p className="text-ink">{pullWords(settled)}</p>}
        {settled?.note && <p className="text-ink">{settled.note}</p>}
        {cue && (
          <p>
            Cue from last time: <b className="text-ink">{cue.text}</b>
          </p>
        )}
        {settled && settled.reasons.length > 0 && (
          <details>
            <summary className="min-h-11 cursor-pointer py-2.5 underline underline-offset-4">
              Why {loadWords(step)}
            </summary>
            {settled.reasons.map((reason) => (
              <p key={reason.text} className="mb-1">
                {reason.text}
              </p>
            ))}
          </details>
        )}
        {!settled && <NoLoad step={step} />}
      </div>
    </section>
  );
});

/** What comes on with a bout that was not worn for the one before it. */
function putsOn(steps: Schemas["Step"][], at: number): string[] {
  const step = steps[at];
  const before = steps
    .slice(0, at)
    .findLast((each) => each.kind === "work" && !each.left_out && each.exercise === step?.exercise);
  if (!step?.gear.length || !before) return [];
  return step.setup.items.filter((item) => !before.setup.items.includes(item));
}

const USUALLY_LEFT = 2;

/** Where no load could be settled: what was asked, and how to find one without risk. */
function NoLoad({ step }: { step: Schemas["Step"] }) {
  const counted = step.target?.kind === "reps" || step.target?.kind === "range";
  const enough = counted
    ? `${plain(step.reserve ?? USUALLY_LEFT)} would be left after ${targetWords(step.target)}`
    : "it is as hard as you want it";
  return (
    <>
      {asksUnknownMax(step) && (
        <p className="text-ink">{loadWords(step)} was asked, of a max that is not known yet.</p>
      )}
      <p>
        Work up to it: an easy set of five with little, then 10 to 20 % more at a time with fewer reps, two
        minutes apart. Stop adding where {enough}. Note the load and how many were left: from then on your max
        is known.
      </p>
    </>
  );
}

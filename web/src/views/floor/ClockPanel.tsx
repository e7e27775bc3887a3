import { clsx } from "clsx";
import { memo, type ReactNode } from "react";
import type { Step } from "@/data/client";
import { Button } from "@/parts/Button";
import {
  beginning,
  clock,
  knownLoadWords,
  loadUnit,
  mannerWords,
  minutes,
  restWords,
  sideWords,
  targetWords,
} from "@/score/words";
import { mustAsk } from "@/session/done";
import { blockLeft, clockAt, following, type Standing } from "./clock";
import { moment } from "./moment";
import { TempoGuide } from "./TempoGuide";
import { useMoment } from "./ticking";
import type { Playing } from "./useSession";

/** The clock of the moment: petrol while resting, paper with red while working, and what comes next. */
export const ClockPanel = memo(function ClockPanel({
  standing,
  steps,
  done,
  mark,
  acts,
  sound,
  className,
}: Pick<Playing, "standing" | "steps" | "done" | "mark" | "acts"> & { sound: boolean; className?: string }) {
  const step = standing.work === null ? undefined : steps[standing.work];
  if (!step || standing.work === null) return null;
  const { advance, addRest, tap, skip, pause } = acts;
  const change = changeWords({ standing, steps, done });
  const before = standing.before === null ? undefined : steps[standing.before];
  const otherLift = before !== undefined && before.exercise !== step.exercise;
  const manner = mannerWords(step);
  const otherWay = before && mannerWords(before) !== manner ? manner : "";
  const changing = [change === NO_CHANGE ? "" : change, otherWay].filter(Boolean).join(", ");
  const toDo = standing.mode === "ready" ? beginning(changing) || readyWords(steps, standing.work) : "";
  const aside = toDo ? "" : change;
  const working = standing.mode === "working";
  const resting = standing.mode === "resting";
  const justOver = standing.mode === "over" && moment() - standing.zero < FLASHING;
  const petrol = resting || standing.mode === "over";
  const then = askedWords(step);
  const after = standing.work === null ? null : following(steps, standing.work);
  const taps = mark.taps?.length ?? 0;
  const actName = working
    ? taps
      ? `Done, ${taps} counted`
      : mustAsk(step, [])
        ? "Done"
        : "Done as planned"
    : standing.blockOver
      ? "Leave the block"
      : resting
        ? "Go now"
        : "Begin";
  return (
    <section
      aria-label="Clock"
      className={clsx(
        className,
        "flex flex-col rounded-card border px-4 py-3 lg:p-6",
        petrol ? "on-colour border-rest-panel bg-rest-panel text-rest-text" : "border-hairline bg-panel",
        working && "border-work",
        justOver && "flash",
      )}
    >
      <div className="flex items-start justify-between gap-3">
        <p className={clsx("text-[15px]", !petrol && "text-faint")}>{headline({ standing, steps })}</p>
        <span className="flex gap-3 text-[15px]">
          {step.warm_up && !working && (
            <button
              type="button"
              className="-my-2 min-h-11 underline underline-offset-4"
              onClick={() =>
                skip((each) => each.warm_up && each.group === step.group && each.entry === step.entry)
              }
            >
              Skip the warm-up
            </button>
          )}
          {standing.mode !== "ready" && (
            <button type="button" className="-my-2 min-h-11 underline underline-offset-4" onClick={pause}>
              {standing.stoodAt === null ? "Pause" : "Go on"}
            </button>
          )}
        </span>
      </div>
      <Running
        standing={standing}
        step={step}
        sound={sound}
        instead={standing.mode === "ready" && standing.blockEndsAt !== null && !changing ? "" : toDo}
      >
        <p className="pb-3 text-right text-[15px] lg:hidden">
          {working ? "now" : otherLift ? `then ${step.exercise}` : before ? "then" : "first"}
          <b className="narrow block text-3xl whitespace-nowrap">{`${knownLoadWords(step) || "–"} × ${targetWords(step.target)}`}</b>
          {(toDo && otherWay ? "" : manner) || aside}
        </p>
      </Running>
      <p className={clsx("mt-3 hidden text-lg", !standing.blockOver && "lg:block")}>
        {working ? "" : before ? "then " : "first "}
        {otherLift && `${step.exercise}, `}
        {then}
        {aside && <span className="opacity-75"> · {aside}</span>}
      </p>
      {standing.mode === "ready" && (
        <p className="mt-1 text-[15px] text-faint">{lengthWords(steps, standing.work)}</p>
      )}
      {standing.blockEndsAt !== null && !standing.blockOver && (
        <BlockLeft standing={standing} alone={standing.mode === "ready" && !toDo} />
      )}
      {working && after?.work && (
        <p className="mt-1 text-[15px] text-faint">
          Next: {leadWords(after.rest)}
          {after.work.exercise !== step.exercise && `${after.work.exercise}, `}
          {askedWords(after.work)}
          {after.work.settled?.change &&
            after.work.exercise === step.exercise &&
            ` · ${after.work.settled.change}`}
        </p>
      )}
      <div className="fixed inset-x-0 bottom-0 z-10 flex gap-2 lg:flex-wrap border-t border-hairline bg-paper p-3 lg:static lg:mt-5 lg:border-0 lg:bg-transparent lg:p-0">
        <Button
          look={petrol ? "rest" : "strong"}
          hotkey={working && step.tempo ? "Enter" : "Space"}
          onClick={advance}
          className={clsx(
            "min-h-14 flex-[2] text-lg lg:min-h-11 lg:flex-none lg:text-base",
            petrol && PHONE_INK,
          )}
        >
          {actName}
        </Button>
        {working && step.target?.kind !== "hold" && (
          <Button
            look="quiet"
            hotkey={step.tempo ? "Space" : "C"}
            onClick={tap}
            className="min-h-14 flex-1 lg:min-h-11 lg:flex-none"
          >
            Count a rep
          </Button>
        )}
        {petrol && (
          <Button
            look="onRest"
            hotkey="R"
            onClick={addRest}
            className="min-h-14 flex-1 text-lg max-lg:border-ink max-lg:text-ink lg:min-h-11 lg:flex-none lg:text-base"
          >
            + 15 s
          </Button>
        )}
      </div>
    </section>
  );
});

/** How much is left of a block against the clock; where it stands `alone`, the large digits say it. */
function BlockLeft({ standing, alone }: { standing: Standing; alone: boolean }) {
  const left = blockLeft(standing, useMoment()) ?? 0;
  if (left <= 0) return <p className="mt-2 text-[15px]">The time of the block is over</p>;
  return (
    <p className="mt-2 text-[15px]">
      {alone ? "left of the block: " : <b>{clock(Math.ceil(left))} left of the block: </b>}
      as many rounds as fit
    </p>
  );
}

/** All that runs with the clock: its digits, with what stands beside them, the guide of a tempo, the bar. */
function Running({
  standing,
  step,
  sound,
  instead,
  children,
}: {
  standing: Standing;
  step: Step;
  sound: boolean;
  /** What to do before the bout, where no clock runs: it stands where the digits would. */
  instead: string;
  children: ReactNode;
}) {
  const now = useMoment();
  const ofBlock = standing.mode === "ready" ? blockLeft(standing, now) : null;
  const seconds = ofBlock === null ? clockAt(standing, now) : Math.max(ofBlock, 0);
  const working = standing.mode === "working";
  const resting = standing.mode === "resting";
  const share = resting ? 1 - seconds / standing.rest : working ? seconds / Math.max(step.seconds, 1) : 0;
  return (
    <>
      <div className="flex flex-1 items-end justify-between gap-3 lg:block lg:flex-none">
        {instead ? (
          <p className="narrow py-2 text-4xl leading-[1.05] font-extrabold lg:text-6xl">{instead}</p>
        ) : (
          <p
            role="timer"
            data-left={seconds}
            aria-label={resting ? "Rest left" : ofBlock === null ? "Time" : "Left of the block"}
            className={clsx(
              "narrow text-[5.6rem] leading-none font-extrabold tracking-tight lg:text-[9.5rem]",
              working && "text-work",
            )}
          >
            {clock(working ? seconds : Math.ceil(seconds))}
          </p>
        )}
        {children}
      </div>
      {working && step.tempo && (
        <TempoGuide tempo={step.tempo} seconds={seconds} sound={sound && standing.stoodAt === null} />
      )}
      <div
        className={clsx("h-2", working || standing.mode === "ready" ? "bg-hairline" : "bg-rest-text/25")}
        aria-hidden
      >
        <div
          className={clsx("h-full origin-left", working ? "bg-work" : "bg-rest-text")}
          style={{ transform: `scaleX(${Math.min(Math.max(share, 0), 1)})` }}
        />
      </div>
    </>
  );
}

/** What to do where no clock runs and nothing has to change: which set it is. */
function readyWords(steps: Step[], at: number): string {
  const step = steps[at];
  if (!step) return "";
  return step.warm_up ? "Warm up" : `Set ${step.set}`;
}

/** How long what comes next takes: the way up, or one bout. */
function lengthWords(steps: Step[], at: number): string {
  const step = steps[at];
  if (!step) return "";
  if (!step.warm_up) return `about ${restWords(step.seconds)} of work`;
  const end = steps.findIndex((each, index) => index > at && each.kind === "work" && !each.warm_up);
  const way = steps.slice(at, end < 0 ? undefined : end);
  const count = way.filter((each) => each.kind === "work").length;
  const seconds = way.reduce((sum, each) => sum + each.seconds, 0);
  return `${count} ${count === 1 ? "set" : "sets"}, about ${minutes(seconds)}, then your work sets`;
}

/** What a bout asks for in a line: 5 in the stretched half only, at 60 kg. */
function askedWords(step: Step): string {
  const manner = mannerWords(step);
  const load = knownLoadWords(step);
  const unit = loadUnit(step) ? " kg" : "";
  return `${targetWords(step.target)}${sideWords(step.side)}${manner && ` ${manner},`} at ${load ? load + unit : "your load"}`;
}

/** What leads to the bout after this one. */
function leadWords(rest: Step | undefined): string {
  if (!rest) return "straight on, ";
  return rest.every ? `a start every ${restWords(rest.every)}, ` : `rest ${restWords(rest.seconds)}, then `;
}

/** For how long after it a rest counts as just over, in milliseconds. */
const FLASHING = 2_000;

/** On a phone the buttons stand on paper, not on petrol. */
const PHONE_INK = "max-lg:border-ink max-lg:bg-ink max-lg:text-paper";

function headline({ standing, steps }: Pick<Playing, "standing" | "steps">): string {
  const step = standing.work === null ? undefined : steps[standing.work];
  if (!step) return "";
  if (standing.stoodAt !== null) return "The clock stands";
  if (standing.mode === "working") return `${step.exercise}${sideWords(step.side)}: ${step.asked}`;
  if (standing.blockOver) return "The block is over";
  if (standing.mode === "resting" && standing.every !== null) return "Until the next start";
  if (standing.mode === "over" && standing.every !== null) return "Start now";
  if (standing.mode === "resting") return standing.short && !step.warm_up ? "Breathe, stay with it" : "Rest";
  if (standing.mode === "over") return "Rest is over";
  return standing.before === null ? "When you are ready" : "Straight on";
}

/** What is on the bar before a bout: what the one before it was done with, null where that was left out. */
function onTheBar({ steps, done }: Pick<Playing, "steps" | "done">, step: Step): number | null | undefined {
  const prior = steps
    .slice(0, steps.indexOf(step))
    .findLastIndex((each) => each.kind === "work" && each.exercise === step.exercise);
  if (steps[prior]?.left_out) return null;
  return done.get(prior)?.bout.kg ?? steps[prior]?.load?.kg;
}

const NO_CHANGE = "no plate change";

/** What has to change hands before the next bout, where anything does. */
export function changeWords({ standing, steps, done }: Pick<Playing, "standing" | "steps" | "done">): string {
  const step = standing.work === null ? undefined : steps[standing.work];
  const before = standing.before === null ? undefined : steps[standing.before];
  if (!step || standing.mode === "working") return "";
  if (before && before.exercise !== step.exercise) return "";
  const was = onTheBar({ steps, done }, step);
  if (was === null) return "";
  if (before && before.side !== step.side && step.side !== "both") return `the ${step.side} side`;
  const planned = before?.load?.kg;
  if (step.settled?.change && (before === undefined || was === planned)) return step.settled.change;
  return before?.settled && step.settled?.bar && was === step.settled.kg ? NO_CHANGE : "";
}

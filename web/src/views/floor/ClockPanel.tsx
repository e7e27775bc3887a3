import { clsx } from "clsx";
import { Button } from "@/parts/Button";
import { clock, loadUnit, loadWords, sideWords, targetWords } from "@/score/words";
import type { Playing } from "./useSession";

/** The clock of the moment: petrol while resting, paper with red while working, and what comes next. */
export function ClockPanel({ playing, className }: { playing: Playing; className?: string }) {
  const { place, steps, advance, addRest } = playing;
  const step = place.work === null ? undefined : steps[place.work];
  if (!step || place.work === null) return null;
  const working = place.mode === "working";
  const resting = place.mode === "resting";
  const petrol = resting || place.mode === "over";
  const before = place.before === null ? undefined : steps[place.before];
  const then = `${targetWords(step.target)}${sideWords(step.side)} at ${loadWords(step) || "your load"}`;
  const actName = working ? "Done as planned" : resting ? "Go now" : "Begin";
  return (
    <section
      aria-label="Clock"
      className={clsx(
        className,
        "flex flex-col rounded-card border p-4 lg:p-6",
        petrol ? "on-colour border-rest-panel bg-rest-panel text-rest-text" : "border-hairline bg-panel",
        working && "border-work",
      )}
    >
      <p className={clsx("text-[15px]", !petrol && "text-faint")}>{headline(playing)}</p>
      <div className="flex flex-1 items-end justify-between gap-3 lg:block">
        <p
          role="timer"
          aria-label={resting ? "Rest left" : "Time"}
          className={clsx(
            "narrow text-[7.2rem] leading-none font-extrabold tracking-tight lg:text-[9.5rem]",
            working && "text-work",
          )}
        >
          {clock(working ? place.clock : Math.ceil(place.clock))}
        </p>
        <p className="pb-3 text-right text-[15px] lg:hidden">
          {working ? "now" : "then"}
          <b className="narrow block text-3xl">{`${loadWords(step) || "–"} × ${targetWords(step.target)}`}</b>
          {changeWords(playing)}
        </p>
      </div>
      <div className={clsx("h-2", petrol ? "bg-rest-text/25" : "bg-hairline")} aria-hidden>
        {place.mode === "resting" && (
          <div
            className="h-full bg-rest-text"
            style={{ width: `${Math.min((1 - place.clock / place.rest) * 100, 100)}%` }}
          />
        )}
        {working && (
          <div
            className="h-full bg-work"
            style={{ width: `${Math.min((place.clock / Math.max(step.seconds, 1)) * 100, 100)}%` }}
          />
        )}
      </div>
      <p className="mt-3 hidden text-lg lg:block">
        {working ? "" : "then "}
        {before && before.exercise !== step.exercise ? `${step.exercise}, ` : ""}
        {then}
        {loadUnit(step) && " kg"}
        {changeWords(playing) && <span className="opacity-75"> · {changeWords(playing)}</span>}
      </p>
      <div className="fixed inset-x-0 bottom-0 z-10 flex gap-2 border-t border-hairline bg-paper p-3 lg:static lg:mt-5 lg:border-0 lg:bg-transparent lg:p-0">
        <Button
          look={petrol ? "rest" : "strong"}
          hotkey="Space"
          onClick={advance}
          className={clsx(
            "min-h-14 flex-[2] text-lg lg:min-h-11 lg:flex-none lg:text-base",
            petrol && PHONE_INK,
          )}
        >
          {actName}
        </Button>
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
}

/** On a phone the buttons stand on paper, not on petrol. */
const PHONE_INK = "max-lg:border-ink max-lg:bg-ink max-lg:text-paper";

function headline({ place, steps }: Playing): string {
  const step = place.work === null ? undefined : steps[place.work];
  if (!step) return "";
  if (place.mode === "working") return `${step.exercise}${sideWords(step.side)}: ${step.asked}`;
  if (place.mode === "resting") return place.short ? "Breathe, stay with it" : "Rest";
  if (place.mode === "over") return "Rest is over";
  return place.before === null ? "When you are ready" : "Straight on";
}

/** What has to change hands before the next bout, where anything does. */
export function changeWords({ place, steps }: Pick<Playing, "place" | "steps">): string {
  const step = place.work === null ? undefined : steps[place.work];
  const before = place.before === null ? undefined : steps[place.before];
  if (!step || place.mode === "working") return "";
  if (before && before.exercise !== step.exercise) return "";
  if (step.settled?.change) return step.settled.change;
  return before?.settled && step.settled?.bar && before.settled.kg === step.settled.kg
    ? "no plate change"
    : "";
}

import { clsx } from "clsx";
import { ToggleGroup } from "radix-ui";
import { useId } from "react";
import type { Schemas } from "@/data/client";
import { sideWords } from "@/score/words";
import { AdviceNote } from "./AdviceNote";
import { Extras } from "./Extras";
import { LoadLifted } from "./LoadLifted";
import { NotesRow } from "./NotesRow";
import { subjectOf } from "./subject";
import { TakeBack } from "./TakeBack";
import type { Playing } from "./useSession";

type Ended = Schemas["Ended"];

const ENDS: { ended: Ended; words: string; short?: string }[] = [
  { ended: "target met", words: "Target met" },
  { ended: "form slipped", words: "Form slipped" },
  { ended: "could not move it", words: "Could not move it", short: "Stuck" },
];

/** What happened: reps, reps left, the load lifted and how it ended, of the bout just done or being done. */
export function WhatHappened({
  playing,
  slowing,
  className,
}: {
  playing: Playing;
  slowing: Schemas["Slowing"][];
  className?: string;
}) {
  const { steps, done, acts } = playing;
  const heading = useId();
  const subject = subjectOf(playing);
  const step = subject === null ? undefined : steps[subject];
  if (subject === null || !step) return null;
  const { record } = acts;
  const bout = done.get(subject)?.bout ?? null;
  const which = step.warm_up ? `warm-up ${step.bout}` : `set ${step.set}`;
  const within = step.bout > 1 && !step.warm_up ? `, bout ${step.bout}` : "";
  const about = `${step.exercise}${sideWords(step.side)}, ${which}${within}`;
  return (
    <section
      aria-labelledby={heading}
      className={clsx(className, "rounded-card border border-hairline bg-panel px-4 py-2 lg:p-6")}
    >
      <div className="flex min-h-11 items-start justify-between gap-3">
        <h2 id={heading} className="text-[15px] text-faint">
          <span className="max-sm:sr-only">What happened · </span>
          <span className="text-ink">{about}</span>
        </h2>
        <TakeBack playing={playing} />
      </div>
      {playing.asking && (
        <p role="status" className="mb-2 border-l-4 border-look pl-3 text-[15px]">
          How many did you get? Tap the last rep done, or type it.
        </p>
      )}
      <NotesRow key={subject} step={step} index={subject} bout={bout} record={record} />
      <p className="mt-2 text-[15px] text-faint" id={`${heading}-ended`}>
        Ended because
      </p>
      <ToggleGroup.Root
        type="single"
        aria-labelledby={`${heading}-ended`}
        value={bout?.ended ?? ""}
        onValueChange={(value) => value && record(subject, { ended: value as Ended })}
        className="mt-1.5 flex flex-wrap gap-2"
      >
        {ENDS.map((end) => (
          <ToggleGroup.Item
            key={end.ended}
            value={end.ended}
            className="min-h-11 rounded-card border border-hairline px-3 text-[15px] font-semibold hover:border-ink data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper"
          >
            <span className={clsx(end.short && "max-sm:sr-only")}>{end.words}</span>
            {end.short && (
              <span aria-hidden className="sm:hidden">
                {end.short}
              </span>
            )}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      {bout && bout.ended === null && !step.warm_up && (
        <p className="mt-2 border-l-4 border-look pl-3 text-[15px]">
          {step.counts === "seconds" ? "Held shorter" : "Fewer reps"} than planned: what ended it?
        </p>
      )}
      {playing.status.word && (
        <p className="mt-2 border-l-4 border-look pl-3 text-[15px]">{playing.status.word}</p>
      )}
      <AdviceNote playing={playing} />
      <LoadLifted
        key={`load-${subject}`}
        step={step}
        bout={bout}
        onChange={(kg) => record(subject, { kg })}
      />
      <Extras playing={playing} index={subject} step={step} bout={bout} slowing={slowing} />
    </section>
  );
}

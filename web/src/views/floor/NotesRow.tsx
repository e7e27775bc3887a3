import { clsx } from "clsx";
import isEqual from "fast-deep-equal/es6";
import { RadioGroup } from "radix-ui";
import { memo, type PointerEvent, type TouchEvent, useCallback, useState } from "react";
import type { Bout, Step } from "@/data/client";
import { useStable } from "@/parts/stable";
import { reserveWords } from "@/score/words";
import { countOf, numberOf } from "@/session/counting";
import { offered } from "./clock";
import type { Playing } from "./useSession";

const MOST_RESERVE = 5;

/**
 * The row of notes: tap the last rep done, then how many were left; or press on the rep, slide to the
 * reserve and let go. Each half is a radio group, so arrows and screen readers work as they do anywhere.
 */
export function NotesRow({
  step,
  index,
  bout,
  record,
}: {
  step: Step;
  index: number;
  bout: Bout | null;
  record: Playing["acts"]["record"];
}) {
  const onReps = useCallback((reps: number) => record(index, countOf(step, reps)), [record, index, step]);
  const onReserve = useCallback(
    (reserve: number) => record(index, { reserve, or_more: reserve >= MOST_RESERVE }),
    [record, index],
  );
  const reps = bout ? numberOf(step, bout) : null;
  const choice = useStable(offered(step, reps), isEqual);
  const held = step.counts === "seconds";
  const [pressed, setPressed] = useState<number | null>(null);

  /** Nothing is recorded before the finger lifts: what it slides to must not move away under it. */
  const press = (event: PointerEvent) => {
    const rep = (event.target as Element).closest<HTMLElement>("[data-rep]");
    if (!rep || event.button > 0) return;
    const number = Number(rep.dataset.rep);
    const lifted = new AbortController();
    const lift = (at: globalThis.PointerEvent) => {
      lifted.abort();
      setPressed(null);
      if (at.type === "pointercancel") return;
      const under = document.elementFromPoint(at.clientX, at.clientY)?.closest<HTMLElement>("[data-reserve]");
      const left = under ? Number(under.dataset.reserve) : null;
      const reserve = left === null ? {} : { reserve: left, or_more: left >= MOST_RESERVE };
      record(index, { ...countOf(step, number), ...reserve });
    };
    setPressed(number);
    addEventListener("pointerup", lift, lifted);
    addEventListener("pointercancel", lift, lifted);
  };

  /** The press has been heard: the click that a touch ends with would fall on whatever lies there by then. */
  const withoutClick = (event: TouchEvent) => {
    if ((event.target as Element).closest("[data-rep]")) event.preventDefault();
  };

  return (
    <div onPointerDown={press} onTouchEnd={withoutClick} className="touch-none space-y-3 select-none">
      <RepsDone choice={choice} held={held} reps={pressed ?? reps} onReps={onReps} />
      <RepsLeft reserve={bout?.reserve ?? null} onReserve={onReserve} />
      <p className="min-h-6 text-[15px] font-semibold" aria-live="polite">
        {bout && <DoneInWords bout={bout} asks={!step.warm_up || step.finds} />}
      </p>
    </div>
  );
}

const RepsDone = memo(function RepsDone({
  choice,
  held,
  reps,
  onReps,
}: {
  choice: number[];
  /** Seconds of a hold, not reps. */
  held: boolean;
  reps: number | null;
  onReps: (reps: number) => void;
}) {
  const isDone = (rep: number) => reps !== null && rep > 0 && rep <= reps;
  return (
    <RadioGroup.Root
      aria-label={held ? "Seconds held" : "Reps done"}
      value={reps === null ? "" : String(reps)}
      onValueChange={(value) => onReps(Number(value))}
      className="flex flex-wrap gap-x-0.5 gap-y-1"
    >
      {choice.map((rep) => (
        <RadioGroup.Item
          key={rep}
          value={String(rep)}
          data-rep={rep}
          aria-label={held ? `${rep} seconds` : rep === 1 ? "1 rep" : `${rep} reps`}
          className={clsx(
            "group grid size-11 place-items-center font-bold",
            isDone(rep) ? "text-paper" : "text-ink",
          )}
        >
          <span
            className={clsx(
              "grid h-9 w-10 place-items-center rounded-[50%] border-2",
              rep === 0 && "border-transparent text-faint",
              isDone(rep) && "border-ink bg-ink",
              rep > 0 && !isDone(rep) && "border-dashed border-faint/60 text-faint",
              rep === 0 && reps === 0 && "border-work text-work",
            )}
          >
            {rep === 0 ? "✕" : rep}
          </span>
        </RadioGroup.Item>
      ))}
      <RowName>{held ? "s held" : "done"}</RowName>
    </RadioGroup.Root>
  );
});

const RepsLeft = memo(function RepsLeft({
  reserve,
  onReserve,
}: {
  reserve: number | null;
  onReserve: (reserve: number) => void;
}) {
  const whole = reserve === null ? null : Math.min(Math.floor(reserve), MOST_RESERVE);
  const half = reserve !== null && reserve < MOST_RESERVE && reserve % 1 !== 0;
  return (
    <RadioGroup.Root
      aria-label="Reps left"
      value={whole === null ? "" : String(whole)}
      onValueChange={(value) => onReserve(Number(value))}
      className="flex flex-wrap gap-y-1 sm:gap-x-0.5"
    >
      {Array.from({ length: MOST_RESERVE + 1 }, (_, left) => {
        const chosen = whole === left;
        return (
          <RadioGroup.Item
            // biome-ignore lint/suspicious/noArrayIndexKey: the number is the identity
            key={left}
            value={String(left)}
            data-reserve={left}
            aria-label={left === MOST_RESERVE ? "5 or more left" : `${left} left`}
            className="grid size-11 place-items-center"
          >
            <span
              className={clsx(
                "grid size-9 place-items-center rounded-full border-2",
                chosen ? "border-work font-bold text-work" : "border-dashed border-faint/60 text-faint",
              )}
            >
              {left === MOST_RESERVE ? "5+" : left}
            </span>
          </RadioGroup.Item>
        );
      })}
      {whole !== null && whole < MOST_RESERVE && (
        <button
          type="button"
          aria-pressed={half}
          aria-label="and a half"
          onClick={() => onReserve(half ? whole : whole + 0.5)}
          className={clsx(
            "h-11 w-9 rounded-card sm:ml-1 sm:w-11 border text-[15px]",
            half ? "border-work font-bold text-work" : "border-hairline text-faint",
          )}
        >
          ½
        </button>
      )}
      <RowName>left</RowName>
    </RadioGroup.Root>
  );
});

const RowName = ({ children }: { children: string }) => (
  <span aria-hidden className="self-center pl-1 text-sm text-faint">
    {children}
  </span>
);

function DoneInWords({ bout, asks }: { bout: Bout; asks: boolean }) {
  const parts = [
    bout.seconds && `${bout.seconds} s held`,
    (bout.reps || !(bout.seconds || bout.partial_reps)) && `${bout.reps} done`,
    bout.partial_reps && `${bout.partial_reps} ${bout.partial_reps === 1 ? "half" : "halves"}`,
  ];
  const done = parts.filter(Boolean).join(" and ");
  return (
    <>
      {done}
      {bout.reserve !== null && (
        <span className="text-work">{`, ${reserveWords(bout)} left in the tank`}</span>
      )}
      {bout.reserve === null && asks && <span className="font-normal text-faint">. How many were left?</span>}
    </>
  );
}

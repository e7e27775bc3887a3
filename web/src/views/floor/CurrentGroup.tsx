import { group } from "d3-array";
import { memo, useEffect, useMemo, useRef } from "react";
import type { Bout, Step } from "@/data/client";
import { useWidth } from "@/parts/useWidth";
import { layoutScore } from "@/score/layout";
import { Score } from "@/score/Score";
import { effortWords, targetWords, tempoWords } from "@/score/words";
import type { Done } from "./play";

const still = matchMedia("(prefers-reduced-motion: reduce)");

/** The score of the group that is on, with the place in it. */
export const CurrentGroup = memo(function CurrentGroup({
  steps,
  done,
  at,
  before,
}: {
  steps: Step[];
  done: Done;
  at: number | null;
  before: number | null;
}) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const scroller = useRef<HTMLElement>(null);
  const index = at ?? before ?? 0;
  const group = steps[index]?.group ?? 1;
  const shown = useMemo(
    () => [...steps.keys()].filter((at) => steps[at]?.group === group && !steps[at]?.warm_up),
    [steps, group],
  );
  const own = useMemo(() => shown.map((at) => steps[at] as Step), [shown, steps]);
  const phone = width < 500;
  const left = phone ? 46 : 64;
  const alone = own.every((step) => step.exercise === own[0]?.exercise);
  const zoom = phone ? 1 : alone ? 1.5 : 1.2;
  const layout = useMemo(() => {
    const bouts = new Map<number, Bout>();
    for (const [index, { bout }] of done) if (shown.includes(index)) bouts.set(shown.indexOf(index), bout);
    const now = at === null ? -1 : shown.indexOf(at);
    return layoutScore({
      steps: own,
      done: bouts,
      at: now < 0 ? null : now,
      width: width / zoom,
      left,
      tightest: phone ? 1 : 0.72,
    });
  }, [own, shown, done, at, width, zoom, phone, left]);
  const now = layout.now;
  const long = layout.width * zoom > width;
  const followed = useRef<number | null>(null);
  useEffect(() => {
    if (now === null || !long) return;
    const moved = followed.current !== null && followed.current !== now;
    followed.current = now;
    const left = now * zoom - width * 0.42;
    scroller.current?.scrollTo({ left, behavior: moved && !still.matches ? "smooth" : "instant" });
  }, [now, long, zoom, width]);
  return (
    <div ref={ref} className="pt-4 pb-1">
      <Score ref={scroller} layout={layout} steps={own} captions={captionsOf(own)} left={left} zoom={zoom} />
    </div>
  );
});

/** What each exercise of a group asks for, in a line: 3 rounds of 2 + 2 + 2, leave 1. */
export function captionsOf(steps: Step[]): Record<string, string> {
  const captions: Record<string, string> = {};
  for (const [exercise, own] of group(steps, (step) => step.exercise)) {
    const work = own.filter((step) => step.kind === "work");
    const sets = new Set(work.map((step) => step.set)).size;
    const first = work.filter((step) => step.set === work[0]?.set);
    const within = own.find((step) => step.kind === "rest" && step.short)?.seconds;
    const shape = first
      .filter((step) => step.side !== "right")
      .map((step) => targetWords(step.target))
      .join(" + ");
    const last = first.at(-1);
    const setup = first[0]?.setup.items.join(", ");
    const parts = [`${sets} × ${shape}`];
    if (setup) parts.unshift(setup);
    if (within) parts.push(`${within} s between`);
    if (first.some((step) => step.side === "left")) parts.push("each side");
    if (last?.tempo) parts.push(`tempo ${tempoWords(last.tempo)}`);
    if (last?.effort) parts.push(effortWords(last.effort));
    captions[exercise] = parts.join(", ");
  }
  return captions;
}

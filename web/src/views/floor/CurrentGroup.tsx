import { useEffect, useMemo } from "react";
import type { Bout, Step } from "@/data/client";
import { Scroller } from "@/parts/Scroller";
import { useWidth } from "@/parts/useWidth";
import { layoutScore } from "@/score/layout";
import { Score } from "@/score/Score";
import { plain, targetWords } from "@/score/words";
import type { Playing } from "./useSession";

/** The score of the group that is on, with the place in it. */
export function CurrentGroup({ playing }: { playing: Playing }) {
  const { steps, done, place } = playing;
  const [ref, width] = useWidth<HTMLElement>();
  const index = place.work ?? place.before ?? 0;
  const group = steps[index]?.group ?? 1;
  const first = steps.findIndex((step) => step.group === group);
  const own = useMemo(() => steps.filter((step) => step.group === group), [steps, group]);
  const left = width < 500 ? 46 : 76;
  const layout = useMemo(() => {
    const bouts = new Map<number, Bout>();
    for (const [at, { bout }] of done) if (steps[at]?.group === group) bouts.set(at - first, bout);
    return layoutScore({
      steps: own,
      done: bouts,
      at: place.work === null ? null : place.work - first,
      width,
      left,
    });
  }, [own, done, place.work, width, first, group, left, steps]);
  const now = layout.now;
  useEffect(() => {
    if (now !== null) ref.current?.scrollTo({ left: now - width * 0.42, behavior: "smooth" });
  }, [now, width, ref]);
  return (
    <Scroller ref={ref} label="The score of this group" className="pt-4">
      <Score layout={layout} steps={own} captions={captionsOf(own)} left={left} />
    </Scroller>
  );
}

/** What each exercise of a group asks for, in a line: 3 rounds of 2 + 2 + 2, leave 1. */
export function captionsOf(steps: Step[]): Record<string, string> {
  const captions: Record<string, string> = {};
  for (const [exercise, own] of Map.groupBy(steps, (step) => step.exercise)) {
    const work = own.filter((step) => step.kind === "work");
    const sets = new Set(work.map((step) => step.set)).size;
    const first = work.filter((step) => step.set === work[0]?.set);
    const within = own.find((step) => step.kind === "rest" && step.short)?.seconds;
    const shape = first
      .filter((step) => step.side !== "right")
      .map((step) => targetWords(step.target))
      .join(" + ");
    const last = first.at(-1);
    const parts = [`${sets} × ${shape}`];
    if (within) parts.push(`${within} s between`);
    if (first.some((step) => step.side === "left")) parts.push("each side");
    if (last?.tempo) {
      const { lowering, bottom, lifting, top } = last.tempo;
      parts.push(`tempo ${lowering}-${bottom}-${lifting}-${top}`);
    }
    if (last?.effort?.kind === "leave") parts.push(`leave ${last.effort.low}`);
    if (last?.effort?.kind === "rpe") parts.push(`RPE ${plain(last.effort.value)}`);
    if (last?.effort?.kind === "failure") parts.push("to failure");
    captions[exercise] = parts.join(", ");
  }
  return captions;
}

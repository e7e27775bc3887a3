import { useEffect, useMemo, useRef } from "react";
import type { Bout, Step } from "@/data/client";
import { useWidth } from "@/parts/useWidth";
import { layoutScore } from "@/score/layout";
import { Score } from "@/score/Score";
import { effortWords, targetWords, tempoWords } from "@/score/words";
import type { Playing } from "./useSession";

/** The score of the group that is on, with the place in it. */
export function CurrentGroup({ playing }: { playing: Playing }) {
  const { steps, done, place } = playing;
  const [ref, width] = useWidth<HTMLDivElement>();
  const scroller = useRef<HTMLElement>(null);
  const index = place.work ?? place.before ?? 0;
  const group = steps[index]?.group ?? 1;
  const first = steps.findIndex((step) => step.group === group);
  const own = useMemo(() => steps.filter((step) => step.group === group), [steps, group]);
  const phone = width < 500;
  const left = phone ? 46 : 64;
  const alone = own.every((step) => step.exercise === own[0]?.exercise);
  const zoom = phone ? 1 : alone ? 1.5 : 1.2;
  const layout = useMemo(() => {
    const bouts = new Map<number, Bout>();
    for (const [at, { bout }] of done) if (steps[at]?.group === group) bouts.set(at - first, bout);
    return layoutScore({
      steps: own,
      done: bouts,
      at: place.work === null ? null : place.work - first,
      width: width / zoom,
      left,
      tightest: phone ? 1 : 0.72,
    });
  }, [own, done, place.work, width, zoom, phone, first, group, left, steps]);
  const now = layout.now;
  useEffect(() => {
    if (now !== null) scroller.current?.scrollTo({ left: now * zoom - width * 0.42, behavior: "smooth" });
  }, [now, zoom, width]);
  return (
    <div ref={ref} className="pt-4 pb-1">
      <Score ref={scroller} layout={layout} steps={own} captions={captionsOf(own)} left={left} zoom={zoom} />
    </div>
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

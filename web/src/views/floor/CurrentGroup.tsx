import { memo, useEffect, useMemo, useRef } from "react";
import type { Bout, Step } from "@/data/client";
import { scrolling } from "@/parts/motion";
import { useWidth } from "@/parts/useWidth";
import { captionsOf } from "@/score/captions";
import { layoutScore, TIGHTEST } from "@/score/layout";
import { Score } from "@/score/Score";
import type { Done } from "@/session/done";
import { positionKey, positionOf } from "@/session/position";

/** The score of the group that is on, with where it stands; its warm-ups are drawn until they are done. */
export const CurrentGroup = memo(function CurrentGroup({
  steps,
  done,
  at,
  before,
  wouldBe,
}: {
  steps: Step[];
  done: Done;
  at: number | null;
  before: number | null;
  /** The session as it would go on with advice taken, drawn faintly beside what is planned. */
  wouldBe: Step[] | null;
}) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const scroller = useRef<HTMLDivElement>(null);
  const index = at ?? before ?? 0;
  const group = steps[index]?.group ?? 1;
  const warming = steps[index]?.warm_up === true;
  const shown = useMemo(
    () =>
      [...steps.keys()].filter((at) => {
        const step = steps[at] as Step;
        return step.group === group && (warming || !step.warm_up) && (!step.left_out || done.has(at));
      }),
    [steps, group, warming, done],
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
    const instead = otherLoads(own, wouldBe);
    return layoutScore({
      steps: own,
      done: bouts,
      instead,
      at: now < 0 ? null : now,
      width: width / zoom,
      left,
      tightest: phone ? 1 : TIGHTEST,
    });
  }, [own, shown, done, at, wouldBe, width, zoom, phone, left]);
  const now = layout.now;
  const long = layout.width * zoom > width;
  const followed = useRef<number | null>(null);
  useEffect(() => {
    if (now === null || !long) return;
    const moved = followed.current !== null && followed.current !== now;
    followed.current = now;
    const left = now * zoom - width * 0.42;
    scroller.current?.scrollTo({ left, behavior: moved ? scrolling() : "instant" });
  }, [now, long, zoom, width]);
  return (
    <div ref={ref} className="pt-4 pb-1">
      <Score ref={scroller} layout={layout} steps={own} captions={captionsOf(own)} left={left} zoom={zoom} />
    </div>
  );
});

/** The bouts that would have another load, by their index. */
function otherLoads(steps: Step[], wouldBe: Step[] | null): Map<number, number> {
  const kgs = new Map<string, number>();
  for (const step of wouldBe ?? [])
    if (step.kind === "work" && step.load?.kg != null) kgs.set(positionKey(positionOf(step)), step.load.kg);
  const found = new Map<number, number>();
  for (const [index, step] of steps.entries()) {
    const kg = step.kind === "work" ? kgs.get(positionKey(positionOf(step))) : undefined;
    if (kg !== undefined && kg !== step.load?.kg) found.set(index, kg);
  }
  return found;
}

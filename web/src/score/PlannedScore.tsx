import { useMemo } from "react";
import type { Step } from "@/data/client";
import { useWidth } from "@/parts/useWidth";
import { captionsOf } from "./captions";
import { layoutScore } from "./layout";
import { Score } from "./Score";

/**
 * A group to come as a score as wide as its place, its work only; `titled` where it says its lifts by itself. Its room
 * is kept while it is out of sight, and the browser draws it as it comes into sight.
 */
export function PlannedScore({ steps, titled = true }: { steps: Step[]; titled?: boolean }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const own = useMemo(() => steps.filter((step) => !step.warm_up), [steps]);
  const phone = width < 500;
  const left = phone ? 46 : 64;
  const layout = layoutScore({ steps: own, width, left, tightest: phone ? 1 : 0.72, titled });
  return (
    <div ref={ref}>
      {width > 0 && (
        <div
          className="[content-visibility:auto]"
          style={{ containIntrinsicBlockSize: `auto ${layout.height}px` }}
        >
          <Score layout={layout} steps={own} captions={captionsOf(own)} left={left} />
        </div>
      )}
    </div>
  );
}

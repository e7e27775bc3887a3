import { group } from "d3-array";
import { useMemo } from "react";
import type { Step } from "@/data/client";
import { useWidth } from "@/parts/useWidth";
import { captionsOf } from "@/score/captions";
import { layoutScore } from "@/score/layout";
import { Score } from "@/score/Score";

/** A session to come as a score, group by group, its work sets only. */
export function Preview({ steps }: { steps: Step[] }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const groups = useMemo(
    () => [...group(steps, (step) => step.group).values()].map((own) => own.filter((step) => !step.warm_up)),
    [steps],
  );
  const phone = width < 500;
  const left = phone ? 46 : 64;
  return (
    <div ref={ref} className="mt-4">
      {width > 0 &&
        groups.map((own) => (
          <Score
            key={own[0]?.group}
            layout={layoutScore({ steps: own, width, left, tightest: phone ? 1 : 0.72 })}
            steps={own}
            captions={captionsOf(own)}
            left={left}
          />
        ))}
    </div>
  );
}

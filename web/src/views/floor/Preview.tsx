import { group } from "d3-array";
import { useMemo } from "react";
import type { Step } from "@/data/client";
import { ForetoldNote } from "@/parts/ForetoldNote";
import { PlannedScore } from "@/score/PlannedScore";

/** A session to come as a score, group by group. */
export function Preview({ steps }: { steps: Step[] }) {
  const groups = useMemo(() => [...group(steps, (step) => step.group)], [steps]);
  return (
    <div className="mt-4">
      {groups.map(([number, own]) => (
        <PlannedScore key={number} steps={own} />
      ))}
      <ForetoldNote steps={steps} />
    </div>
  );
}

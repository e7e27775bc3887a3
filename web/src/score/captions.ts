import { group } from "d3-array";
import type { Step } from "@/data/client";

/** What each exercise of a group asks for, in a line: belt, 3 × 2 + 2 + 2, 10 s between, leave 1. */
export function captionsOf(steps: Step[]): Record<string, string> {
  const captions: Record<string, string> = {};
  for (const [exercise, own] of group(steps, (step) => step.exercise)) {
    const work = own.filter((step) => step.kind === "work" && !step.warm_up && !step.left_out);
    const sets = [...group(work, (step) => step.set).values()].map((bouts) => bouts[0]?.shape ?? "");
    const setup = work[0]?.setup.items.join(", ");
    captions[exercise] = [setup, inRuns(sets)].filter(Boolean).join(", ");
  }
  return captions;
}

/** Sets alike in a row told once: 3 × 5, leave 2. Sets of one number each are told as one row: 3, 2, 1, 3, 1. */
function inRuns(shapes: string[]): string {
  const runs: { shape: string; count: number }[] = [];
  for (const shape of shapes) {
    const last = runs.at(-1);
    if (last?.shape === shape) last.count += 1;
    else runs.push({ shape, count: 1 });
  }
  if (runs.every(({ shape, count }) => count === 1 && /^[\d-]+$/.test(shape))) return shapes.join(", ");
  return runs.map(({ shape, count }) => `${count} × ${shape}`).join("; ");
}

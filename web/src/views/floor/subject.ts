import type { Standing } from "./clock";

/**
 * The bout that the row of notes is about: while working the one that is on, after it the one just done,
 * so that it can be set right during the rest. Once the rest has run out it is the next one's turn.
 */
export function subjectOf({ standing }: { standing: Standing }): number | null {
  if (standing.mode === "working" || standing.before === null) return standing.work;
  if (standing.mode === "over" && !standing.short) return standing.work;
  return standing.before;
}

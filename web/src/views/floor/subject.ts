import type { Place } from "./play";

/**
 * The bout that the row of notes is about: while working the one that is on, after it the one just done,
 * so that it can be set right during the rest. Once the rest has run out it is the next one's turn.
 */
export function subjectOf({ place }: { place: Place }): number | null {
  if (place.mode === "working" || place.before === null) return place.work;
  if (place.mode === "over" && !place.short) return place.work;
  return place.before;
}

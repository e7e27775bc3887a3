import type { Schemas } from "@/data/client";

const FEWEST_REPS = 3;

export interface Slowed {
  usual: number;
  last: number;
  left: number | null;
}

/**
 * How the reps of a bout slowed, from the moments each was done; null under three reps. The rule is that of
 * `fortis/core/strength/slowing.py`; both sides are held to the same cases (`golden/slowing.json`).
 */
export function slowedOf(taps: readonly number[], slowing: Schemas["Slowing"][]): Slowed | null {
  const each = taps.map((at, place) => at - (taps[place - 1] ?? 0));
  if (each.length < FEWEST_REPS) return null;
  const early = each.slice(0, Math.max(Math.floor(each.length / 2), 2));
  const usual = early.reduce((sum, seconds) => sum + seconds, 0) / early.length;
  const last = each.at(-1) ?? usual;
  const times = usual > 0 ? last / usual : 1;
  return { usual, last, left: slowing.find((one) => times >= one.times)?.left ?? null };
}

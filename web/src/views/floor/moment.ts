const SLEPT = 1_000;

let offset = Date.now() - performance.now();

/**
 * The time in milliseconds, steady: from the device's monotonic clock, so that a correction of the wall clock
 * does not jerk a rest about. Where the two part by over a second the device slept, or its clock was set, and
 * the wall clock holds again.
 */
export function moment(): number {
  const wall = Date.now();
  const steady = performance.now() + offset;
  if (Math.abs(wall - steady) <= SLEPT) return steady;
  offset = wall - performance.now();
  return wall;
}

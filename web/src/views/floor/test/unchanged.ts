import type { Adjustments } from "../adjusting";

/** A plan nobody changed. */
export const UNCHANGED: Adjustments = {
  skipped: [],
  extra: {},
  swapped: {},
  loads: {},
  setups: {},
  order: [],
  within: {},
};

import type { Schemas } from "@/data/client";

/** What a season can be for, in words. */
export const GOALS: [Schemas["Goal"], string][] = [
  ["both", "size and strength"],
  ["size", "size above all"],
  ["strength", "strength above all"],
];

/** Days a week that a season can have. */
export const DAYS = [2, 3, 4, 5, 6];

/** How long a lifter may have trained. */
export const EXPERIENCE: Schemas["Experience"][] = [
  "less than a year",
  "one to three years",
  "more than three years",
];

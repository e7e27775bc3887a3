import type { Position, Step } from "@/data/client";

/** A bout's position as one word: `1.2.1.2.3`, group, round, entry, set and bout. */
export const positionKey = ({ group, round, entry, set, bout }: Position): string =>
  `${group}.${round}.${entry}.${set}.${bout}`;

export const positionOf = ({ group, round, entry, set, bout }: Step): Position => ({
  group,
  round,
  entry,
  set,
  bout,
});

/** The entry a step belongs to, as changes of the plan name it. */
export const entryKey = ({ group, entry }: Pick<Step, "group" | "entry">): string => `${group}.${entry}`;

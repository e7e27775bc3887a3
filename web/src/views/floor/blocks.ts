import type { Step } from "@/data/client";
import type { Done } from "@/session/done";
import { type Adjustments, oneMore } from "@/session/played";
import { entryKey, positionKey } from "@/session/position";

/** When the round and the block that are on were begun, in milliseconds. Kept with the mark on this device. */
export interface Begun {
  round: string;
  roundAt: number;
  block: string;
  blockAt: number;
}

export const roundOf = ({ group, round, warm_up }: Step) => `${group}.${round}${warm_up ? " warming" : ""}`;

export const blockOf = ({ group, block }: Step) => (block ? `${group}.${block.number}` : "");

/**
 * What is begun with a bout. A round and a block go on where the bout before belonged to them. A round that was due
 * at `due` counts from then, so that a late start does not make the ones after it late.
 */
export function begunWith(
  step: Step,
  before: Step | undefined,
  known: Begun | null,
  now: number,
  due: number | null,
): Begun {
  const [round, block] = [roundOf(step), blockOf(step)];
  const sameRound = known?.round === round && before && roundOf(before) === round;
  const sameBlock = known?.block === block && before && blockOf(before) === block;
  return {
    round,
    roundAt: sameRound ? known.roundAt : (due ?? now),
    block,
    blockAt: sameBlock ? known.blockAt : now,
  };
}

/** What is begun, moved on by the time that the clock stood. */
export const movedOn = (begun: Begun, stood: number): Begun => ({
  ...begun,
  roundAt: begun.roundAt + stood,
  blockAt: begun.blockAt + stood,
});

/** When a round or a block was begun, as the first bout of it that is in the record tells. */
function toldBy(steps: Step[], done: Done, belongs: (step: Step) => boolean): number | null {
  const starts = [...done].flatMap(([index, { done_at }]) => {
    const step = steps[index];
    return step && belongs(step) ? [Date.parse(done_at) - step.seconds * 1000] : [];
  });
  return starts.length ? Math.min(...starts) : null;
}

/** When the round of a step was begun, null where it was not. */
export function roundStart(steps: Step[], done: Done, step: Step, known: Begun | null): number | null {
  const round = roundOf(step);
  return known?.round === round ? known.roundAt : toldBy(steps, done, (each) => roundOf(each) === round);
}

/** When the block of a step will be over, null where it has none or was not begun. */
export function blockEnd(steps: Step[], done: Done, step: Step, known: Begun | null): number | null {
  const block = blockOf(step);
  if (!step.block) return null;
  const start =
    known?.block === block ? known.blockAt : toldBy(steps, done, (each) => blockOf(each) === block);
  return start === null ? null : start + step.block.seconds * 1000;
}

/** The bouts of a block that are still to be done, by index. */
const leftOf = (steps: Step[], block: string, isOpen: (index: number) => boolean): number[] =>
  [...steps.keys()].filter((index) => {
    const step = steps[index] as Step;
    return step.kind === "work" && blockOf(step) === block && isOpen(index);
  });

/** The block that an entry ends with: only there can a round be added. */
const lastOf = (steps: Step[], entry: string): string => {
  const last = steps.findLast((each) => each.kind === "work" && entryKey(each) === entry);
  return last ? blockOf(last) : "";
};

/**
 * How the plan changes once a bout of a block is done: with time left after the last one comes another round; with
 * none left what remains is left out.
 */
export function afterBout(
  steps: Step[],
  index: number,
  isOpen: (index: number) => boolean,
  timeIsLeft: boolean,
  changed: Adjustments,
): Partial<Adjustments> | undefined {
  const step = steps[index];
  if (!step?.block) return undefined;
  const block = blockOf(step);
  const left = leftOf(steps, block, (each) => each !== index && isOpen(each));
  if (timeIsLeft && !left.length) {
    const entries = new Set(steps.filter((each) => blockOf(each) === block).map(entryKey));
    if (![...entries].every((entry) => lastOf(steps, entry) === block)) return undefined;
    return oneMore(changed, entries);
  }
  if (!timeIsLeft && left.length)
    return { skipped: [...changed.skipped, ...left.map((each) => positionKey(steps[each] as Step))] };
  return undefined;
}

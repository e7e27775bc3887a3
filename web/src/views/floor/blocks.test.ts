import { describe, expect, it } from "vitest";
import type { Step } from "@/data/client";
import { overlaid } from "@/data/overlay";
import { work } from "@/score/test/steps";
import { asPlanned, byStep } from "@/session/done";
import { asPlayed, UNCHANGED } from "@/session/played";
import { positionKey, positionOf } from "@/session/position";
import { afterBout, begunWith } from "./blocks";
import { blockLeft, NO_MARK, standingOf } from "./clock";

const START = Date.parse("2026-01-05T18:00:00Z");
const at = (seconds: number) => START + seconds * 1000;
const block = { number: 1, seconds: 120 };
const BLOCK: Step[] = [1, 2].flatMap((round) =>
  ["Dip", "Row"].map((exercise, place) => ({
    ...work({ exercise, set: round, reps: 8 }),
    entry: place + 1,
    block,
  })),
);
const placeAt = (index: number) => positionKey(positionOf(step(BLOCK, index)));
const EVERY: Step[] = [
  work({ reps: 2 }),
  { ...work({ set: 2 }), kind: "rest", seconds: 54, every: 60 },
  work({ set: 2, reps: 2 }),
];

const PACE = {
  load_change: 5,
  plate: 3,
  side_change: 5,
  station_change: 5,
  reps_to_failure: 10,
  reps_after_short_rest: 6,
};
const step = (of: Step[], index: number) => of[index] as Step;

function done(steps: Step[], ...said: [index: number, seconds: number][]) {
  const entries = said.map(([index, seconds]) => ({
    key: String(index),
    sessionId: "s",
    position: positionOf(step(steps, index)),
    done: asPlanned(step(steps, index), { at: at(seconds) }),
    stamp: "",
  }));
  return byStep(steps, overlaid([], entries, "s"));
}

describe("a block against the clock", () => {
  it("ends so long after it was begun, on another device as well as it can be told", () => {
    const begun = begunWith(step(BLOCK, 0), undefined, null, at(0), null);
    const working = standingOf(
      BLOCK,
      done(BLOCK),
      { ...NO_MARK, position: placeAt(0), startedAt: at(0), begun },
      at(5),
    );
    expect(blockLeft(working, at(5))).toBe(115);
    const next = standingOf(BLOCK, done(BLOCK, [0, 12]), { ...NO_MARK, begun }, at(20));
    expect(blockLeft(next, at(20))).toBe(100);
    expect(blockLeft(standingOf(BLOCK, done(BLOCK, [0, 12]), NO_MARK, at(20)), at(20))).toBe(102);
    expect(standingOf(BLOCK, done(BLOCK, [0, 12]), { ...NO_MARK, begun }, at(121)).blockOver).toBe(true);
  });

  it("takes another round while there is time, and leaves out what does not fit", () => {
    const isOpen = (last: number) => (index: number) => index >= last;
    expect(afterBout(BLOCK, 3, isOpen(3), true, UNCHANGED)).toEqual({
      extra: { "1.1": 1, "1.2": 1 },
    });
    expect(afterBout(BLOCK, 2, isOpen(2), true, UNCHANGED)).toBeUndefined();
    expect(afterBout(BLOCK, 1, isOpen(1), false, UNCHANGED)).toEqual({
      skipped: [placeAt(2), placeAt(3)],
    });
    const more = asPlayed(BLOCK, { ...UNCHANGED, extra: { "1.1": 2, "1.2": 2 } }, PACE).filter(
      (step) => step.kind === "work",
    );
    expect(more.map((step) => `${step.exercise} ${step.round}`).slice(4)).toEqual([
      "Dip 3",
      "Row 3",
      "Dip 4",
      "Row 4",
    ]);
  });
});

describe("starts against the clock", () => {
  const first = begunWith(step(EVERY, 0), undefined, null, at(0), null);

  it("are due so long after the round before began, however long that took", () => {
    const standing = standingOf(EVERY, done(EVERY, [0, 20]), { ...NO_MARK, begun: first }, at(30));
    expect(standing).toMatchObject({ mode: "resting", every: 60, rest: 40, zero: at(60) });
    expect(standingOf(EVERY, done(EVERY, [0, 70]), { ...NO_MARK, begun: first }, at(71)).mode).toBe("over");
  });

  it("do not come later because one was late", () => {
    expect(begunWith(step(EVERY, 2), EVERY[0], first, at(66), at(60)).roundAt).toBe(at(60));
  });
});

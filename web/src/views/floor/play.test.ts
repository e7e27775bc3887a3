import { describe, expect, it } from "vitest";
import { overlaid, placeKey } from "@/data/overlay";
import { rest, work } from "@/score/test/steps";
import {
  asPlanned,
  byStep,
  clockAt,
  countOf,
  leastOf,
  modeAt,
  NO_MARK,
  offered,
  placeOf,
  positionOf,
  repsSaid,
  secondsLeft,
} from "./play";
import { subjectOf } from "./subject";

const STEPS = [
  work({ kg: 100, reps: 5 }),
  rest({ set: 2, seconds: 180 }),
  work({ set: 2, kg: 100, reps: 5 }),
  work({ set: 3, kg: 80, reps: 8 }),
];
const START = Date.parse("2026-01-01T10:00:00Z");
const at = (seconds: number) => START + seconds * 1000;
const step = (index: number) => STEPS[index] as (typeof STEPS)[number];

function recorded(...times: [number, number][]) {
  const entries = times.map(([index, seconds]) => {
    const position = positionOf(step(index));
    const done = asPlanned(step(index), at(seconds));
    return { key: placeKey(position), sessionId: "s", position, done, stamp: "" };
  });
  return byStep(STEPS, overlaid([], entries, "s"));
}

const place = (done: ReturnType<typeof recorded>, seconds: number, mark = NO_MARK) => {
  const found = placeOf(STEPS, done, mark, at(seconds));
  return { ...found, clock: clockAt(found, at(seconds)) };
};

describe("where a session stands", () => {
  it("starts ready, works, rests, and is over with the rest", () => {
    const first = placeKey(positionOf(step(0)));
    expect(place(recorded(), 0).mode).toBe("ready");
    expect(place(recorded(), 12, { place: first, startedAt: at(0), extra: 0 })).toMatchObject({
      mode: "working",
      work: 0,
      clock: 12,
    });
    expect(place(recorded([0, 20]), 50)).toMatchObject({ mode: "resting", work: 2, before: 0, clock: 150 });
    expect(place(recorded([0, 20]), 210)).toMatchObject({ mode: "over", clock: -10 });
  });

  it("adds to a rest only what was added to this one", () => {
    const mark = { place: placeKey(positionOf(step(2))), startedAt: null, extra: 30 };
    expect(place(recorded([0, 0]), 60, mark)).toMatchObject({ rest: 210, clock: 150 });
    expect(place(recorded([0, 0], [2, 100]), 100, mark)).toMatchObject({ mode: "ready", work: 3 });
  });

  it("never counts above the whole rest, though this clock be behind the one that recorded", () => {
    expect(place(recorded([0, 30]), 0).clock).toBe(180);
  });

  it("knows as time goes by that a rest has run out, and that a stopped clock does not", () => {
    const resting = place(recorded([0, 20]), 50);
    expect([modeAt(resting, at(199)), modeAt(resting, at(200))]).toEqual(["resting", "over"]);
    const stopped = { place: placeKey(positionOf(step(2))), startedAt: null, extra: 0, pausedAt: at(60) };
    const standing = place(recorded([0, 20]), 500, stopped);
    expect(standing).toMatchObject({ mode: "resting", clock: 140 });
    expect(modeAt(standing, at(900))).toBe("resting");
  });

  it("ends when every bout is done", () => {
    expect(place(recorded([0, 0], [2, 200], [3, 300]), 301)).toMatchObject({ work: null, before: 3 });
  });

  it("asks about the bout on while working and the last one while resting", () => {
    expect(subjectOf({ place: place(recorded(), 0) })).toBe(0);
    expect(subjectOf({ place: place(recorded([0, 0]), 10) })).toBe(0);
    expect(subjectOf({ place: place(recorded([0, 0]), 200) })).toBe(2);
    expect(subjectOf({ place: place(recorded([0, 0], [2, 200]), 201) })).toBe(2);
  });

  it("counts what is left to do", () => {
    expect(secondsLeft(STEPS, 2)).toBe(20);
    expect(secondsLeft(STEPS, null)).toBe(0);
  });
});

describe("what is recorded", () => {
  it("is the plan where nothing else was said", () => {
    expect(asPlanned(step(0), START)).toMatchObject({ reps: 5, kg: 100, reserve: null, ended: "target met" });
    expect(asPlanned(work({ hold: 30 }), START)).toMatchObject({ reps: 0, seconds: 30 });
  });

  it("counts half reps as half reps where they were asked for", () => {
    const half = { ...work({ kg: 40, reps: 5 }), range_of_motion: "stretched halves" as const };
    expect(asPlanned(half, START)).toMatchObject({ reps: 0, partial_reps: 5 });
    expect(repsSaid(half, 3)).toEqual({ reps: 0, partial_reps: 3 });
    expect(countOf(half, { reps: 0, partial_reps: 3 })).toBe(3);
    expect(repsSaid(step(0), 3)).toEqual({ reps: 3 });
  });

  it("offers two reps past the target, and one past what was done", () => {
    expect(offered(step(0).target, null)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    expect(offered({ kind: "range", low: 8, high: 10 }, 14).at(-1)).toBe(15);
    expect(offered({ kind: "reps", count: 30 }, null)[0]).toBe(17);
  });

  it("counts a hold in seconds", () => {
    const hold = work({ hold: 20 });
    expect(offered(hold.target, 18)).toEqual([0, 5, 10, 15, 18, 20, 25]);
    expect(offered({ kind: "hold", seconds: 90 }, null)).toEqual([0, 15, 30, 45, 60, 75, 90, 105]);
    expect(asPlanned(hold, START, 17.6)).toMatchObject({ reps: 0, seconds: 18 });
    expect(asPlanned(hold, START)).toMatchObject({ reps: 0, seconds: 20 });
    expect(repsSaid(hold, 15)).toEqual({ reps: 0, seconds: 15 });
    expect(countOf(hold, { reps: 0, seconds: 15 })).toBe(15);
    expect(leastOf(hold)).toBe(19);
  });

  it("lays the lifter's last word over the server's", () => {
    const position = positionOf(step(0));
    const [there] = overlaid(
      [],
      [{ key: "", sessionId: "s", position, done: asPlanned(step(0), START), stamp: "" }],
      "s",
    );
    if (!there) throw new Error("nothing laid over");
    const gone = { key: "", sessionId: "s", position, done: null, stamp: "" };
    expect(overlaid([there], [gone], "s")).toEqual([]);
    expect(overlaid([there], [gone], "another")).toEqual([there]);
    const late = { ...gone, done: { ...asPlanned(step(0), at(99)), reps: 4 } };
    const [corrected] = overlaid([there], [late], "s");
    expect([corrected?.bout.reps, corrected?.done_at]).toEqual([4, there.done_at]);
  });
});

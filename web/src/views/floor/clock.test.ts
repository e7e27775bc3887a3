import { describe, expect, it } from "vitest";
import { entryOfVersion3 } from "@/data/device";
import type { SeenView } from "@/data/entry";
import { overlaid, withTaken } from "@/data/overlay";
import { rest, work } from "@/score/test/steps";
import { countOf, numberOf } from "@/session/counting";
import { asPlanned, byStep, mustAsk } from "@/session/done";
import { UNCHANGED } from "@/session/played";
import { positionKey, positionOf } from "@/session/position";
import { clockAt, modeAt, NO_MARK, offered, secondsLeft, standingOf } from "./clock";
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
    const done = asPlanned(step(index), { at: at(seconds) });
    return { key: positionKey(position), sessionId: "s", position, done, stamp: "" };
  });
  return byStep(STEPS, overlaid([], entries, "s"));
}

const standing = (done: ReturnType<typeof recorded>, seconds: number, mark = NO_MARK) => {
  const found = standingOf(STEPS, done, mark, at(seconds));
  return { ...found, clock: clockAt(found, at(seconds)) };
};

describe("where a session stands", () => {
  it("starts ready, works, rests, and is over with the rest", () => {
    const first = positionKey(positionOf(step(0)));
    expect(standing(recorded(), 0).mode).toBe("ready");
    expect(standing(recorded(), 12, { position: first, startedAt: at(0), extra: 0 })).toMatchObject({
      mode: "working",
      work: 0,
      clock: 12,
    });
    expect(standing(recorded([0, 20]), 50)).toMatchObject({
      mode: "resting",
      work: 2,
      before: 0,
      clock: 150,
    });
    expect(standing(recorded([0, 20]), 210)).toMatchObject({ mode: "over", clock: -10 });
  });

  it("adds to a rest only what was added to this one", () => {
    const mark = { position: positionKey(positionOf(step(2))), startedAt: null, extra: 30 };
    expect(standing(recorded([0, 0]), 60, mark)).toMatchObject({ rest: 210, clock: 150 });
    expect(standing(recorded([0, 0], [2, 100]), 100, mark)).toMatchObject({ mode: "ready", work: 3 });
  });

  it("never counts above the whole rest, though this clock be behind the one that recorded", () => {
    expect(standing(recorded([0, 30]), 0).clock).toBe(180);
  });

  it("knows as time goes by that a rest has run out, and that a stopped clock does not", () => {
    const resting = standing(recorded([0, 20]), 50);
    expect([modeAt(resting, at(199)), modeAt(resting, at(200))]).toEqual(["resting", "over"]);
    const stopped = {
      position: positionKey(positionOf(step(2))),
      startedAt: null,
      extra: 0,
      pausedAt: at(60),
    };
    const stood = standing(recorded([0, 20]), 500, stopped);
    expect(stood).toMatchObject({ mode: "resting", clock: 140 });
    expect(modeAt(stood, at(900))).toBe("resting");
  });

  it("ends when every bout is done", () => {
    expect(standing(recorded([0, 0], [2, 200], [3, 300]), 301)).toMatchObject({ work: null, before: 3 });
  });

  it("asks about the bout on while working and the last one while resting", () => {
    expect(subjectOf({ standing: standing(recorded(), 0) })).toBe(0);
    expect(subjectOf({ standing: standing(recorded([0, 0]), 10) })).toBe(0);
    expect(subjectOf({ standing: standing(recorded([0, 0]), 200) })).toBe(2);
    expect(subjectOf({ standing: standing(recorded([0, 0], [2, 200]), 201) })).toBe(2);
  });

  it("counts what is left to do", () => {
    expect(secondsLeft(STEPS, recorded(), 2)).toBe(20);
    expect(secondsLeft(STEPS, recorded([2, 5]), 0)).toBe(20);
    expect(secondsLeft([...STEPS.slice(0, 3), { ...step(3), left_out: true }], recorded(), 0)).toBe(200);
    expect(secondsLeft(STEPS, recorded(), null)).toBe(0);
  });
});

describe("what is recorded", () => {
  it("is the plan where nothing else was said", () => {
    const now = { at: START };
    expect(asPlanned(step(0), now)).toMatchObject({ reps: 5, kg: 100, reserve: null, ended: "target met" });
    expect(asPlanned(work({ hold: 30 }), now)).toMatchObject({ reps: 0, seconds: 30 });
    const held = { at: at(17.6), began: START };
    expect(asPlanned(work({ hold: 20 }), held)).toMatchObject({ reps: 0, seconds: 18 });
    expect(asPlanned(step(0), held)).toMatchObject({ reps: 5, began_at: "2026-01-01T10:00:00.000Z" });
  });

  it("asks how many where only the lifter can say", () => {
    const open = { ...step(0), as_planned: null, most: null };
    expect([mustAsk(open, []), mustAsk(open, [1.2]), mustAsk(step(0), [])]).toEqual([true, false, false]);
  });

  it("offers two reps past the target, and one past what was done", () => {
    expect(offered(step(0), null)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    expect(offered({ counts: "reps", most: 10 }, 14).at(-1)).toBe(15);
    expect(offered({ counts: "reps", most: 30 }, null)[0]).toBe(17);
    expect(offered({ counts: "reps", most: null }, null).at(-1)).toBe(14);
  });

  it("offers a hold in even seconds", () => {
    expect(offered(work({ hold: 20 }), 18)).toEqual([0, 5, 10, 15, 18, 20, 25]);
    expect(offered(work({ hold: 90 }), null)).toEqual([0, 15, 30, 45, 60, 75, 90, 105]);
  });

  it("tells the same number back that was told", () => {
    for (const counts of ["reps", "half reps", "full and half reps in turn", "seconds"] as const)
      for (const number of [0, 1, 7, 12])
        expect(numberOf({ counts }, countOf({ counts }, number))).toBe(number);
  });

  it("is sent in the form of now, though an earlier release kept it", () => {
    const old = {
      ...UNCHANGED,
      swapped: { "1.1": "Leg press" },
      loads: { "2.1": { set: 2, kg: 70, side: [25] } },
    };
    const change = { before: UNCHANGED, after: old as never };
    const entry = { key: "k", sessionId: "s", stamp: "", changes: [change] };
    expect(entryOfVersion3(entry).changes?.[0]?.after).toMatchObject({
      swapped: { "1.1": { lift: "Leg press", set: 0 } },
      loads: { "2.1": [{ set: 2, kg: 70, sleeve: [25], advised: true }] },
    });
  });

  it("lays the lifter's last word over the server's", () => {
    const position = positionOf(step(0));
    const [there] = overlaid(
      [],
      [{ key: "", sessionId: "s", position, done: asPlanned(step(0), { at: START }), stamp: "" }],
      "s",
    );
    if (!there) throw new Error("nothing laid over");
    const gone = { key: "", sessionId: "s", position, done: null, stamp: "" };
    expect(overlaid([there], [gone], "s")).toEqual([]);
    expect(overlaid([there], [gone], "another")).toEqual([there]);
    const late = { ...gone, done: { ...asPlanned(step(0), { at: at(99) }), reps: 4 } };
    const [corrected] = overlaid([there], [late], "s");
    expect([corrected?.bout.reps, corrected?.done_at]).toEqual([4, there.done_at]);
  });

  it("lays what the record has taken since it was asked, and no more", () => {
    const position = positionOf(step(0));
    const entry = { key: "", sessionId: "s", position, done: asPlanned(step(0), { at: START }), stamp: "" };
    const taken = [{ ...entry, order: 3, tonnage_kg: 500 }];
    const view = { id: "s", state: "started", bouts: [] } as unknown as SeenView;
    const laid = withTaken({ ...view, asOf: 2 }, taken);
    expect(laid.bouts.map((each) => each.tonnage_kg)).toEqual([500]);
    expect(withTaken({ ...view, asOf: 3 }, taken).bouts).toEqual([]);
    expect(withTaken({ ...view, id: "another", asOf: 2 }, taken).bouts).toEqual([]);
    const over = { key: "finish", sessionId: "s", finishedAt: "2026-03-02T18:00:00Z", stamp: "", order: 4 };
    expect(withTaken({ ...view, asOf: 2 }, [...taken, over]).state).toBe("finished");
  });
});

import { describe, expect, it } from "vitest";
import type { Bout, Step } from "@/data/client";
import { layoutScore } from "./layout";
import { rest, work } from "./test/steps";

const SQUAT = [
  work({ bout: 1, kg: 120, reps: 1 }),
  rest({ bout: 2, seconds: 25, short: true }),
  work({ bout: 2, kg: 95, reps: 3, leave: 2 }),
  rest({ set: 2, seconds: 180 }),
  work({ set: 2, bout: 1, kg: 120, reps: 1 }),
];

const bout = (reps: number, more: Partial<Bout> = {}): Bout => ({
  position: { group: 1, round: 1, entry: 1, set: 1, bout: 1 },
  exercise: "Front squat",
  lift_id: "front-squat",
  setup: { items: [] },
  side: "both",
  kg: 120,
  body: false,
  bottom_kg: null,
  top_kg: null,
  mean_kg: null,
  or_more: false,
  asked: null,
  source: null,
  reps,
  partial_reps: 0,
  seconds: 0,
  reserve: null,
  ended: null,
  note: "",
  rep_seconds: [],
  ...more,
});

const stave = (steps: Step[], more = {}) => {
  const layout = layoutScore({ steps, width: 800, ...more });
  const first = layout.staves[0];
  if (!first) throw new Error("no stave");
  return { ...first, layout };
};

describe("the score", () => {
  it("puts heavier loads higher, and a drop between them", () => {
    const { bouts, drops, rests, lines } = stave(SQUAT);
    expect(bouts.map((each) => each.heads.length)).toEqual([1, 3, 1]);
    expect(bouts[0]?.y).toBeLessThan(bouts[1]?.y as number);
    expect(lines.map((line) => line.label)).toEqual(["120", "95"]);
    expect(drops.map((drop) => drop.label)).toEqual(["25 s"]);
    expect(rests.map((each) => each.label)).toEqual(["3:00"]);
  });

  it("keeps a rest's time clear of a load longer than its notes", () => {
    const chins = [1, 2, 3, 4, 5, 6].flatMap((set) => [
      work({ set, bout: 1, kg: 122.5, reps: 1 }),
      rest({ set: set + 1, seconds: 180 }),
    ]);
    const { bouts, rests } = stave(chins, { width: 500 });
    for (const [place, each] of rests.slice(0, -1).entries()) {
      const next = bouts[place + 1];
      const load = (next?.label.length ?? 0) * 7;
      expect(each.x + each.width / 2 + 13).toBeLessThanOrEqual((next?.x ?? 0) - load / 2 + 1);
    }
  });

  it("goes from left to right without overlap", () => {
    const { bouts } = stave(SQUAT);
    const ends = bouts.map((each) => each.x + each.width);
    for (const [place, each] of bouts.slice(1).entries())
      expect(each.x).toBeGreaterThan(ends[place] as number);
  });

  it("shows reps left as faint dots, planned or told", () => {
    expect(stave(SQUAT).bouts.map((each) => each.reserve)).toEqual([0, 2, 0]);
    const done = new Map([[2, bout(3, { reserve: 1 })]]);
    expect(stave(SQUAT, { done }).bouts[1]?.reserve).toBe(1);
  });

  it("foretells the reps left, and those missed, until the bout is done", () => {
    const foretold = (reps: number, left: number) =>
      stave([{ ...work({ kg: 100, reps: 5, leave: 2 }), foretold: { reps, left } }]).bouts[0];
    const kinds = (reps: number, left: number) => foretold(reps, left)?.heads.map((head) => head.kind);
    expect(foretold(5, 3.4)?.reserve).toBe(3);
    expect(kinds(5, 3.4)).toEqual(Array(5).fill("full"));
    expect(foretold(3, 0.9)?.reserve).toBe(0);
    expect(kinds(3, 0.9)).toEqual(["full", "full", "full", "missed", "missed"]);
    const step = { ...work({ kg: 100, reps: 5 }), foretold: { reps: 3, left: 0 } };
    const done = new Map([[0, bout(5, { reserve: 1 })]]);
    expect(stave([step], { done }).bouts[0]?.heads).toHaveLength(5);
    expect(stave([step], { done }).bouts[0]?.reserve).toBe(1);
  });

  it("misses nothing of a bout that goes to the end", () => {
    const step: Step = {
      ...work({ kg: 100, reps: 12 }),
      effort: { kind: "failure", how: "any" },
      foretold: { reps: 9, left: 0.4 },
    };
    expect(stave([step]).bouts[0]?.heads.map((head) => head.kind)).toEqual(Array(12).fill("full"));
  });

  it("tells done, now and planned apart, and misses from reps", () => {
    const done = new Map([
      [0, bout(1)],
      [2, bout(1, { kg: 95 })],
    ]);
    const { bouts, layout } = stave(SQUAT, { done, at: 4 });
    expect(bouts.map((each) => each.tense)).toEqual(["done", "done", "now"]);
    expect(bouts[1]?.heads.map((head) => head.kind)).toEqual(["full", "missed", "missed"]);
    expect(layout.now).toBe(bouts[2]?.x);
  });

  it("shares time among the staves of a pair", () => {
    const pair = [
      work({ exercise: "Ring dip", kg: 10, reps: 6 }),
      work({ exercise: "Ring row", kg: 0, reps: 8 }),
      rest({ exercise: "Ring dip", set: 2, seconds: 90 }),
      work({ exercise: "Ring dip", set: 2, kg: 10, reps: 6 }),
    ];
    const { staves } = layoutScore({ steps: pair, width: 800 });
    expect(staves.map((each) => each.exercise)).toEqual(["Ring dip", "Ring row"]);
    const [dip, row] = staves;
    expect(row?.bouts[0]?.x).toBeGreaterThan(dip?.bouts[0]?.x as number);
    expect(dip?.bouts[1]?.x).toBeGreaterThan(row?.bouts[0]?.x as number);
    expect(row?.rests).toHaveLength(1);
  });

  it("is squeezed to its place as far as that goes, then keeps its width", () => {
    const long = Array.from({ length: 30 }, (_, set) => work({ set: set + 1, kg: 100, reps: 8 }));
    expect(layoutScore({ steps: SQUAT, width: 800 }).width).toBe(800);
    const tight = layoutScore({ steps: long, width: 800 });
    const loose = layoutScore({ steps: long, width: 800, tightest: 1 });
    expect(tight.width).toBeGreaterThan(800);
    expect(loose.width).toBeGreaterThan(tight.width);
  });

  it("draws a drop from a load nobody knows downwards, and back-offs from the top set", () => {
    const drop = (place: object, of: object, pitch: number) => {
      const step = work({ kg: 1, reps: 5, ...place });
      return { ...step, pitch, load: step.load && { ...step.load, kg: null, ...of } };
    };
    const fifth = { amount: -20, unit: "%" };
    const unknown = stave([
      work({ kg: null, reps: 12 }),
      drop({ bout: 2 }, { of_previous: fifth }, 80),
      drop({ bout: 3 }, { of_previous: fifth }, 64),
    ]);
    const [first, second, third] = unknown.bouts.map((each) => each.y);
    expect(first).toBeLessThan(second as number);
    expect(second).toBeLessThan(third as number);
    const backed = stave([
      work({ percent: 88, reps: 3 }),
      drop({ set: 2 }, { of_top: fifth }, 70.4),
      drop({ set: 3 }, { of_top: fifth }, 70.4),
    ]);
    expect(backed.bouts[1]?.y).toBe(backed.bouts[2]?.y);
  });

  it("draws what it does not know the load of, holds, and nothing at all", () => {
    expect(stave([work({ kg: null, reps: 5 })]).lines[0]?.label).toBe("");
    expect(stave([work({ kg: null, percent: 85, reps: 5 })]).bouts[0]?.label).toBe("85 %");
    const hold = stave([work({ kg: null, reps: null, hold: 30 })]).bouts[0];
    expect([hold?.hold, hold?.heads.length]).toEqual(["30 s", 0]);
    expect(layoutScore({ steps: [], width: 500 }).staves).toEqual([]);
  });
});

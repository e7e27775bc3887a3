import { describe, expect, it } from "vitest";
import type { Step } from "@/data/client";
import { captionsOf } from "./captions";
import { rest, work } from "./test/steps";
import {
  bodyWords,
  clock,
  kilograms,
  loadWords,
  mannerWords,
  overWords,
  plain,
  read,
  reserveWords,
  restLabel,
} from "./words";

describe("words", () => {
  it("writes numbers as lifters do", () => {
    expect([plain(82.5), plain(100), plain(20.41165665)]).toEqual(["82.5", "100", "20.41"]);
    const told = [375, 5644.6, 999_999.5, 1_234_567].map(kilograms);
    expect(told).toEqual(["375 kg", "5,645 kg", "1,000,000 kg", "1,234,567 kg"]);
  });

  it("writes clocks, and counts on when a rest is over", () => {
    expect([0, 7, 151, 3720, -12].map(clock)).toEqual(["0:00", "0:07", "2:31", "1:02:00", "+0:12"]);
    expect([restLabel(15), restLabel(90)]).toEqual(["15", "1:30"]);
  });

  it("writes loads as far as they are known", () => {
    expect(loadWords(work({ kg: 82.5 }))).toBe("82.5");
    expect(loadWords(work({ percent: 87 }))).toBe("87 %");
    expect(loadWords(work({}))).toBe("");
    expect([bodyWords(0), bodyWords(10), bodyWords(-20)]).toEqual(["bw", "bw+10", "bw−20"]);
  });

  it("reads a score aloud", () => {
    const steps = [work({ kg: 120, reps: 1 }), rest({ seconds: 25 }), work({ bout: 2, kg: 95, reps: 3 })];
    expect(read(steps)).toEqual([
      "Front squat, set 1: 1 rep at 120 kg.",
      "Rest 25 seconds.",
      "Front squat, set 1: 3 reps at 95 kg.",
    ]);
  });
});

it("says how reps are done where it is not the usual way", () => {
  const usual = work({ reps: 5 });
  expect(mannerWords(usual)).toBe("");
  expect(mannerWords({ ...usual, range_of_motion: "stretched halves" })).toBe("in the stretched half only");
  expect(mannerWords({ range_of_motion: "alternating halves", lifting: "helped up" })).toBe(
    "a full rep and a stretched half in turn, helped up, lowered alone",
  );
});

it("over the notes stands the side, and the tempo only where it changes", () => {
  const slow = work({ reps: 5 });
  slow.tempo = { lowering: 3, bottom: 1, lifting: 1, top: 0 };
  const left: Step = { ...slow, side: "left" };
  expect(overWords(left, null)).toBe("L  3-1-1-0");
  expect(overWords({ ...left, side: "right" }, left)).toBe("R");
  expect(overWords({ ...left, tempo: null, side: "both" }, left)).toBe("any tempo");
  expect(overWords({ ...slow, tempo: null, lifting: "two up one down" }, null)).toBe("2↑ 1↓");
});

it("tells reps left as they were told", () => {
  const told = (reserve: number | null, or_more = false) => reserveWords({ reserve, or_more });
  expect([told(2), told(1.5), told(0.5), told(5, true), told(null)]).toEqual([
    "2",
    "1½",
    "½",
    "5 or more",
    "",
  ]);
});

describe("captions", () => {
  const set = (number: number, shape: string) => ({ ...work({ set: number, reps: 3 }), shape });

  it("tell a structure in words, whatever its sets are like", () => {
    const wave = [3, 2, 1, 3, 1].map((reps, at) => set(at + 1, String(reps)));
    expect(captionsOf(wave)["Front squat"]).toBe("3, 2, 1, 3, 1");
    const back = [set(1, "1, leave 1"), set(2, "5, leave 2"), set(3, "5, leave 2")];
    expect(captionsOf(back)["Front squat"]).toBe("1 × 1, leave 1; 2 × 5, leave 2");
  });
});

import { describe, expect, it } from "vitest";
import type { Step } from "@/data/client";
import { rest, work } from "@/score/test/steps";
import { adjusted, oneMore } from "./adjusting";
import { UNCHANGED } from "./test/unchanged";

/** Two rounds of a pair, A then B, a rest before the second round. */
const pair = (): Step[] => {
  const member = (entry: number, round: number) => ({
    ...work({ set: round, kg: 20, reps: 8 }),
    exercise: entry === 1 ? "A" : "B",
    entry,
    round,
  });
  const between = { ...rest({ set: 2, seconds: 90 }), exercise: "A", round: 2 };
  return [member(1, 1), member(2, 1), between, member(1, 2), member(2, 2)];
};

const told = (steps: Step[]) =>
  steps.map((step) =>
    step.kind === "rest" ? `rest before ${step.exercise}` : `${step.exercise}${step.set}`,
  );

describe("the plan as it was changed on the floor", () => {
  it("stays as it is where nothing was changed", () => {
    expect(adjusted(pair(), UNCHANGED)).toEqual(pair());
  });

  it("turns the members of a pair about, and leaves the rest before the round", () => {
    const turned = adjusted(pair(), { ...UNCHANGED, within: { 1: [2, 1] } });
    expect(told(turned)).toEqual(["B1", "A1", "rest before B", "B2", "A2"]);
    expect(adjusted(turned, { ...UNCHANGED, within: { 1: [1, 2] } })).toEqual(pair());
  });

  it("puts another load on from a set on", () => {
    const loads = { "1.1": { set: 2, kg: 15, side: [] } };
    const kgs = adjusted(pair(), { ...UNCHANGED, loads }).map((step) => step.load?.kg);
    expect(kgs.filter((kg) => kg !== undefined)).toEqual([20, 20, 15, 20]);
  });

  it("adds sets after the last one, and swaps a lift for another without a load", () => {
    const more = adjusted(pair(), { ...UNCHANGED, extra: { "1.2": 1 }, swapped: { "1.1": "C" } });
    expect(told(more).at(-1)).toBe("B3");
    expect(more.filter((step) => step.exercise === "C" && step.load)).toEqual([]);
  });

  it("adds sets as far as the record takes them", () => {
    const full = { ...UNCHANGED, extra: { "1.1": 20 } };
    expect(oneMore(full, ["1.1", "1.2"])).toEqual({ extra: { "1.1": 20, "1.2": 1 } });
  });
});

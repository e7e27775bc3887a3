import { expect, test } from "vitest";
import { layoutSmallScore, unitFor } from "./SmallScore";

const bout = (reps: number, height = 0, missed = 0) => ({ reps, partial_reps: 0, missed, height });
const light = [{ exercise: "Back squat", bouts: [bout(5)] }];
const heavy = [
  { exercise: "Back squat", bouts: [bout(1, 1), bout(3, 0)] },
  { exercise: "Back squat", bouts: [bout(2, 0.5, 3)] },
  { exercise: "Seal row", bouts: [bout(8)] },
];

test("all scores of a calendar are in one measure, the longest just as wide as its place", () => {
  const unit = unitFor([light, heavy], 40);
  expect(layoutSmallScore(heavy, unit).width).toBeCloseTo(40);
  expect(layoutSmallScore(light, unit).width).toBeCloseTo(5 * unit);
  expect(unitFor([light], 1_000)).toBe(5);
  expect(unitFor([], 100)).toBe(5);
});

test("bouts follow one another without touching, heavier ones higher, missed reps with their room", () => {
  const { marks } = layoutSmallScore(heavy, 4);
  const ends = marks.map((mark) => mark.x + 4 * (mark.full + mark.half + mark.missed));
  for (const [at, mark] of marks.slice(1).entries()) expect(mark.x).toBeGreaterThan(ends[at] ?? 0);
  const [single, triple, short] = marks;
  expect(single?.y).toBeLessThan(short?.y ?? 0);
  expect(short?.y).toBeLessThan(triple?.y ?? 0);
  expect(short?.missed).toBe(3);
});

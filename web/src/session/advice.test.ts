import { expect, it } from "vitest";
import type { Schemas, Step } from "@/data/client";
import { inForce, proposedChange } from "./advice";
import type { Adjustments } from "./played";

type Change = Schemas["LoadChange"];
type Advice = Schemas["Advice"];

/** A work bout of an exercise, by the number of its set and its load; of the first one in the plan as a rule. */
const step = (set: number, kg: number | null, group = 1, more: Partial<Step> = {}) =>
  ({
    kind: "work",
    ...{ group, round: set, entry: 1, set, bout: 1, warm_up: false, load: kg === null ? null : { kg } },
    ...more,
  }) as Step;

const load = (set: number, was_kg: number | null, kg: number) => ({ set, bout: 1, was_kg, kg }) as Change;
const changed = (loads: Adjustments["loads"] = {}) => ({ loads, skipped: ["1.3.1.3.1"] }) as Adjustments;
const advising = (loads: Change[], others: unknown[] = [], skipped: string[] = []) =>
  ({ loads, others, skipped }) as unknown as Advice;

const FIVES = [step(1, 125), step(2, 125), step(3, 105), step(4, 105)];
const FRONT = [step(1, 90, 2), step(2, 90, 2)];
const EIGHTS = { entry: "1.1", exercise: "Back squat", text: "", loads: [load(3, 105, 97.5)] };
const FRONT_SQUATS = { entry: "2.1", exercise: "Front squat", text: "", loads: [load(1, 90, 85)] };
const LIGHTER = advising([load(1, 125, 117.5)], [EIGHTS, FRONT_SQUATS]);

it("holds changes of both kinds of sets of one exercise together", () => {
  const before = changed({ "1.1": [load(1, 127.5, 125)] });
  const change = proposedChange(LIGHTER, [...FIVES, ...FRONT], FIVES[0], before);
  expect(change?.loads).toEqual({
    "1.1": [load(1, 127.5, 125), load(2, 125, 117.5), load(3, 105, 97.5)],
    "2.1": [load(1, 90, 85)],
  });
  expect(change?.skipped).toEqual(["1.3.1.3.1"]);
});

it("offers no change that no bout is left for, and nothing twice", () => {
  const moved = [step(1, 125), step(2, 117.5), step(3, 97.5), step(4, 97.5)];
  expect(proposedChange(LIGHTER, [...moved, step(1, 85, 2), step(2, 85, 2)], moved[0], changed())).toBeNull();
  expect(proposedChange(LIGHTER, [...moved, ...FRONT], moved[0], changed())?.loads).toEqual({
    "2.1": [load(1, 90, 85)],
  });
  const warmUp = step(2, 125, 1, { warm_up: true });
  expect(proposedChange(advising([load(1, 125, 120)]), [warmUp], FIVES[0], changed())).toBeNull();
});

it("finds loads only where there are none yet", () => {
  const found = advising([load(1, null, 60)], [], ["1.0.1.0.4"]);
  const wayUp = step(0, 40, 1, { warm_up: true });
  const change = proposedChange(found, [wayUp, step(1, null), step(2, null)], wayUp, changed());
  expect(change).toEqual({ loads: { "1.1": [load(1, null, 60)] }, skipped: ["1.3.1.3.1", "1.0.1.0.4"] });
  expect(proposedChange(found, [wayUp, step(1, 60), step(2, 60)], wayUp, changed())).toBeNull();
});

it("tells of changes that were made and stand, and of none that the session has left behind", () => {
  const moved = [step(1, 125), step(2, 117.5), step(3, 97.5), step(4, 97.5), ...FRONT];
  expect(inForce(LIGHTER, moved, moved[0])).toEqual(LIGHTER);
  const own = [step(1, 125), step(2, 120), step(3, 97.5), step(4, 97.5), step(1, 80, 2), step(2, 80, 2)];
  expect(inForce(LIGHTER, own, own[0])).toEqual({ ...LIGHTER, loads: [], others: [EIGHTS] });
  expect(inForce(null, own, own[0])).toBeNull();
});

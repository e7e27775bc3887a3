import { expect, it } from "vitest";
import type { Schemas, Step } from "@/data/client";
import { proposedChange } from "./advice";

type Change = Schemas["LoadChange"];

const STEP = { group: 1, entry: 1, set: 1 } as Step;

it("holds changes of both kinds of sets of one exercise together", () => {
  const load = (set: number, was_kg: number, kg: number) => ({ set, bout: 1, was_kg, kg }) as Change;
  const change = proposedChange(
    {
      loads: [load(1, 125, 117.5)],
      others: [
        { entry: "1.1", exercise: "Back squat", text: "", loads: [load(3, 105, 97.5)] },
        { entry: "2.1", exercise: "Front squat", text: "", loads: [load(1, 90, 85)] },
      ],
      skipped: [],
    } as unknown as Schemas["Advice"],
    STEP,
    { loads: { "1.1": [load(1, 127.5, 125)] }, skipped: [] } as unknown as Schemas["Adjustments"],
  );
  expect(change?.loads).toEqual({
    "1.1": [load(1, 127.5, 125), load(2, 125, 117.5), load(3, 105, 97.5)],
    "2.1": [load(1, 90, 85)],
  });
});

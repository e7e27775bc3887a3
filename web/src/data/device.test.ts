import { describe, expect, it } from "vitest";
import type { FloorView } from "./client";
import { viewOfEarlier } from "./device";

describe("a session kept by an earlier release", () => {
  it("can be played by this one", () => {
    const old = {
      id: "1",
      advice: {
        advice: [{ course: "watch", text: "1 left", loads: [], again: { course: "lighter", text: "Again" } }],
      },
      timeline: { steps: [{ kind: "work", exercise: "Back squat" }] },
    } as unknown as FloorView;
    const now = viewOfEarlier(old);
    expect(now.choices).toEqual({});
    expect(now.timeline.steps[0]).toMatchObject({ exercise: "Back squat", gear: [], finds: false });
    expect(now.advice.advice[0]).toMatchObject({ text: "1 left", others: [], skipped: [], win: "" });
    expect(now.advice.advice[0]?.again).toMatchObject({ text: "Again", others: [] });
  });

  it("keeps what it knew", () => {
    const choices = { "1.1.1.1.1": [] };
    const view = { choices, advice: { advice: [] }, timeline: { steps: [] } } as unknown as FloorView;
    expect(viewOfEarlier(view)).toMatchObject({ choices });
  });
});

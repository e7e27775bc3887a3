import { describe, expect, it } from "vitest";
import { withPreparation } from "./preparation";

describe("a line for what is done before the first lift", () => {
  it("stands under the name of the session", () => {
    expect(withPreparation("# Legs\nSquat: 3 x 5")).toEqual({
      text: "# Legs\nprep: drills 5 min\nSquat: 3 x 5",
      line: 2,
    });
  });

  it("stands first where there is no name", () => {
    expect(withPreparation("Squat: 3 x 5")).toEqual({ text: "prep: drills 5 min\nSquat: 3 x 5", line: 1 });
    expect(withPreparation("").text).toBe("prep: drills 5 min\n");
  });

  it("is the one that is there", () => {
    const text = "# Legs\n\nPrep: hips\nSquat: 3 x 5";
    expect(withPreparation(text)).toEqual({ text, line: 3 });
  });
});

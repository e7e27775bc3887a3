import { expect, it } from "vitest";
import { oneMore, UNCHANGED } from "./played";

it("adds sets as far as the record takes them", () => {
  const full = { ...UNCHANGED, extra: { "1.1": 20 } };
  expect(oneMore(full, ["1.1", "1.2"])).toEqual({ extra: { "1.1": 20, "1.2": 1 } });
});

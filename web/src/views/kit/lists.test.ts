import { expect, it } from "vitest";
import { readNumbers } from "./lists";

it("reads loads as lifters list them", () => {
  expect(readNumbers("10 12,5 15")).toEqual([10, 12.5, 15]);
  expect(readNumbers("160, 120, 96")).toEqual([160, 120, 96]);
  expect(readNumbers("10-20 by 2.5")).toEqual([10, 12.5, 15, 17.5, 20]);
  expect(readNumbers("")).toEqual([]);
  expect(readNumbers("ten")).toBeNull();
  expect(readNumbers("10-20 by 0")).toBeNull();
});

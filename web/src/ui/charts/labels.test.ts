import { expect, test } from "vitest";
import { clearOf, spaced } from "./labels";

test("labels keep their order and stand apart", () => {
  expect(spaced([100, 20, 25])).toEqual([100, 20, 33]);
  expect(spaced([20, 20, 20])).toEqual([20, 33, 46]);
});

test("a label makes way for a line at its height", () => {
  expect(clearOf(50, [90])).toBe(54);
  expect(clearOf(50, [55])).toBe(46);
  expect(clearOf(50, [45])).toBe(61);
});

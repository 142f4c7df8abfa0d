import { expect, it } from "vitest";
import { moment } from "./moments";

it("says the time alone for today, and the day for another", () => {
  const at = new Date(2026, 2, 4, 14, 5);
  expect(moment(at.toISOString(), new Date(2026, 2, 4, 20, 0))).toMatch(/^(14:05|02:05)/);
  expect(moment(at.toISOString(), new Date(2026, 2, 5, 8, 0))).toMatch(/2026.*05/);
});

import { expect, it } from "vitest";
import { entryPath, valueAt, withValue } from "./paths";

const plan = { tank: { pane_mm: 8 }, animals: [{ number: 3 }, { number: 4 }] };

it("reads and replaces a value without touching the rest", () => {
  const changed = withValue(plan, "animals.1.number", 9);
  expect(valueAt(changed, "animals.1.number")).toBe(9);
  expect(plan.animals[1]?.number).toBe(4);
  expect(changed.tank).toBe(plan.tank);
  expect(withValue(plan, "tank.pane_mm", "abc").tank.pane_mm).toBe("abc");
});

it("names the entry of a row or of a month", () => {
  expect(entryPath("animals.12.number")).toBe("animals.*.number");
  expect(entryPath("heat.room_months_c.3")).toBe("heat.room_months_c");
  expect(entryPath("tank.pane_mm")).toBe("tank.pane_mm");
});

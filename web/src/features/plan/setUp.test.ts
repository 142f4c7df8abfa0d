import { describe, expect, it } from "vitest";
import { setUpChanges } from "./setUp";

describe("saying that a system is set up", () => {
  it("begins its cycle on that day, its animals waiting where ammonia is dosed", () => {
    expect(setUpChanges("empty", "2026-06-17", null)).toEqual({
      "run_in.stands": "set_up",
      "run_in.set_up_on": "2026-06-17",
      "run_in.stocked": "cycled",
      "cycle.begun_by": "empty",
      "cycle.begun_on": "2026-06-17",
    });
    expect(setUpChanges("animals", "2026-06-17", null)["run_in.stocked"]).toBe("now");
  });

  it("tells how long a filter has run that was there before", () => {
    expect(setUpChanges("running", "2026-06-17", 60)).toMatchObject({
      "run_in.age_weeks": 60,
      "run_in.stocked": "now",
      "cycle.begun_on": "",
    });
  });
});

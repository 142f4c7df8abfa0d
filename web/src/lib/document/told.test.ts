import { describe, expect, it } from "vitest";
import { dayTold, withListMoved, withTold } from "./told";

const ROWS = ["water.tank_ph 2026-06-17", "sources.0.src_kh_dkh", "sources.2.src_gh_dgh 2026-05-01"];

describe("what was told", () => {
  it("has a day, none, or was never told", () => {
    expect(dayTold(ROWS, "water.tank_ph")).toBe("2026-06-17");
    expect(dayTold(ROWS, "sources.0.src_kh_dkh")).toBe("");
    expect(dayTold(ROWS, "water.tank_gh_dgh")).toBeNull();
  });

  it("is told anew on another day, once", () => {
    expect(withTold(ROWS, "water.tank_ph", "2026-06-20").filter((row) => row.startsWith("water."))).toEqual([
      "water.tank_ph 2026-06-20",
    ]);
  });

  it("moves along when a row before it goes, and goes with its own", () => {
    expect(withListMoved(ROWS, "sources", 0, -1)).toEqual([
      "water.tank_ph 2026-06-17",
      "sources.1.src_gh_dgh 2026-05-01",
    ]);
    expect(withListMoved(ROWS, "sources", 1, 1)).toEqual([
      "water.tank_ph 2026-06-17",
      "sources.0.src_kh_dkh",
      "sources.3.src_gh_dgh 2026-05-01",
    ]);
  });
});

import { describe, expect, it } from "vitest";
import { withChanges } from "./changes";

describe("changes of a plan", () => {
  const plan = { heat: { target_c: 24, lid: "open" }, filters: [{ rated_lph: 300 }] };

  it("replaces values by path and leaves the rest the same object", () => {
    const made = withChanges(plan, { "heat.lid": "tight", "filters.0.rated_lph": 600 });
    expect(made).toEqual({ heat: { target_c: 24, lid: "tight" }, filters: [{ rated_lph: 600 }] });
    expect(plan.heat.lid).toBe("open");
  });

  it("puts a list in place before values in it", () => {
    const rows = [{ rated_lph: 300 }, { rated_lph: 1000 }];
    const made = withChanges(plan, { "filters.1.rated_lph": 1500, filters: rows });
    expect(made.filters).toEqual([{ rated_lph: 300 }, { rated_lph: 1500 }]);
    expect(rows[1]!.rated_lph).toBe(1000);
  });
});

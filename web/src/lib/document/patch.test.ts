import { describe, expect, it } from "vitest";
import { patched } from "./patch";

describe("a patch of an answer", () => {
  const old = {
    figures: { a: { value: 1 }, b: { value: 2 } },
    checks: [{ state: "holds" }, { state: "short" }],
  };

  it("changes what differs and keeps the rest the same object", () => {
    const made = patched(old, {
      p: {
        figures: { p: { a: { p: { value: { v: 3 } } } } },
        checks: { p: { "1": { p: { state: { v: "tight" } } } } },
      },
    }) as typeof old;
    expect(made.figures.a.value).toBe(3);
    expect(made.figures.b).toBe(old.figures.b);
    expect(made.checks[0]).toBe(old.checks[0]);
    expect(made.checks[1]).toEqual({ state: "tight" });
    expect(old.checks[1]!.state).toBe("short");
  });

  it("takes another value whole, and nothing where nothing differs", () => {
    expect(patched(old, null)).toBe(old);
    expect(patched(old, { p: { checks: { v: [] } } })).toEqual({ ...old, checks: [] });
  });
});

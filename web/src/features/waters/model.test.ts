import { describe, expect, it } from "vitest";
import type { Entry, Source } from "@/api/client";
import { Units } from "@/lib/shown/quantity";
import { sourceOf, typedOf } from "./model";

const number = (kind: string, optional = false): Entry => ({
  label: kind,
  kind,
  given: "reading",
  untold: "",
  low: 0,
  high: 100,
  whole: false,
  optional,
  options: {},
});
const entries = {
  "sources.*.src_c": number("temperature"),
  "sources.*.src_ph": number("ph", true),
  "sources.*.src_kind": { ...number(""), options: { tap: "tap" } },
};
const fahrenheit = {
  key: "F",
  label: "°F",
  factor: 1.8,
  offset: 32,
  digits: 1,
  significant: 3,
  before: false,
};
const units = new Units([{ key: "temperature", label: "Temperature", units: [fahrenheit] }], {});

describe("a water that is typed", () => {
  it("is shown in the reader's units and sent in the core's", () => {
    expect(typedOf({ src_c: 10 } as Source, entries, units).src_c).toBe("50");
    expect(sourceOf({} as Source, { src_c: "59" }, entries, units).src_c).toBeCloseTo(15);
  });
  it("may leave what is optional empty", () => {
    expect(sourceOf({} as Source, { src_ph: " " }, entries, units).src_ph).toBeNull();
  });
  it("sends text that is no number as it is, to be told about", () => {
    expect(sourceOf({} as Source, { src_c: "warm", src_kind: "tap" }, entries, units)).toEqual({
      src_c: "warm",
      src_kind: "tap",
    });
  });
});

import { describe, expect, it } from "vitest";
import { parsed, Units, US_UNITS } from "./quantity";

const unit = (key: string, label: string, factor: number, digits: number, offset = 0, significant = 3) => ({
  key,
  label,
  factor,
  offset,
  digits,
  significant,
  before: false,
});
const KINDS = [
  { key: "volume", label: "Volume", units: [unit("L", "L", 1, 1), unit("gal", "US gal", 0.2641720524, 1)] },
  { key: "temperature", label: "Temperature", units: [unit("C", "°C", 1, 1), unit("F", "°F", 1.8, 1, 32)] },
  { key: "nitrate", label: "Nitrate", units: [unit("NO3", "mg/L NO₃", 4.426643821, 0)] },
];
const metric = new Units(KINDS, {});
const us = new Units(KINDS, US_UNITS);

describe("money as the house writes it", () => {
  const money = (before: boolean) =>
    new Units([{ key: "money", label: "Money", units: [{ ...unit("money", "kr", 1, 2), before }] }], {});
  it("has its sign before or after the number", () => {
    expect(money(true).text(12.5, "money")).toBe("kr12.5");
    expect(money(false).text(12.5, "money")).toBe("12.5\u2009kr");
    expect(money(true).parts(12.5, "money")).toEqual(["kr12.5", ""]);
    expect(money(false).parts(12.5, "money")).toEqual(["12.5", "kr"]);
  });
});

describe("numbers for reading", () => {
  it.each([
    [481.3, "volume", "481 L"],
    [91.24, "volume", "91.2 L"],
    [12345, "volume", "12 345 L"],
    [0, "volume", "0 L"],
    [-4.25, "temperature", "−4.3 °C"],
    [9.036, "nitrate", "40 mg/L NO₃"],
  ])("%s of %s reads %s", (value, kind, text) => {
    expect(metric.text(value, kind).replaceAll("\u2009", " ")).toBe(text);
  });

  it("turns to the chosen units", () => {
    expect(us.text(25, "temperature")).toContain("77");
    expect(us.text(3.785411784, "volume")).toContain("1");
    expect(us.unit("nitrate").key).toBe("NO3");
  });

  it("leaves the offset out of a difference", () => {
    expect(us.difference(5, "temperature")).toBe("+9");
    expect(metric.difference(-2, "temperature")).toBe("−2");
  });

  it("gives back what was entered", () => {
    for (const typed of [11, 12.5, 40])
      expect(metric.entry(metric.base(typed, "nitrate"), "nitrate")).toBe(String(typed));
    expect(us.base(77, "temperature")).toBeCloseTo(25);
  });
});

describe("what is typed", () => {
  it("takes the one of two readings that a field can hold", () => {
    const gravity = metric.within({ kind: "ratio", low: 0.99, high: 1.1 });
    const flow = metric.within({ kind: "ratio", low: 1, high: 50_000 });
    expect([parsed("1,006", gravity), parsed("1,234", flow)]).toEqual([1.006, null]);
    // 200 US gal is the most: of 1,500 gal only one and a half can be meant.
    expect(parsed("1,500", us.within({ kind: "volume", low: 0, high: 757 }))).toBe(1.5);
  });

  it.each([
    ["12.5", 12.5],
    ["12,5", 12.5],
    [" 1 000 ", 1000],
    ["−3", -3],
    ["1e9", 1e9],
    [".5", 0.5],
    ["", null],
    ["abc", null],
    ["12 cm", null],
    ["1,2,3", null],
    ["1 2", null],
    ["1,234", null],
    ["0,234", 0.234],
    ["1,2345", 1.2345],
    ["12 345,6", 12345.6],
  ])("%j is %s", (text, value) => expect(parsed(text)).toBe(value));
});

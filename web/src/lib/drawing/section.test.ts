import { describe, expect, it } from "vitest";
import type { Section } from "@/api/client";
import { alongLine, described, drawnCount, overRim, placed, stems, stones, wayDown } from "./section";
import { SILHOUETTES } from "./silhouettes";

const section: Section = {
  shape: "box",
  length_cm: 100,
  width_cm: 50,
  height_cm: 50,
  water_cm: 45,
  pane_cm: 1,
  bed: "sand",
  bed_front_cm: 3,
  bed_back_cm: 6,
  land: null,
  rest_cm: null,
  rock_l: 5,
  wood_l: 2,
  planting: [{ uptake: "stems", cover_frac: 0.3 }],
  lid: "glass",
  fan: false,
  heated: true,
  filters: ["canister"],
  tank_count: 1,
  heaters_in: "tank",
  overflow: null,
  sump: null,
  animals: [
    { label: "Danio", shape: "elongated", length_cm: 5, number: 12, level: "top", ashore: false },
    { label: "Loach", shape: "fusiform", length_cm: 6, number: 5, level: "bottom", ashore: false },
    { label: "Discus", shape: "disc", length_cm: 15, number: 4, level: "middle", ashore: false },
  ],
};

describe("animals in the section", () => {
  it("stand inside the glass and under the water, to scale", () => {
    for (const { x, y, length } of placed(section)) {
      expect(x - length / 2).toBeGreaterThanOrEqual(0);
      expect(x + length / 2).toBeLessThanOrEqual(section.length_cm);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(section.water_cm);
    }
    expect(new Set(placed(section).map(({ length }) => length))).toEqual(new Set([5, 6, 15]));
  });

  it("do not move when nothing about them changes", () => {
    expect(placed(section)).toEqual(placed({ ...section, wood_l: 9 }));
  });

  it("are all drawn while few, and thinned while a crowd", () => {
    expect(drawnCount(4, 15, section)).toBe(4);
    expect(drawnCount(500, 5, section)).toBeLessThan(60);
  });

  it("even one larger than the tank is kept in it", () => {
    const giant = {
      label: "Giant",
      shape: "deep",
      length_cm: 200,
      number: 1,
      level: "middle",
      ashore: false,
    };
    const [one] = placed({ ...section, animals: [giant] });
    expect(one?.length).toBeLessThan(100);
    expect(Math.abs((one?.x ?? 0) - 50)).toBeLessThanOrEqual(5);
  });

  it("one that leaves the water lies on the dry place, over the surface", () => {
    const land = {
      kind: "box",
      count: 1,
      length_cm: 30,
      width_cm: 30,
      above_cm: 9,
      cover_cm: 28,
      ramp: true,
    };
    const turtle = { label: "Turtle", shape: "turtle", length_cm: 18, number: 2, level: "all", ashore: true };
    const turtles = { ...section, land, animals: [turtle] };
    const [dry, wet] = placed(turtles);
    expect(dry!.x).toBe(15);
    expect(dry!.y).toBeGreaterThan(section.water_cm + 9);
    expect(wet!.y).toBeLessThan(section.water_cm);
    expect(overRim(turtles)).toBe(section.water_cm + 9 + 28 - section.height_cm);
    expect(overRim(section)).toBe(0);
    expect(wayDown(turtles)[1]).toBeGreaterThan(-section.water_cm);
    expect(described(turtles, (value) => `${value} cm`)).toContain(
      "A box over the rim of 30 cm × 30 cm lies 9 cm over the water.",
    );
  });

  it("have an outline for every body shape of the library", () => {
    const shapes = "eel elongated fusiform deep disc globular turtle frog salamander shrimp snail".split(" ");
    expect(Object.keys(SILHOUETTES).sort()).toEqual(shapes.sort());
    for (const { path } of Object.values(SILHOUETTES)) expect(path).toMatch(/^M[\d\s.\-CLMZ]+Z$/);
  });
});

it("finds points along a line of pipe, clear of its corners", () => {
  const line: [number, number][] = [
    [0, 0],
    [0, -10],
    [30, -10],
  ];
  expect(alongLine(line, 0.125)).toEqual({ x: 0, y: -5, turn: -90 });
  expect(alongLine(line, 0.5)).toEqual({ x: 10, y: -10, turn: 0 });
  expect(alongLine(line, 0.25, 2)).toEqual({ x: 0, y: -8, turn: -90 });
});

it("draws no stones and no stems where there are none", () => {
  expect(stones({ ...section, rock_l: 0 })).toBeNull();
  expect(stems({ ...section, planting: [] })).toEqual([]);
  expect(stems(section).length).toBeGreaterThan(3);
});

it("says the section in words", () => {
  const words = described(section, (value, kind) => `${value} ${kind}`);
  expect(words).toContain("12 Danio, 5 Loach, 4 Discus");
  expect(described({ ...section, animals: [] }, String)).toContain("No animals yet");
  const overflow = { blocked_cm: 2.5, return_lph: 2800 };
  const sump = { length_cm: 120, power_off_cm: 41, fits: false, chambers: [{ kind: "media", level_cm: 29 }] };
  const below = described({ ...section, overflow, sump } as unknown as Section, (value) => String(value));
  expect(below).toContain("chambers stand at media 29. The pump moves 2800.");
  expect(below).toContain("stands at 41, which does not fit. With the drain blocked the tank rises by 2.5.");
});

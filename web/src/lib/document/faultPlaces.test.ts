import { expect, it } from "vitest";
import type { Plan, Section } from "@/api/client";
import { faultPlaces } from "./faultPlaces";

const section = {
  length_cm: 100,
  height_cm: 50,
  water_cm: 45,
  overflow: { crest_cm: 44 },
  sump: {
    length_cm: 60,
    height_cm: 40,
    below_cm: 80,
    intake_cm: 8,
    chambers: [
      { kind: "media", length_cm: 40 },
      { kind: "return", length_cm: 20 },
    ],
  },
} as unknown as Section;
const plan = {
  chambers: [{ baffle_cm: 43 }],
  sump: { return_level_cm: "deep", intake_cm: 25 },
} as unknown as Plan;
const at = (path: string) => faultPlaces(section, plan, [path]);

it("marks a baffle over the rim at its typed height, above its place in the sump under the display", () => {
  expect(at("chambers.0.baffle_cm")).toEqual([{ path: "chambers.0.baffle_cm", x: 60, y: 37 }]);
});

it("marks the intake in the return chamber, and a level that is no number at the rim", () => {
  expect(at("sump.intake_cm")).toEqual([{ path: "sump.intake_cm", x: 70, y: 55 }]);
  expect(at("sump.return_level_cm")[0]?.y).toBe(40);
});

it("marks holes at the crest and a toughened pane in its middle", () => {
  expect(at("flow.hole_edge_cm")[0]).toMatchObject({ x: 100, y: -44 });
  expect(at("tank.toughened")[0]).toMatchObject({ x: 100, y: -25 });
});

it("has no place for what is not drawn", () => {
  expect(at("heat.target_c")).toEqual([]);
  expect(faultPlaces({ ...section, sump: null }, plan, ["sump.intake_cm"])).toEqual([]);
});

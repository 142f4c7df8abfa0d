import type { Plan, Section } from "@/api/client";
import { valueAt } from "./paths";
import { chamberStarts, clamp, sumpLeft } from "@/lib/drawing/section";

/** Where something that can not be built is in the section: cm from the display's inside lower left corner, up is negative. */
export interface FaultPlace {
  path: string;
  x: number;
  y: number;
}

const SLIGHTLY_OVER = 1.15;

/** The faults that have a place in the drawing; levels and baffles stand where they were typed. */
export function faultPlaces(section: Section, plan: Plan, paths: string[]): FaultPlace[] {
  return paths.flatMap((path) => {
    const place = placeOf(section, plan, path);
    return place ? [{ path, ...place }] : [];
  });
}

function placeOf(section: Section, plan: Plan, path: string): { x: number; y: number } | null {
  const { length_cm: length, height_cm: height, sump, overflow } = section;
  const typed = Number(valueAt(plan, path));
  const upTo = (most: number) => -clamp(Number.isNaN(typed) ? most : typed, 0, most * SLIGHTLY_OVER);
  const [part, ...names] = path.split(".");
  const name = names.find((word) => !/^\d+$/.test(word));
  if (part === "tank") {
    if (name === "toughened" || name === "pane_mm") return { x: length, y: -height / 2 };
    if (name === "part_fill_cm") return { x: length / 2, y: upTo(height) };
    if (name === "freeboard_cm") return { x: length / 2, y: -height };
    if (name === "bed_front_cm" || name === "bed_back_cm") return { x: length / 2, y: upTo(height) };
    return name === "rock_kg" ? { x: length * 0.66, y: -section.water_cm / 3 } : null;
  }
  if (!sump) return null;
  const left = sumpLeft(section, sump);
  const starts = chamberStarts(sump).map((start) => left + start);
  const last = (starts.at(-1) ?? left) + (sump.chambers.at(-1)?.length_cm ?? 0) / 2;
  if (part === "chambers") {
    const at = Number(names[0]);
    const chamber = sump.chambers[at];
    return chamber ? { x: starts[at]! + chamber.length_cm, y: sump.below_cm + upTo(sump.height_cm) } : null;
  }
  if (name === "sump_length_cm") return { x: left + sump.length_cm, y: sump.below_cm };
  if (name === "return_level_cm" || name === "intake_cm")
    return { x: last, y: sump.below_cm + upTo(sump.height_cm) };
  if (name === "curve_lph" || name === "curve_head_m")
    return { x: last, y: sump.below_cm - sump.intake_cm / 2 };
  if (name === "hole_mm" || name === "hole_edge_cm") return { x: length, y: -(overflow?.crest_cm ?? height) };
  return null;
}

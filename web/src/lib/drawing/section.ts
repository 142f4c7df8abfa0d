import type { Section } from "@/api/client";
import { silhouette } from "./silhouettes";

/** An animal placed in the drawing: centre in cm from the left inside and from the base, facing left or right. */
export interface Placed {
  shape: string;
  label: string;
  length: number;
  x: number;
  y: number;
  left: boolean;
  /** Stands on the bed rather than swims. */
  rests: boolean;
}

const MOST_DRAWN = 26;

const BANDS: Record<string, [number, number]> = {
  top: [0.74, 0.92],
  middle: [0.32, 0.74],
  all: [0.25, 0.8],
  bottom: [0, 0],
};

/** Repeatable even spread between 0 and 1 along two axes, so that a drawing does not jump while a person types. */
const spread = (seed: number, axis: 0 | 1 = 0): number => (0.5 + seed * (axis ? 0.56984 : 0.754878)) % 1;

/** How many of a group are drawn: all of them up to a crowd, then fewer so that the water stays readable. */
export function drawnCount(number: number, lengthCm: number, section: Section): number {
  const area = section.length_cm * section.water_cm;
  const room = Math.max(2, Math.floor((0.14 * area) / (lengthCm * lengthCm * 0.35)));
  return Math.min(number, MOST_DRAWN, room);
}

/** Where each animal stands: schools in the band of water they keep to, bottom animals along the bed. */
export function placed(section: Section): Placed[] {
  const bed = Math.min(section.bed_front_cm, section.bed_back_cm);
  const animals = section.animals.flatMap((group, g) => {
    const length = Math.min(group.length_cm, section.length_cm * 0.9);
    const count = drawnCount(group.number, group.length_cm, section);
    const [low, high] = BANDS[group.level] ?? [0.3, 0.75];
    const reach = Math.min(0.47, 0.2 + count * 0.012);
    const home = reach + (1 - 2 * reach) * spread(g * 2 + 1);
    return Array.from({ length: count }, (_, i): Placed => {
      const { land } = section;
      if (land && group.ashore && i === 0) {
        const y = section.water_cm + land.above_cm + silhouette(group.shape).foot * length;
        const x = Math.min(land.length_cm, section.length_cm) / 2;
        return { shape: group.shape, label: group.label, length, rests: true, x, y, left: false };
      }
      const rests = group.level === "bottom";
      const along = rests
        ? (i + 0.3 + 0.5 * spread(i + g)) / count
        : home + (spread(i + g * 17) - 0.5) * 2 * reach;
      const up = low + (high - low) * spread(i + g * 17, 1);
      return {
        shape: group.shape,
        label: group.label,
        length,
        rests,
        x: shore(section) + along * (section.length_cm - shore(section)),
        y: rests ? bed + silhouette(group.shape).foot * length : bed + (section.water_cm - bed) * up,
        left: (i + g) % 3 === 0,
      };
    });
  });
  return apart(animals, section);
}

const ROUNDS = 24;

/** Swimmers pushed clear of each other, and everyone kept inside the glass and under the water. */
function apart(animals: Placed[], section: Section): Placed[] {
  const swimmers = animals.filter((animal) => !animal.rests);
  for (let round = 0; round < ROUNDS; round++) {
    for (const [i, a] of swimmers.entries()) {
      for (const b of swimmers.slice(i + 1)) push(a, b);
    }
    for (const animal of animals) keepInside(animal, section);
  }
  return animals;
}

/** Half the way apart along the shorter way, when two outlines would touch. */
function push(a: Placed, b: Placed): void {
  const wide = ((a.length + b.length) / 2) * 1.08;
  const high = ((a.length + b.length) / 2) * (silhouette(a.shape).foot + silhouette(b.shape).foot) * 1.3;
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const overX = wide - Math.abs(dx);
  const overY = high - Math.abs(dy);
  if (overX <= 0 || overY <= 0) return;
  if (overY < overX) {
    const step = ((dy < 0 ? -1 : 1) * overY) / 2;
    a.y -= step;
    b.y += step;
  } else {
    const step = ((dx < 0 ? -1 : 1) * overX) / 2;
    a.x -= step;
    b.x += step;
  }
}

function keepInside(animal: Placed, section: Section): void {
  const half = animal.length / 2;
  if (animal.rests && animal.y > section.water_cm) return;
  animal.x = clamp(animal.x, shore(section) + half + 0.5, section.length_cm - half - 0.5);
  if (animal.rests) return;
  const body = animal.length * silhouette(animal.shape).foot * 1.4;
  animal.y = clamp(
    animal.y,
    Math.max(section.bed_front_cm, section.bed_back_cm) + body,
    section.water_cm - body,
  );
}

export function clamp(value: number, low: number, high: number): number {
  return high < low ? (low + high) / 2 : Math.min(high, Math.max(low, value));
}

/** Where the water begins beside a bank, cm from the left; at the glass where there is none. */
export function shore({ land, length_cm }: Section): number {
  return land?.kind === "bank" ? Math.min(land.length_cm, length_cm * 0.9) : 0;
}

/** How far a box stands over the rim, cm; nothing where there is none. */
export function overRim({ land, water_cm, height_cm }: Section): number {
  if (land?.kind !== "box") return 0;
  return Math.max(0, water_cm + land.above_cm + land.cover_cm - height_cm);
}

const RAMP_SLOPE = 1.6;

/** Where a ramp from the dry place ends in the water, cm from the inside's lower left corner, y down. */
export function wayDown({ land, water_cm, length_cm }: Section): [number, number] {
  if (!land) return [0, 0];
  const down = Math.min(land.above_cm + water_cm * 0.4, water_cm);
  const run = Math.min(land.length_cm, length_cm);
  return [Math.min(run + down * RAMP_SLOPE, length_cm), -water_cm - land.above_cm + down];
}

function describedLand({ land }: Section, text: (value: number, kind: string) => string): string[] {
  if (!land) return [];
  const what = { platform: "A platform", box: "A box over the rim", bank: "A bank" }[land.kind] ?? "Land";
  const size = `${text(land.length_cm, "length")} × ${text(land.width_cm, "length")}`;
  return [`${what} of ${size} lies ${text(land.above_cm, "length")} over the water.`];
}

type SumpDrawn = NonNullable<Section["sump"]>;

/** Where the sump begins, cm from the display's inside left: it stands under the middle. */
export function sumpLeft(section: Section, sump: SumpDrawn): number {
  return (section.length_cm - sump.length_cm) / 2;
}

/** Where every chamber begins, cm from the sump's inside left. */
export function chamberStarts({ chambers }: SumpDrawn): number[] {
  return chambers.map((_, i) => chambers.slice(0, i).reduce((sum, { length_cm }) => sum + length_cm, 0));
}

type Point = [number, number];

/**
 * A point at a share of the way along a line of straight pieces, and which way the line runs there in degrees.
 * It keeps `clear` of the corners where the piece is long enough.
 */
export function alongLine(line: Point[], share: number, clear = 0): { x: number; y: number; turn: number } {
  const pieces = line.slice(1).map((end, i) => {
    const [x, y] = line[i]!;
    return { x, y, dx: end[0] - x, dy: end[1] - y, length: Math.hypot(end[0] - x, end[1] - y) };
  });
  const way = share * pieces.reduce((sum, { length }) => sum + length, 0);
  let passed = 0;
  const piece = pieces.find(({ length }) => (passed += length) >= way) ?? pieces.at(-1)!;
  const at = clamp(way - passed + piece.length, clear, piece.length - clear) / piece.length;
  return {
    x: piece.x + piece.dx * at,
    y: piece.y + piece.dy * at,
    turn: (Math.atan2(piece.dy, piece.dx) * 180) / Math.PI,
  };
}

/** A stone heap as a closed outline, cm from the base: as many litres as it displaces over the tank's width. */
export function stones(section: Section): { x: number; width: number; height: number } | null {
  if (section.rock_l <= 0) return null;
  const area = (section.rock_l * 1000) / (section.width_cm * 0.4);
  const width = Math.min(section.length_cm * 0.5, Math.sqrt(area * 2.4));
  return {
    x: section.length_cm * 0.66,
    width,
    height: Math.min(section.water_cm * 0.8, (area * 1.5) / width),
  };
}

/** Stems of plants: how many stand, where, and how tall, from the share of footprint they cover. */
export function stems(section: Section): { x: number; height: number; lean: number }[] {
  const standing = section.planting.filter(({ uptake }) => uptake !== "floating");
  const cover = standing.reduce((sum, { cover_frac }) => sum + cover_frac, 0);
  const count = Math.round(cover * section.length_cm * 0.24);
  const tall = standing.every(({ uptake }) => uptake === "slow") ? 0.35 : 0.74;
  return Array.from({ length: Math.min(count, 60) }, (_, i) => {
    const side = i % 2 ? 1 : 0;
    const inward = spread(i * 3 + 1) * 0.42;
    return {
      x: section.length_cm * (side ? 0.98 - inward * 0.55 : 0.02 + inward),
      height: section.water_cm * tall * (0.6 + 0.4 * spread(i * 7 + 2)),
      lean: (spread(i * 11 + 3) - 0.5) * 5,
    };
  });
}

/** The part of the surface that floating plants cover. */
export function floating(section: Section): number {
  return section.planting
    .filter(({ uptake }) => uptake === "floating")
    .reduce((sum, { cover_frac }) => Math.min(1, sum + cover_frac), 0);
}

function describedSump({ sump, overflow }: Section, text: (value: number, kind: string) => string): string[] {
  if (!sump || !overflow) return [];
  const chambers = sump.chambers
    .map(({ kind, level_cm }) => `${kind} ${text(level_cm, "length")}`)
    .join(", ");
  const rise = text(overflow.blocked_cm, "length");
  return [
    `Below it a sump ${text(sump.length_cm, "length")} long; its chambers stand at ${chambers}.`,
    `The pump moves ${text(overflow.return_lph, "flow")}.`,
    `With the power off the sump stands at ${text(sump.power_off_cm, "length")}${sump.fits ? "" : ", which does not fit"}.`,
    `With the drain blocked the tank rises by ${rise}.`,
  ];
}

/** The section in words, for those who do not see it. */
export function described(section: Section, text: (value: number, kind: string) => string): string {
  const size = `${text(section.length_cm, "length")} long, ${text(section.height_cm, "length")} high inside`;
  const animals = section.animals.map((group) => `${group.number} ${group.label}`).join(", ");
  const tank = `Section of the tank: ${size}, water ${text(section.water_cm, "length")} high. ${animals || "No animals yet"}.${section.fan ? " A fan blows over the water." : ""}`;
  return [tank, ...describedLand(section, text), ...describedSump(section, text)].join(" ");
}

/**
 * Plain outlines of animals by body shape: one length long, facing right, nose at x = 1, on y = 0.
 * Each is drawn for Loquen; `rests` says that it stands on its underside (`foot` below the middle line).
 */
export interface Silhouette {
  path: string;
  foot: number;
}

/** A fish: body, tail and unpaired fins as one outline. `depth` is half its height, `fins` how far they stand out. */
function fish(depth: number, fins: number, tail: number): string {
  const y = (share: number) => (share * depth).toFixed(3);
  const up = (-depth - fins).toFixed(3);
  const down = (depth + fins * 0.75).toFixed(3);
  const body =
    `M1 ${y(0.08)}C.95 ${y(-0.34)} .84 ${y(-0.96)} .62 ${y(-1)}C.46 ${y(-1.02)} .3 ${y(-0.5)} .19 ${y(-0.17)}` +
    `L.19 ${y(0.2)}C.3 ${y(0.52)} .46 ${y(1.02)} .62 ${y(1)}C.84 ${y(0.92)} .95 ${y(0.5)} 1 ${y(0.08)}Z`;
  const dorsal = `M.66 ${y(-0.9)}C.6 ${up} .5 ${up} .3 ${(-depth * 0.55 - fins * 0.55).toFixed(3)}L.36 ${y(-0.55)}Z`;
  const anal = `M.5 ${y(0.85)}C.44 ${down} .38 ${down} .26 ${(depth * 0.42 + fins * 0.5).toFixed(3)}L.32 ${y(0.45)}Z`;
  const caudal = `M.22 ${y(-0.16)}C.14 ${-tail * 0.5} .08 ${-tail} 0 ${-tail}C.05 ${-tail * 0.4} .05 ${tail * 0.4} 0 ${tail}C.08 ${tail} .14 ${tail * 0.5} .22 ${y(0.2)}Z`;
  return body + dorsal + anal + caudal;
}

export const SILHOUETTES: Record<string, Silhouette> = {
  elongated: { path: fish(0.085, 0.05, 0.09), foot: 0.09 },
  fusiform: { path: fish(0.125, 0.07, 0.12), foot: 0.12 },
  deep: { path: fish(0.19, 0.07, 0.14), foot: 0.19 },
  disc: { path: fish(0.31, 0.13, 0.13), foot: 0.36 },
  globular: {
    path:
      "M1 .03C.97-.16.82-.29.6-.29C.4-.29.28-.16.19-.05L.02-.15C.07-.05.07.05.02.14L.19.06" +
      "C.3.2.42.3.6.3C.82.3.97.2 1 .03ZM.45-.24L.32-.36L.34-.16Z",
    foot: 0.28,
  },
  eel: {
    path: "M1 .02C.93-.05.84-.05.74-.02C.6.02.5.05.36.02C.24 0 .14-.05 0-.03C.12.03.22.07.36.08C.52.1.64.07.76.05C.86.04.95.07 1 .02Z",
    foot: 0.07,
  },
  turtle: {
    path:
      "M1 -.06C1-.12.93-.14.88-.11C.8-.3.62-.37.45-.36C.26-.35.12-.24.06-.08L0-.04L.06.01" +
      "C.08.04.1.06.14.07L.12.16L.24.16L.27.09L.66.09L.7.16L.82.16L.8.05C.84.02.88 0 .92 0C.97 0 1-.02 1-.06Z",
    foot: 0.16,
  },
  frog: {
    path:
      "M1 -.02C.98-.14.86-.22.72-.22C.52-.22.34-.2.24-.1C.1-.14 0-.02.06.06C0 .1.02.16.1.16L.3.16C.24.12.22.08.26.05" +
      "C.4.14.56.16.7.13L.72.17L.84.17L.82.1C.92.1 1 .06 1-.02Z",
    foot: 0.16,
  },
  salamander: {
    path:
      "M1 -.01C1-.07.92-.1.84-.09C.78-.08.76-.07.72-.08L.66-.16L.64-.08C.56-.1.46-.1.38-.09C.24-.13.1-.12 0-.05" +
      "C.1 0 .2.03.34.03L.3.1L.37.1L.42.04L.68.05L.68.11L.75.11L.76.05C.84.07 1 .06 1-.01Z",
    foot: 0.1,
  },
  shrimp: {
    path:
      "M.98-.06C.9-.1.84-.11.76-.1C.6-.18.42-.16.3-.06C.22-.02.14.02.1.1L0 .1L.06.15L.16.15C.22.1.28.08.32.07L.34.15" +
      "L.38.07L.44.06L.48.15L.5.05L.58.04L.63.15L.65.03C.76.03.84.01.88-.03ZM.84-.08L1-.2L.88-.05Z",
    foot: 0.14,
  },
  snail: {
    path:
      "M.98.24C.96.12.9.06.86.1L.84.2C.8.22.74.22.72.18C.76-.06.62-.3.4-.3C.18-.3.04-.12.08.06C.1.14.16.2.24.22" +
      "C.14.24.06.28 0 .32L.8.32C.9.32.98.3.98.24Z",
    foot: 0.3,
  },
};

export function silhouette(shape: string): Silhouette {
  return SILHOUETTES[shape] ?? (SILHOUETTES.fusiform as Silhouette);
}

/** The stages of a system, in the job's order. */
export const STAGE_KEYS = [
  "animals",
  "tank",
  "filter",
  "flow",
  "heat",
  "source",
  "changes",
  "cycle",
  "arrivals",
  "nitrate",
  "care",
  "log",
  "variants",
] as const;

export type StageKey = (typeof STAGE_KEYS)[number];

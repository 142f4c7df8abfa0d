import type { Sheet } from "@/api/client";

/** What stands in a sheet's place when none could be made: no figures, no checks, nothing to draw. */
export const NO_SHEET: Omit<Sheet, "section"> = {
  figures: {},
  checks: [],
  glasses: [],
  stages: [],
  schools: [],
  pairs: [],
  company: [],
  suited: [],
  growing: [],
  outgrown: [],
  outage: { text: "", terms: {} },
  flow: null,
  settlings: [],
  failures: [],
  least_regime: null,
  regimes: [],
  questions: [],
  disinfectant: "none",
  card: [],
  salt_days: [],
  bags: [],
  batches: [],
  saw_tooth: null,
};

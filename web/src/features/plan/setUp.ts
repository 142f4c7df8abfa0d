import type { Plan } from "@/api/client";

/** How a system is set up: its filter is begun in one of these ways, or has been running before. */
export type Begun = NonNullable<Plan["cycle"]>["begun_by"];

export const WAYS: [Begun, string][] = [
  ["empty", "started empty: ammonia is dosed, the animals wait"],
  ["animals", "its animals are in it from today"],
  ["soil", "on active soil: the animals wait"],
  ["running", "its filter has been running for long"],
];

/** What saying that a system is set up changes in its plan. */
export function setUpChanges(begun: Begun, day: string, weeks: number | null): Record<string, unknown> {
  const running = begun === "running";
  return {
    "run_in.stands": "set_up",
    "run_in.set_up_on": day,
    "run_in.stocked": running || begun === "animals" ? "now" : "cycled",
    ...(running && weeks !== null && { "run_in.age_weeks": weeks }),
    "cycle.begun_by": begun,
    "cycle.begun_on": running ? "" : day,
  };
}

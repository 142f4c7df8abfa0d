import { queryOptions, useQueryClient } from "@tanstack/react-query";
import { asked, client, Refused, type Arriving, type Course } from "@/api/client";
import { isoDay } from "@/lib/shown/days";

export const today = (): string => isoDay(new Date());

export const newcomersQuery = () =>
  queryOptions({
    queryKey: ["quarantine", today()],
    queryFn: () => asked(client.GET("/api/quarantine", { params: { query: { today: today() } } })),
  });

/** Ask quarantine anew, and what hangs on it. */
export function useRefresh(): () => void {
  const queries = useQueryClient();
  return () => {
    for (const key of ["quarantine", "register", "systems", "round"])
      void queries.invalidateQueries({ queryKey: [key] });
  };
}

export const EXPECTED: Omit<Arriving, "species"> = {
  number: 1,
  goes_to: 0,
  comes_on: today(),
  can_wait: true,
  length_cm: null,
  source: "",
  wait_d: null,
  tub: 0,
  waived: "",
  resident: 0,
};

export const COURSE: Omit<Course, "tub"> = {
  product: "",
  begun: today(),
  dose: 1,
  dose_unit: "mL",
  per_l: 10,
  dose_days: [1],
  lasts_d: 7,
  redosed: true,
  copper: false,
  harms_plants: false,
  harms_bare_skin: false,
  harms_filter: false,
  equipment: "",
  stopped: "",
};

/** What is wrong, by field, and the sentence. */
export interface Wrong {
  fields: Record<string, string>;
  sentence: string;
}

export function wrongOf(cause: unknown): Wrong {
  const found = cause instanceof Refused ? (cause.fault?.fields ?? []) : [];
  const sentence = cause instanceof Error ? cause.message : String(cause);
  return { fields: Object.fromEntries(found.map(({ path }) => [path, sentence])), sentence };
}

import { queryOptions, useQueryClient } from "@tanstack/react-query";
import { asked, client, type LifeLine, type Resident } from "@/api/client";
import { isoDay } from "@/lib/shown/days";

export const today = (): string => isoDay(new Date());

export const registerQuery = () =>
  queryOptions({
    queryKey: ["register", today()],
    queryFn: () => asked(client.GET("/api/register", { params: { query: { today: today() } } })),
  });

export const NOBODY: Omit<Resident, "species"> = {
  name: "",
  sex: "unknown",
  line: "",
  source: "",
  born: "",
  stays_until: "",
  note: "",
  generation: 0,
};

export const NOTHING: LifeLine = { kind: "arrival", day: today(), count: 1, system: 0, to: 0, signs: "" };

/** Ask the register anew, and what hangs on it. */
export function useRefresh(): () => void {
  const queries = useQueryClient();
  return () => {
    void queries.invalidateQueries({ queryKey: ["register"] });
    void queries.invalidateQueries({ queryKey: ["quarantine"] });
    void queries.invalidateQueries({ queryKey: ["log"] });
    void queries.invalidateQueries({ queryKey: ["systems"] });
  };
}

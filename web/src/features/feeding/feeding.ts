import { queryOptions, useQueryClient } from "@tanstack/react-query";
import { asked, client } from "@/api/client";
import { isoDay } from "@/lib/shown/days";

export const today = (): string => isoDay(new Date());

export const WEEK = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"] as const;

export const feedingQuery = () =>
  queryOptions({
    queryKey: ["feeding", today()],
    queryFn: () => asked(client.GET("/api/feeding", { params: { query: { today: today() } } })),
  });

/** Ask feeding anew, and what hangs on it. */
export function useRefresh(): () => void {
  const queries = useQueryClient();
  return () => {
    for (const key of ["feeding", "round", "systems"]) void queries.invalidateQueries({ queryKey: [key] });
  };
}

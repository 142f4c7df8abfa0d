import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { asked, client, Refused, type Forecast, type NitratePage, type Trends } from "@/api/client";
import { isoHere } from "@/ui/log/log";
import { useSession } from "./context";

interface Ahead {
  cycle: Forecast;
  nitrate: NitratePage;
  trends: Trends;
}

/** What lies ahead of the plan as it stands on the page; the last answer stays while the next is reckoned. */
export function useForecast<What extends keyof Ahead>(what: What, enabled = true) {
  const id = useSession((state) => state.id);
  const plan = useSession((state) => (state.problem ? null : state.sheetOf));
  return useQuery({
    queryKey: ["ahead", what, id, plan],
    queryFn: async ({ signal }) => {
      const given = {
        params: { path: { system_id: id } },
        body: { plan: plan!, now: isoHere(new Date()) },
        signal,
      };
      const answer = {
        cycle: () => asked(client.POST("/api/systems/{system_id}/cycle", given)),
        nitrate: () => asked(client.POST("/api/systems/{system_id}/nitrate", given)),
        trends: () => asked(client.POST("/api/systems/{system_id}/trends", given)),
      }[what]();
      return (await answer) as Ahead[What];
    },
    enabled: enabled && plan !== null,
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: (count, cause) => cause instanceof Refused && cause.status === 0 && count < 1,
  });
}

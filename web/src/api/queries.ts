import { infiniteQueryOptions, queryOptions } from "@tanstack/react-query";
import { asked, client, Refused, type SystemsOrder, type SystemsPart } from "./client";

export const libraryQuery = queryOptions({
  queryKey: ["library"],
  queryFn: () => asked(client.GET("/api/library")),
  staleTime: Infinity,
});

export const ownQuery = queryOptions({
  queryKey: ["own"],
  queryFn: () => asked(client.GET("/api/own")),
});

const PART = 24;

/** Systems part by part, of those in which every word is found. */
export const systemsQuery = (find: string, order: SystemsOrder) =>
  infiniteQueryOptions({
    queryKey: ["systems", "list", find, order],
    queryFn: ({ pageParam, signal }) =>
      asked(
        client.GET("/api/systems", {
          params: { query: { find, order, start: pageParam, count: PART } },
          signal,
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (part: SystemsPart) => part.next,
  });

export const systemNamesQuery = queryOptions({
  queryKey: ["systems", "names"],
  queryFn: () => asked(client.GET("/api/systems/names")),
});

export const deletedSystemsQuery = queryOptions({
  queryKey: ["systems", "deleted"],
  queryFn: () => asked(client.GET("/api/systems/deleted")),
});

export const variantsQuery = (id: number) =>
  queryOptions({
    queryKey: ["variants", id],
    queryFn: () =>
      asked(client.GET("/api/systems/{system_id}/variants", { params: { path: { system_id: id } } })),
  });

/** Everything that is known of the systems as a whole, to be asked anew after a change. */
export const ALL_SYSTEMS = { queryKey: ["systems"] };

export const historyQuery = (id: number) =>
  queryOptions({
    queryKey: ["history", id],
    queryFn: () =>
      asked(client.GET("/api/systems/{system_id}/history", { params: { path: { system_id: id } } })),
    gcTime: 0,
  });

export const systemQuery = (id: number) =>
  queryOptions({
    queryKey: ["system", id],
    queryFn: () => asked(client.GET("/api/systems/{number}", { params: { path: { number: id } } })),
    staleTime: 0,
    gcTime: 0,
    retry: (count, cause) => cause instanceof Refused && cause.status === 0 && count < 1,
  });

export const breedingQuery = (today: string, system: number | null) =>
  queryOptions({
    queryKey: ["breeding", today, system],
    queryFn: () =>
      asked(
        client.GET("/api/breeding", { params: { query: { today, ...(system === null ? {} : { system }) } } }),
      ),
  });

export const deletedVenturesQuery = queryOptions({
  queryKey: ["breeding", "deleted"],
  queryFn: () => asked(client.GET("/api/ventures/deleted")),
});

export const roomsQuery = queryOptions({
  queryKey: ["rooms"],
  queryFn: () => asked(client.GET("/api/rooms")),
});

export const deletedRoomsQuery = queryOptions({
  queryKey: ["rooms", "deleted"],
  queryFn: () => asked(client.GET("/api/rooms/deleted")),
});

export const watersQuery = queryOptions({
  queryKey: ["waters"],
  queryFn: () => asked(client.GET("/api/waters")),
});

export const deletedWatersQuery = queryOptions({
  queryKey: ["waters", "deleted"],
  queryFn: () => asked(client.GET("/api/waters/deleted")),
});

export const areasQuery = queryOptions({
  queryKey: ["areas"],
  queryFn: () => asked(client.GET("/api/waters/areas")),
  staleTime: Infinity,
});

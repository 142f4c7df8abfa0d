import { queryOptions } from "@tanstack/react-query";
import { asked, client } from "./client";

export const libraryQuery = queryOptions({
  queryKey: ["library"],
  queryFn: () => asked(client.GET("/api/library")),
  staleTime: Infinity,
});

export const systemsQuery = queryOptions({
  queryKey: ["systems"],
  queryFn: () => asked(client.GET("/api/systems")),
});

export const systemQuery = (id: number) =>
  queryOptions({
    queryKey: ["system", id],
    queryFn: () => asked(client.GET("/api/systems/{system_id}", { params: { path: { system_id: id } } })),
    staleTime: 0,
    gcTime: 0,
  });

export const watersQuery = queryOptions({
  queryKey: ["waters"],
  queryFn: () => asked(client.GET("/api/waters")),
});

export const areasQuery = queryOptions({
  queryKey: ["areas"],
  queryFn: () => asked(client.GET("/api/waters/areas")),
  staleTime: Infinity,
});

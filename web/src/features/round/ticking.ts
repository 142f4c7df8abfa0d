import { queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { asked, client, type Round, type RoundLine, type TickIn } from "@/api/client";
import { Outbox } from "@/lib/outbox";
import { isoDay, zone } from "@/lib/days";

const ROUND = ["round"];

export const roundQuery = (today: string) =>
  queryOptions({
    queryKey: [...ROUND, today],
    queryFn: () => asked(client.GET("/api/round", { params: { query: { today, zone: zone() } } })),
    staleTime: 0,
  });

/** Ticks that the server has not confirmed: they outlive the page, and go out in order. */
const outbox = new Outbox<TickIn>("loquen.ticks", async (ticks) => {
  const answer = await asked(client.POST("/api/round/ticks", { body: { ticks } }));
  return [...answer.kept, ...answer.there, ...Object.keys(answer.refused)];
});

export interface Told {
  round: Round | undefined;
  error: Error | null;
  /** Ticks that still wait for the server. */
  waiting: TickIn[];
  tick: (systemId: number, line: RoundLine, how?: Partial<TickIn>) => void;
  takeBack: (line: RoundLine) => void;
  refresh: () => void;
}

/** Today's round with what was ticked here put in, told or not. */
export function useRound(today: string): Told {
  const queries = useQueryClient();
  const query = useQuery(roundQuery(today));
  const waiting = useSyncExternalStore(outbox.subscribe, () => outbox.items);
  const refresh = () =>
    void queries
      .invalidateQueries({ queryKey: ROUND })
      .then(() => queries.invalidateQueries({ queryKey: ["log"] }));
  useEffect(() => {
    const again = () => void outbox.flush();
    again();
    window.addEventListener("online", again);
    return () => window.removeEventListener("online", again);
  }, []);
  useEffect(() => {
    if (waiting.length === 0) void queries.invalidateQueries({ queryKey: ROUND });
  }, [waiting.length, queries]);
  const tick = (systemId: number, line: RoundLine, how: Partial<TickIn> = {}) =>
    outbox.add({
      id: crypto.randomUUID(),
      system_id: systemId,
      duty: line.key,
      due: line.due,
      at: new Date().toISOString(),
      day: isoDay(new Date()),
      done_by: whoAmI(),
      skipped: "",
      litres: null,
      grams: null,
      left: "",
      note: "",
      log: true,
      ...how,
    });
  const takeBack = (line: RoundLine) => {
    if (!line.tick || outbox.withdraw(line.tick)) return;
    void asked(
      client.DELETE("/api/round/ticks/{tick_id}", { params: { path: { tick_id: line.tick } } }),
    ).then(refresh, refresh);
  };
  return {
    round: query.data && withTicks(query.data, waiting),
    error: query.error,
    waiting,
    tick,
    takeBack,
    refresh,
  };
}

/** The round as it is once what waits is told. */
export function withTicks(round: Round, waiting: TickIn[]): Round {
  if (waiting.length === 0) return round;
  const found = new Map(waiting.map((tick) => [`${tick.system_id} ${tick.duty} ${tick.due}`, tick]));
  return {
    ...round,
    stops: round.stops.map((stop) => ({
      ...stop,
      lines: stop.lines.map((line) => {
        const tick = found.get(`${stop.system_id} ${line.key} ${line.due}`);
        return tick && line.tick === null
          ? { ...line, tick: tick.id, done_by: tick.done_by ?? "", skipped: tick.skipped ?? "" }
          : line;
      }),
    })),
  };
}

const ME = "loquen.me";
export const whoAmI = (): string => localStorage.getItem(ME) ?? "";
export const iAm = (name: string): void => localStorage.setItem(ME, name);

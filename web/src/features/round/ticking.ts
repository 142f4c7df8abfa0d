import { queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { asked, client, Refused, type Round, type RoundLine, type Sentence, type TickIn } from "@/api/client";
import { browserStore } from "@/lib/browser/browserStore";
import { Final, Outbox, type SetAside } from "@/lib/browser/outbox";
import { isoDay, zone } from "@/lib/shown/days";

const ROUND = ["round"];

export const roundQuery = (today: string) =>
  queryOptions({
    queryKey: [...ROUND, today],
    queryFn: () => asked(client.GET("/api/round", { params: { query: { today, zone: zone() } } })),
    staleTime: 0,
  });

/** A tick that goes, or one that is taken back after it went. */
type Item = TickIn | { id: string; takes_back: string };

const isTick = (item: Item): item is TickIn => !("takes_back" in item);

/** What was ticked and taken back here and the server has not confirmed: it outlives the page, and goes out in order. */
const outbox = new Outbox<Item, Sentence>("loquen.ticks", async ([first, ...more]) => {
  if (!first) return { settled: [], refused: {} };
  try {
    if (!isTick(first)) {
      await tookBack(first.takes_back);
      return { settled: [first.id], refused: {} };
    }
    const end = more.findIndex((item) => !isTick(item));
    const ticks = [first, ...(end < 0 ? more : more.slice(0, end)).filter(isTick)];
    const answer = await asked(client.POST("/api/round/ticks", { body: { ticks } }));
    return { settled: [...answer.kept, ...answer.there], refused: answer.refused };
  } catch (cause) {
    const never = cause instanceof Refused && cause.status >= 400 && cause.status < 500;
    throw never ? new Final(cause.fault?.fields?.[0]?.sentence ?? cause.sentence) : cause;
  }
});

/** Whichever way it went before, it is not kept any more. */
async function tookBack(tick_id: string): Promise<void> {
  try {
    await asked(client.DELETE("/api/round/ticks/{tick_id}", { params: { path: { tick_id } } }));
  } catch (cause) {
    if (!(cause instanceof Refused && cause.status === 404)) throw cause;
  }
}

export interface Told {
  round: Round | undefined;
  error: Error | null;
  /** What still waits for the server. */
  waiting: Item[];
  /** Whether the browser keeps what waits, also when the page is left. */
  lasts: boolean;
  /** What the server refused, until it was seen. */
  refused: SetAside<Item, Sentence>[];
  seen: () => void;
  tick: (systemId: number, line: RoundLine, how?: Partial<TickIn>) => void;
  takeBack: (line: RoundLine) => void;
  refresh: () => void;
}

/** Today's round with what was ticked here put in, told or not. */
export function useRound(today: string): Told {
  const queries = useQueryClient();
  const query = useQuery(roundQuery(today));
  const waiting = useSyncExternalStore(outbox.subscribe, () => outbox.items);
  const refused = useSyncExternalStore(outbox.subscribe, () => outbox.refused);
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
    outbox.add({ id: crypto.randomUUID(), takes_back: line.tick });
  };
  return {
    round: query.data && withTicks(query.data, waiting),
    error: query.error,
    waiting,
    lasts: outbox.lasts,
    refused,
    seen: outbox.seen,
    tick,
    takeBack,
    refresh,
  };
}

/** The round as it is once what waits is told. */
export function withTicks(round: Round, waiting: Item[]): Round {
  if (waiting.length === 0) return round;
  const back = new Set(waiting.flatMap((item) => (isTick(item) ? [] : [item.takes_back])));
  const ticks = waiting.filter(isTick).filter(({ id }) => !back.has(id));
  const found = new Map(ticks.map((tick) => [`${tick.system_id} ${tick.duty} ${tick.due}`, tick]));
  return {
    ...round,
    stops: round.stops.map((stop) => ({
      ...stop,
      lines: stop.lines.map((line) => {
        const tick = found.get(`${stop.system_id} ${line.key} ${line.due}`);
        const stands = line.tick !== null && !back.has(line.tick);
        if (tick && !stands)
          return { ...line, tick: tick.id, done_by: tick.done_by ?? "", skipped: tick.skipped ?? "" };
        return stands || line.tick === null ? line : { ...line, tick: null, done_by: "", skipped: "" };
      }),
    })),
  };
}

/** The line that a refused item was of, where it still stands. */
export function lineOf({ item }: SetAside<Item, Sentence>, round: Round | undefined): Line {
  if (!isTick(item)) return { name: "Taking back", words: plain("a tick.") };
  const stop = round?.stops.find(({ system_id }) => system_id === item.system_id);
  const line = stop?.lines.find(({ key }) => key === item.duty);
  return { name: stop?.name ?? "A tick", words: line?.words ?? plain(`“${item.duty}” of ${item.due}.`) };
}

interface Line {
  name: string;
  words: Sentence;
}

const plain = (text: string): Sentence => ({ text, terms: {} });

const ME = "loquen.me";
export const whoAmI = (): string => browserStore.getItem(ME) ?? "";
export const iAm = (name: string): boolean => browserStore.setItem(ME, name);

import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { asked, client, type LogEntry, type Logged } from "@/api/client";

export const knownQuery = queryOptions({
  queryKey: ["log", "known"],
  queryFn: () => asked(client.GET("/api/log/known")),
  staleTime: 60_000,
});

export const logQuery = (id: number) =>
  queryOptions({
    queryKey: ["log", id],
    queryFn: () => asked(client.GET("/api/systems/{system_id}/log", { params: { path: { system_id: id } } })),
  });

/** What lines of one system's log can be about: its animals, its filters, what it doses. */
export const useAbout = (id: number) =>
  useQuery({
    queryKey: ["log", "about", id],
    queryFn: () =>
      asked(client.GET("/api/systems/{system_id}/log/about", { params: { path: { system_id: id } } })),
  }).data;

/** Everything that hangs on any log, to be asked anew after a change. */
export const ALL_LOGS = { queryKey: ["log"] };

/** A moment as the server takes it, with this machine's own time zone. */
export function isoHere(at: Date): string {
  const ahead = -at.getTimezoneOffset();
  const two = (n: number) => String(Math.floor(Math.abs(n))).padStart(2, "0");
  const zone = `${ahead < 0 ? "-" : "+"}${two(ahead / 60)}:${two(ahead % 60)}`;
  return `${localMinute(at)}:${two(at.getSeconds())}${zone}`;
}

/** A moment as a field for date and time shows it. */
export function localMinute(at: Date): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`;
}

export interface NewEntry {
  at: Date;
  entry: Partial<LogEntry> & Pick<LogEntry, "kind">;
}

const BLANK: Omit<LogEntry, "kind"> = {
  what: "",
  value: "",
  kit: "",
  when: "",
  litres: null,
  share: null,
  amount: null,
  until: "",
  note: "",
  unit: "",
  product: "",
  filter: "",
  resident: null,
};

/** An entry with every field, as the server takes it. */
export const whole = (entry: NewEntry["entry"]): LogEntry => ({ ...BLANK, ...entry });

/** What can be done to a system's log; everything that shows a log follows. */
export function useLogbook(id: number) {
  const queries = useQueryClient();
  const done = () => {
    // The forecast takes its second: whoever enters readings does not wait for it.
    void queries.invalidateQueries({ queryKey: ["ahead"] });
    // A death is one event, whichever page it was written on.
    for (const key of ["register", "quarantine", "round"]) {
      void queries.invalidateQueries({ queryKey: [key] });
    }
    return queries.invalidateQueries(ALL_LOGS);
  };
  const params = { path: { system_id: id } };
  const add = useMutation({
    mutationFn: (entries: NewEntry[]) =>
      asked(
        client.POST("/api/systems/{system_id}/log", {
          params,
          body: {
            now: isoHere(new Date()),
            entries: entries.map(({ at, entry }) => ({ at: isoHere(at), entry: whole(entry) })),
          },
        }),
      ),
    onSuccess: done,
  });
  const change = useMutation({
    mutationFn: ({ row, at, entry }: { row: Logged } & NewEntry) =>
      asked(
        client.PUT("/api/log/{entry_id}", {
          params: { path: { entry_id: row.id } },
          body: { base: row.revision, now: isoHere(new Date()), at: isoHere(at), entry: whole(entry) },
        }),
      ),
    onSuccess: done,
  });
  const remove = useMutation({
    mutationFn: (ids: number[]) => asked(client.POST("/api/log/delete", { body: { ids } })),
    onSuccess: done,
  });
  const restore = useMutation({
    mutationFn: (ids: number[]) => asked(client.POST("/api/log/restore", { body: { ids } })),
    onSuccess: done,
  });
  return { add, change, remove, restore, done };
}

export const useKnown = () => useQuery(knownQuery).data;

import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { asked, client, type LogTable } from "@/api/client";
import { Button, Dialog } from "@/ui/controls";
import { isoHere, useLogbook } from "./log";

const EXAMPLE = `date;NO3;NO2;pH;change
03.11.2026;20;0;7,4;40 %
10.11.2026;25;0;7,4;40 %`;

/** As many letters as the server takes: fifty thousand lines of eighty. */
const MOST_LETTERS = 4_000_000;
const LONG_MS = 1500;
const LOOK_MS = 400;

/** A table pasted from a spreadsheet or read from a file: first what it is taken for, then it is kept. */
export function TableDialog({ id, close }: { id: number; close: () => void }) {
  const [text, setText] = useState("");
  const [how, setHow] = useState<How>({ order: null, changes: null });
  const [stop, setStop] = useState<AbortController | null>(null);
  const [watch] = useState(() => crypto.randomUUID());
  const { done } = useLogbook(id);
  const params = { path: { system_id: id } };
  const asking = (chosen: How) => {
    const letGo = new AbortController();
    setStop(letGo);
    const zone_min = -new Date().getTimezoneOffset();
    return {
      params,
      body: { text, ...chosen, zone_min, watch, now: isoHere(new Date()) },
      signal: letGo.signal,
    };
  };
  const look = useMutation({
    mutationFn: (chosen: How) => asked(client.POST("/api/systems/{system_id}/log/preview", asking(chosen))),
  });
  const keep = useMutation({
    mutationFn: () => asked(client.POST("/api/systems/{system_id}/log/table", asking(how))),
    onSuccess: done,
  });
  const found = keep.data ?? look.data;
  const busy = look.isPending || keep.isPending;
  const failed = [look.error, keep.error].find((cause) => cause && !isLetGo(cause));
  const tooLong = text.length > MOST_LETTERS;
  const choose = (chosen: How) => {
    setHow(chosen);
    look.mutate(chosen);
  };
  const take = (read: string) => {
    setText(read);
    look.reset();
    keep.reset();
  };
  return (
    <Dialog
      title="A table of readings"
      open
      wide
      onOpenChange={(open) => !open && close()}
      unsaved={text !== "" && !keep.data}
    >
      <p className="mb-2 text-sm text-quiet">
        A line a day with a column a test, or a table that Loquen wrote. Comma, semicolon or tab; decimal
        point or comma.
      </p>
      <input
        type="file"
        accept=".csv,.tsv,text/csv,text/plain"
        aria-label="Table file"
        onChange={(event) => void event.target.files?.[0]?.text().then(take)}
        className="mb-2 text-sm"
      />
      <textarea
        aria-label="Table"
        value={text}
        placeholder={EXAMPLE}
        rows={7}
        onChange={(event) => take(event.target.value)}
        className="num w-full rounded-sm border border-line bg-ground p-2 text-sm"
      />
      {(failed ?? tooLong) && (
        <p role="alert" className="mt-2 text-sm text-short">
          {failed?.message ??
            `It has ${text.length.toLocaleString("en")} letters; 4 million are the most at a time: split it by years.`}
        </p>
      )}
      {busy && stop && <HowFar watch={watch} stop={() => stop.abort()} />}
      {found && !busy && <Taken found={found} how={how} choose={choose} />}
      <div className="mt-3 flex gap-2">
        {!look.data && (
          <Button look="strong" disabled={!text.trim() || busy || tooLong} onClick={() => look.mutate(how)}>
            {busy ? "Reading…" : "Look at it"}
          </Button>
        )}
        {look.data && !keep.data && (
          <Button look="strong" disabled={look.data.new === 0 || busy} onClick={() => keep.mutate()}>
            {keep.isPending ? "Keeping…" : `Keep ${look.data.new} entries`}
          </Button>
        )}
        <Button onClick={close}>{keep.data ? "Done" : "Leave it"}</Button>
      </div>
    </Dialog>
  );
}

const isLetGo = (cause: Error) => cause.name === "AbortError";

/** What was chosen where a table can be read two ways. */
interface How {
  order: "day first" | "month first" | null;
  changes: "percent" | "share" | null;
}

/** How far a long table is, and a way to leave it; nothing for a short one. */
function HowFar({ watch, stop }: { watch: string; stop: () => void }) {
  const [long, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(true), LONG_MS);
    return () => clearTimeout(timer);
  }, []);
  const far = useQuery({
    queryKey: ["log", "reading", watch],
    queryFn: () => asked(client.GET("/api/log/reading/{watch}", { params: { path: { watch } } })),
    enabled: long,
    refetchInterval: LOOK_MS,
    gcTime: 0,
  });
  if (!long) return null;
  const share = Math.round(100 * (far.data?.share ?? 0));
  return (
    <p className="mt-2 flex items-center gap-3 text-sm">
      <span
        role="progressbar"
        aria-label="Read so far"
        aria-valuenow={share}
        aria-valuemin={0}
        aria-valuemax={100}
        className="h-2 flex-1 border border-line"
      >
        <span className="block h-full bg-edge" style={{ width: `${share}%` }} />
      </span>
      <span className="num w-10 text-right">{share} %</span>
      <Button look="word" onClick={stop}>
        Stop; nothing is kept
      </Button>
    </p>
  );
}

interface TakenProps {
  found: LogTable;
  how: How;
  choose: (how: How) => void;
}

/** What each column is taken for, what is new, what was there, what can not be read. */
function Taken({ found, how, choose }: TakenProps) {
  return (
    <div className="mt-3 text-sm">
      <p role="status" className="mb-2 font-semibold">
        {found.kept ? `${found.new} kept` : `${found.new} new`}, {found.there} there already
        {found.faults.length > 0 && `, ${found.faults.length} that can not be read`}.
      </p>
      {found.either_order && (
        <p className="mb-2 border-l-3 border-brass py-1 pl-3">
          The dates can be read two ways: taken as {how.order ?? "day first"}.{" "}
          <Button
            look="word"
            onClick={() =>
              choose({ ...how, order: how.order === "month first" ? "day first" : "month first" })
            }
          >
            Read them {how.order === "month first" ? "day first" : "month first"}
          </Button>
        </p>
      )}
      {found.either_change && (
        <p className="mb-2 border-l-3 border-brass py-1 pl-3">
          Every change is 1: taken as one per cent.{" "}
          <Button look="word" onClick={() => choose({ ...how, changes: "share" })}>
            It is all of the water
          </Button>
          <Button look="word" onClick={() => choose({ ...how, changes: "percent" })}>
            It is one per cent
          </Button>
        </p>
      )}
      <ul aria-label="Columns" className="mb-2 grid gap-x-6 sm:grid-cols-2">
        {found.columns.map(({ heading, taken_for }, i) => (
          <li key={i} className="flex justify-between border-b border-line/60 py-0.5">
            <span className="num">{heading || "(no heading)"}</span>
            <span className={taken_for ? "" : "text-quiet"}>{taken_for || "left out"}</span>
          </li>
        ))}
      </ul>
      {found.faults.length > 0 && (
        <ul aria-label="Not read" className="max-h-40 overflow-y-auto text-short">
          {found.faults.map(({ line, column, what }, i) => (
            <li key={i}>
              Line {line}, {column}: {what}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

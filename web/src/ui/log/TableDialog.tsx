import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, type LogTable } from "@/api/client";
import { Button, Dialog } from "@/ui/controls";
import { isoHere, useLogbook } from "./log";

type Order = "day first" | "month first";
const EXAMPLE = `date;NO3;NO2;pH;change
03.11.2026;20;0;7,4;40 %
10.11.2026;25;0;7,4;40 %`;

/** A table pasted from a spreadsheet or read from a file: first what it is taken for, then it is kept. */
export function TableDialog({ id, close }: { id: number; close: () => void }) {
  const [text, setText] = useState("");
  const [order, setOrder] = useState<Order | null>(null);
  const { done } = useLogbook(id);
  const body = () => ({ text, order, zone_min: -new Date().getTimezoneOffset(), now: isoHere(new Date()) });
  const params = { path: { system_id: id } };
  const look = useMutation({
    mutationFn: (way: Order | null) =>
      asked(client.POST("/api/systems/{system_id}/log/preview", { params, body: { ...body(), order: way } })),
  });
  const keep = useMutation({
    mutationFn: () => asked(client.POST("/api/systems/{system_id}/log/table", { params, body: body() })),
    onSuccess: done,
  });
  const found = keep.data ?? look.data;
  const choose = (way: Order) => {
    setOrder(way);
    look.mutate(way);
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
        onChange={(event) =>
          void event.target.files?.[0]?.text().then((read) => (setText(read), look.reset(), keep.reset()))
        }
        className="mb-2 text-sm"
      />
      <textarea
        aria-label="Table"
        value={text}
        placeholder={EXAMPLE}
        rows={7}
        onChange={(event) => {
          setText(event.target.value);
          look.reset();
          keep.reset();
        }}
        className="num w-full rounded-sm border border-line bg-ground p-2 text-sm"
      />
      {(look.error ?? keep.error) && (
        <p role="alert" className="mt-2 text-sm text-short">
          {(look.error ?? keep.error)?.message}
        </p>
      )}
      {found && <Taken found={found} order={order} choose={choose} />}
      <div className="mt-3 flex gap-2">
        {!look.data && (
          <Button look="strong" disabled={!text.trim() || look.isPending} onClick={() => look.mutate(order)}>
            {look.isPending ? "Reading…" : "Look at it"}
          </Button>
        )}
        {look.data && !keep.data && (
          <Button
            look="strong"
            disabled={look.data.new === 0 || keep.isPending}
            onClick={() => keep.mutate()}
          >
            {keep.isPending ? "Keeping…" : `Keep ${look.data.new} entries`}
          </Button>
        )}
        <Button onClick={close}>{keep.data ? "Done" : "Leave it"}</Button>
      </div>
    </Dialog>
  );
}

interface TakenProps {
  found: LogTable;
  order: Order | null;
  choose: (order: Order) => void;
}

/** What each column is taken for, what is new, what was there, what can not be read. */
function Taken({ found, order, choose }: TakenProps) {
  return (
    <div className="mt-3 text-sm">
      <p role="status" className="mb-2 font-semibold">
        {found.kept ? `${found.new} kept` : `${found.new} new`}, {found.there} there already
        {found.faults.length > 0 && `, ${found.faults.length} that can not be read`}.
      </p>
      {found.either_order && (
        <p className="mb-2 border-l-3 border-brass py-1 pl-3">
          The dates can be read two ways: taken as {order ?? "day first"}.{" "}
          <Button look="word" onClick={() => choose(order === "month first" ? "day first" : "month first")}>
            Read them {order === "month first" ? "day first" : "month first"}
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

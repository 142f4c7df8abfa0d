import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, Refused, type UnreadRow } from "@/api/client";
import { Button, Dialog } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";

const SHORT = 60;
const COLUMNS: Record<string, string> = {
  at: "When",
  document: "What stands in it",
  cells: "Its cells",
  due: "Due on",
  day: "Done on",
  weekdays: "Weekdays",
  hour: "Hour",
  amount: "How much",
  counted: "Counted on",
  lead_d: "Days that an order takes",
};

/** What stands in a row that can not be read, to be written as it should be. */
export function PutRightDialog({ row, close }: { row: UnreadRow; close: (saved: boolean) => void }) {
  const [columns, setColumns] = useState(row.columns);
  const keep = useMutation({
    mutationFn: () => asked(client.PUT("/api/unread", { body: { table: row.table, key: row.key, columns } })),
    onSuccess: () => close(true),
  });
  return (
    <Dialog
      title={row.words}
      open
      wide
      onOpenChange={(open) => !open && close(false)}
      unsaved={columns !== row.columns}
    >
      <p className="mb-3 border-l-3 border-short py-1 pl-3">
        <Says sentence={row.why} />
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate();
        }}
      >
        {Object.entries(columns).map(([name, text]) => {
          const change = (now: string) => setColumns({ ...columns, [name]: now });
          const look = "num mb-3 w-full rounded-sm border border-line bg-ground p-2 text-sm";
          return (
            <label key={name} className="block text-sm text-quiet">
              {COLUMNS[name] ?? name}
              {text.length > SHORT || name === "document" || name === "cells" ? (
                <textarea
                  value={text}
                  rows={6}
                  onChange={(event) => change(event.target.value)}
                  className={`${look} text-ink`}
                />
              ) : (
                <input
                  value={text}
                  onChange={(event) => change(event.target.value)}
                  className={`${look} min-h-11 text-ink`}
                />
              )}
            </label>
          );
        })}
        {keep.error && (
          <p role="alert" className="mb-3 text-short">
            {keep.error instanceof Refused ? <Says sentence={keep.error.sentence} /> : keep.error.message}
          </p>
        )}
        <div className="flex gap-2">
          <Button look="strong" type="submit" disabled={keep.isPending}>
            Keep it so
          </Button>
          <Button onClick={() => close(false)}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}

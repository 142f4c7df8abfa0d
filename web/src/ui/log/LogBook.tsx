import { useState } from "react";
import type { Logged } from "@/api/client";
import { Button } from "@/ui/controls";
import { useShortcuts } from "@/ui/shortcuts";
import { EntryDialog } from "./EntryDialog";
import { LogCharts, type Bands } from "./LogCharts";
import { LogLines } from "./LogLines";
import { ReadingDialog } from "./ReadingDialog";
import { TableDialog } from "./TableDialog";

interface LogBookProps {
  id: number;
  log?: Logged[];
  error: Error | null;
  /** What was forecast of a measure, drawn behind its readings. */
  bands?: Bands;
}

/** A system's log: what was read as bars over time, and every line of it. */
export function LogBook({ id, log, error, bands }: LogBookProps) {
  const [open, setOpen] = useState<"reading" | "entry" | "table" | null>(null);
  const close = () => setOpen(null);
  useShortcuts({ r: () => setOpen("reading") });
  return (
    <>
      <p className="mb-4 flex flex-wrap gap-2">
        <Button look="strong" onClick={() => setOpen("reading")}>
          Enter readings
        </Button>
        <Button onClick={() => setOpen("entry")}>Something was done</Button>
        <Button onClick={() => setOpen("table")}>From a table</Button>
        <a
          href={`/api/systems/${id}/log.csv`}
          download
          className="inline-flex min-h-9 items-center px-1.5 text-sm font-semibold text-edge-deep hover:underline"
        >
          As a table
        </a>
      </p>
      {error && (
        <p role="alert" className="mb-3 text-short">
          {error.message}
        </p>
      )}
      {!log && !error && <p className="text-quiet">Opening…</p>}
      {log && (
        <>
          <LogCharts log={log} bands={bands} />
          <LogLines id={id} log={log} />
        </>
      )}
      {open === "reading" && <ReadingDialog id={id} log={log ?? []} close={close} />}
      {open === "entry" && <EntryDialog id={id} close={close} />}
      {open === "table" && <TableDialog id={id} close={close} />}
    </>
  );
}

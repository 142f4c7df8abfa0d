import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, Refused } from "@/api/client";
import { watersQuery } from "@/api/queries";
import { Button, Dialog } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { textOf } from "./model";

const EXAMPLE = `parameter,value,unit
name,Our tap,
total hardness,160,mg/L CaCO3
carbonate hardness,5,dKH
nitrate,11,mg/L NO3
conductivity,455,uS/cm`;

/** A water company's report, pasted or read from a file; every line that can not be read is named. */
export function ReportDialog({ close }: { close: () => void }) {
  const [text, setText] = useState("");
  const queries = useQueryClient();
  const reading = useMutation({
    mutationFn: () => asked(client.POST("/api/waters/from-report", { body: { text } })),
    onSuccess: async () => {
      await queries.invalidateQueries(watersQuery);
      close();
    },
  });
  const faults = reading.error instanceof Refused ? (reading.error.fault?.fields ?? []) : [];
  return (
    <Dialog title="From a report" open onOpenChange={(open) => !open && close()} unsaved={text.trim() !== ""}>
      <p className="mb-2 text-sm text-quiet">
        One parameter a line: parameter, value, unit. Hardness in dGH, dKH or mg/L CaCO3, nitrate as NO3 or N.
      </p>
      <input
        type="file"
        accept=".csv,text/csv,text/plain"
        aria-label="Report file"
        onChange={(event) =>
          void event.target.files?.[0]?.arrayBuffer().then((bytes) => setText(textOf(bytes)))
        }
        className="mb-2 text-sm"
      />
      <textarea
        aria-label="Report"
        value={text}
        placeholder={EXAMPLE}
        rows={9}
        onChange={(event) => setText(event.target.value)}
        className="num w-full rounded-sm border border-line bg-ground p-2 text-sm"
      />
      {reading.isError && (
        <div role="alert" className="mt-2 text-sm text-short">
          <p>
            {reading.error instanceof Refused && reading.error.fault
              ? "Not read yet:"
              : reading.error.message}
          </p>
          <ul>
            {faults.map((fault) => (
              <li key={fault.path}>
                {fault.path.startsWith("line") && `${fault.path[0]!.toUpperCase()}${fault.path.slice(1)}: `}
                <Says sentence={fault.sentence} />
              </li>
            ))}
          </ul>
        </div>
      )}
      <div className="mt-3 flex gap-2">
        <Button look="strong" disabled={!text.trim() || reading.isPending} onClick={() => reading.mutate()}>
          Read it
        </Button>
        <Button onClick={close}>Leave it</Button>
      </div>
    </Dialog>
  );
}

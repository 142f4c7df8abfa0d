import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { asked, client, Refused, type KindShown } from "@/api/client";
import { Button, Dialog, Select } from "@/ui/controls";
import { Row } from "@/ui/fields/Row";
import { Says } from "@/ui/figures/Says";
import type { Editing } from "./LibraryPage";

interface RowDialogProps {
  shown: KindShown;
  editing: Editing;
  saved: () => void;
  close: () => void;
}

type Column = KindShown["columns"][number];
/** Stands for an empty cell: a list has no empty choice. */
const NONE = "-";

/** Every column of a row of one's own, a fault beside its field; where the values are from has to be said. */
export function RowDialog({ shown, editing, saved, close }: RowDialogProps) {
  const [cells, setCells] = useState(editing.cells);
  const saving = useMutation({
    mutationFn: () => {
      const body = { cells: Object.fromEntries(Object.entries(cells).filter(([name]) => name !== "key")) };
      const { kind } = shown;
      if (editing.key === null)
        return asked(client.POST("/api/own/{kind}", { params: { path: { kind } }, body }));
      const params = { path: { kind, key: editing.key } };
      return asked(client.PUT("/api/own/{kind}/{key}", { params, body }));
    },
    onSuccess: saved,
  });
  const faults = saving.error instanceof Refused ? (saving.error.fault?.fields ?? []) : [];
  const whole = faults.find(({ path }) => path === "");
  const unsaved = Object.entries(cells).some(([name, text]) => text !== editing.cells[name]);
  return (
    <Dialog
      title={editing.key === null ? "A row of your own" : "Change your row"}
      open
      wide
      onOpenChange={(open) => !open && close()}
      unsaved={unsaved}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          saving.mutate();
        }}
      >
        <div className="grid gap-x-7 md:grid-cols-2">
          {shown.columns.map((column) => (
            <Cell
              key={column.name}
              column={column}
              text={cells[column.name] ?? ""}
              type={(text) => setCells((now) => ({ ...now, [column.name]: text }))}
              fault={faults.find(({ path }) => path === column.name)}
            />
          ))}
        </div>
        <p className="mt-4 flex flex-wrap items-center gap-3">
          <Button look="strong" type="submit" disabled={saving.isPending}>
            Save
          </Button>
          {saving.error && (
            <span role="alert" className="text-short">
              {whole ? <Says sentence={whole.sentence} /> : saving.error.message}
            </span>
          )}
        </p>
      </form>
    </Dialog>
  );
}

function Cell({
  column,
  text,
  type,
  fault,
}: {
  column: Column;
  text: string;
  type: (text: string) => void;
  fault?: { sentence: React.ComponentProps<typeof Says>["sentence"] };
}) {
  const id = useId();
  const words = column.label;
  const told = fault && (
    <span id={`${id}-fault`} role="alert" className="block text-sm text-short">
      <Says sentence={fault.sentence} />
    </span>
  );
  if (column.choices.length > 0)
    return (
      <Row label={words} told={told}>
        <Select
          label={words}
          value={column.empty ? text || NONE : text}
          options={[
            ...(column.empty ? ([[NONE, "not known"]] as [string, string][]) : []),
            ...column.choices.map((choice): [string, string] => [choice, choice.replaceAll("_", " ")]),
          ]}
          onChange={(chosen) => type(chosen === NONE ? "" : chosen)}
        />
      </Row>
    );
  return (
    <Row id={id} label={words} told={told}>
      <span className="flex items-center gap-2">
        <input
          id={id}
          value={text}
          aria-invalid={Boolean(fault)}
          aria-describedby={fault ? `${id}-fault` : undefined}
          onChange={(event) => type(event.target.value)}
          className={`min-h-8 rounded-sm border bg-paper px-2 pointer-coarse:min-h-11 ${fault ? "border-short" : "border-line hover:border-edge"} ${column.number ? "num w-24 text-right" : "w-44"}`}
        />
        {column.number && <span className="num w-12 text-sm text-quiet">{column.unit}</span>}
      </span>
    </Row>
  );
}

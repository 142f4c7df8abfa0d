import { ArrowDown, ArrowUp } from "lucide-react";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { Button, Dialog } from "@/ui/controls";

interface Placed {
  id: number;
  name: string;
}

/** The order in which one walks: drawn to its place, or moved by its arrows. */
export function WalkDialog({
  systems,
  close,
  saved,
}: {
  systems: Placed[];
  close: () => void;
  saved: () => void;
}) {
  const [rows, setRows] = useState(systems);
  const [dragged, setDragged] = useState<number | null>(null);
  const move = (from: number, to: number) => {
    if (to < 0 || to >= rows.length) return;
    const rest = rows.toSpliced(from, 1);
    setRows(rest.toSpliced(to, 0, rows[from]!));
  };
  const save = () =>
    void asked(client.PUT("/api/round/order", { body: { systems: rows.map(({ id }) => id) } })).then(() => {
      saved();
      close();
    });
  return (
    <Dialog title="The order of the walk" open onOpenChange={close}>
      <ol className="mb-4">
        {rows.map((row, at) => (
          // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- its arrows do the same
          <li
            key={row.id}
            draggable
            onDragStart={() => setDragged(at)}
            onDragOver={(event) => {
              event.preventDefault();
              if (dragged !== null && dragged !== at) {
                move(dragged, at);
                setDragged(at);
              }
            }}
            onDragEnd={() => setDragged(null)}
            className={`flex cursor-grab items-center gap-2 border-b border-line/60 ${dragged === at ? "bg-water" : ""}`}
          >
            <span className="num w-6 text-right text-sm text-quiet">{at + 1}</span>
            <span className="min-w-0 flex-1">{row.name}</span>
            <button
              type="button"
              aria-label={`${row.name} earlier`}
              disabled={at === 0}
              onClick={() => move(at, at - 1)}
              className="grid size-10 place-items-center text-quiet hover:text-ink disabled:opacity-35 pointer-coarse:size-11"
            >
              <ArrowUp size={16} />
            </button>
            <button
              type="button"
              aria-label={`${row.name} later`}
              disabled={at === rows.length - 1}
              onClick={() => move(at, at + 1)}
              className="grid size-10 place-items-center text-quiet hover:text-ink disabled:opacity-35 pointer-coarse:size-11"
            >
              <ArrowDown size={16} />
            </button>
          </li>
        ))}
      </ol>
      <Button look="strong" onClick={save}>
        Keep this order
      </Button>
    </Dialog>
  );
}

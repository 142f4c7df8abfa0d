import { clock } from "@/lib/shown/days";
import { useQuery } from "@tanstack/react-query";
import { MoreHorizontal } from "lucide-react";
import { useState } from "react";
import { asked, client, Refused, type Logged } from "@/api/client";
import { moment } from "@/lib/shown/moments";
import { Button, Dialog, Menu } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { EntryDialog } from "./EntryDialog";
import { useKnown, useLogbook } from "./log";
import { dayWords, entryWords } from "./words";

interface LinesProps {
  id: number;
  /** Oldest first, as the log is kept. */
  log: Logged[];
  shown?: number;
}

/** The log day by day, the newest first; each line can be put right, taken out and brought back. */
export function LogLines({ id, log, shown = 60 }: LinesProps) {
  const known = useKnown();
  const units = useUnits();
  const { remove, restore } = useLogbook(id);
  const [editing, setEditing] = useState<Logged | null>(null);
  const [was, setWas] = useState<Logged | null>(null);
  const [gone, setGone] = useState<Logged[]>([]);
  const [marked, setMarked] = useState<number[]>([]);
  const [most, setMost] = useState(shown);
  if (!known) return null;
  const newest = [...log].reverse();
  const takeOut = (rows: Logged[]) =>
    remove.mutate(
      rows.map((row) => row.id),
      {
        onSuccess: () => {
          setGone(rows);
          setMarked([]);
        },
      },
    );
  return (
    <section aria-label="Entries">
      {gone.length > 0 && (
        <p role="status" className="mb-2 border-l-3 border-brass py-1 pl-3">
          {gone.length === 1 ? entryWords(gone[0]!, known, units) : `${gone.length} entries`} taken out.{" "}
          <Button
            look="word"
            onClick={() =>
              restore.mutate(
                gone.map((row) => row.id),
                { onSuccess: () => setGone([]) },
              )
            }
          >
            Undo
          </Button>
        </p>
      )}
      {remove.error instanceof Refused && (
        <p role="alert" className="mb-2 text-sm text-short">
          {remove.error.message}
        </p>
      )}
      {marked.length > 0 && (
        <p className="mb-2 flex items-center gap-3">
          <Button onClick={() => takeOut(log.filter((row) => marked.includes(row.id)))}>
            Take out {marked.length}
          </Button>
          <Button look="word" onClick={() => setMarked([])}>
            none of them
          </Button>
        </p>
      )}
      {log.length === 0 && <p className="text-quiet">Nothing is written down yet.</p>}
      <ol>
        {newest.slice(0, most).map((row, i) => {
          const day = dayWords(row.at);
          const words = entryWords(row, known, units);
          const before = newest[i - 1];
          return (
            <li key={row.id}>
              {(!before || dayWords(before.at) !== day) && (
                <h4 className="mt-3 text-sm font-semibold">{day}</h4>
              )}
              <span className="flex items-center gap-2 border-b border-line/60">
                <input
                  type="checkbox"
                  aria-label={`Mark ${words}`}
                  checked={marked.includes(row.id)}
                  onChange={() =>
                    setMarked(
                      marked.includes(row.id) ? marked.filter((n) => n !== row.id) : [...marked, row.id],
                    )
                  }
                  className="size-4 accent-edge"
                />
                <span className="num min-w-[5ch] text-sm text-quiet">
                  {row.whole_day ? "" : clock(new Date(row.at))}
                </span>
                <span className="min-w-0 flex-1 py-1">{words}</span>
                <Menu
                  label={`More for ${words}`}
                  trigger={<MoreHorizontal size={16} />}
                  items={[
                    { words: "Put right", run: () => setEditing(row) },
                    { words: "What it was", run: () => setWas(row) },
                    { words: "Take out", run: () => takeOut([row]) },
                  ]}
                />
              </span>
            </li>
          );
        })}
      </ol>
      {newest.length > most && (
        <Button className="mt-3" onClick={() => setMost(most + 200)}>
          Further back: {newest.length - most}
        </Button>
      )}
      {editing && <EntryDialog id={id} row={editing} close={() => setEditing(null)} />}
      {was && <Was row={was} close={() => setWas(null)} />}
    </section>
  );
}

function Was({ row, close }: { row: Logged; close: () => void }) {
  const known = useKnown();
  const units = useUnits();
  const history = useQuery({
    queryKey: ["log", "was", row.id, row.revision],
    queryFn: () =>
      asked(client.GET("/api/log/{entry_id}/history", { params: { path: { entry_id: row.id } } })),
  });
  return (
    <Dialog title="What it was" open onOpenChange={(open) => !open && close()}>
      <ol>
        {known &&
          history.data?.map((older) => (
            <li key={older.number} className="flex justify-between gap-4 border-b border-line/60 py-1.5">
              <span>{entryWords({ ...row, entry: older.entry, at: older.at }, known, units)}</span>
              <span className="text-sm text-quiet">written {moment(older.saved)}</span>
            </li>
          ))}
      </ol>
    </Dialog>
  );
}

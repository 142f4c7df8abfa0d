import { moment } from "@/lib/shown/moments";
import { Button } from "./controls";

interface PutAwayProps {
  rows: { id: number; name: string; deleted: string }[];
  restore: (id: number) => void;
}

/** What was deleted is kept, out of the way, and can be brought back. */
export function PutAway({ rows, restore }: PutAwayProps) {
  if (rows.length === 0) return null;
  return (
    <details className="mt-8">
      <summary className="min-h-9 cursor-pointer text-quiet pointer-coarse:min-h-11">
        Deleted, and kept: {rows.length}
      </summary>
      <ul aria-label="Deleted" className="border-t border-line">
        {rows.map((row) => (
          <li key={row.id} className="flex flex-wrap items-center gap-x-4 border-b border-line py-1.5">
            <span className="min-w-0 flex-1">{row.name}</span>
            <span className="text-sm text-quiet">deleted {moment(row.deleted)}</span>
            <Button aria-label={`Bring back ${row.name}`} onClick={() => restore(row.id)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { asked, client, type KindShown, type LibraryRow } from "@/api/client";
import { ALL_SYSTEMS, libraryQuery, ownQuery } from "@/api/queries";
import { Button } from "@/ui/controls";
import { RowDialog } from "./RowDialog";
import { Unread } from "@/ui/unread/Unread";

const MOST_SHOWN = 60;

/** A row being written: its key when it is one's own already, none when it starts from a copy. */
export interface Editing {
  key: string | null;
  cells: Record<string, string>;
}

/** What ships and what is one's own, kind by kind: any row is copied, one's own are changed and taken out. */
export function LibraryPage() {
  const kinds = useQuery(ownQuery);
  const [kind, setKind] = useState("species");
  const shown = kinds.data?.kinds.find((row) => row.kind === kind);
  return (
    <main className="px-4 pt-3 pb-10 sm:px-6">
      <header className="mb-3 flex min-h-9 flex-wrap items-center gap-3 pr-44">
        <h1 className="text-xl font-semibold">Library</h1>
      </header>
      <Unread place="library" />
      <p className="mb-4 max-w-prose text-quiet">
        Copy a row and make it yours: it can be chosen in every system at once, goes along with a plan, and no
        update touches it.
      </p>
      <div role="group" aria-label="Kind of row" className="mb-4 flex flex-wrap gap-1">
        {kinds.data?.kinds.map((row) => (
          <button
            key={row.kind}
            type="button"
            aria-pressed={row.kind === kind}
            onClick={() => setKind(row.kind)}
            className="min-h-9 rounded-sm border border-transparent px-2 text-quiet hover:border-line aria-pressed:bg-edge aria-pressed:font-semibold aria-pressed:text-ground pointer-coarse:min-h-11"
          >
            {row.label} <span className="num text-sm">{row.rows.length}</span>
          </button>
        ))}
      </div>
      {kinds.isPending && <p className="text-quiet">Opening…</p>}
      {kinds.isError && (
        <p role="alert" className="text-short">
          {kinds.error.message}{" "}
          <Button look="word" onClick={() => void kinds.refetch()}>
            Try again
          </Button>
        </p>
      )}
      {shown && <Rows key={kind} shown={shown} />}
    </main>
  );
}

function Rows({ shown }: { shown: KindShown }) {
  const [typed, setTyped] = useState("");
  const find = useDeferredValue(typed.trim().toLowerCase());
  const [editing, setEditing] = useState<Editing | null>(null);
  const renew = useRenew();
  const remove = useMutation({
    mutationFn: (key: string) =>
      asked(client.DELETE("/api/own/{kind}/{key}", { params: { path: { kind: shown.kind, key } } })),
    onSuccess: (_, key) => {
      setGone(shown.rows.find((row) => row.key === key) ?? null);
      return renew();
    },
  });
  const [gone, setGone] = useState<LibraryRow | null>(null);
  const bringBack = useMutation({
    mutationFn: (row: LibraryRow) =>
      asked(
        client.POST("/api/own/{kind}", {
          params: { path: { kind: shown.kind } },
          body: { cells: row.cells },
        }),
      ),
    onSuccess: () => {
      setGone(null);
      return renew();
    },
  });
  const found = shown.rows.filter((row) =>
    `${row.name} ${row.cells.scientific ?? ""} ${row.cells.aliases ?? ""}`.toLowerCase().includes(find),
  );
  const failed = remove.error ?? bringBack.error;
  const copy = (row: LibraryRow): Editing => ({
    key: null,
    cells: { ...row.cells, source: row.own ? (row.cells.source ?? "") : "" },
  });
  return (
    <>
      <p className="mb-3">
        <Button onClick={() => setEditing({ key: null, cells: blank(shown) })}>Start one from nothing</Button>
      </p>
      <label className="mb-3 flex max-w-md items-center gap-3">
        <span className="text-quiet">Find</span>
        <input
          aria-label="Find a row"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          className="min-h-9 w-full rounded-sm border border-line bg-paper px-2 pointer-coarse:min-h-11"
        />
      </label>
      {gone && (
        <p role="status" className="mb-3 border-l-3 border-brass py-1 pl-3">
          {gone.name} is taken out.{" "}
          <Button look="word" onClick={() => bringBack.mutate(gone)}>
            Undo
          </Button>
        </p>
      )}
      {failed && (
        <p role="alert" className="mb-3 text-short">
          {failed.message}
        </p>
      )}
      <ul aria-label={shown.label} className="max-w-3xl border-t border-line">
        {found.slice(0, MOST_SHOWN).map((row) => (
          <li key={row.key} className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1.5">
            <span className="min-w-0 flex-1">
              <span className={row.own ? "font-semibold" : ""}>{row.name}</span>{" "}
              <i className="text-sm text-quiet">{row.cells.scientific}</i>
              {row.own && <span className="text-sm text-brass"> yours · {row.cells.source}</span>}
            </span>
            {row.own && (
              <>
                <Button
                  look="word"
                  aria-label={`Change ${row.name}`}
                  onClick={() => setEditing({ key: row.key, cells: row.cells })}
                >
                  change
                </Button>
                <Button
                  look="word"
                  aria-label={`Take out ${row.name}`}
                  onClick={() => remove.mutate(row.key)}
                >
                  take out
                </Button>
              </>
            )}
            <Button look="word" aria-label={`Copy ${row.name}`} onClick={() => setEditing(copy(row))}>
              copy
            </Button>
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="mt-3 text-quiet">No such row.</p>}
      {found.length > MOST_SHOWN && (
        <p className="mt-2 text-sm text-quiet">{found.length - MOST_SHOWN} more: type to find them.</p>
      )}
      {editing && (
        <RowDialog
          shown={shown}
          editing={editing}
          saved={() => {
            setEditing(null);
            void renew();
          }}
          close={() => setEditing(null)}
        />
      )}
    </>
  );
}

/** A row with nothing in it but what is no until it is said. */
const blank = ({ columns }: KindShown) =>
  Object.fromEntries(columns.map(({ name, choices }) => [name, choices.includes("no") ? "no" : ""]));

/** After a change of one's own rows, everything that was made with them is asked anew. */
function useRenew() {
  const queries = useQueryClient();
  return async () => {
    await queries.invalidateQueries(ownQuery);
    await queries.invalidateQueries(libraryQuery);
    await queries.invalidateQueries(ALL_SYSTEMS);
  };
}

import { useInfiniteQuery, useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { asked, client, type SystemsOrder } from "@/api/client";
import { ALL_SYSTEMS, systemsQuery } from "@/api/queries";
import { draftsKept } from "@/lib/document/drafts";
import { Button } from "@/ui/controls";
import { useInView } from "@/ui/useInView";
import { BringIn } from "./BringIn";
import { Deleted } from "./Deleted";
import { Finding } from "./Finding";
import { StartDialog } from "./start/StartDialog";
import { SystemRow } from "./SystemRow";

const UNTIL_KNOWN_MS = 2500;

/** Every system with its section and its glasses: found by words, ordered, and given part by part. */
export function SystemsPage() {
  const [typed, setTyped] = useState("");
  const [order, setOrder] = useState<SystemsOrder>("started");
  const find = useDeferredValue(typed.trim());
  const systems = useInfiniteQuery({
    ...systemsQuery(find, order),
    placeholderData: (before) => before,
    // How many fall short is known once the server has looked at all of them.
    refetchInterval: ({ state }) => (state.data?.pages[0]?.short === null ? UNTIL_KNOWN_MS : false),
  });
  const [starting, setStarting] = useState(false);
  const [done, setDone] = useState<{ what: "deleted" | "copied"; id: number; name: string } | null>(null);
  const changing = useChanges();
  const drafts = useMemo(() => draftsKept(), []);
  const parts = systems.data?.pages ?? [];
  const [first] = parts;
  return (
    <main className="px-4 pt-3 pb-10 sm:px-6">
      <header className="mb-2 flex min-h-9 flex-wrap items-center gap-4 pr-44">
        <h1 className="text-xl font-semibold">Systems</h1>
        <Button look="strong" onClick={() => setStarting(true)}>
          New system
        </Button>
        <BringIn />
      </header>
      {done && (
        <p role="status" className="mb-4 border-l-3 border-brass py-1 pl-3">
          {done.what === "deleted" ? `${done.name} is deleted. ` : `There is a copy of ${done.name} now. `}
          <Button
            look="word"
            onClick={() =>
              changing.mutate([done.what === "deleted" ? "restore" : "delete", done.id], {
                onSuccess: () => setDone(null),
              })
            }
          >
            Undo
          </Button>
          {done.what === "copied" && (
            <Link
              to="/systems/$id/$stage"
              params={{ id: String(done.id), stage: "animals" }}
              className="ml-1 font-semibold text-edge-deep underline"
            >
              Open it
            </Link>
          )}
        </p>
      )}
      {(systems.isError || changing.isError) && (
        <p role="alert" className="mb-4 text-short">
          {(systems.error ?? changing.error)?.message}{" "}
          <Button look="word" onClick={() => void systems.refetch()}>
            Try again
          </Button>
        </p>
      )}
      {first && first.total > 0 && (
        <Finding part={first} typed={typed} type={setTyped} order={order} turn={setOrder} />
      )}
      {systems.isPending && <p className="text-quiet">Opening…</p>}
      {first?.total === 0 && (
        <p className="max-w-prose">
          No system yet. Start one from the animals you want to keep, or from the glass you have.
        </p>
      )}
      <ul aria-label="Systems" aria-busy={systems.isFetching} className="border-t border-line">
        {parts.flatMap((part, p) =>
          part.lines.flatMap((line, i) => [
            part.headings[i] !== undefined && (
              <li key={`${p}-${i}`} className="pt-5 pb-1">
                <h2 className="font-semibold text-quiet">{part.headings[i]}</h2>
              </li>
            ),
            <SystemRow
              key={line.id}
              line={line}
              unsaved={drafts.has(`system.${line.id}@${line.created}`)}
              copy={() =>
                changing.mutate(["copy", line.id], {
                  onSuccess: (id) => setDone({ what: "copied", id, name: line.name }),
                })
              }
              remove={() =>
                changing.mutate(["delete", line.id], {
                  onSuccess: (id) => setDone({ what: "deleted", id, name: line.name }),
                })
              }
            />,
          ]),
        )}
      </ul>
      {systems.hasNextPage && (
        <More
          key={parts.length}
          busy={systems.isFetchingNextPage}
          ask={() => void systems.fetchNextPage({ cancelRefetch: false })}
        />
      )}
      <Deleted restore={(id) => changing.mutate(["restore", id])} />
      <StartDialog open={starting} onOpenChange={setStarting} />
    </main>
  );
}

/** Asks for the next part as soon as the end of this one comes near; a button for whoever does not scroll. */
function More({ busy, ask }: { busy: boolean; ask: () => void }) {
  const [element, inView] = useInView<HTMLParagraphElement>();
  useEffect(() => {
    if (inView) ask();
    // Asked once for each part: the next one has an end of its own.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [inView]);
  return (
    <p ref={element} className="py-4">
      <Button disabled={busy} onClick={ask}>
        {busy ? "Reading more…" : "Show more"}
      </Button>
    </p>
  );
}

type Change = ["copy" | "delete" | "restore", number];

function useChanges() {
  const queries = useQueryClient();
  return useMutation({
    /** The system that it was done to, or that came of it. */
    mutationFn: async ([what, id]: Change): Promise<number> => {
      const params = { path: { system_id: id } };
      const one = { params: { path: { number: id } } };
      if (what === "copy") return (await asked(client.POST("/api/systems/{system_id}/copy", { params }))).id;
      if (what === "delete") await asked(client.DELETE("/api/systems/{number}", one));
      else await asked(client.POST("/api/systems/{number}/restore", one));
      return id;
    },
    // Not waited for: what was done, and its undo, is said before the list is another.
    onSettled: () => void queries.invalidateQueries(ALL_SYSTEMS),
  });
}

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { asked, client, type Revision } from "@/api/client";
import { ALL_SYSTEMS, historyQuery } from "@/api/queries";
import { moment } from "@/lib/shown/moments";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";

/** A plan that can not be read: why, what was stored to take away, and every revision that can be put back. */
export function Unreadable({ id, read }: { id: number; read: () => void }) {
  const history = useQuery(historyQuery(id));
  const queries = useQueryClient();
  const putBack = useMutation({
    mutationFn: (number: number) =>
      asked(
        client.POST("/api/systems/{system_id}/put-back", {
          params: { path: { system_id: id } },
          body: { base: history.data?.current ?? 0, number },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries(ALL_SYSTEMS);
      read();
    },
  });
  const found = history.data;
  if (!found)
    return <main className="p-8 text-quiet">{history.isError ? history.error.message : "Opening…"}</main>;
  const stored = found.revisions.some(({ number }) => number === found.current);
  return (
    <main className="max-w-3xl px-4 pt-3 pb-10 sm:px-6">
      <h1 className="mb-1 pr-44 text-xl font-semibold">{found.name}</h1>
      <p className="mb-1 text-lg">This plan can not be read. Nothing of it was changed or thrown away.</p>
      {found.why && (
        <p className="mb-3 border-l-3 border-short py-1 pl-3">
          <Says sentence={found.why} />
        </p>
      )}
      {stored && (
        <p className="mb-5">
          <a href={raw(id, found.current)} download className="font-semibold text-edge-deep underline">
            Take away what is stored, as JSON
          </a>
        </p>
      )}
      <h2 className="mb-1 font-semibold">Its revisions</h2>
      <p className="mb-2 text-sm text-quiet">
        One that can be read can be put back: it is saved anew on top, and this one stays in the history.
      </p>
      {putBack.isError && (
        <p role="alert" className="mb-2 text-short">
          {putBack.error.message}
        </p>
      )}
      <ul aria-label="Revisions" className="border-t border-line">
        {found.revisions.map((revision) => (
          <Line
            key={revision.number}
            id={id}
            revision={revision}
            current={revision.number === found.current}
            putBack={() => putBack.mutate(revision.number)}
          />
        ))}
      </ul>
      {found.count > found.revisions.length && (
        <p className="mt-2 text-sm text-quiet">
          {found.count - found.revisions.length} older ones are kept too.
        </p>
      )}
      <p className="mt-6">
        <Link to="/systems" className="font-semibold text-edge-deep underline">
          All systems
        </Link>
      </p>
    </main>
  );
}

const raw = (id: number, number: number) => `/api/systems/${id}/revisions/${number}`;

interface LineProps {
  id: number;
  revision: Revision;
  current: boolean;
  putBack: () => void;
}

function Line({ id, revision, current, putBack }: LineProps) {
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-1.5">
      <span className="w-28">
        revision <span className="num">{revision.number}</span>
      </span>
      <span className="flex-1 text-sm text-quiet">
        saved {moment(revision.saved)}
        {current && ", the one that can not be read"}
        {revision.why && !current && (
          <span className="block text-short">
            <Says sentence={revision.why} />
          </span>
        )}
      </span>
      <a href={raw(id, revision.number)} download className="text-sm text-edge-deep underline">
        JSON
      </a>
      {!revision.why && <Button onClick={putBack}>Put back revision {revision.number}</Button>}
    </li>
  );
}

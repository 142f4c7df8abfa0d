import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, type UnreadPlace, type UnreadRow } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { Told } from "@/ui/Told";
import { PutRightDialog } from "./PutRightDialog";

interface UnreadProps {
  place: UnreadPlace;
  /** Of one system's log alone. */
  system?: number;
}

/** What of a page is kept and can not be read: each row with its text, to be put right or set aside. Nothing where all can. */
export function Unread({ place, system }: UnreadProps) {
  const queries = useQueryClient();
  const found = useQuery({
    queryKey: ["unread", place, system],
    queryFn: () => asked(client.GET("/api/unread", { params: { query: { place, system } } })),
  });
  const [mending, setMending] = useState<UnreadRow | null>(null);
  const renew = () => queries.invalidateQueries();
  const aside = useMutation({
    mutationFn: ({ table, key }: UnreadRow) =>
      asked(client.POST("/api/unread/aside", { body: { table, key } })),
    onSuccess: renew,
  });
  const back = useMutation({
    mutationFn: (number: number) =>
      asked(client.POST("/api/unread/aside/{number}/restore", { params: { path: { number } } })),
    onSuccess: () => {
      aside.reset();
      return renew();
    },
  });
  const rows = found.data?.rows ?? [];
  const failed = aside.error ?? back.error;
  if (rows.length === 0 && !aside.data) return null;
  return (
    <section aria-label="What can not be read" className="mb-5">
      {failed && (
        <p role="alert" className="mb-2 text-short">
          {failed.message}
        </p>
      )}
      {aside.data && <Told words="Set aside, whole." undo={() => back.mutate(aside.data.number)} />}
      {rows.length > 0 && (
        <>
          <p className="mb-1 font-semibold">
            {found.data?.count === 1 ? "One row here" : `${found.data?.count} rows here`} can not be read. All
            else on this page is as it is kept.
          </p>
          <ul className="border-t border-line">
            {rows.map((row) => (
              <li key={row.table + row.key} className="border-b border-line py-2">
                <p>
                  {row.words}: <Says sentence={row.why} />
                </p>
                <p className="num max-h-24 overflow-auto text-sm break-all whitespace-pre-wrap text-quiet">
                  {Object.values(row.columns).join("  ")}
                </p>
                <span className="flex flex-wrap gap-x-4">
                  <Button look="word" onClick={() => setMending(row)}>
                    Put it right
                  </Button>
                  <Button look="word" disabled={aside.isPending} onClick={() => aside.mutate(row)}>
                    Set it aside
                  </Button>
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      {mending && (
        <PutRightDialog
          row={mending}
          close={(saved) => {
            setMending(null);
            if (saved) void renew();
          }}
        />
      )}
    </section>
  );
}

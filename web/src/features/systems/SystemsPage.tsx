import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { MoreHorizontal } from "lucide-react";
import { useState } from "react";
import { asked, client, type SystemLine } from "@/api/client";
import { systemsQuery } from "@/api/queries";
import { Button, Menu } from "@/ui/controls";
import { SmallGlasses } from "@/ui/Glasses";
import { Says } from "@/ui/Says";
import { SectionDrawing } from "@/ui/section/SectionDrawing";
import { StartDialog } from "./StartDialog";

/** Every system with its section and its glasses. */
export function SystemsPage() {
  const systems = useQuery(systemsQuery);
  const [starting, setStarting] = useState(false);
  const [put, setPut] = useState<{ id: number; name: string } | null>(null);
  const changing = useChanges();
  const lines = systems.data;
  return (
    <main className="px-4 pt-3 pb-10 sm:px-6">
      <header className="mb-5 flex min-h-9 flex-wrap items-center gap-4 pr-44">
        <h1 className="text-xl font-semibold">Systems</h1>
        <Button look="strong" onClick={() => setStarting(true)}>
          New system
        </Button>
      </header>
      {put && (
        <p role="status" className="mb-4 border-l-3 border-brass py-1 pl-3">
          {put.name} is deleted.{" "}
          <Button
            look="word"
            onClick={() => changing.mutate(["restore", put.id], { onSuccess: () => setPut(null) })}
          >
            Undo
          </Button>
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
      {lines?.length === 0 && (
        <p className="max-w-prose">
          No system yet. Start one from the animals you want to keep, or from the glass you have.
        </p>
      )}
      <ul className="border-t border-line">
        {lines?.map((line) => (
          <Line
            key={line.id}
            line={line}
            copy={() => changing.mutate(["copy", line.id])}
            remove={() =>
              changing.mutate(["delete", line.id], {
                onSuccess: () => setPut({ id: line.id, name: line.name }),
              })
            }
          />
        ))}
      </ul>
      <StartDialog open={starting} onOpenChange={setStarting} />
    </main>
  );
}

type Change = ["copy" | "delete" | "restore", number];

function useChanges() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ([what, id]: Change): Promise<unknown> => {
      const params = { path: { system_id: id } };
      if (what === "copy") return asked(client.POST("/api/systems/{system_id}/copy", { params }));
      if (what === "delete") return asked(client.DELETE("/api/systems/{system_id}", { params }));
      return asked(client.POST("/api/systems/{system_id}/restore", { params }));
    },
    onSettled: () => queries.invalidateQueries({ queryKey: systemsQuery.queryKey }),
  });
}

function Line({ line, copy, remove }: { line: SystemLine; copy: () => void; remove: () => void }) {
  return (
    <li className="flex items-center gap-4 border-b border-line py-4">
      <Link
        to="/systems/$id/$stage"
        params={{ id: String(line.id), stage: "animals" }}
        className="group grid min-w-0 flex-1 items-center gap-x-8 gap-y-3 sm:grid-cols-[250px_1fr]"
      >
        <SectionDrawing section={line.section} className="h-24 w-full max-w-62" />
        <div className="min-w-0">
          <h2 className="text-lg font-semibold group-hover:text-edge-deep group-hover:underline">
            {line.name}
          </h2>
          <p className="mb-2 text-sm text-quiet">
            <Says sentence={line.summary} />
          </p>
          <SmallGlasses glasses={line.glasses} />
        </div>
      </Link>
      <Menu
        label={`More for ${line.name}`}
        trigger={<MoreHorizontal size={18} />}
        items={[
          { words: "Copy", run: copy },
          { words: "Delete", run: remove },
        ]}
      />
    </li>
  );
}

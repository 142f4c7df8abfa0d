import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, type Plan, type Variant } from "@/api/client";
import { variantsQuery } from "@/api/queries";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { usePlan, usePlanInUse, useSession } from "../../context";
import { Beside } from "./Beside";

/** Other ways this system could be built, kept under names: side by side with the one that stands, either adopted. */
export function VariantsStage() {
  const { session } = usePlanInUse();
  const id = useSession((state) => state.id);
  const plan = usePlan((whole) => whole);
  const queries = useQueryClient();
  const rows = useQuery(variantsQuery(id)).data?.rows ?? [];
  const [name, setName] = useState("");
  const [picked, setPicked] = useState<number | null>(null);
  const told = (answer: { rows: Variant[] }) => queries.setQueryData(variantsQuery(id).queryKey, answer);
  const path = { system_id: id };
  const keep = useMutation({
    mutationFn: (kept: { name: string; plan: Plan }) =>
      asked(client.POST("/api/systems/{system_id}/variants", { params: { path }, body: kept })),
    onSuccess: told,
  });
  const letGo = useMutation({
    mutationFn: (variant: number) =>
      asked(
        client.DELETE("/api/systems/{system_id}/variants/{variant_id}", {
          params: { path: { ...path, variant_id: variant } },
        }),
      ),
    onSuccess: told,
  });
  const rename = useMutation({
    mutationFn: ({ variant, called }: { variant: number; called: string }) =>
      asked(
        client.PUT("/api/systems/{system_id}/variants/{variant_id}", {
          params: { path: { ...path, variant_id: variant } },
          body: { name: called },
        }),
      ),
    onSuccess: told,
  });
  const shown = rows.find((row) => row.id === picked) ?? rows.find((row) => row.plan) ?? null;
  const trouble = keep.error ?? letGo.error ?? rename.error;
  const adopt = (variant: Variant) => {
    // What stood until now stays as a variant, so that either can be gone back to.
    keep.mutate(
      { name: `${plan.name}, before`.slice(0, 80), plan },
      { onSuccess: () => session.replace({ ...(variant.plan as Plan), name: plan.name }) },
    );
  };
  return (
    <>
      <form
        className="mb-4 flex flex-wrap items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate({ name: name.trim() || `Variant ${rows.length + 1}`, plan });
          setName("");
        }}
      >
        <label className="flex items-center gap-2">
          Keep the plan as it is as
          <input
            value={name}
            onChange={(event) => setName(event.target.value)}
            maxLength={80}
            aria-label="Name of the variant"
            placeholder={`Variant ${rows.length + 1}`}
            className="min-h-9 w-48 border border-line bg-paper px-2 pointer-coarse:min-h-11"
          />
        </label>
        <Button type="submit" look="strong" disabled={keep.isPending}>
          Keep
        </Button>
      </form>
      {trouble && (
        <p role="alert" className="mb-3 text-short">
          {trouble.message}
        </p>
      )}
      {rows.length === 0 && (
        <p className="text-quiet">
          No variants yet. Keep one, change the plan, and see both side by side: figures, glasses, and what
          differs.
        </p>
      )}
      <ul aria-label="Variants" className="mb-5">
        {rows.map((row) => (
          <li key={row.id} className="flex flex-wrap items-center gap-2 border-b border-line py-1">
            <button
              type="button"
              aria-pressed={row.id === shown?.id}
              onClick={() => setPicked(row.id)}
              className={`min-h-9 flex-1 px-1 text-left pointer-coarse:min-h-11 ${row.id === shown?.id ? "font-semibold" : "text-edge-deep hover:underline"}`}
            >
              {row.name}
            </button>
            {row.why && (
              <span className="text-sm text-short">
                <Says sentence={row.why} />
              </span>
            )}
            <Rename row={row} rename={(called) => rename.mutate({ variant: row.id, called })} />
            {row.plan && (
              <Button look="word" aria-label={`Adopt ${row.name}`} onClick={() => adopt(row)}>
                Adopt
              </Button>
            )}
            <Button look="word" aria-label={`Let ${row.name} go`} onClick={() => letGo.mutate(row.id)}>
              Let go
            </Button>
          </li>
        ))}
      </ul>
      {shown?.plan && <Beside name={shown.name} other={shown.plan} />}
    </>
  );
}

function Rename({ row, rename }: { row: Variant; rename: (name: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null) {
    return (
      <Button look="word" aria-label={`Rename ${row.name}`} onClick={() => setTyped(row.name)}>
        Rename
      </Button>
    );
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim()) rename(typed.trim());
        setTyped(null);
      }}
    >
      <input
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        maxLength={80}
        aria-label={`New name of ${row.name}`}
        className="min-h-9 w-40 border border-line bg-paper px-2 pointer-coarse:min-h-11"
      />
    </form>
  );
}

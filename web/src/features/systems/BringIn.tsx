import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useRef } from "react";
import { asked, client } from "@/api/client";
import { ALL_SYSTEMS, libraryQuery, ownQuery } from "@/api/queries";
import { Button } from "@/ui/controls";

/** A plan that was taken along from here or elsewhere, brought in as a new system with the own rows it uses. */
export function BringIn() {
  const file = useRef<HTMLInputElement>(null);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const bring = useMutation({
    mutationFn: async (chosen: File) =>
      asked(client.POST("/api/own/bring-in/plan", { body: read(await chosen.text()) })),
    onSuccess: async ({ id }) => {
      await queries.invalidateQueries(ALL_SYSTEMS);
      await queries.invalidateQueries(ownQuery);
      await queries.invalidateQueries(libraryQuery);
      await navigate({ to: "/systems/$id/$stage", params: { id: String(id), stage: "animals" } });
    },
  });
  return (
    <>
      <Button onClick={() => file.current?.click()}>Bring in a plan</Button>
      <input
        ref={file}
        type="file"
        accept="application/json,.json"
        aria-label="A plan's file"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = "";
          if (chosen) bring.mutate(chosen);
        }}
      />
      {bring.isError && (
        <span role="alert" className="text-short">
          {bring.error.message}
        </span>
      )}
    </>
  );
}

type Taken = { plan: Record<string, unknown>; own: Record<string, Record<string, Record<string, string>>> };

function read(text: string): Taken {
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch {
    throw new Error("This file is no JSON.");
  }
  if (typeof found !== "object" || found === null || !("plan" in found))
    throw new Error("This file holds no plan that was taken along.");
  return { own: {}, ...(found as Partial<Taken> & Pick<Taken, "plan">) };
}

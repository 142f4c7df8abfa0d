import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { isoDay } from "@/lib/shown/days";
import { Button, Dialog } from "@/ui/controls";
import { NumberLine, TextLine } from "@/ui/fields/Lines";
import { useVenture, useVentureInUse, useVentureSheet } from "./context";

/** A brood that was born: written into the register, from where the forecast takes it. */
export function BroodDialog({ close }: { close: () => void }) {
  const { session } = useVentureInUse();
  const queries = useQueryClient();
  const species = useVenture(({ colony }) => colony.species);
  const system = useVenture(({ stand }) => Number(stand?.colony_system) || Number(stand?.system));
  const line = useVentureSheet(({ lines }) => lines[0]);
  const [count, setCount] = useState<number | null>(null);
  const [day, setDay] = useState(() => isoDay(new Date()));
  const [called, setCalled] = useState(line?.line ?? "");
  const [generation, setGeneration] = useState<number | null>(line?.generation || 1);
  const keep = useMutation({
    mutationFn: () => {
      const resident = {
        species,
        name: "",
        sex: "unknown" as const,
        line: called,
        source: "our own broods",
        born: day,
        stays_until: "",
        note: "",
        generation: Math.round(generation ?? 0),
      };
      const born = { kind: "birth" as const, day, count: Math.round(count ?? 0), system, to: 0, signs: "" };
      return asked(
        client.POST("/api/register", { body: { today: isoDay(new Date()), resident, happened: [born] } }),
      );
    },
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["register"] });
      void queries.invalidateQueries({ queryKey: ["breeding"] });
      session.open();
      close();
    },
  });
  return (
    <Dialog title="A brood was born" open onOpenChange={close} unsaved={count !== null}>
      <NumberLine label="How many young" kind="count" value={null} set={setCount} />
      <TextLine label="On" date value={day} set={setDay} />
      <TextLine label="Line" value={called} set={setCalled} />
      <NumberLine label="Generation bred here" kind="count" value={generation} set={setGeneration} />
      {keep.error && (
        <p role="alert" className="mt-2 text-short">
          {keep.error.message}
        </p>
      )}
      <p className="mt-3 text-right">
        <Button look="strong" disabled={keep.isPending} onClick={() => keep.mutate()}>
          Write down
        </Button>
      </p>
    </Dialog>
  );
}

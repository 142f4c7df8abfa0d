import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, type Breeding, type Species } from "@/api/client";
import { Button, Dialog, Select } from "@/ui/controls";
import { Line } from "@/ui/fields/Lines";
import { SpeciesPicker } from "@/ui/fields/SpeciesPicker";

interface StartDialogProps {
  tanks: Breeding["tanks"];
  close: () => void;
  started: (id: number) => void;
}

/** A kind and a tank to begin with; all else begins as the library and practice say. */
export function StartDialog({ tanks, close, started }: StartDialogProps) {
  const [kind, setKind] = useState<Species | null>(null);
  const [system, setSystem] = useState(String(tanks[0]?.id ?? 0));
  const [purpose, setPurpose] = useState("sale");
  const start = useMutation({
    mutationFn: (species: string) =>
      asked(client.POST("/api/ventures", { body: { species, system: Number(system), purpose } })),
    onSuccess: ({ id }) => started(id),
  });
  return (
    <Dialog title="Breed another" open onOpenChange={close}>
      {kind ? (
        <p className="mb-2 flex items-baseline gap-2">
          <b>{kind.common}</b> <i className="text-quiet">{kind.scientific}</i>
          <Button look="word" onClick={() => setKind(null)}>
            another
          </Button>
        </p>
      ) : (
        <SpeciesPicker label="Animal" pick={setKind} />
      )}
      <Line label="In tanks like">
        <Select
          label="In tanks like"
          value={system}
          options={tanks.map(({ id, name }): [string, string] => [String(id), name])}
          onChange={setSystem}
          placeholder="no system yet"
        />
      </Line>
      <Line label="Bred">
        <Select
          label="Bred"
          value={purpose}
          options={[
            ["sale", "to sell"],
            ["line", "to keep the line going"],
          ]}
          onChange={setPurpose}
        />
      </Line>
      {start.error && (
        <p role="alert" className="mt-2 text-short">
          {start.error.message}
        </p>
      )}
      <p className="mt-2 text-sm text-quiet">
        Only as many broods are raised as the tanks hold. Prices are yours to enter.
      </p>
      <p className="mt-3 text-right">
        <Button
          look="strong"
          disabled={!kind || start.isPending}
          onClick={() => kind && start.mutate(kind.key)}
        >
          {start.isPending ? "Reckoning…" : "Begin"}
        </Button>
      </p>
    </Dialog>
  );
}

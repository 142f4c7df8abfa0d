import { useState } from "react";
import { asked, client, type TubOut, type TubPlace } from "@/api/client";
import { Button, Dialog, Select } from "@/ui/controls";
import { Line, NumberLine, TextLine } from "@/ui/fields/Lines";
import { wrongOf } from "./newcomers";

interface TubDialogProps {
  tub: TubOut;
  close: () => void;
  done: (words: string, back?: () => Promise<unknown>) => void;
}

/** How long newcomers wait in a tub, and whether it was renewed since copper. */
export function TubDialog({ tub, close, done }: TubDialogProps) {
  const [row, setRow] = useState(tub.tub);
  const [fault, setFault] = useState("");
  const params = { path: { system_id: tub.system_id } };
  const keep = () =>
    asked(client.PUT("/api/quarantine/tubs/{system_id}", { params, body: row })).then(
      () => done(`${tub.name}: kept.`),
      (cause: unknown) => setFault(wrongOf(cause).sentence),
    );
  const end = () =>
    asked(client.DELETE("/api/quarantine/tubs/{system_id}", { params })).then(
      () =>
        done(`${tub.name} is no tub any more; it stays a system.`, () =>
          asked(client.PUT("/api/quarantine/tubs/{system_id}", { params, body: tub.tub })),
        ),
      (cause: unknown) => setFault(wrongOf(cause).sentence),
    );
  return (
    <Dialog title={`${tub.name}, settings`} open onOpenChange={close}>
      <NumberLine
        label="Each waits"
        kind="days"
        value={row.wait_d ?? 28}
        set={(days) => setRow({ ...row, wait_d: Math.round(days ?? 0) })}
      />
      {(tub.copper || row.renewed) && (
        <TextLine
          label="Seams, hose and sponge renewed on"
          date
          value={row.renewed ?? ""}
          set={(renewed) => setRow({ ...row, renewed })}
        />
      )}
      <p className="mt-2 text-sm text-quiet">
        Litres, sponge, warmth and water are those of its own system: open it from its name.
      </p>
      {fault && (
        <p role="alert" className="mt-2 text-short">
          {fault}
        </p>
      )}
      <p className="mt-3 flex flex-wrap gap-2">
        <Button look="strong" onClick={() => void keep()}>
          Keep
        </Button>
        <Button look="word" disabled={tub.waits.length > 0} onClick={() => void end()}>
          No tub any more
        </Button>
      </p>
    </Dialog>
  );
}

interface NewTubProps {
  places: TubPlace[];
  count: number;
  close: () => void;
  done: (words: string) => void;
}

/** A tub as a system of its own, or one of the systems there are. */
export function NewTubDialog({ places, count, close, done }: NewTubProps) {
  const homes = places.filter(({ is_tub }) => !is_tub);
  const [name, setName] = useState(`Tub ${count + 1}`);
  const [litres, setLitres] = useState<number | null>(18);
  const [sponge, setSponge] = useState<number | null>(0);
  const [like, setLike] = useState(homes[0]?.system_id ?? 0);
  const [present, setPresent] = useState(0);
  const [fault, setFault] = useState("");
  const keep = () => {
    const made: Promise<unknown> = present
      ? asked(
          client.PUT("/api/quarantine/tubs/{system_id}", {
            params: { path: { system_id: present } },
            body: { wait_d: 28, renewed: "" },
          }),
        )
      : asked(
          client.POST("/api/quarantine/tubs", {
            body: { name, litres: litres ?? 0, sponge_l: sponge ?? 0, like },
          }),
        );
    made.then(
      () =>
        done(
          `${homes.find(({ system_id }) => system_id === present)?.name ?? name}: newcomers can wait there.`,
        ),
      (cause: unknown) => setFault(wrongOf(cause).sentence),
    );
  };
  return (
    <Dialog title="Set up a tub" open onOpenChange={close}>
      <Line label="It is">
        <Select
          label="It is"
          value={String(present)}
          options={[
            ["0", "a new tub"],
            ...homes.map((home): [string, string] => [String(home.system_id), home.name]),
          ]}
          onChange={(value) => setPresent(Number(value))}
        />
      </Line>
      {present === 0 && (
        <>
          <TextLine label="Called" value={name} set={setName} />
          <NumberLine label="Water in it" kind="volume" value={litres} set={setLitres} />
          <NumberLine
            label="Sponge from a healthy tank; 0 for none"
            kind="volume"
            value={sponge}
            set={setSponge}
          />
          <Line label="Water and warmth of">
            <Select
              label="Water and warmth of"
              value={String(like)}
              options={[
                ...homes.map((home): [string, string] => [String(home.system_id), home.name]),
                ["0", "none of them: set later"],
              ]}
              onChange={(value) => setLike(Number(value))}
            />
          </Line>
        </>
      )}
      {fault && (
        <p role="alert" className="mt-2 text-short">
          {fault}
        </p>
      )}
      <Button look="strong" className="mt-3" onClick={keep}>
        Set up
      </Button>
    </Dialog>
  );
}

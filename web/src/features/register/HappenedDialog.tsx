import { useState } from "react";
import { asked, client, Refused, type LifeLine, type Home, type ResidentOut } from "@/api/client";
import { Button, Dialog, Select } from "@/ui/controls";
import { useSentenceText } from "@/ui/figures/Says";
import { Line, NumberLine, TextLine } from "@/ui/fields/Lines";
import { NOTHING, today } from "./register";

interface HappenedProps {
  home: Home;
  homes: Home[];
  resident: ResidentOut;
  close: () => void;
  done: (words?: string) => void;
}

/** Fields that tell what is wrong beside them. */
const SHOWN = ["to", "count", "males", "length_cm", "day"];

const KINDS: [LifeLine["kind"], string][] = [
  ["measured", "measured"],
  ["move", "moved"],
  ["sale", "sold or given away"],
  ["death", "died"],
  ["birth", "more were born"],
  ["arrival", "more arrived"],
  ["signs", "signs seen"],
];

/** What happened to somebody: measured, moved, sold, died, born, signs seen. */
export function HappenedDialog({ home, homes, resident, close, done }: HappenedProps) {
  const text = useSentenceText();
  const [row, setRow] = useState<LifeLine>({
    ...NOTHING,
    kind: "measured",
    day: today(),
    count: 1,
    system: home.system_id,
  });
  const [faults, setFaults] = useState<Record<string, string>>({});
  const [fault, setFault] = useState("");
  const set = (part: Partial<LifeLine>) => setRow({ ...row, ...part });
  const others = homes.filter(({ system_id }) => system_id !== home.system_id);
  const name = resident.resident.name || resident.common;
  const counted = !["measured", "signs"].includes(row.kind);
  const keep = () =>
    asked(
      client.POST("/api/register/{resident_id}/happened", {
        params: { path: { resident_id: resident.id } },
        body: { today: today(), happened: row },
      }),
    ).then(
      ({ told }) => {
        const there = homes.find(({ system_id }) => system_id === row.to)?.name ?? "";
        done(told ? `Moved. Of ${there} Loquen’s checks say: ${text(told)}.` : undefined);
      },
      (cause: unknown) => {
        const found = cause instanceof Refused ? (cause.fault?.fields ?? []) : [];
        setFaults(Object.fromEntries(found.map(({ path }) => [path, (cause as Refused).message])));
        setFault(cause instanceof Refused ? cause.message : String(cause));
      },
    );
  return (
    <Dialog title={`${name}, ${home.name}`} open onOpenChange={close}>
      <Line label="What happened">
        <Select
          label="What happened"
          value={row.kind}
          options={KINDS}
          onChange={(kind) => set({ kind: kind as LifeLine["kind"] })}
        />
      </Line>
      {row.kind === "move" && (
        <Line label="To" fault={faults.to}>
          <Select
            label="To"
            value={row.to ? String(row.to) : ""}
            placeholder="which system"
            options={others.map((other) => [String(other.system_id), other.name])}
            onChange={(to) => set({ to: Number(to) })}
          />
        </Line>
      )}
      {counted && (
        <NumberLine
          label="How many"
          kind="count"
          value={row.count ?? 1}
          fault={faults.count}
          set={(count) => set({ count: count ?? 0 })}
        />
      )}
      {counted && resident.males != null && (
        <NumberLine
          label="Males among them"
          kind="count"
          value={null}
          fault={faults.males}
          set={(males) => set({ males })}
        />
      )}
      {row.kind !== "sale" && row.kind !== "signs" && (
        <NumberLine
          label="Length, one of them"
          kind="length"
          value={null}
          fault={faults.length_cm}
          set={(length_cm) => set({ length_cm })}
        />
      )}
      {(row.kind === "sale" || row.kind === "arrival") && (
        <NumberLine label="Price of one" kind="money" value={null} set={(money) => set({ money })} />
      )}
      {(row.kind === "death" || row.kind === "signs") && (
        <TextLine label="Signs seen" value={row.signs ?? ""} set={(signs) => set({ signs })} />
      )}
      <TextLine label="On" date value={row.day} fault={faults.day} set={(day) => set({ day })} />
      {fault && !SHOWN.some((path) => path in faults) && (
        <p role="alert" className="mt-2 text-short">
          {fault}
        </p>
      )}
      {(row.kind === "death" || row.kind === "signs") && (
        <p className="mt-2 text-sm text-quiet">
          What it is and what helps is for a vet to say. Take out what is dead at once: it makes as much
          ammonia as days of food.
        </p>
      )}
      <Button look="strong" className="mt-3" onClick={() => void keep()}>
        Write down
      </Button>
    </Dialog>
  );
}

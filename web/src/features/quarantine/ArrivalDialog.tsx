import { useState } from "react";
import { asked, client, type Arriving, type ArrivingOut, type Species, type TubPlace } from "@/api/client";
import { Button, Dialog, Select, Switch } from "@/ui/controls";
import { Line, NumberLine, TextLine } from "@/ui/fields/Lines";
import { SpeciesPicker } from "@/ui/fields/SpeciesPicker";
import { EXPECTED, wrongOf, type Wrong } from "./newcomers";

interface ArrivalProps {
  places: TubPlace[];
  row?: Pick<ArrivingOut, "id" | "arriving" | "common">;
  close: () => void;
  done: (words: string) => void;
}

/** Fields that tell what is wrong beside them. */
const SHOWN = ["goes_to", "comes_on", "number"];

/** Somebody who is to come: who, for which system, from when on, from whom, and whether they wait in a tub. */
export function ArrivalDialog({ places, row, close, done }: ArrivalProps) {
  const homes = places.filter(({ is_tub }) => !is_tub);
  const tubs = places.filter(({ is_tub }) => is_tub);
  const [kind, setKind] = useState<Pick<Species, "key" | "common"> | null>(
    row ? { key: row.arriving.species, common: row.common } : null,
  );
  const [one, setOne] = useState<Omit<Arriving, "species">>(
    row?.arriving ?? { ...EXPECTED, goes_to: homes[0]?.system_id ?? 0 },
  );
  const [waives, setWaives] = useState(Boolean(row?.arriving.waived));
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const set = (part: Partial<Arriving>) => setOne({ ...one, ...part });
  const keep = () => {
    if (!kind) return;
    if (waives && !one.waived?.trim()) {
      setWrong({ fields: { waived: "Why none is needed: it is kept with them." }, sentence: "" });
      return;
    }
    const body: Arriving = { ...one, species: kind.key, waived: waives ? one.waived : "" };
    const sent: Promise<unknown> = row
      ? asked(client.PUT("/api/quarantine/arriving/{number}", { params: { path: { number: row.id } }, body }))
      : asked(client.POST("/api/quarantine/arriving", { body }));
    sent.then(
      () => done(`${kind.common}: ${row ? "changed" : "on the list"}.`),
      (cause: unknown) => setWrong(wrongOf(cause)),
    );
  };
  return (
    <Dialog title="Somebody is to come" open onOpenChange={close} unsaved={!row && kind !== null}>
      {kind ? (
        <p className="mb-2 flex items-baseline gap-2">
          <span className="text-lg font-semibold">{kind.common}</span>
          {!row && (
            <Button look="word" onClick={() => setKind(null)}>
              Another
            </Button>
          )}
        </p>
      ) : (
        <div className="mb-3">
          <SpeciesPicker label="Which animal" pick={setKind} />
        </div>
      )}
      {kind && (
        <>
          <NumberLine
            label="How many"
            kind="count"
            value={one.number ?? 1}
            fault={wrong?.fields.number}
            set={(number) => set({ number: number ?? 0 })}
          />
          <NumberLine
            label="Length, one of them; empty for grown"
            kind="length"
            value={one.length_cm ?? null}
            set={(length_cm) => set({ length_cm })}
          />
          <Line label="For" fault={wrong?.fields.goes_to}>
            <Select
              label="For which system"
              value={one.goes_to ? String(one.goes_to) : ""}
              placeholder="which system"
              options={homes.map((home) => [String(home.system_id), home.name])}
              onChange={(to) => set({ goes_to: Number(to) })}
            />
          </Line>
          <TextLine
            label="From"
            date
            value={one.comes_on ?? ""}
            fault={wrong?.fields.comes_on}
            set={(comes_on) => set({ comes_on })}
          />
          <TextLine label="Comes from" value={one.source ?? ""} set={(source) => set({ source })} />
          <Line label="No quarantine">
            <Switch label="No quarantine" on={waives} onChange={setWaives} />
          </Line>
          {waives ? (
            <>
              <TextLine
                label="Because"
                value={one.waived ?? ""}
                fault={wrong?.fields.waived}
                set={(waived) => set({ waived })}
              />
              <p className="mt-2 border-l-3 border-short pl-3 text-sm">
                What they bring, everybody in that system gets. It can not be taken back.
              </p>
            </>
          ) : (
            <>
              <Line label="The seller holds them until a tub is free">
                <Switch
                  label="The seller holds them until a tub is free"
                  on={one.can_wait ?? true}
                  onChange={(can_wait) => set({ can_wait })}
                />
              </Line>
              <Line label="In tub">
                <Select
                  label="In which tub"
                  value={String(one.tub ?? 0)}
                  options={[
                    ["0", "whichever brings all home soonest"],
                    ...tubs.map((tub): [string, string] => [String(tub.system_id), tub.name]),
                  ]}
                  onChange={(tub) => set({ tub: Number(tub) })}
                />
              </Line>
              <NumberLine
                label="Waits; empty as the tub says"
                kind="days"
                value={one.wait_d ?? null}
                set={(wait_d) => set({ wait_d: wait_d === null ? null : Math.round(wait_d) })}
              />
            </>
          )}
          {wrong && !Object.keys(wrong.fields).some((path) => SHOWN.includes(path) || path === "waived") && (
            <p role="alert" className="mt-2 text-short">
              {wrong.sentence}
            </p>
          )}
          <Button look="strong" className="mt-3" onClick={keep}>
            {row ? "Keep" : "Put on the list"}
          </Button>
        </>
      )}
    </Dialog>
  );
}

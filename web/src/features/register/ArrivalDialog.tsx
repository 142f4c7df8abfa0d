import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { asked, client, Refused, type LifeLine, type Home, type Resident, type Species } from "@/api/client";
import { Button, Dialog, Select } from "@/ui/controls";
import { SpeciesPicker } from "@/ui/fields/SpeciesPicker";
import { Line, NumberLine, TextLine } from "@/ui/fields/Lines";
import { NOBODY, NOTHING, today } from "./register";

interface ArrivalProps {
  homes: Home[];
  close: () => void;
  done: (words?: string) => void;
}

/** Fields that tell what is wrong beside them. */
const SHOWN = ["count", "males", "day", "name"];

const SEXES: [Resident["sex"], string][] = [
  ["unknown", "not known"],
  ["mixed", "both"],
  ["male", "male"],
  ["female", "female"],
];

/** Somebody new: who, how many, from whom, into which system. */
export function ArrivalDialog({ homes, close, done }: ArrivalProps) {
  const [kind, setKind] = useState<Species | null>(null);
  const [resident, setResident] = useState<Partial<Resident>>({});
  const [first, setFirst] = useState<Partial<LifeLine>>({ kind: "arrival", day: today(), count: 1 });
  const [chosen, setSystem] = useState("");
  const system = chosen || String(homes[0]?.system_id ?? "");
  const [faults, setFaults] = useState<Record<string, string>>({});
  const [fault, setFault] = useState("");
  const describe = (part: Partial<Resident>) => setResident({ ...resident, ...part });
  const happen = (part: Partial<LifeLine>) => setFirst({ ...first, ...part });
  const keep = () => {
    if (!kind) return;
    const happened: LifeLine = { ...NOTHING, ...first, system: Number(system) };
    asked(
      client.POST("/api/register", {
        body: {
          today: today(),
          resident: { ...NOBODY, ...resident, species: kind.key },
          happened: [happened],
        },
      }),
    ).then(
      () => done(`${kind.common}: written down.`),
      (cause: unknown) => {
        const found = cause instanceof Refused ? (cause.fault?.fields ?? []) : [];
        setFaults(Object.fromEntries(found.map(({ path }) => [path, (cause as Refused).message])));
        setFault(cause instanceof Refused ? cause.message : String(cause));
      },
    );
  };
  return (
    <Dialog title="Somebody new" open onOpenChange={close} unsaved={kind !== null}>
      {kind ? (
        <p className="mb-2 flex items-baseline gap-2">
          <span className="text-lg font-semibold">{kind.common}</span>
          <i className="text-quiet">{kind.scientific}</i>
          <Button look="word" onClick={() => setKind(null)}>
            Another
          </Button>
        </p>
      ) : (
        <div className="mb-3">
          <SpeciesPicker label="Which animal" pick={setKind} />
        </div>
      )}
      {kind && (
        <>
          <Line label="It is">
            <Select
              label="How it came"
              value={first.kind ?? "arrival"}
              options={[
                ["arrival", "an arrival"],
                ["birth", "born here"],
              ]}
              onChange={(chosen) => happen({ kind: chosen as LifeLine["kind"] })}
            />
          </Line>
          <Line label="Into">
            <Select
              label="System"
              value={system}
              options={homes.map((home) => [String(home.system_id), home.name])}
              onChange={setSystem}
            />
          </Line>
          <NumberLine
            label="How many"
            kind="count"
            value={first.count ?? 1}
            fault={faults.count}
            set={(count) => happen({ count: count ?? 0 })}
          />
          <NumberLine
            label="Males among them"
            kind="count"
            value={null}
            fault={faults.males}
            set={(males) => happen({ males })}
          />
          <Line label="Sex">
            <Select
              label="Sex"
              value={resident.sex ?? "unknown"}
              options={SEXES}
              onChange={(sex) => describe({ sex: sex as Resident["sex"] })}
            />
          </Line>
          <NumberLine
            label="Length, one of them"
            kind="length"
            value={null}
            set={(length_cm) => happen({ length_cm })}
          />
          <NumberLine label="Price of one" kind="money" value={null} set={(money) => happen({ money })} />
          <TextLine
            label="On"
            date
            value={first.day ?? ""}
            fault={faults.day}
            set={(day) => happen({ day })}
          />
          <TextLine label="From" value={resident.source ?? ""} set={(source) => describe({ source })} />
          <TextLine label="Line" value={resident.line ?? ""} set={(line) => describe({ line })} />
          <NumberLine
            label="Generation bred here"
            kind="count"
            value={resident.generation ?? 0}
            set={(generation) => describe({ generation: Math.round(generation ?? 0) })}
          />
          <TextLine
            label="Name, of one animal"
            value={resident.name ?? ""}
            fault={faults.name}
            set={(name) => describe({ name })}
          />
          <TextLine label="Born on" date value={resident.born ?? ""} set={(born) => describe({ born })} />
          <TextLine
            label="Stays until"
            date
            value={resident.stays_until ?? ""}
            set={(stays_until) => describe({ stays_until })}
          />
          {fault && !SHOWN.some((path) => path in faults) && (
            <p role="alert" className="mt-2 text-short">
              {fault}
            </p>
          )}
          <p className="mt-3 text-sm text-quiet">
            Quarantine comes first:{" "}
            <Link to="/register/quarantine" search={{ expect: true }} className="text-edge-deep underline">
              find them a tub
            </Link>
            . Nothing bought is ever let go outside.
          </p>
          <Button look="strong" className="mt-3" onClick={keep}>
            Write down
          </Button>
        </>
      )}
    </Dialog>
  );
}

import { useState } from "react";
import { asked, client, type ArrivingOut, type TubOut } from "@/api/client";
import { Button, Dialog, Select } from "@/ui/controls";
import { Line, NumberLine, TextLine } from "@/ui/fields/Lines";
import { today, wrongOf, type Wrong } from "./newcomers";

interface HereProps {
  row: Pick<ArrivingOut, "id" | "arriving" | "common" | "tub">;
  tubs: TubOut[];
  close: () => void;
  done: (words: string) => void;
}

const SHOWN = ["count", "day", "tub"];

/** They came: how many, when, into which tub; from then on they are in the register. */
export function HereDialog({ row, tubs, close, done }: HereProps) {
  const waived = Boolean(row.arriving.waived);
  const [count, setCount] = useState(row.arriving.number ?? 1);
  const [length, setLength] = useState<number | null>(row.arriving.length_cm ?? null);
  const [price, setPrice] = useState<number | null>(null);
  const [day, setDay] = useState(today());
  const [tub, setTub] = useState(row.tub ?? row.arriving.tub ?? 0);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const into = tubs.find(({ system_id }) => system_id === tub);
  const keep = () =>
    asked(
      client.POST("/api/quarantine/arriving/{number}/here", {
        params: { path: { number: row.id } },
        body: { today: today(), day, count, tub, length_cm: length, price },
      }),
    ).then(
      () => done(`${row.common}: in the register${into && !waived ? `, in ${into.name}` : ""}.`),
      (cause: unknown) => setWrong(wrongOf(cause)),
    );
  return (
    <Dialog title={`${row.common} are here`} open onOpenChange={close}>
      <NumberLine
        label="How many arrived alive"
        kind="count"
        value={count}
        fault={wrong?.fields.count}
        set={(value) => setCount(value ?? 0)}
      />
      <NumberLine label="Length, one of them" kind="length" value={length} set={setLength} />
      <NumberLine label="Price of one" kind="money" value={null} set={setPrice} />
      <TextLine label="On" date value={day} fault={wrong?.fields.day} set={setDay} />
      {!waived && (
        <Line label="Into" fault={wrong?.fields.tub}>
          <Select
            label="Into which tub"
            value={tub ? String(tub) : ""}
            placeholder="which tub"
            options={tubs.map((one) => [String(one.system_id), one.name])}
            onChange={(value) => setTub(Number(value))}
          />
        </Line>
      )}
      {into && into.waits.length > 0 && !waived && (
        <p className="mt-2 border-l-3 border-brass pl-3 text-sm">
          {into.name} is not empty: the wait of all in it begins anew.
        </p>
      )}
      {wrong && !Object.keys(wrong.fields).some((path) => SHOWN.includes(path)) && (
        <p role="alert" className="mt-2 text-short">
          {wrong.sentence}
        </p>
      )}
      <p className="mt-2 text-sm text-quiet">
        Float for warmth, drip for chemistry, net across; the bag’s water never goes in. The system’s Arrivals
        reckon both.
      </p>
      <Button look="strong" className="mt-3" onClick={() => void keep()}>
        Write down
      </Button>
    </Dialog>
  );
}

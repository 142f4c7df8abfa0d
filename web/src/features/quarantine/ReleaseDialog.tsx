import { useState } from "react";
import { asked, client, type TubOut, type TubPlace } from "@/api/client";
import { shortDay } from "@/lib/shown/days";
import { Button, Dialog, Select } from "@/ui/controls";
import { useSentenceText } from "@/ui/figures/Says";
import { Line } from "@/ui/fields/Lines";
import { today, wrongOf } from "./newcomers";

interface ReleaseProps {
  tub: TubOut;
  places: TubPlace[];
  close: () => void;
  done: (words: string, back?: () => Promise<unknown>) => void;
}

/** The wait is over: each goes to the system it was meant for, as a move of the register. */
export function ReleaseDialog({ tub, places, close, done }: ReleaseProps) {
  const text = useSentenceText();
  const homes = places.filter(({ is_tub }) => !is_tub);
  const [to, setTo] = useState<Record<number, number>>(
    Object.fromEntries(tub.waits.map((row) => [row.resident_id, row.goes_to])),
  );
  const [fault, setFault] = useState("");
  const move = async () => {
    const told: string[] = [];
    const moved: number[] = [];
    const back = () =>
      Promise.all(
        moved.map((happened_id) =>
          asked(client.DELETE("/api/register/happened/{happened_id}", { params: { path: { happened_id } } })),
        ),
      );
    for (const row of tub.waits) {
      const goes = to[row.resident_id];
      if (!goes) continue;
      const answer = await asked(
        client.POST("/api/register/{resident_id}/happened", {
          params: { path: { resident_id: row.resident_id } },
          body: {
            today: today(),
            happened: {
              kind: "move",
              day: today(),
              count: row.count,
              system: tub.system_id,
              to: goes,
              signs: "",
            },
          },
        }),
      );
      moved.push(answer.happened_id);
      const name = places.find(({ system_id }) => system_id === goes)?.name ?? "";
      told.push(
        `${row.count} ${row.common} are in ${name} now.` +
          (answer.told ? ` Of ${name} Loquen’s checks say: ${text(answer.told)}.` : ""),
      );
    }
    done(told.join(" "), back);
  };
  return (
    <Dialog title={`Out of ${tub.name}`} open onOpenChange={close}>
      {!tub.ready && (
        <p className="mb-3 border-l-3 border-short pl-3 text-sm">
          Their wait ends {shortDay(tub.release ?? "")}. What they carry may show only then.
        </p>
      )}
      {tub.waits.map((row) => (
        <Line key={row.resident_id} label={`${row.count} ${row.common} to`}>
          <Select
            label={`${row.common} to`}
            value={to[row.resident_id] ? String(to[row.resident_id]) : ""}
            placeholder="stay here"
            options={homes.map((home) => [String(home.system_id), home.name])}
            onChange={(value) => setTo({ ...to, [row.resident_id]: Number(value) })}
          />
        </Line>
      ))}
      {fault && (
        <p role="alert" className="mt-2 text-short">
          {fault}
        </p>
      )}
      <p className="mt-2 text-sm text-quiet">
        Net them across: the tub’s water never goes along. Then empty the tub, and let it and all its
        equipment dry.
      </p>
      <Button
        look="strong"
        className="mt-3"
        disabled={!Object.values(to).some(Boolean)}
        onClick={() => void move().catch((cause: unknown) => setFault(wrongOf(cause).sentence))}
      >
        Bring across
      </Button>
    </Dialog>
  );
}

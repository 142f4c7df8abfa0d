import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { systemNamesQuery } from "@/api/queries";
import { Button, Dialog, Select } from "@/ui/controls";
import { NumberBox } from "@/ui/fields/NumberBox";
import { Row } from "@/ui/fields/Row";
import { parsed } from "@/lib/shown/quantity";
import { useUnits } from "@/ui/units";
import { useRoomInUse } from "./context";

/** “Twelve of 54 L on three shelves”, or as many of one of the systems. */
export function RackDialog({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const { session } = useRoomInUse();
  const units = useUnits();
  const systems = useQuery(systemNamesQuery).data ?? [];
  const [name, setName] = useState("Rack");
  const [count, setCount] = useState("12");
  const [shelves, setShelves] = useState("3");
  const [litres, setLitres] = useState(units.entry(54, "volume"));
  const [system, setSystem] = useState("0");
  const put = useMutation({
    mutationFn: () =>
      asked(
        client.POST("/api/room/rack", {
          body: {
            room: session.state.content,
            name,
            tanks: Number(count),
            shelves: Number(shelves),
            litres: units.base(parsed(litres) ?? 0, "volume"),
            system: Number(system),
          },
        }),
      ),
    onSuccess: ({ room }) => {
      session.replace(room);
      onOpenChange(false);
    },
  });
  return (
    <Dialog title="A rack of tanks" open={open} onOpenChange={onOpenChange}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          put.mutate();
        }}
      >
        <Row id="rack-name" label="Name">
          <input
            id="rack-name"
            value={name}
            maxLength={80}
            onChange={(event) => setName(event.target.value)}
            className="min-h-8 rounded-sm border border-line bg-paper px-2"
          />
        </Row>
        <Row id="rack-count" label="Tanks, all alike">
          <NumberBox id="rack-count" shown={count} type={setCount} unit="" />
        </Row>
        <Row id="rack-shelves" label="on shelves">
          <NumberBox id="rack-shelves" shown={shelves} type={setShelves} unit="" />
        </Row>
        <Row label="Each is one like">
          <Select
            label="Each is one like"
            value={system}
            options={[
              ["0", "no plan yet"],
              ...systems.map(({ id, name: own }) => [String(id), own] as [string, string]),
            ]}
            onChange={setSystem}
          />
        </Row>
        {system === "0" && (
          <Row id="rack-litres" label="Water in each">
            <NumberBox id="rack-litres" shown={litres} type={setLitres} unit={units.unit("volume").label} />
          </Row>
        )}
        {put.error && (
          <p role="alert" className="my-2 text-short">
            {put.error.message}
          </p>
        )}
        <Button type="submit" look="strong" disabled={put.isPending} className="mt-3">
          Put it on the wall
        </Button>
      </form>
    </Dialog>
  );
}

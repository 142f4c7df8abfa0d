import { useMutation } from "@tanstack/react-query";
import { asked, client } from "@/api/client";
import { save } from "@/lib/document/save";
import { Says } from "@/ui/figures/Says";
import { Button } from "@/ui/controls";
import { NumberField } from "@/ui/editing/fields";
import { PriceList } from "@/ui/editing/PriceList";
import { useUnits } from "@/ui/units";
import { useRoom, useRoomInUse, useRoomSheet } from "../context";

/** What to buy, and how it is taken into use: made to be printed. */
export function PartsStage() {
  const parts = useRoomSheet((sheet) => sheet.parts) ?? [];
  const room = useRoom((whole) => whole);
  const steps = useRoomSheet((sheet) => sheet.commissioning) ?? [];
  if (parts.length === 0) return <p className="text-quiet">Parts are known once a tank is on a zone.</p>;
  return (
    <div className="grid gap-x-10 lg:grid-cols-2">
      <section aria-labelledby="parts" className="mb-6">
        <h3 id="parts" className="mb-1 font-semibold">
          To buy
        </h3>
        <PriceList of={room} quote={() => asked(client.POST("/api/room/quote", { body: { room } }))}>
          <NumberField path="worth.build_h" />
          <NumberField path="worth.hour_money" />
          <NumberField path="worth.margin_frac" />
        </PriceList>
        <Take />
      </section>
      <section aria-labelledby="into-use" className="mb-6">
        <h3 id="into-use" className="mb-1 font-semibold">
          Taking it into use
        </h3>
        <ol>
          {steps.map((step, i) => (
            <li key={i} className="flex gap-3 border-b border-line/70 py-1.5">
              <span aria-hidden className="mt-1 size-4 shrink-0 border border-mark" />
              <span>
                <Says sentence={step} />
              </span>
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}

/** Paper, a book for whoever builds it, and the parts as a table. */
function Take() {
  const { session } = useRoomInUse();
  const units = useUnits();
  const take = useMutation({
    mutationFn: async (form: "book.pdf" | "parts.csv") => {
      const room = session.state.content;
      const body = { room, units: units.choice };
      const answer = client.POST("/api/room/book/{form}", {
        params: { path: { form } },
        body,
        parseAs: "blob",
      });
      save((await asked<unknown>(answer)) as Blob, `${room.name}, ${form}`);
    },
  });
  return (
    <p className="mt-3 flex flex-wrap gap-2 print:hidden">
      <Button onClick={() => window.print()}>Print</Button>
      <Button disabled={take.isPending} onClick={() => take.mutate("book.pdf")}>
        Room book, PDF
      </Button>
      <Button disabled={take.isPending} onClick={() => take.mutate("parts.csv")}>
        Parts, CSV
      </Button>
      {take.error && (
        <span role="alert" className="text-short">
          {take.error.message}
        </span>
      )}
    </p>
  );
}

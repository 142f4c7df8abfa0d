import { useMutation } from "@tanstack/react-query";
import { asked, client } from "@/api/client";
import { save } from "@/lib/save";
import { Says } from "@/ui/figures/Says";
import { Button } from "@/ui/controls";
import { NumberField } from "@/ui/editing/fields";
import { useUnits } from "@/ui/units";
import { PartPrice } from "../PartPrice";
import { useRoomInUse, useRoomSheet } from "../context";

/** What to buy, and how it is taken into use: made to be printed. */
export function PartsStage() {
  const parts = useRoomSheet((sheet) => sheet.parts) ?? [];
  const steps = useRoomSheet((sheet) => sheet.commissioning) ?? [];
  if (parts.length === 0) return <p className="text-quiet">Parts are known once a tank is on a zone.</p>;
  return (
    <div className="grid gap-x-10 lg:grid-cols-2">
      <section aria-labelledby="parts" className="mb-6">
        <h3 id="parts" className="mb-1 font-semibold">
          To buy
        </h3>
        <table className="w-full text-left text-sm">
          <thead className="text-quiet">
            <tr className="border-b border-line">
              <th scope="col" className="py-1 font-normal">
                Part
              </th>
              <th scope="col" className="py-1 pl-3 font-normal">
                where
              </th>
              <th scope="col" className="py-1 pl-3 text-right font-normal">
                how many
              </th>
              <th scope="col" className="py-1 pl-3 text-right font-normal">
                to keep
              </th>
              <th scope="col" className="py-1 pl-3 text-right font-normal">
                each
              </th>
            </tr>
          </thead>
          <tbody>
            {parts.map((part) => (
              <tr key={part.label} className="border-b border-line/70">
                <th scope="row" className="py-1 font-normal">
                  {part.label}
                </th>
                <td className="py-1 pl-3 text-quiet">{part.where}</td>
                <td className="num py-1 pl-3 text-right whitespace-nowrap">
                  {part.quantity} {part.unit === "pieces" ? "" : part.unit}
                </td>
                <td className="num py-1 pl-3 text-right">{part.spare || ""}</td>
                <td className="py-1 pl-3 text-right">
                  <PartPrice part={part.label} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <QuoteLine />
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

/** What it comes to for somebody who has it built. */
function QuoteLine() {
  const quote = useRoomSheet((sheet) => sheet.quote);
  const units = useUnits();
  if (!quote) return null;
  const money = (value: number) => units.text(value, "money");
  return (
    <div className="mt-3">
      <p>
        Parts <b className="num">{money(quote.parts_money)}</b>
        {quote.unpriced > 0 && ` (${quote.unpriced} without a price)`}, hours{" "}
        <b className="num">{money(quote.hours_money)}</b>, margin{" "}
        <b className="num">{money(quote.margin_money)}</b>: together{" "}
        <b className="num">{money(quote.whole_money)}</b>.
      </p>
      <div className="mt-1 grid gap-x-7 md:grid-cols-2 print:hidden">
        <NumberField path="worth.build_h" />
        <NumberField path="worth.margin_frac" />
      </div>
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

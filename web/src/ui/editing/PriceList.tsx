import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { asked, client, type Quote } from "@/api/client";
import { NumberBox } from "@/ui/fields/NumberBox";
import { parsed } from "@/lib/shown/quantity";
import { useUnits } from "@/ui/units";

const ASKED = "quote";

interface PriceListProps {
  /** What is quoted for; asked anew when it changes. */
  of: unknown;
  quote: () => Promise<Quote>;
  /** The hours and the margin. */
  children: ReactNode;
}

/** What to buy, what one of each costs, and what it comes to. A price is the house's: entered once, it stands in every list. */
export function PriceList({ of, quote, children }: PriceListProps) {
  const found = useQuery({
    queryKey: [ASKED, of],
    queryFn: quote,
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  const units = useUnits();
  if (found.error) {
    return (
      <p role="alert" className="text-short">
        {found.error.message}
      </p>
    );
  }
  if (!found.data) return <p className="text-quiet">Adding up</p>;
  const money = (value: number) => units.text(value, "money");
  const head = "py-1 pl-3 font-normal";
  const { lines, ...whole } = found.data;
  return (
    <>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-sm">
          <thead className="text-quiet">
            <tr className="border-b border-line">
              <th scope="col" className="py-1 font-normal">
                Part
              </th>
              <th scope="col" className={head}>
                where
              </th>
              <th scope="col" className={`${head} text-right`}>
                how many
              </th>
              <th scope="col" className={`${head} text-right`}>
                to keep
              </th>
              <th scope="col" className={`${head} text-right`}>
                each
              </th>
              <th scope="col" className={`${head} text-right`}>
                together
              </th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={line.label} className="border-b border-line/70">
                <th scope="row" className="py-1 font-normal">
                  {line.label}
                </th>
                <td className="py-1 pl-3 text-quiet">{line.where}</td>
                <td className="num py-1 pl-3 text-right whitespace-nowrap">
                  {line.quantity} {line.unit === "pieces" ? "" : line.unit}
                </td>
                <td className="num py-1 pl-3 text-right">{line.spare || ""}</td>
                <td className="py-1 pl-3 text-right">
                  <PartPrice part={line.label} price={line.price_money ?? null} />
                </td>
                <td className="num py-1 pl-3 text-right whitespace-nowrap">
                  {line.sum_money == null ? "" : money(line.sum_money)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-3" role="status">
        Parts <b className="num">{money(whole.parts_money)}</b>
        {whole.unpriced > 0 && ` (${whole.unpriced} without a price)`}, hours{" "}
        <b className="num">{money(whole.hours_money)}</b>, margin{" "}
        <b className="num">{money(whole.margin_money)}</b>: together{" "}
        <b className="num">{money(whole.whole_money)}</b>.
      </p>
      <div className="mt-1 grid gap-x-7 md:grid-cols-2 print:hidden">{children}</div>
    </>
  );
}

/** What one of a part costs. */
function PartPrice({ part, price }: { part: string; price: number | null }) {
  const queries = useQueryClient();
  const [bad, setBad] = useState(false);
  const put = useMutation({
    mutationFn: (money: number | null) => asked(client.PUT("/api/prices", { body: { part, money } })),
    scope: { id: `price of ${part}` },
    onSettled: () => queries.invalidateQueries({ queryKey: [ASKED] }),
  });
  const enter = (text: string) => {
    const none = text.trim() === "";
    const money = parsed(text, (value) => value >= 0);
    const fits = none || (money !== null && money >= 0);
    setBad(!fits);
    if (fits) put.mutate(none ? null : money);
  };
  return (
    <NumberBox
      label={`Price of one: ${part}`}
      shown={price == null ? "" : String(price)}
      type={enter}
      bad={bad || put.isError}
      narrow
    />
  );
}

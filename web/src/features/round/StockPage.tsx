import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { asked, client, type Consumable } from "@/api/client";
import { shortDay } from "@/lib/shown/days";
import { parsed } from "@/lib/shown/quantity";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { useToday } from "./useToday";
import { Unread } from "@/ui/unread/Unread";

/** What the house uses up: how much a week, what was counted, when it runs out and is to be ordered; and spares. */
export function StockPage() {
  const today = useToday();
  const units = useUnits();
  const queries = useQueryClient();
  const [oneFor, setOneFor] = useState(10);
  const [fault, setFault] = useState("");
  const stock = useQuery({
    queryKey: ["round", "stock", today, oneFor],
    queryFn: () =>
      asked(client.GET("/api/round/supplies", { params: { query: { today, one_for: oneFor } } })),
    placeholderData: (last) => last,
  });
  const count = (row: Consumable, amount: number | null, lead: number) =>
    void asked(
      client.PUT("/api/round/supplies/{key}", {
        params: { path: { key: row.use.key } },
        body: { amount, counted: today, lead_d: lead },
      }),
    ).then(
      () => {
        setFault("");
        void queries.invalidateQueries({ queryKey: ["round", "stock"] });
      },
      (cause: unknown) => setFault(cause instanceof Error ? cause.message : String(cause)),
    );
  const found = stock.data;
  return (
    <main className="max-w-4xl px-4 pt-3 pb-16 sm:px-6">
      <header className="mb-3 flex min-h-9 flex-wrap items-center gap-x-4 pr-44">
        <h1 className="text-xl font-semibold">
          <Link to="/round" className="text-edge-deep underline underline-offset-4">
            Round
          </Link>
          , stock and spares
        </h1>
      </header>
      <Unread place="stock" />
      {stock.isError && (
        <p role="alert" className="text-short">
          {stock.error.message}
        </p>
      )}
      {fault && (
        <p role="alert" className="mb-2 text-short">
          {fault}
        </p>
      )}
      {found && (
        <>
          <p className="mb-3 text-lg leading-snug">
            <Says sentence={found.result} />
          </p>
          <ul aria-label="Stock" className="mb-8">
            {found.supplies.map((row) => (
              <StockLine
                key={`${row.use.key} ${row.counted} ${row.lead_d}`}
                row={row}
                count={(...what) => count(row, ...what)}
              />
            ))}
          </ul>
          <h2 className="mb-1 text-lg font-semibold">Spares</h2>
          <p className="mb-2 text-sm text-quiet">
            Of what can not wait, one beside for up to{" "}
            <input
              aria-label="One spare for so many in use"
              inputMode="numeric"
              defaultValue={oneFor}
              onChange={(event) => {
                const typed = Number(event.target.value);
                if (Number.isInteger(typed) && typed >= 1 && typed <= 1000) setOneFor(typed);
              }}
              className="num min-h-8 w-14 rounded-sm border border-line bg-paper px-2 text-right pointer-coarse:min-h-11"
            />{" "}
            in use.
          </p>
          <ul aria-label="Spares">
            {found.spares.map((row) => (
              <li key={row.label} className="flex gap-3 border-b border-line/60 py-1">
                <span className="min-w-0 flex-1">{row.label}</span>
                <span className="text-quiet">{units.text(row.in_use, "count")} in use</span>
                <span className="w-16 text-right">
                  keep <span className="num">{row.keep}</span>
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </main>
  );
}

interface StockProps {
  row: Consumable;
  count: (amount: number | null, lead: number) => void;
}

/** One thing that is used up, and what was counted of it. */
function StockLine({ row, count }: StockProps) {
  const units = useUnits();
  const { kind } = row.use;
  const [amount, setAmount] = useState(
    row.left === null ? "" : units.entry(Number(row.left.toPrecision(3)), kind),
  );
  const [lead, setLead] = useState(String(row.lead_d));
  const keep = () => {
    const typed = parsed(amount, () => true);
    const days = Number(lead);
    if (amount.trim() && typed === null) return;
    if (Number.isInteger(days) && days >= 0) count(typed === null ? null : units.base(typed, kind), days);
  };
  const box = "num min-h-9 rounded-sm border border-line bg-paper px-2 text-right pointer-coarse:min-h-11";
  return (
    <li className="grid items-baseline gap-x-4 gap-y-1 border-b border-line/60 py-2 sm:grid-cols-[minmax(0,1fr)_auto_17rem]">
      <span>
        <span className="font-semibold">{row.use.label}</span>{" "}
        <span className="text-sm text-quiet">{units.text(row.use.a_week, kind)} a week</span>
      </span>
      <span className="flex items-baseline gap-1.5 text-sm">
        <label className="flex items-baseline gap-1.5 text-quiet">
          there are
          <input
            aria-label={`${row.use.label}, there are`}
            inputMode="decimal"
            value={amount}
            onChange={(event) => setAmount(event.target.value)}
            onBlur={keep}
            onKeyDown={(event) => event.key === "Enter" && keep()}
            className={`${box} w-20`}
          />
          {units.unit(kind).label}
        </label>
        <label className="flex items-baseline gap-1.5 text-quiet">
          · order takes
          <input
            aria-label={`${row.use.label}, days of an order`}
            inputMode="numeric"
            value={lead}
            onChange={(event) => setLead(event.target.value)}
            onBlur={keep}
            className={`${box} w-12`}
          />
          days
        </label>
      </span>
      <span className={`text-sm sm:text-right ${row.late ? "text-short" : "text-quiet"}`}>
        {row.order_by && row.runs_out
          ? `${row.late ? "order now" : `order by ${shortDay(row.order_by)}`}, gone ${shortDay(row.runs_out)}`
          : row.counted === null
            ? "not counted"
            : "lasts for years"}
      </span>
    </li>
  );
}

import type { NitratePage } from "@/api/client";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { Ways } from "./Ways";

/** What the readings say beside what the plan has, and whether what was tried does anything. */
export function WhatTheLogSays({ page }: { page: NitratePage }) {
  const units = useUnits();
  return (
    <>
      {page.experiments.length > 0 && (
        <section aria-label="Experiments" className="mb-5">
          <h3 className="font-semibold">What was tried</h3>
          <ul>
            {page.experiments.map((one, i) => (
              <li key={i} className="border-b border-line/70 py-1.5">
                <Says sentence={one.sentence} />
                <span className="block text-sm text-quiet">
                  {one.entry}, for {Math.round(-one.since)} days
                  {one.odds != null && `; ${units.text(one.odds, "share")} that it takes anything`}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {page.said.length > 0 && (
        <section aria-label="What the log says" className="mb-5">
          <h3 className="mb-1 font-semibold">What the log says</h3>
          <table className="w-full text-left text-sm">
            <thead className="text-quiet">
              <tr className="border-b border-line">
                <th scope="col" className="py-1 font-normal">
                  {""}
                </th>
                <th scope="col" className="py-1 text-right font-normal">
                  the plan
                </th>
                <th scope="col" className="py-1 text-right font-normal">
                  the log
                </th>
              </tr>
            </thead>
            <tbody>
              {page.said.map((row) => (
                <tr key={row.key} className="border-b border-line/70">
                  <th scope="row" className="py-1 font-normal">
                    {row.label}, <span className="text-quiet">{units.unit(row.kind).label}</span>
                  </th>
                  <td className="num py-1 text-right">{units.number(row.plan, row.kind)}</td>
                  <td className="num py-1 text-right">
                    {units.number(row.likely, row.kind)}{" "}
                    <span className="text-quiet">
                      ({units.number(row.low, row.kind)} to {units.number(row.high, row.kind)})
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      <Ways page={page} />
    </>
  );
}

import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { asked, client, type LastReading } from "@/api/client";
import { dayMonth, wholeDay } from "@/lib/shown/days";
import { useKnown } from "@/ui/log/log";
import { daysAgo } from "./Entries";

const FADES_D = 14;

/** What was read last of everything in every tank: old ones faded, what lies outside its limits marked. */
export function LastReadings() {
  const known = useKnown();
  const [find, setFind] = useState("");
  const last = useQuery({ queryKey: ["log", "last"], queryFn: () => asked(client.GET("/api/log/last")) });
  if (last.isError) {
    return (
      <p role="alert" className="text-short">
        {last.error.message}
      </p>
    );
  }
  if (!last.data || !known) return <p className="text-quiet">Reading the logs…</p>;
  const measures = last.data.measures.map((key) => known.measures.find((one) => one.key === key)!);
  const wanted = find.trim().toLowerCase();
  const rows = last.data.rows.filter(({ name }) => name.toLowerCase().includes(wanted));
  const fresh = daysAgo(FADES_D);
  const beyond = rows
    .flatMap(({ readings }) => readings)
    .filter((one) => one.beyond !== "" && new Date(one.at) >= fresh).length;
  if (measures.length === 0)
    return <p>Nothing was read yet. A reading of each tank stands here, by what was read.</p>;
  return (
    <>
      <p className="mb-2 flex flex-wrap items-center gap-3">
        <input
          type="search"
          aria-label="Find a system"
          placeholder="Find a tank"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          className="min-h-9 w-40 rounded-sm border border-line bg-paper px-2 pointer-coarse:min-h-11"
        />
        <span className={beyond ? "text-short" : "text-quiet"}>
          {beyond === 0
            ? "Nothing read of late lies outside its limits."
            : `${beyond} read of late outside their limits.`}
        </span>
      </p>
      <div className="max-h-[75vh] overflow-auto">
        <table className="w-full text-left text-sm">
          <thead className="sticky top-0 z-10 bg-ground">
            <tr className="border-b border-line align-bottom">
              <th scope="col" className="sticky left-0 bg-ground py-1 pr-3 font-normal text-quiet">
                {rows.length} {rows.length === 1 ? "tank" : "tanks"}
              </th>
              {measures.map(({ key, label, unit }) => (
                <th key={key} scope="col" className="px-2 py-1 text-right font-semibold">
                  {label}
                  <span className="block font-normal whitespace-nowrap text-quiet">{unit || "\u00a0"}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.system_id} className="border-b border-line/60">
                <th scope="row" className="sticky left-0 bg-ground py-1 pr-3 font-semibold">
                  <Link
                    to="/systems/$id/$stage"
                    params={{ id: String(row.system_id), stage: "log" }}
                    className="hover:text-edge-deep"
                  >
                    {row.name}
                  </Link>
                </th>
                {measures.map(({ key, unit }) => (
                  <Cell
                    key={key}
                    one={row.readings.find(({ measure }) => measure === key)}
                    unitOf={(kit) => known.kits.find((one) => one.key === kit)?.unit ?? unit}
                    usual={unit}
                  />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-sm text-quiet">
        Faded: read more than two weeks ago. Marked: all that the reading may mean lies outside the plan’s
        nitrate limit, what harms, or what the animals bear.
      </p>
    </>
  );
}

interface CellProps {
  one: LastReading | undefined;
  unitOf: (kit: string) => string;
  usual: string;
}

function Cell({ one, unitOf, usual }: CellProps) {
  if (!one) return <td className="px-2 py-1 text-right text-quiet">–</td>;
  const at = new Date(one.at);
  const old = at < daysAgo(FADES_D);
  const unit = unitOf(one.kit);
  const words = `${wholeDay(at)}: ${one.value} ${unit}${one.beyond && `, ${one.beyond} its limit`}`;
  return (
    <td
      title={words}
      className={`num px-2 py-1 text-right whitespace-nowrap ${old ? "text-quiet italic" : ""}`}
    >
      <span
        className={
          !one.beyond
            ? ""
            : old
              ? "border-b-2 border-short/50"
              : "border-b-2 border-short font-semibold text-short"
        }
      >
        {one.beyond === "over" && "▲ "}
        {one.beyond === "under" && "▼ "}
        {one.value.replace("between ", "").replace(" and ", "–")}
        {unit !== usual && <span className="text-quiet"> {unit}</span>}
      </span>
      {one.beyond && <span className="sr-only">{one.beyond} its limit</span>}
      <span className="block text-xs text-quiet">{dayMonth(at)}</span>
    </td>
  );
}

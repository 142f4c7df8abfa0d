import { Link } from "@tanstack/react-router";
import { MoreHorizontal } from "lucide-react";
import type { Compared, VentureName } from "@/api/client";
import { Menu } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";
import { useNarrow } from "@/ui/useNarrow";

interface WorthRowsProps {
  rows: readonly Compared[];
  names: VentureName[];
  remove: (venture: VentureName) => void;
}

/** Kinds as rows on one scale of what is left for a tank and week: a bar from worst to best with a mark at the likely. */
export function WorthRows({ rows, names, remove }: WorthRowsProps) {
  const units = useUnits();
  const known = rows.flatMap((row) => [row.low_money ?? 0, row.high_money ?? 0]);
  const least = Math.min(0, ...known);
  const most = Math.max(0.01, ...known);
  const at = (value: number) => `${((value - least) / (most - least)) * 100}%`;
  const refused = rows.findIndex((row) => row.against.length > 0);
  return (
    <>
      <div aria-hidden="true" className="relative mr-29 mb-1 ml-[34%] h-5 text-xs text-quiet max-sm:ml-0">
        {[least, 0, most].map((value, i) => (
          <span
            key={i}
            className="num absolute -translate-x-1/2"
            style={{ left: `clamp(14px, ${at(value)}, calc(100% - 14px))` }}
          >
            {units.number(value, "money")}
          </span>
        ))}
      </div>
      <ul className="border-t border-line">
        {rows.map((row, i) => (
          <li key={row.venture}>
            {i === refused && (
              <p className="pt-4 pb-1 text-sm font-semibold text-short">
                This tank’s own sheet refuses these. They are reckoned all the same.
              </p>
            )}
            <Row row={row} at={at} name={names.find(({ id }) => id === row.venture)} remove={remove} />
          </li>
        ))}
      </ul>
    </>
  );
}

interface RowProps {
  row: Compared;
  at: (value: number) => string;
  name: VentureName | undefined;
  remove: (venture: VentureName) => void;
}

function Row({ row, at, name, remove }: RowProps) {
  const units = useUnits();
  const narrow = useNarrow();
  const money = (value: number | null | undefined) => (value == null ? "–" : units.text(value, "money"));
  const known = row.low_money != null && row.likely_money != null && row.high_money != null;
  const told = known
    ? `${row.name}: ${money(row.low_money)} to ${money(row.high_money)}, likely ${money(row.likely_money)} a tank and week`
    : `${row.name}: not known`;
  return (
    <div className="grid grid-cols-[34%_minmax(0,1fr)] items-center gap-x-0 border-b border-line py-2 max-sm:grid-cols-1">
      <div className="min-w-0 pr-3">
        {name ? (
          <Link
            to="/breeding/$id/$stage"
            params={{ id: String(row.venture), stage: "worth" }}
            className="font-semibold hover:text-edge-deep"
          >
            {row.name}
          </Link>
        ) : (
          <b>{row.name}, left as it is</b>
        )}
        <span className="block text-sm text-quiet">
          {row.purpose === "line" && "kept for the line · "}
          {row.tanks != null && `${units.number(row.tanks, "count")} ${row.tanks === 1 ? "tank" : "tanks"}`}
          {row.hour_money != null && ` · ${money(row.hour_money)} an hour`}
          {row.first_sale && row.purpose === "sale" && ` · first sale ${row.first_sale}`}
        </span>
      </div>
      <div className="flex items-center gap-2">
        <div role="img" aria-label={told} className="relative h-7 flex-1">
          <span aria-hidden="true" className="absolute inset-y-0 w-px bg-mark" style={{ left: at(0) }} />
          {known && (
            <>
              <span
                className={`absolute inset-y-2 ${row.against.length ? "bg-short-fill/60" : row.purpose === "sale" ? "bg-water-deep" : "bg-line"}`}
                style={{
                  left: at(row.low_money ?? 0),
                  width: `max(2px, calc(${at(row.high_money ?? 0)} - ${at(row.low_money ?? 0)}))`,
                }}
              />
              <span
                className="absolute inset-y-0.5 w-0.75 bg-ink"
                style={{ left: at(row.likely_money ?? 0) }}
              />
            </>
          )}
        </div>
        <span className="num w-16 text-right">{money(row.likely_money)}</span>
        {name ? (
          <Menu
            label={`More about ${row.name}`}
            trigger={<MoreHorizontal size={18} />}
            items={[{ words: "Put away", run: () => remove(name) }]}
          />
        ) : (
          <span className="size-9 pointer-coarse:size-11" />
        )}
      </div>
      <p className={`text-sm text-quiet ${narrow ? "" : "col-start-2"}`}>
        {row.undecided && <b className="text-brass">undecided </b>}
        {row.why_not && <Says sentence={row.why_not} />}
        {row.swings.length > 0 && (
          <>
            moved most by{" "}
            {row.swings
              .slice(0, 2)
              .map(({ what }) => what)
              .join(" and ")}
          </>
        )}
        {row.best_way && row.purpose === "sale" && <>; best alone: {row.best_way}</>}
        {row.against[0] && (
          <span className="block text-short">
            <Says sentence={row.against[0]} />
          </span>
        )}
      </p>
    </div>
  );
}

import type { Newcomers, WaivedOut } from "@/api/client";
import { shortDay } from "@/lib/shown/days";
import { Button } from "@/ui/controls";

interface WaivedProps {
  rows: WaivedOut[];
  here: (row: WaivedOut) => void;
  change: (row: WaivedOut) => void;
  drop: (row: WaivedOut) => void;
}

/** Who comes, or came, without quarantine: why, who is exposed, until when and for what they are watched. */
export function Waived({ rows, here, change, drop }: WaivedProps) {
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="waived" className="mt-6 border-t border-line pt-3">
      <h2 id="waived" className="mb-1 text-lg font-semibold">
        Without quarantine
      </h2>
      <ul>
        {rows.map((row) => (
          <li key={row.id} className="border-b border-line/60 py-2">
            <span className="num">{row.arriving.number}</span>{" "}
            <span className="font-semibold">{row.common}</span>{" "}
            <span className="text-sm text-quiet">
              {row.here ? "in" : "for"} {row.goes_to_name}
            </span>
            <p className="text-sm">Because: {row.arriving.waived}</p>
            <p className="text-sm text-short">
              Exposed: {row.exposed.length ? row.exposed.join(", ") : "nobody else yet"}. Watch all of them
              until {shortDay(row.watch_until)}:
            </p>
            <ul className="ml-5 list-disc text-sm text-quiet">
              {row.signs.map((sign) => (
                <li key={sign}>{sign}</li>
              ))}
            </ul>
            <p className="flex flex-wrap gap-1">
              {!row.here && <Button onClick={() => here(row)}>They are here</Button>}
              <Button
                look="word"
                onClick={() => change(row)}
                aria-label={`Change the waiver of ${row.common}`}
              >
                Change
              </Button>
              <Button look="word" onClick={() => drop(row)} aria-label={`Take off: waiver of ${row.common}`}>
                Take off
              </Button>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Nets, hoses and sponges that were in a course. */
export function Marked({ rows }: { rows: Newcomers["marked"] }) {
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="marked" className="mt-6 border-t border-line pt-3">
      <h2 id="marked" className="mb-1 text-lg font-semibold">
        Treated equipment
      </h2>
      <ul>
        {rows.map((row, i) => (
          <li key={i} className="flex flex-wrap gap-x-4 border-b border-line/60 py-1">
            <span className="min-w-0 flex-1 font-semibold">{row.equipment}</span>
            <span className="text-sm text-quiet">
              {row.product}, {row.tub}, until {shortDay(row.until)}
            </span>
            <span className={`w-full text-sm ${row.copper ? "text-short" : "text-quiet"}`}>
              {row.copper
                ? "Never into water with invertebrates: mark it, and keep it apart."
                : "Stays with this tub, or is washed and dried for days."}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

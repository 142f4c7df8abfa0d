import type { ArrivingOut } from "@/api/client";
import { shortDay } from "@/lib/shown/days";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";

interface ArrivingProps {
  row: ArrivingOut;
  here: () => void;
  change: () => void;
  drop: () => void;
}

/** Somebody who is to come: when they enter which tub and are home, or why no tub takes them. */
export function ArrivingLine({ row, here, change, drop }: ArrivingProps) {
  const { arriving } = row;
  return (
    <li className="grid items-baseline gap-x-4 gap-y-1 border-b border-line/60 py-2 sm:grid-cols-[minmax(0,1fr)_15rem_auto]">
      <span>
        <span className="num">{arriving.number}</span> <span className="font-semibold">{row.common}</span>{" "}
        <span className="text-sm text-quiet">
          for {row.goes_to_name || "a system that was deleted"}
          {arriving.source && `, from ${arriving.source}`}
        </span>
        {row.hold_d > 0 && (
          <span className="block text-sm text-brass">
            Ask the seller to hold them until {shortDay(row.enters ?? "")}: no tub that suits is free before.
          </span>
        )}
        {row.tub === null && (
          <span className="block text-sm text-short">
            {arriving.can_wait
              ? "No tub takes them."
              : `They come on ${shortDay(arriving.comes_on ?? "")} and can not wait: no tub takes them then.`}
          </span>
        )}
        {row.refused.length > 0 && (
          <details className="text-sm text-quiet">
            <summary className="cursor-pointer py-1">
              Not in {row.refused.map(({ tub }) => tub).join(", ")}
            </summary>
            <ul>
              {row.refused.map((one) => (
                <li key={one.tub}>
                  {one.tub}: <Says sentence={one.why} />
                </li>
              ))}
            </ul>
          </details>
        )}
      </span>
      <span className="text-sm">
        {row.enters && row.leaves && (
          <>
            {row.tub_name} <span className="num">{shortDay(row.enters)}</span> to{" "}
            <span className="num">{shortDay(row.leaves)}</span>
            {row.together > 1 && <span className="block text-quiet">shared: they come together</span>}
          </>
        )}
      </span>
      <span className="flex flex-wrap gap-1">
        <Button onClick={here}>They are here</Button>
        <Button look="word" onClick={change} aria-label={`Change ${row.common} for ${row.goes_to_name}`}>
          Change
        </Button>
        <Button look="word" onClick={drop} aria-label={`${row.common} for ${row.goes_to_name} do not come`}>
          Not coming
        </Button>
      </span>
    </li>
  );
}

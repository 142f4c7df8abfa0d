import type { Forecast } from "@/api/client";
import { TimeChart } from "@/ui/charts/TimeChart";
import { useUnits } from "@/ui/units";

const SHOWN: Record<string, { label: string; kind: string }> = {
  ammonia: { label: "Ammonia", kind: "ammonia" },
  nitrite: { label: "Nitrite", kind: "nitrite" },
  nitrate: { label: "Nitrate", kind: "nitrate" },
  kh: { label: "KH", kind: "carbonate" },
};

/** Four levels over the days of the cycle, each with its band, what was read, and what the animals may live in. */
export function CycleCharts({ forecast }: { forecast: Forecast }) {
  const units = useUnits();
  const to = forecast.hours.at(-1) ?? 1;
  const drops = forecast.happened.map(({ day, words }) => ({ day, words }));
  return (
    <figure className="mb-5">
      {forecast.bands.map((band) => {
        const { label, kind } = SHOWN[band.what]!;
        const shown = (level: number) => units.shown(level, kind);
        const bars = forecast.readings
          .filter(({ what }) => what === band.what)
          .map(({ day, low, high }) => ({ day, low: shown(low), high: high === null ? null : shown(high) }));
        const peak = Math.max(...band.middle);
        const words =
          `${label} over ${Math.round(to)} days: up to about ${units.text(peak, kind)} in the middle of the forecast, ` +
          `${bars.length} readings${band.limit == null ? "" : `, limit ${units.text(band.limit, kind)}`}.`;
        return (
          <TimeChart
            key={band.what}
            label={label}
            unit={units.unit(kind).label}
            words={words}
            band={{
              days: forecast.hours,
              low: band.low.map(shown),
              middle: band.middle.map(shown),
              high: band.high.map(shown),
            }}
            bars={bars}
            drops={band.what === "ammonia" ? drops : []}
            limit={band.limit == null ? null : { at: shown(band.limit), words: "may live in" }}
            today={forecast.today}
            from={0}
            to={to}
            tick={(day) => `day ${day}`}
            height={band.what === "ammonia" || band.what === "nitrite" ? 138 : 104}
          />
        );
      })}
      <figcaption className="text-sm text-quiet">
        Eight in ten such tanks lie inside the band. Bars are what was read, over all that it may mean; drops
        are what was done.
      </figcaption>
    </figure>
  );
}

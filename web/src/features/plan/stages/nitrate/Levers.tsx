import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useState } from "react";
import type { NitratePage } from "@/api/client";
import { Frame, LimitLine, type Plot } from "@/ui/charts/Frame";
import { Says } from "@/ui/figures/Says";
import { useUnits } from "@/ui/units";

const PLOT: Plot = { width: 640, height: 170, left: 44, right: 130, top: 24, bottom: 22 };
const INKS = ["var(--color-ink)", "var(--color-edge)", "var(--color-brass)"];
type Lever = NitratePage["levers"][number];

/** What each lever takes off the settled peak, and for how much work; two of them drawn beside today's regime. */
export function Levers({ page }: { page: NitratePage }) {
  const units = useUnits();
  const [picked, setPicked] = useState<string[]>([]);
  if (page.levers.length === 0) return null;
  const pick = (key: string) =>
    setPicked(picked.includes(key) ? picked.filter((other) => other !== key) : [...picked.slice(-1), key]);
  const cell = "num py-1 pr-2 text-right whitespace-nowrap";
  return (
    <section aria-label="Levers" className="mb-6">
      <h3 className="mb-1 font-semibold">What takes it down</h3>
      <Settled
        page={page}
        levers={picked.flatMap((key) => page.levers.find((lever) => lever.key === key) ?? [])}
      />
      <div className="overflow-x-auto">
        <table className="w-full text-left text-sm">
          <thead className="text-quiet">
            <tr className="border-b border-line">
              <th scope="col" className="py-1 pr-2 font-normal">
                Two at a time are drawn
              </th>
              <th scope="col" className="py-1 pr-2 text-right font-normal">
                off the peak
              </th>
              <th scope="col" className="py-1 pr-2 text-right font-normal">
                peak
              </th>
              <th scope="col" className="py-1 pr-2 text-right font-normal">
                min/wk
              </th>
              <th scope="col" className="py-1 pr-2 text-right font-normal">
                off a minute
              </th>
              <th scope="col" className="py-1 text-right font-normal">
                warming, a year
              </th>
            </tr>
          </thead>
          <tbody>
            {page.levers.map((lever) => (
              <tr key={lever.key} className="border-b border-line/70 align-top">
                <th scope="row" className="py-1 pr-2 font-normal">
                  <label className="flex min-h-8 items-start gap-2 pointer-coarse:min-h-11">
                    <input
                      type="checkbox"
                      checked={picked.includes(lever.key)}
                      onChange={() => pick(lever.key)}
                      className="mt-1 size-4 accent-edge"
                    />
                    <span>
                      <Says sentence={lever.words} />
                      {lever.note && <span className="block text-quiet">{lever.note}</span>}
                    </span>
                  </label>
                </th>
                <td className={cell}>
                  {units.number(lever.off, "nitrate")}
                  {lever.high_off - lever.low_off > 0.01 && (
                    <span className="block text-quiet">
                      {units.number(lever.low_off, "nitrate")} to {units.number(lever.high_off, "nitrate")}
                    </span>
                  )}
                </td>
                <td className={`${cell} ${lever.peak > page.limit ? "text-short" : ""}`}>
                  {units.number(lever.peak, "nitrate")}
                </td>
                <td className={cell}>{Math.round(lever.minutes_wk)}</td>
                <td className={cell}>
                  {lever.minutes_wk < 0.5
                    ? "free"
                    : (units.shown(lever.off, "nitrate") / lever.minutes_wk).toPrecision(2)}
                </td>
                <td className={cell}>
                  {Math.abs(lever.money_yr) < 0.005 ? "none" : units.number(lever.money_yr, "money")}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-1 text-sm text-quiet">
        Off the peak as it settles, in {units.unit("nitrate").label}. Plants count only as far as they are cut
        and taken out.
      </p>
    </section>
  );
}

/** The settled swing of today's regime and of the levers that are picked. */
function Settled({ page, levers }: { page: NitratePage; levers: Lever[] }) {
  const units = useUnits();
  const curves = [{ key: "now", saw: page.saw }, ...levers];
  const shown = (level: number) => units.shown(level, "nitrate");
  const within = (saw: Lever["saw"]) => saw.filter(({ day }) => day <= 28);
  const levels = curves.flatMap(({ saw }) => within(saw).map(({ nitrate }) => nitrate));
  if (levels.length === 0) return null;
  const x = scaleLinear([0, 28], [PLOT.left, PLOT.width - PLOT.right]);
  const y = scaleLinear(
    [0, shown(Math.max(...levels, page.limit)) * 1.08],
    [PLOT.height - PLOT.bottom, PLOT.top],
  ).nice(4);
  const path = line<Lever["saw"][number]>(
    ({ day }) => x(day),
    ({ nitrate }) => y(shown(nitrate)),
  );
  const peaks = curves.map(({ saw }) => Math.max(...within(saw).map(({ nitrate }) => nitrate)));
  return (
    <Frame
      plot={PLOT}
      y={y}
      unit={`Settled nitrate, ${units.unit("nitrate").label}`}
      words={`Settled peaks: ${peaks.map((peak) => units.text(peak, "nitrate")).join(", ")}.`}
      xTicks={[0, 7, 14, 21, 28].map((day) => [x(day), `${day / 7} wk`])}
    >
      <LimitLine plot={PLOT} at={y(shown(page.limit))} words="your limit" />
      <LimitLine plot={PLOT} at={y(shown(page.source))} words="change water" dashed />
      {curves.map(({ key, saw }, i) => (
        <g key={key}>
          <path d={path(within(saw)) ?? ""} fill="none" stroke={INKS[i]} strokeWidth={1.6} />
          <text x={PLOT.width - PLOT.right + 6} y={PLOT.top + 12 + 14 * i} fontSize={11} fill={INKS[i]}>
            {i === 0 ? "as planned" : `${"AB"[i - 1]}: peak ${units.number(peaks[i]!, "nitrate")}`}
          </text>
        </g>
      ))}
    </Frame>
  );
}

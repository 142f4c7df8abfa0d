import { useMemo } from "react";
import type { TankDrawn } from "@/api/client";
import { useUnits } from "@/ui/units";
import { useRoomInUse, useRoomSheet } from "../context";

const GAP = 34;
const HEADER_OVER = 15;
const TOP = 26;
const FLOOR = 14;
const UNEVEN = 0.9;
const ROW_CM = 680;

/** Racks side by side, in as many rows as keep their numbers readable. */
function inRows(lengths: number[]): number[][] {
  const rows: number[][] = [];
  let used = 0;
  lengths.forEach((length, i) => {
    if (rows.length === 0 || used + length > ROW_CM) {
      rows.push([]);
      used = 0;
    }
    rows.at(-1)!.push(i);
    used += length;
  });
  return rows;
}

/** Every rack seen from its front, true to scale: picking a tank shows what it gets. */
export function Elevation() {
  const racks = useRoomSheet((sheet) => sheet.racks) ?? [];
  const tanks = useRoomSheet((sheet) => sheet.tanks) ?? [];
  const exchanged = useRoomSheet((sheet) => sheet.exchanged);
  const zones = useRoomSheet((sheet) => sheet.zones);
  const { picked, pick } = useRoomInUse();
  const units = useUnits();
  const share = useMemo(() => new Map(exchanged?.map((row) => [row.tank, row])), [exchanged]);
  const most = useMemo(
    () => new Map(zones?.map((zone) => [zone.number, Math.max(...zone.tanks.map(({ ratio }) => ratio))])),
    [zones],
  );
  const ratio = useMemo(
    () => new Map(zones?.flatMap((zone) => zone.tanks.map((row) => [row.tank, row.ratio] as const))),
    [zones],
  );
  if (racks.length === 0)
    return <p className="text-quiet">Nothing stands here yet: put a rack of tanks on the wall.</p>;
  const tops = racks.map((rack, i) =>
    Math.max(
      ...rack.shelf_at_cm,
      ...tanks.filter((t) => t.rack === i + 1).map((t) => t.base_cm + t.height_cm),
    ),
  );
  const rows = inRows(racks.map(({ length_cm }) => length_cm + GAP));
  const width = Math.max(...rows.map((row) => row.reduce((sum, i) => sum + racks[i]!.length_cm + GAP, 0)));
  const tall = rows.map((row) => Math.max(...row.map((i) => tops[i]!)) + TOP + HEADER_OVER + FLOOR);
  const whole = tall.reduce((sum, h) => sum + h, 0);
  const font = Math.max(9, width / 54);
  const words = (tank: TankDrawn) => {
    const row = share.get(tank.number);
    return row
      ? `${tank.name}: ${units.text(row.lph, "flow")}, ${units.text(row.exchanged_frac, "share")} exchanged in a run`
      : `${tank.name}: by hand`;
  };
  return (
    <svg
      viewBox={`0 0 ${width} ${whole}`}
      role="group"
      aria-label={`Racks from the front: ${tanks.length} tanks on ${racks.length} racks`}
      className="mb-2 max-h-[52vh] w-full"
    >
      {racks.map((rack, i) => {
        const at = rows.findIndex((row) => row.includes(i));
        const left = rows[at]!.slice(0, rows[at]!.indexOf(i)).reduce(
          (sum, n) => sum + racks[n]!.length_cm + GAP,
          GAP / 2,
        );
        const ground = tall.slice(0, at + 1).reduce((sum, h) => sum + h, 0) - FLOOR;
        const y = (cm: number) => ground - cm;
        const own = tanks.filter((tank) => tank.rack === i + 1);
        const top = Math.max(...rack.shelf_at_cm, ...own.map((t) => t.base_cm + t.height_cm)) + 6;
        const headers = [...new Set(own.filter((t) => t.zone > 0).map((t) => `${t.shelf}.${t.zone}`))];
        return (
          <g key={i} transform={`translate(${left} 0)`}>
            <text
              x={0}
              y={y(top) - HEADER_OVER}
              fontSize={font * 1.15}
              fontWeight={600}
              fill="var(--color-ink)"
            >
              {rack.name}
            </text>
            <path
              d={`M0 ${y(top)}V${y(0)}M${rack.length_cm} ${y(top)}V${y(0)}`}
              stroke="var(--color-ink)"
              strokeWidth={2.2}
            />
            {rack.shelf_at_cm.map((at) => (
              <path
                key={at}
                d={`M0 ${y(at)}H${rack.length_cm}`}
                stroke="var(--color-ink)"
                strokeWidth={2.2}
              />
            ))}
            {headers.map((key) => {
              const [shelf, zone] = key.split(".").map(Number);
              const on = own.filter((t) => t.shelf === shelf && t.zone === zone);
              const over = y(Math.max(...on.map((t) => t.base_cm + t.height_cm)) + HEADER_OVER * 0.7);
              const from = Math.min(...on.map((t) => t.from_left_cm));
              const to = Math.max(...on.map((t) => t.from_left_cm + t.length_cm / 2));
              return (
                <g key={key} stroke="var(--color-pipe)">
                  <path d={`M${from - 4} ${over}H${to}`} strokeWidth={2.6} />
                  {on.map((t) => (
                    <path
                      key={t.number}
                      d={`M${t.from_left_cm + t.length_cm / 2} ${over}V${y(t.base_cm + t.height_cm) + 3}`}
                      strokeWidth={1.4}
                    />
                  ))}
                  <circle cx={from - 4} cy={over} r={font * 0.75} fill="var(--color-paper)" strokeWidth={1} />
                  <text
                    x={from - 4}
                    y={over + font * 0.28}
                    fontSize={font * 0.8}
                    textAnchor="middle"
                    className="num"
                    stroke="none"
                    fill="var(--color-ink)"
                  >
                    {zone}
                  </text>
                </g>
              );
            })}
            {own.map((tank) => {
              const row = share.get(tank.number);
              const low =
                row !== undefined && (ratio.get(tank.number) ?? 0) < UNEVEN * (most.get(tank.zone) ?? 0);
              const short = low || row?.state === "short";
              const rim = y(tank.base_cm + tank.height_cm);
              const water = 0.86 * tank.height_cm;
              const middle = tank.from_left_cm + tank.length_cm / 2;
              return (
                <g
                  key={tank.number}
                  role="button"
                  tabIndex={0}
                  aria-label={words(tank)}
                  aria-pressed={picked === tank.number}
                  onClick={() => pick(picked === tank.number ? null : tank.number)}
                  onKeyDown={(event) => {
                    if (event.key === "Enter" || event.key === " ") {
                      event.preventDefault();
                      pick(picked === tank.number ? null : tank.number);
                    }
                  }}
                  className="cursor-pointer"
                >
                  <rect
                    x={tank.from_left_cm}
                    y={rim + tank.height_cm - water}
                    width={tank.length_cm}
                    height={water - 1.2}
                    fill="var(--color-water)"
                  />
                  {row && (
                    <rect
                      x={tank.from_left_cm}
                      y={rim + tank.height_cm - water}
                      width={tank.length_cm}
                      height={water * Math.min(1, row.exchanged_frac)}
                      fill={short ? "var(--color-short-fill)" : "var(--color-water-deep)"}
                    />
                  )}
                  <path
                    d={`M${tank.from_left_cm} ${rim}V${rim + tank.height_cm - 1}H${tank.from_left_cm + tank.length_cm}V${rim}`}
                    fill="none"
                    stroke={picked === tank.number ? "var(--color-ink)" : "var(--color-edge)"}
                    strokeWidth={picked === tank.number ? 3.2 : 1.6}
                  />
                  <text
                    x={middle}
                    y={rim + tank.height_cm - water * 0.6}
                    fontSize={font}
                    textAnchor="middle"
                    className="num"
                    fill={short ? "var(--color-short)" : "var(--color-ink)"}
                  >
                    {row ? units.text(row.exchanged_frac, "share") : "hand"}
                  </text>
                  <text
                    x={middle}
                    y={rim + tank.height_cm - water * 0.6 + font * 0.95}
                    fontSize={font * 0.78}
                    textAnchor="middle"
                    fill="var(--color-quiet)"
                  >
                    {tank.name.length * font * 0.5 > tank.length_cm
                      ? tank.name.replace(/\D/g, "")
                      : tank.name}
                  </text>
                </g>
              );
            })}
          </g>
        );
      })}
      {rows.map((row, at) => (
        <path
          key={row[0]}
          d={`M0 ${tall.slice(0, at + 1).reduce((sum, h) => sum + h, 0) - FLOOR}H${width}`}
          stroke="var(--color-line)"
          strokeWidth={2}
        />
      ))}
    </svg>
  );
}

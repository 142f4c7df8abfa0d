import { useRoom, useRoomInUse, useRoomSheet } from "../context";

const AROUND = 0.3;
const DEEP = 1.2;
const SIDE = 0.28;

interface Station {
  key: string;
  label: string;
  x: number;
  y: number;
  round: boolean;
}

/** What stands in the room beside racks; only what is there is drawn. */
function useStations(): Station[] {
  const at = useRoom((room) => room.stations);
  const tub = useRoom((room) => Number(room.reservoir?.reservoir_l ?? 0) > 0);
  const purifier = useRoom((room) => room.purifier?.purifier_fitted ?? false);
  const hot = useRoom((room) => Number(room.store?.store_l ?? 0) > 0);
  return [
    { key: "tap", label: "tap", x: Number(at?.tap_x_m), y: Number(at?.tap_y_m), round: true, shown: true },
    {
      key: "hot",
      label: "hot store",
      x: Number(at?.hot_x_m),
      y: Number(at?.hot_y_m),
      round: false,
      shown: hot,
    },
    {
      key: "tub",
      label: "reservoir",
      x: Number(at?.tub_x_m),
      y: Number(at?.tub_y_m),
      round: false,
      shown: tub,
    },
    {
      key: "purifier",
      label: "osmosis",
      x: Number(at?.purifier_x_m),
      y: Number(at?.purifier_y_m),
      round: false,
      shown: purifier,
    },
    {
      key: "sink",
      label: "sink",
      x: Number(at?.sink_x_m),
      y: Number(at?.sink_y_m),
      round: false,
      shown: true,
    },
    {
      key: "drain",
      label: "drain",
      x: Number(at?.drain_x_m),
      y: Number(at?.drain_y_m),
      round: true,
      shown: true,
    },
  ].filter(({ shown, x, y }) => shown && Number.isFinite(x) && Number.isFinite(y));
}

/** The room from above: racks, stations, the pipes between them, each tank as it stands. Only what has litres and pipe is drawn. */
export function FloorPlan() {
  const racks = useRoomSheet((sheet) => sheet.racks) ?? [];
  const tanks = useRoomSheet((sheet) => sheet.tanks) ?? [];
  const manifold = useRoom((room) => room.treatment);
  const { picked, pick } = useRoomInUse();
  const stations = useStations();
  if (racks.length === 0) return null;
  const boxes = racks.map((rack) => {
    const long = rack.length_cm / 100;
    const deep = rack.depth_cm / 100;
    return rack.along === "wall"
      ? { x: rack.x_m, y: rack.y_m, w: long, h: deep }
      : { x: rack.x_m, y: rack.y_m, w: deep, h: long };
  });
  const width =
    Math.max(...boxes.map(({ x, w }) => x + w), ...stations.map(({ x }) => x + SIDE)) + 2 * AROUND;
  const depth =
    Math.max(DEEP, ...boxes.map(({ y, h }) => y + h), ...stations.map(({ y }) => y + SIDE)) + 2 * AROUND;
  const at = { x: Number(manifold?.manifold_x_m ?? 0), y: Number(manifold?.manifold_y_m ?? 0) };
  const font = width / 44;
  return (
    <svg
      viewBox={`${-AROUND} ${-AROUND} ${width} ${depth}`}
      role="img"
      aria-label={`The room from above: ${racks.map(({ name }) => name).join(", ")}; the manifold ${at.x} m from the left wall; ${stations.map(({ label }) => label).join(", ")}`}
      className="max-h-[26vh] w-full"
    >
      <path
        d={`M0 ${depth - AROUND}V0H${width - AROUND}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={0.05}
      />
      {stations
        .filter(({ key }) => key === "tap" || key === "hot" || key === "tub")
        .map(({ key, x, y }) => (
          <path
            key={key}
            d={`M${x} ${y}H${at.x}V${at.y}`}
            fill="none"
            stroke={key === "tub" ? "var(--color-edge)" : "var(--color-brass)"}
            strokeWidth={0.03}
          />
        ))}
      {boxes.map((box, i) => (
        <path
          key={i}
          d={`M${at.x} ${at.y}V${box.y + 0.06}H${box.x}`}
          fill="none"
          stroke="var(--color-brass)"
          strokeWidth={0.03}
        />
      ))}
      {racks.map((rack, i) => {
        const box = boxes[i]!;
        return (
          <g key={i}>
            <rect
              {...{ x: box.x, y: box.y, width: box.w, height: box.h }}
              fill="var(--color-paper)"
              stroke="var(--color-pipe)"
              strokeWidth={0.02}
            />
            {tanks
              .filter(
                (tank) =>
                  tank.rack === i + 1 &&
                  tank.shelf === Math.max(...tanks.filter((t) => t.rack === i + 1).map((t) => t.shelf)),
              )
              .map((tank) => {
                const from = tank.from_left_cm / 100;
                const long = tank.length_cm / 100;
                const deep = tank.width_cm / 100;
                const place =
                  rack.along === "wall"
                    ? { x: box.x + from, y: box.y + 0.02, width: long, height: deep }
                    : { x: box.x + 0.02, y: box.y + from, width: deep, height: long };
                return (
                  <rect
                    key={tank.number}
                    {...place}
                    fill="var(--color-water)"
                    stroke={picked === tank.number ? "var(--color-ink)" : "var(--color-edge)"}
                    strokeWidth={picked === tank.number ? 0.05 : 0.02}
                    onClick={() => pick(tank.number)}
                    aria-hidden
                    className="cursor-pointer"
                  />
                );
              })}
            <text
              x={rack.along === "wall" ? box.x : box.x + box.w + 0.08}
              y={rack.along === "wall" ? box.y + box.h + font * 1.2 : box.y + font * 1.4}
              fontSize={font}
              fill="var(--color-quiet)"
            >
              {rack.name}
            </text>
          </g>
        );
      })}
      {stations.map(({ key, label, x, y, round }) => (
        <g key={key}>
          {round ? (
            <circle
              cx={x}
              cy={y}
              r={SIDE / 3}
              fill="var(--color-ground)"
              stroke="var(--color-pipe)"
              strokeWidth={0.03}
            />
          ) : (
            <rect
              x={x - SIDE / 2}
              y={y - SIDE / 2}
              width={SIDE}
              height={SIDE}
              fill={key === "tub" ? "var(--color-water)" : "var(--color-ground)"}
              stroke="var(--color-pipe)"
              strokeWidth={0.03}
            />
          )}
          <text x={x + SIDE * 0.7} y={y + font * 0.35} fontSize={font} fill="var(--color-quiet)">
            {label}
          </text>
        </g>
      ))}
      <circle cx={at.x} cy={at.y} r={font * 0.55} fill="var(--color-brass)" />
      <text
        x={at.x + font * 0.8}
        y={at.y + depth * 0.02 + font * 2.6}
        fontSize={font}
        fill="var(--color-brass)"
      >
        manifold
      </text>
    </svg>
  );
}

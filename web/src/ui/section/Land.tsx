import { wayDown } from "@/lib/drawing/section";
import { useUnits } from "../units";
import { Part, type Drawn } from "./Part";
import { Words } from "./Words";

/** The dry place: a bank from the floor up, a platform at the surface or a box over the rim, and the way down. */
export function Land({ section, pick, scale, type }: Drawn & { scale: number; type: number }) {
  const units = useUnits();
  const { land, water_cm: water, length_cm: length, rest_cm: rest } = section;
  const thick = scale * 0.008;
  const top = land ? -water - land.above_cm : 0;
  const run = land ? Math.min(land.length_cm, length) : 0;
  return (
    <>
      {land && (
        <Part stage="tank" pick={pick} title="Dry place">
          {land.kind === "bank" ? (
            <path
              d={`M0 0V${top}H${run * 0.8}Q${run * 0.95} ${top} ${run} ${-water * 0.8}L${Math.min(run + water * 0.6, length)} 0Z`}
              fill="var(--color-sand)"
              stroke="var(--color-stone)"
              strokeWidth={thick * 0.3}
            />
          ) : (
            <g stroke="var(--color-wood)" strokeLinecap="round" fill="none">
              <path d={`M0 ${top + thick / 2}H${run}`} strokeWidth={thick} />
              {land.ramp && (
                <path
                  d={`M${run} ${top + thick / 2}L${wayDown(section).join(" ")}`}
                  strokeWidth={thick * 0.7}
                  strokeDasharray={`${thick * 0.9} ${thick * 0.9}`}
                />
              )}
              {land.kind === "box" && (
                <path
                  data-box
                  d={`M0 ${top}V${top - land.cover_cm}H${run}V${top}`}
                  stroke="var(--color-pipe)"
                  strokeWidth={thick * 0.6}
                />
              )}
            </g>
          )}
          {type > 0 && (
            <Words
              x={run * 0.04}
              y={top + type * (land.kind === "bank" ? 1.6 : 1.5)}
              size={type}
              ground="water"
            >
              land {units.text(land.length_cm, "length")} × {units.text(land.width_cm, "length")}
            </Words>
          )}
        </Part>
      )}
      {rest !== null && rest < water && (
        <path
          d={`M${length * 0.72} ${-water + rest}H${length * 0.86}M${length * 0.8} ${-water + rest}L${length * 0.83} 0`}
          stroke="var(--color-wood)"
          strokeWidth={thick}
          strokeLinecap="round"
          fill="none"
        />
      )}
    </>
  );
}

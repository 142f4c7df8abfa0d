import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { Frame, type Plot } from "@/ui/charts/Frame";
import { Button } from "@/ui/controls";
import { ChoiceField, NumberField, SwitchField } from "@/ui/editing/fields";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";
import { Fields } from "@/ui/fields/Row";
import { useUnits } from "@/ui/units";
import { useRoom, useRoomSheet } from "../context";
import { Figures } from "@/ui/root/Figures";

const PLOT: Plot = { width: 640, height: 150, left: 48, right: 16, top: 22, bottom: 24 };
const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];

/** Reverse-osmosis water over the week, and a softener's turns. */
export function PurifiedStage() {
  const fitted = useRoom((room) => room.purifier?.purifier_fitted);
  const softener = useRoom((room) => room.softener?.softener_on);
  const draws = useRows("purified");
  return (
    <>
      <SwitchField path="purifier.purifier_fitted" />
      {fitted && (
        <>
          <WeekChart />
          <Figures
            keys={[
              "purified_lph",
              "purified_fill_h",
              "purified_l_wk",
              "purified_most_l_wk",
              "purifier_waste_l_wk",
              "purified_us_cm",
            ]}
          />
          <Fields legend="Membranes and store">
            <NumberField path="purifier.membranes" />
            <NumberField path="purifier.membrane_l_d" />
            <NumberField path="purifier.membrane_kpa" />
            <NumberField path="purifier.purifier_kpa" />
            <NumberField path="purifier.back_kpa" />
            <NumberField path="purifier.waste_ratio" />
            <NumberField path="purifier.rejects_frac" />
            <NumberField path="purifier.purified_l" />
          </Fields>
          <fieldset className="mb-5">
            <legend className="mb-1 text-sm font-semibold">Drawn each week</legend>
            {Array.from({ length: draws.count }, (_, i) => (
              <div key={i} className={LINE}>
                <ChoiceField path={`purified.${i}.purified_day`} bare />
                <Worded words="at">
                  <NumberField path={`purified.${i}.purified_h`} bare />
                </Worded>
                <Worded words="for">
                  <NumberField path={`purified.${i}.purified_min`} bare />
                </Worded>
                <NumberField path={`purified.${i}.drawn_l`} bare />
                <Remove label={`Take draw ${i + 1} out`} run={() => draws.remove(i)} />
              </div>
            ))}
            <Adding to="purified" full={draws.full}>
              <Button onClick={() => draws.add()}>A draw</Button>
            </Adding>
          </fieldset>
        </>
      )}
      <Fields legend="Softener">
        <ChoiceField path="softener.softener_on" />
        {softener !== "none" && (
          <>
            <NumberField path="softener.resin_grains" />
            <NumberField path="softener.resin_frac" />
            <NumberField path="softener.removed_dgh" />
          </>
        )}
      </Fields>
      {softener !== "none" && <Figures keys={["softened_l", "softener_d", "softener_sodium"]} />}
    </>
  );
}

/** The store's level over the week, in winter. */
function WeekChart() {
  const points = useRoomSheet((sheet) => sheet.purified) ?? [];
  const units = useUnits();
  if (points.length < 2) return null;
  const levels = points.map(({ at_h, litres }) => [at_h, units.shown(litres, "volume")] as const);
  const x = scaleLinear([0, 168], [PLOT.left, PLOT.width - PLOT.right]);
  const y = scaleLinear(
    [0, Math.max(...levels.map(([, l]) => l), 1) * 1.05],
    [PLOT.height - PLOT.bottom, PLOT.top],
  ).nice(3);
  const path = line<readonly [number, number]>(
    ([h]) => x(h),
    ([, l]) => y(l),
  )(levels);
  const least = Math.min(...levels.map(([, l]) => l));
  return (
    <figure className="my-3">
      <figcaption className="mb-1 text-sm font-semibold">Its store over a week in winter</figcaption>
      <Frame
        plot={PLOT}
        y={y}
        words={`The store's level over a week: lowest ${Math.round(least)} ${units.unit("volume").label}`}
        unit={units.unit("volume").label}
        xTicks={DAYS.map((day, i) => [x(24 * i + 12), day])}
      >
        <path d={path ?? ""} fill="none" stroke="var(--color-edge)" strokeWidth={1.8} />
      </Frame>
    </figure>
  );
}

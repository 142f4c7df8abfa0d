import { useUnits } from "@/ui/units";
import { usePlan, useSheet } from "../../context";
import { Fields } from "@/ui/fields/Row";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { Figures } from "@/ui/root/Figures";

/** Salinity: how it is read, the salt of one change, and a slow move to another one, day by day. */
export function SaltMove() {
  const water = usePlan((plan) => plan.water);
  const days = useSheet((sheet) => sheet.salt_days);
  const units = useUnits();
  return (
    <>
      <Fields legend="Salt">
        <ChoiceField path="water.salinity_by" />
        {water.salinity_by === "gravity" ? (
          <NumberField path="water.gravity_sg" />
        ) : (
          <NumberField path="water.salinity_ppt" />
        )}
        <NumberField path="water.hydrometer_c" />
        <NumberField path="recipe.salt_purity_frac" />
        <NumberField path="recipe.move_to_ppt" placeholder="stay" />
        <NumberField path="recipe.move_ppt_d" />
      </Fields>
      <Figures keys={["tank_salinity_ppt", "change_salt_g", "move_d", "moving_ammonia_mg_l"]} />
      {days.length > 0 && (
        <table className="mb-5 w-full text-left text-sm">
          <caption className="mb-1 text-left font-semibold">
            The move, day by day; evaporation is topped up with fresh water only
          </caption>
          <thead className="text-quiet">
            <tr className="border-b border-line">
              <th scope="col" className="py-1 font-normal">
                Day
              </th>
              <th scope="col" className="py-1 text-right font-normal">
                {units.unit("salinity").label}
              </th>
              <th scope="col" className="py-1 text-right font-normal">
                do
              </th>
              <th scope="col" className="py-1 text-right font-normal">
                hydrometer then reads
              </th>
              <th scope="col" className="py-1 pl-3 text-right font-normal">
                a change that day takes
              </th>
            </tr>
          </thead>
          <tbody className="num">
            {days.map((row) => (
              <tr key={row.day} className="border-b border-line/70">
                <td className="py-1">{row.day}</td>
                <td className="text-right">{units.number(row.salinity_ppt, "salinity")}</td>
                <td className="text-right">
                  {row.salt_g > 0
                    ? `${units.text(row.salt_g, "small_mass")} of salt`
                    : `${units.text(row.fresh_l, "volume")} for fresh`}
                </td>
                <td className="text-right">{units.number(row.gravity, "gravity")}</td>
                <td className="text-right">{units.text(row.poured_salt_g, "small_mass")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

import { Switch } from "@/ui/controls";
import { Fields, Row } from "@/ui/fields/Row";
import { usePlan, usePlanInUse } from "../../context";
import { FaultOf } from "@/ui/editing/FaultSays";
import { NumberField } from "@/ui/editing/fields";

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

/** The room the tank stands in: its extremes, its mean, or every month. */
export function Room() {
  const { session } = usePlanInUse();
  const heat = usePlan((plan) => plan.heat);
  const months = heat.room_months_c;
  const year = (on: boolean) =>
    session.edit({ "heat.room_months_c": on ? MONTHS.map(() => heat.room_mean_c) : null });
  return (
    <>
      <Fields legend="The room">
        <NumberField path="heat.room_cold_c" />
        <NumberField path="heat.room_warm_c" />
        <NumberField path="heat.room_mean_c" />
        <NumberField path="heat.humidity_frac" />
        <Row label="Room by month">
          <Switch label="Room by month" on={Boolean(months)} onChange={year} />
        </Row>
      </Fields>
      {months && (
        <fieldset className="mb-5">
          <legend className="mb-1 text-sm font-semibold">Mean of each month</legend>
          <div className="grid grid-cols-3 gap-2 md:grid-cols-6">
            {MONTHS.map((month, i) => (
              <div key={month} className="text-sm text-quiet">
                {month}
                <NumberField bare path={`heat.room_months_c.${i}`} label={`Room in ${month}`} />
              </div>
            ))}
          </div>
          <FaultOf path="heat.room_months_c" />
        </fieldset>
      )}
    </>
  );
}

import { Link } from "@tanstack/react-router";
import { useUnits } from "@/ui/units";
import { NumberField } from "@/ui/editing/fields";
import { Button } from "@/ui/controls";
import { useRoomInUse, useRoomSheet } from "./context";

/** The tank that was picked: what its emitter gives, what that does to it, and its own entries. */
export function PickedTank() {
  const { picked, pick } = useRoomInUse();
  const tank = useRoomSheet(({ tanks }) => tanks.find(({ number }) => number === picked));
  const row = useRoomSheet(({ exchanged }) => exchanged.find((known) => known.tank === picked));
  const units = useUnits();
  if (picked === null || !tank) return null;
  const at = `places.${picked}`;
  return (
    <section aria-label={`Tank ${tank.name}`} className="mb-3 border-l-3 border-edge pl-3">
      <p className="mb-1">
        <b>{tank.name}</b>, {units.text(tank.litres, "volume")}
        {tank.system > 0 && (
          <>
            {" of "}
            <Link
              to="/systems/$id/$stage"
              params={{ id: String(tank.system), stage: "animals" }}
              className="text-edge-deep underline"
            >
              {tank.system_name || `system ${tank.system}, which can not be read`}
            </Link>
          </>
        )}
        {": "}
        {row ? (
          <>
            its emitter gives <b className="num">{units.text(row.lph, "flow")}</b> at{" "}
            {units.text(row.kpa ?? 0, "pressure")}, {units.text(row.litres_d, "volume")} a day. They exchange{" "}
            <b className="num">{units.text(row.exchanged_frac, "share")}</b> of it (drained and refilled they
            would exchange {units.text(row.drained_frac, "share")}), {units.text(row.week_frac, "share")} in a
            week.
            {row.nitrate != null && <> Nitrate settles at {units.text(row.nitrate, "nitrate")}</>}
            {row.kh_dkh != null && <>, KH at {units.text(row.kh_dkh, "carbonate")}</>}
            {row.nitrate != null && "."}
          </>
        ) : (
          "changed by hand."
        )}
      </p>
      <div className="grid gap-x-7 md:grid-cols-2">
        <NumberField path={`${at}.zone`} />
        <NumberField path={`${at}.blocked_frac`} />
        <NumberField path={`${at}.own_nominal_lph`} placeholder="zone’s" />
        <NumberField path={`${at}.pipe_m`} placeholder="auto" />
        <NumberField path={`${at}.shelf`} />
        <NumberField path={`${at}.slot`} />
        <NumberField path={`${at}.caught_l_min`} placeholder="not yet" />
        <NumberField path={`${at}.place_l`} placeholder={units.number(tank.litres, "volume")} />
        <NumberField path={`${at}.place_nitrate_mg_l_d`} placeholder="plan’s" />
      </div>
      <Button look="word" onClick={() => pick(null)}>
        close
      </Button>
    </section>
  );
}

import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client } from "@/api/client";
import { Button } from "@/ui/controls";
import { ChoiceField, NumberField, SwitchField, TextField } from "@/ui/editing/fields";
import { Adding, Remove, useRows } from "@/ui/editing/rows";
import { Fields } from "@/ui/fields/Row";
import { NumberBox } from "@/ui/fields/NumberBox";
import { Says } from "@/ui/figures/Says";
import { parsed } from "@/lib/shown/quantity";
import { useUnits } from "@/ui/units";
import { PressureChart } from "../charts/PressureChart";
import { useRoom, useRoomInUse, useRoomSheet } from "../context";
import { Figures } from "@/ui/root/Figures";
import { Trials } from "../Trials";

/** The changer's lines: its supply, its zones, what flows at each emitter while a zone is open. */
export function ChangerStage() {
  const zones = useRoom((room) => room.zones ?? []);
  const { add, remove, full } = useRows("zones");
  const [open, setOpen] = useState(0);
  const shown = Math.min(open, zones.length - 1);
  const zone = zones[shown];
  const buckets = useRoom((room) => room.places?.some(({ caught_l_min }) => caught_l_min != null));
  const pumped = zones.some(({ fed_from }) => fed_from === "reservoir");
  const measured = buckets ? ["caught_frac", "caught_kpa", "caught_header_x"] : [];
  return (
    <>
      <Figures
        keys={["changer_l_d", "supply_wanted_lph", "supply_most_lph", "least_even_frac", ...measured]}
      />
      <Propose />
      {zones.length > 0 && (
        <nav aria-label="Zones" className="mb-2 flex flex-wrap gap-1">
          {zones.map((row, i) => (
            <button
              key={i}
              type="button"
              aria-pressed={i === shown}
              onClick={() => setOpen(i)}
              className={`min-h-9 border-b-3 px-2 text-sm pointer-coarse:min-h-11 ${i === shown ? "border-edge font-semibold" : "border-transparent text-quiet hover:text-ink"}`}
            >
              <span className="num">{i + 1}</span> {row.zone_name || `Zone ${i + 1}`}
            </button>
          ))}
        </nav>
      )}
      {zone && (
        <section aria-label={`Zone ${shown + 1}`} className="mb-5">
          <div className="flex items-end gap-2">
            <div className="flex-1">
              <TextField key={shown} path={`zones.${shown}.zone_name`} oneLine />
            </div>
            <Remove label={`Take zone ${shown + 1} out`} run={() => remove(shown)} className="mb-3" />
          </div>
          <Figures
            key={`f${shown}`}
            keys={["zone_lph", "zone_even_frac", "zone_speed_m_s", "zone_surge_kpa"].map(
              (name) => `zones.${shown}.${name}`,
            )}
          />
          <PressureChart zone={shown + 1} />
          <div key={`n${shown}`} className="mb-3 grid gap-x-7 md:grid-cols-2">
            <ChoiceField path={`zones.${shown}.fed_from`} />
            <ChoiceField path={`zones.${shown}.emitter`} />
            <NumberField path={`zones.${shown}.nominal_lph`} />
            <NumberField
              path={`zones.${shown}.nominal_kpa`}
              label={zone.emitter === "compensating" ? "from" : "at"}
            />
            {zone.emitter === "compensating" ? (
              <NumberField path={`zones.${shown}.max_kpa`} />
            ) : (
              <NumberField path={`zones.${shown}.exponent`} />
            )}
            <ChoiceField path={`zones.${shown}.header`} />
            <NumberField path={`zones.${shown}.header_mm`} />
            <NumberField path={`zones.${shown}.header_x`} />
            <NumberField path={`zones.${shown}.drop_mm`} />
            <NumberField path={`zones.${shown}.drop_m`} />
            <NumberField path={`zones.${shown}.zone_kv`} />
            <NumberField path={`zones.${shown}.zone_min`} />
            <NumberField path={`zones.${shown}.pilot_kpa`} />
            <NumberField path={`zones.${shown}.pilot_lph`} />
            <NumberField path={`zones.${shown}.riser_m`} placeholder="auto" />
          </div>
          <FlowTable zone={shown + 1} />
          <Trials zone={shown + 1} />
        </section>
      )}
      <Adding to="zones" full={full}>
        <Button onClick={() => add({ zone_name: `Zone ${zones.length + 1}` })}>A zone of your own</Button>
      </Adding>
      <div className="mt-5">
        <Fields legend="From the street">
          <NumberField path="supply.static_kpa" />
          <NumberField path="supply.tested_lph" />
          <NumberField path="supply.tested_kpa" />
          <NumberField path="supply.house_lph" />
          <NumberField path="supply.tap_cm" />
          <SwitchField path="supply.air_gap" />
        </Fields>
        {pumped && (
          <Fields legend="From the reservoir">
            <NumberField path="reservoir.pump_kpa" />
            <NumberField path="reservoir.pump_lph" />
            <NumberField path="reservoir.pump_tested_kpa" />
            <NumberField path="reservoir.pump_w" />
            <NumberField path="reservoir.reservoir_cm" />
            <NumberField path="reservoir.reservoir_pipe_m" placeholder="reckoned" />
            <NumberField path="reservoir.reservoir_pipe_mm" />
          </Fields>
        )}
        <Fields legend="From the tap to the zones">
          <NumberField path="treatment.feed_m" placeholder="reckoned" />
          <NumberField path="treatment.feed_mm" />
          <NumberField path="treatment.feed_bends" />
          <NumberField path="treatment.cartridge_kpa" />
          <NumberField path="treatment.cartridge_worn" />
          <NumberField path="treatment.mixer_kv" />
          <SwitchField path="treatment.regulated" />
          <NumberField path="treatment.setpoint_kpa" />
          <NumberField path="treatment.regulator_kv" />
          <NumberField path="treatment.manifold_cm" />
        </Fields>
      </div>
    </>
  );
}

/** Zones of tanks that one emitter changes alike. */
function Propose() {
  const { session } = useRoomInUse();
  const units = useUnits();
  const [share, setShare] = useState("15");
  const propose = useMutation({
    mutationFn: () =>
      asked(
        client.POST("/api/room/zones", {
          body: { room: session.state.content, share: units.base(parsed(share) ?? 15, "share") },
        }),
      ),
  });
  const found = propose.data;
  return (
    <section aria-label="Zones proposed" className="mb-5">
      <p className="flex flex-wrap items-center gap-2">
        Change
        <NumberBox label="Share changed a day" shown={share} type={setShare} unit="%" narrow />
        of every tank a day:
        <Button disabled={propose.isPending} onClick={() => propose.mutate()}>
          Propose zones
        </Button>
      </p>
      {propose.error && (
        <p role="alert" className="text-short">
          {propose.error.message}
        </p>
      )}
      {found && (
        <div className="mt-2 border-l-3 border-brass pl-3">
          <ul>
            {found.zones.map((zone) => (
              <li key={zone.name} className="py-1">
                <b>{zone.name}</b>: <Says sentence={zone.why} />
                {zone.apart.map((why, i) => (
                  <span key={i} className="block text-sm text-short">
                    <Says sentence={why} />
                  </span>
                ))}
              </li>
            ))}
          </ul>
          <Button
            look="strong"
            onClick={() => {
              session.replace(found.room);
              propose.reset();
            }}
          >
            Take these zones
          </Button>
          <Button look="word" onClick={() => propose.reset()}>
            leave it
          </Button>
        </div>
      )}
    </section>
  );
}

/** What each tank of a zone gets. */
function FlowTable({ zone }: { zone: number }) {
  const row = useRoomSheet(({ zones }) => zones.find(({ number }) => number === zone));
  const { picked, pick } = useRoomInUse();
  const units = useUnits();
  if (!row) return null;
  const most = Math.max(...row.tanks.map(({ ratio }) => ratio));
  const cell = "num py-1 pr-3 text-right whitespace-nowrap";
  return (
    <div className="mb-3 overflow-x-auto">
      <table className="w-full text-left text-sm">
        <caption className="sr-only">Flow at each emitter of {row.name}</caption>
        <thead className="text-quiet">
          <tr className="border-b border-line">
            <th scope="col" className="py-1 font-normal">
              Tank
            </th>
            {[
              units.unit("flow").label,
              units.unit("pressure").label,
              "of its water",
              `${units.unit("head").label} of pipe`,
            ].map((words) => (
              <th key={words} scope="col" className="py-1 pr-3 text-right font-normal">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {row.tanks.map((tank) => {
            const low = tank.ratio < 0.9 * most;
            return (
              <tr
                key={tank.tank}
                className={`border-b border-line/70 ${picked === tank.tank ? "bg-paper font-semibold" : ""}`}
              >
                <th scope="row" className="py-0.5 font-normal">
                  <button
                    type="button"
                    onClick={() => pick(tank.tank)}
                    className="min-h-8 px-1 text-left text-edge-deep hover:underline pointer-coarse:min-h-11"
                  >
                    {tank.name}
                  </button>
                </th>
                <td className={cell}>{units.number(tank.lph, "flow")}</td>
                <td className={cell}>{units.number(tank.kpa ?? 0, "pressure")}</td>
                <td className={`${cell} ${low ? "text-short" : ""}`}>{units.text(tank.ratio, "share")}</td>
                <td className={cell}>{units.number(tank.pipe_m, "head")}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

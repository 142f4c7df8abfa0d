import { ChoiceField, DateField, NumberField } from "@/ui/editing/fields";
import { Fields } from "@/ui/fields/Row";
import { useUnits } from "@/ui/units";
import { useRoomInUse, useRoomSheet } from "../context";
import { Figures } from "@/ui/root/Figures";

/** What the changer does to each tank, and what is left to a hose. */
export function TanksStage() {
  const due = useRoomSheet((sheet) => sheet.cartridges_due);
  return (
    <>
      <ExchangeTable />
      <HandRound />
      <Figures keys={["room_contact_min", "needed_contact_min", "through_l_wk", "worst_nitrate_mg_l"]} />
      {due && (
        <p className="mb-4">
          Change the cartridges before the run of <b className="num">{due}</b>.
        </p>
      )}
      <Fields legend="The water that comes in">
        <NumberField path="supply.supply_nitrate_mg_l" />
        <NumberField path="supply.supply_kh_dkh" />
        <NumberField path="supply.supply_us_cm" />
        <ChoiceField path="supply.supply_disinfectant" />
        <NumberField path="treatment.carbon_l" />
        <NumberField path="treatment.cartridge_l" />
        <NumberField path="treatment.cartridge_d" />
        <DateField path="treatment.cartridge_on" />
      </Fields>
    </>
  );
}

function ExchangeTable() {
  const rows = useRoomSheet((sheet) => sheet.exchanged) ?? [];
  const { picked, pick } = useRoomInUse();
  const units = useUnits();
  if (rows.length === 0) return null;
  const cell = "num py-1 pl-3 text-right whitespace-nowrap";
  return (
    <div className="mb-4 max-h-[46vh] overflow-auto">
      <table className="w-full text-left text-sm">
        <caption className="mb-1 text-left text-sm text-quiet">
          A run of new water passes through and takes some of itself along; drained and refilled, the same
          litres exchange more.
        </caption>
        <thead className="sticky top-0 bg-ground text-quiet">
          <tr className="border-b border-line">
            <th scope="col" className="py-1 font-normal">
              Tank
            </th>
            {[
              `${units.unit("volume").label} a day`,
              "exchanged",
              "if drained",
              "a week",
              `nitrate, ${units.unit("nitrate").label}`,
              "limit",
              `KH, ${units.unit("carbonate").label}`,
            ].map((words) => (
              <th key={words} scope="col" className="py-1 pl-3 text-right font-normal">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr
              key={row.tank}
              className={`border-b border-line/70 ${picked === row.tank ? "bg-paper font-semibold" : ""}`}
            >
              <th scope="row" className="py-0.5 font-normal">
                <button
                  type="button"
                  onClick={() => pick(row.tank)}
                  className="min-h-8 px-1 text-edge-deep hover:underline pointer-coarse:min-h-11"
                >
                  {row.name}
                </button>
              </th>
              <td className={cell}>{units.number(row.litres_d, "volume")}</td>
              <td className={cell}>{units.text(row.exchanged_frac, "share")}</td>
              <td className={cell}>{units.text(row.drained_frac, "share")}</td>
              <td className={cell}>{units.text(row.week_frac, "share")}</td>
              <td className={`${cell} ${row.state === "short" ? "text-short" : ""}`}>
                {row.nitrate == null ? "–" : units.number(row.nitrate, "nitrate")}
              </td>
              <td className={cell}>{row.limit == null ? "–" : units.number(row.limit, "nitrate")}</td>
              <td className={cell}>{row.kh_dkh == null ? "–" : units.number(row.kh_dkh, "carbonate")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** The walk with the hose, in order. */
function HandRound() {
  const rows = useRoomSheet((sheet) => sheet.hand_round) ?? [];
  const units = useUnits();
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="by-hand" className="mb-4">
      <h3 id="by-hand" className="mb-1 text-sm font-semibold">
        By hand, in the order of the walk
      </h3>
      <ol className="columns-2 text-sm">
        {rows.map((row, i) => (
          <li key={row.tank} className="flex gap-2 border-b border-line/70 py-1">
            <span className="num text-quiet">{i + 1}</span>
            <span className="flex-1">{row.name}</span>
            <span className="num">{units.text(row.litres_wk, "volume")}</span>
            <span className="num text-quiet">{units.text(row.minutes_wk, "minutes")}</span>
          </li>
        ))}
      </ol>
      <Figures keys={["hand_l_wk", "hand_min"]} />
    </section>
  );
}

import { useMutation } from "@tanstack/react-query";
import { asked, client, type Flow } from "@/api/client";
import { Says } from "@/ui/Says";
import { Button } from "@/ui/controls";
import { useUnits } from "@/ui/units";
import { Checks } from "../Checks";
import { PumpChart } from "../charts/PumpChart";
import { usePlan, usePlanInUse, useSheet } from "../context";
import { ChoiceField, Fields, NumberField, SwitchField } from "../fields";
import { Figures, FigureValue } from "../Figures";
import { useRows } from "../rows";
import { AddFilter } from "./FilterStage";
import { BuiltFields, Chambers, LINE, ReturnRows, RunRows } from "./flowRows";
import { PumpFields } from "./PumpFields";
import { SumpQuestions } from "./SumpQuestions";

/** How water leaves, goes through the sump and comes back. */
export function FlowStage() {
  const { session } = usePlanInUse();
  const way = usePlan((plan) => plan.flow?.way) ?? "none";
  const start = useMutation({
    mutationFn: (way: "weir" | "holes") =>
      asked(client.POST("/api/sump/first", { body: { plan: session.state.plan, way } })),
    onSuccess: (plan) => session.replace(plan),
  });
  if (way === "none")
    return (
      <>
        <FiltersMove />
        <h3 className="mb-1 text-sm font-semibold">Or with a sump</h3>
        <p className="mb-2 max-w-prose text-quiet">
          Water leaves by a weir box or drilled holes, runs through chambers below, and a pump brings it back.
        </p>
        <div className="mb-6 flex flex-wrap gap-2">
          <Button look="strong" disabled={start.isPending} onClick={() => start.mutate("weir")}>
            A weir box and a sump
          </Button>
          <Button disabled={start.isPending} onClick={() => start.mutate("holes")}>
            Drilled holes and a sump
          </Button>
        </div>
        {start.isError && <p className="mb-4 text-short">{start.error.message}</p>}
        <Checks stage="flow" />
      </>
    );
  return <Sumped way={way} />;
}

/** Without a sump every filter takes its water and gives it back by itself. */
function FiltersMove() {
  const { count } = useRows("filters");
  return (
    <section aria-labelledby="filters-move" className="mb-2">
      <h3 id="filters-move" className="mb-1 text-sm font-semibold">
        Water leaves and comes back by
      </h3>
      <ul>
        {Array.from({ length: count }, (_, i) => (
          <li key={i} className={LINE}>
            <ChoiceField bare path={`filters.${i}.filter_kind`} label={`Kind of filter ${i + 1}`} />
            <NumberField bare path={`filters.${i}.rated_lph`} label={`Rated flow of filter ${i + 1}`} />
            <span className="text-quiet">
              really moves <FigureValue name={`filters.${i}.real_flow_lph`} />
            </span>
          </li>
        ))}
      </ul>
      <AddFilter />
      <Figures keys={["total_flow_lph", "turnover_per_h"]} />
    </section>
  );
}

function Sumped({ way }: { way: "weir" | "holes" }) {
  const curves = useSheet((sheet) => sheet.flow);
  const { openFigure } = usePlanInUse();
  const airBreak = usePlan((plan) => plan.flow?.air_break);
  const clarified = usePlan((plan) => plan.flow?.uv_fitted);
  return (
    <>
      {curves && <PumpChart flow={curves} />}
      <RunRows />
      <ReturnRows />
      <PumpFields />
      <Checks stage="flow" />
      <Fields legend="The overflow">
        <ChoiceField path="flow.way" />
        {way === "weir" ? (
          <>
            <NumberField path="flow.weir_cm" />
            <NumberField path="flow.teeth_frac" />
            <NumberField path="flow.box_length_cm" />
            <NumberField path="flow.box_width_cm" />
            <NumberField path="flow.box_lip_cm" />
          </>
        ) : (
          <>
            <NumberField path="flow.hole_mm" />
            <NumberField path="flow.hole_count" />
            <NumberField path="flow.hole_edge_cm" />
          </>
        )}
        <ChoiceField path="flow.drain_kind" />
        <ChoiceField path="flow.drain_pipe" />
        <NumberField path="flow.drain_count" />
        <NumberField path="flow.drain_length_m" />
        <NumberField path="flow.drain_elbows" />
        <ChoiceField path="flow.emergency_pipe" />
        <SwitchField path="flow.air_break" />
        {airBreak && <NumberField path="flow.air_break_cm" />}
      </Fields>
      {curves && <Cases flow={curves} />}
      <h3 className="mt-6 mb-1 text-xl font-semibold">Sump</h3>
      {curves && (
        <p className="mb-3 text-lg leading-snug">
          <Says sentence={curves.sump} open={openFigure} />
        </p>
      )}
      <SumpQuestions />
      <Chambers />
      <Fields legend="Its glass and stand">
        <NumberField path="sump.sump_length_cm" />
        <NumberField path="sump.sump_width_cm" />
        <NumberField path="sump.sump_height_cm" />
        <NumberField path="sump.sump_pane_mm" />
        <NumberField path="sump.stand_cm" />
        <NumberField path="sump.stand_room_cm" />
        <NumberField path="sump.tallest_part_cm" />
      </Fields>
      <Fields legend="What stands in it">
        <NumberField path="sump.return_level_cm" />
        <NumberField path="sump.intake_cm" />
        <NumberField path="sump.topper_l" />
        <ChoiceField path="sump.sump_media" />
        <NumberField path="sump.media_fill_frac" />
      </Fields>
      <Fields legend="Ultraviolet clarifier">
        <SwitchField path="flow.uv_fitted" />
        {clarified && (
          <>
            <NumberField path="flow.uv_rated_mj" />
            <NumberField path="flow.uv_rated_lph" />
            <NumberField path="flow.uv_lph" />
            <NumberField path="flow.uv_wanted_mj" />
          </>
        )}
      </Fields>
      {clarified && <Figures keys={["uv_given_mj", "uv_most_lph"]} />}
      <BuiltFields />
      <Figures
        keys={[
          "lift_head_m",
          "run_loss_head_m",
          "turnover_per_h",
          "fastest_m_s",
          "overflow_head_mm",
          "crest_cm",
          "drain_lph",
          "emergency_lph",
          "sump_running_l",
          "sump_media_l",
          "sump_free_l",
          "clogged_drop_cm",
          "drain_down_l",
          "clogged_down_l",
          "power_off_cm",
          "liftable_l",
          "blocked_rise_mm",
          "dry_d",
          "trap_cm_s",
          "over_sump_cm",
        ]}
      />
    </>
  );
}

/** The overflow at half, the planned and double the flow. */
function Cases({ flow }: { flow: Flow }) {
  const units = useUnits();
  return (
    <table className="mb-5 w-full text-left">
      <caption className="mb-1 text-left text-sm font-semibold">The overflow when the flow changes</caption>
      <thead className="text-sm text-quiet">
        <tr className="border-b border-line">
          <th scope="col" className="py-1 font-normal">
            Flow
          </th>
          <th scope="col" className="py-1 text-right font-normal">
            above the crest
          </th>
          <th scope="col" className="py-1 text-right font-normal">
            of the drain
          </th>
          <th scope="col" className="py-1 text-right font-normal">
            of the emergency
          </th>
        </tr>
      </thead>
      <tbody>
        {flow.cases.map((row) => (
          <tr key={row.label} className="border-b border-line/70">
            <th scope="row" className="py-1.5 font-normal">
              {row.label}, <span className="num whitespace-nowrap">{units.text(row.flow_lph, "flow")}</span>
            </th>
            <td className="num py-1.5 text-right">{units.text(row.head_mm, "thickness")}</td>
            <Share share={row.drain_frac} />
            <Share share={row.emergency_frac ?? null} />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Share({ share }: { share: number | null }) {
  const units = useUnits();
  const colour = share !== null && share > 1 ? "text-short" : "";
  return (
    <td className={`num py-1.5 text-right ${colour}`}>
      {share === null ? "none" : units.text(share, "share")}
    </td>
  );
}

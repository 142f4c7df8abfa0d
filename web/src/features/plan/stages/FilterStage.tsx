import { Select } from "@/ui/controls";
import { Checks } from "../Checks";
import { SetUp } from "../SetUp";
import { usePlan, usePlanInUse } from "../context";
import { Fields } from "@/ui/fields/Row";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { Figures, FigureValue } from "@/ui/root/Figures";
import { Adding, Remove, useRows } from "@/ui/editing/rows";

export function FilterStage() {
  const { count, remove } = useRows("filters");
  const sumped = usePlan((plan) => plan.flow?.way !== "none");
  return (
    <>
      <SetUp />
      {Array.from({ length: count }, (_, i) => (
        <div key={i} className="relative">
          <Fields legend={`Filter ${i + 1}`}>
            <ChoiceField path={`filters.${i}.filter_kind`} />
            <ChoiceField path={`filters.${i}.media`} label="Media kind" />
            <NumberField path={`filters.${i}.rated_lph`} />
            <NumberField path={`filters.${i}.media_l`} />
            <NumberField path={`filters.${i}.measured_lph`} />
            <NumberField path={`filters.${i}.maturity_frac`} placeholder="as it runs" />
            <NumberField path={`filters.${i}.holds_l`} />
            <NumberField path={`filters.${i}.filter_w`} />
            <NumberField path={`filters.${i}.draws_at_cm`} />
            <NumberField path={`filters.${i}.zeolite_g`} />
            <ChoiceField path={`filters.${i}.outlet`} />
          </Fields>
          <Remove
            label={`Take out filter ${i + 1}`}
            run={() => remove(i)}
            className="absolute -top-2 right-0"
          />
          <p className="-mt-3 mb-5 text-sm text-quiet">
            Really moves <FigureValue name={`filters.${i}.real_flow_lph`} /> over{" "}
            <FigureValue name={`filters.${i}.media_area_m2`} /> of media at work.
          </p>
        </div>
      ))}
      {count === 0 && (
        <p className="mb-3 text-quiet">{sumped ? "No filter beside the sump." : "No filter yet."}</p>
      )}
      <AddFilter />
      <Fields legend="How long it has run">
        <NumberField path="run_in.age_weeks" placeholder="not yet" />
        <NumberField path="run_in.seeded_frac" />
        <ChoiceField path="run_in.stocked" />
      </Fields>
      <Checks stage="filter" />
      <Figures
        keys={[
          "total_flow_lph",
          "turnover_per_h",
          "turnover_low_per_h",
          "turnover_high_per_h",
          "drift_cm_s",
          "drift_borne_cm_s",
          "system_mature_frac",
          "mature_in_d",
          "judged_c",
          "settled_ammonia_mg_l",
          "mature_ammonia_mg_l",
          "settled_unionised_mg_l",
          "allowed_ammonia_mg_l",
          "reckoned_ph",
          "highest_ph",
          "acid_left_frac",
          "media_allow_mg_d",
          "capacity_mg_d",
        ]}
      />
    </>
  );
}

/** A generic filter, put into the plan as it is sold. */
export function AddFilter() {
  const { library } = usePlanInUse();
  const { add, full } = useRows("filters");
  return (
    <Adding to="filters" full={full}>
      <p className="mb-6 flex items-center gap-2">
        <span className="text-quiet">Add</span>
        <Select
          label="Add a filter"
          value=""
          placeholder="a filter…"
          options={library.filters.map((row) => [row.key, row.label])}
          onChange={(key) => add(library.filters.find((model) => model.key === key)?.row)}
        />
      </p>
    </Adding>
  );
}

import { Fields, Row } from "@/ui/fields/Row";
import { usePlan, useSheet } from "../../context";
import { ChoiceField, NumberField, SwitchField } from "@/ui/editing/fields";
import { Figures, FigureValue } from "@/ui/root/Figures";

/** Chlorine or chloramine in the change water, and how it is taken out. */
export function Disinfectant() {
  const mixed = usePlan((plan) => (plan.sources ?? []).length > 0);
  const kind = useSheet((sheet) => sheet.disinfectant);
  const untold = useSheet((sheet) => sheet.tap_untold);
  const told = usePlan((plan) => plan.water.disinfectant);
  const treated = kind !== "none";
  return (
    <>
      <Fields legend="Disinfectant in it">
        {mixed ? (
          <Row label="Strength in the mix">
            <FigureValue name="present_chlorine_mg_l" />
          </Row>
        ) : (
          <ChoiceField path="water.disinfectant" />
        )}
        {treated && (
          <>
            {!mixed && told !== "unknown" && <NumberField path="water.disinfectant_mg_l" placeholder="–" />}
            <ChoiceField path="water.treatment" />
            <Ways chloramine={kind === "chloramine"} />
          </>
        )}
      </Fields>
      {untold && (
        <p className="-mt-3 mb-4 border-l-3 border-dashed border-mark pl-3 text-sm">
          Nobody has told what this tap carries: it is treated as chloraminated at the usual most. Ask the
          water company, or test total chlorine at the tap{mixed && "; tell it beside its water in the mix"}.
        </p>
      )}
      {treated && (
        <Figures
          keys={[
            "present_chlorine_mg_l",
            "dose_times",
            "dose_takes_chlorine_mg_l",
            "dosed_l",
            "dose_ml",
            "container_dose_ml",
            "containers",
            "topup_dose_ml",
            "thiosulfate_g",
            "left_chlorine_mg_l",
            "freed_ammonia_mg_l",
            "ageing_h",
            "carbon_min",
            "carbon_needed_min",
          ]}
        />
      )}
    </>
  );
}

function Ways({ chloramine }: { chloramine: boolean }) {
  const water = usePlan((plan) => plan.water);
  if (water.treatment === "carbon")
    return (
      <>
        <ChoiceField path="water.carbon_kind" />
        <NumberField path="water.carbon_l" />
        <NumberField path="water.carbon_lph" />
      </>
    );
  if (water.treatment === "aged")
    return (
      <>
        <NumberField path="water.aged_h" />
        <SwitchField path="water.aerated" />
      </>
    );
  if (water.treatment === "none") return null;
  return (
    <>
      <NumberField path="water.conditioner_ml" />
      <NumberField path="water.dose_margin" placeholder="enough" />
      <NumberField path="water.dose_most" />
      {water.treatment === "container" && <NumberField path="water.container_l" placeholder="one" />}
      {chloramine && <NumberField path="water.chloramine_factor" />}
    </>
  );
}

import { Button } from "@/ui/controls";
import { Fields } from "@/ui/fields/Row";
import { usePlan, useSheet } from "../../context";
import { NumberField, SwitchField } from "@/ui/editing/fields";
import { Figures } from "@/ui/root/Figures";
import { Adding, useRows } from "@/ui/editing/rows";

/** A membrane of one's own: what it makes from the feed, how fast, and what runs to the drain. */
export function Osmosis() {
  const osmosis = usePlan((plan) => plan.osmosis);
  const figures = useSheet((sheet) => sheet.figures);
  const { add, full } = useRows("sources");
  if (!osmosis?.membrane_fitted)
    return (
      <Fields legend="Reverse osmosis">
        <SwitchField path="osmosis.membrane_fitted" />
      </Fields>
    );
  const made = (key: string) => figures[key]?.value;
  return (
    <>
      <Fields legend="Reverse osmosis">
        <SwitchField path="osmosis.membrane_fitted" />
        <NumberField path="osmosis.membrane_l_d" />
        <NumberField path="osmosis.membrane_kpa" />
        <NumberField path="osmosis.feed_kpa" />
        <NumberField path="osmosis.feed_c" />
        <NumberField path="osmosis.feed_us_cm" />
        <NumberField path="osmosis.feed_gh_dgh" />
        <NumberField path="osmosis.feed_kh_dkh" />
        <NumberField path="osmosis.feed_nitrate_mg_l" />
        <NumberField path="osmosis.rejects_frac" />
        <NumberField path="osmosis.rejects_nitrate_frac" />
        <NumberField path="osmosis.waste_ratio" />
        <NumberField path="osmosis.store_l" />
      </Fields>
      <Figures
        keys={[
          "permeate_l_d",
          "store_h",
          "permeate_us_cm",
          "permeate_gh_dgh",
          "permeate_kh_dkh",
          "permeate_nitrate_mg_l",
          "osmosis_l_wk",
          "osmosis_waste_l_wk",
        ]}
      />
      {made("permeate_us_cm") != null && (
        <Adding to="sources" full={full}>
          <p className="-mt-3 mb-5">
            <Button
              look="word"
              onClick={() =>
                add({
                  src_name: "Reverse osmosis",
                  src_kind: "osmosis",
                  src_us_cm: Math.max(1, made("permeate_us_cm") ?? 1),
                  src_gh_dgh: made("permeate_gh_dgh"),
                  src_kh_dkh: made("permeate_kh_dkh"),
                  src_nitrate_mg_l: made("permeate_nitrate_mg_l"),
                  src_sodium_mg_l: 1,
                  src_chloride_mg_l: 1,
                  src_c: osmosis.feed_c,
                })
              }
            >
              put this water into the mix
            </Button>
          </p>
        </Adding>
      )}
    </>
  );
}

import { Fields } from "@/ui/fields/Row";
import { Checks } from "../../Checks";
import { ChoiceField, NumberField, SwitchField } from "@/ui/editing/fields";
import { Figures } from "@/ui/root/Figures";
import { Disinfectant } from "./Disinfectant";
import { Mix } from "./Mix";
import { Osmosis } from "./Osmosis";
import { RecipeCard } from "./RecipeCard";
import { SaltMove } from "./SaltMove";

/** What goes into the tank: waters mixed, salts weighed in, warmed and disinfected, as one recipe. */
export function SourceStage() {
  return (
    <>
      <RecipeCard />
      <Mix />
      <Fields legend="Wanted, and what is weighed in">
        <NumberField path="recipe.target_gh_dgh" placeholder="as is" />
        <NumberField path="recipe.target_us_cm" placeholder="as is" />
        <NumberField path="recipe.target_kh_dkh" placeholder="as is" />
        <ChoiceField path="recipe.calcium_salt" />
        <ChoiceField path="recipe.magnesium_salt" />
        <NumberField path="recipe.calcium_frac" />
        <ChoiceField path="recipe.carbonate_salt" />
        <NumberField path="recipe.product_g" placeholder="none" />
      </Fields>
      <Osmosis />
      <Disinfectant />
      <Checks stage="source" />
      <Fields legend="Warmth">
        <NumberField path="water.source_c" />
        <NumberField path="recipe.hot_c" />
        <NumberField path="recipe.fill_l_min" />
        <NumberField path="recipe.flush_m" />
        <NumberField path="recipe.flush_bore_mm" />
        <SwitchField path="water.aired" />
      </Fields>
      <SaltMove />
      <Fields legend="The tank’s own water">
        <NumberField path="water.tank_ph" />
        <NumberField path="water.tank_gh_dgh" />
        <NumberField path="water.tank_us_cm" />
        <ChoiceField path="water.topped_up" />
      </Fields>
      <Figures
        keys={["settled_gh_dgh", "floor_gh_dgh", "settled_kh_dkh", "settled_us_cm", "least_ph", "aired_ph"]}
      />
      <Figures
        keys={[
          "new_gh_dgh",
          "new_kh_dkh",
          "new_us_cm",
          "salt_us_cm",
          "new_nitrate_mg_l",
          "pure_l_wk",
          "calcium_g",
          "magnesium_g",
          "carbonate_g",
          "coral_dkh",
          "mix_c",
          "hot_frac",
          "hot_s",
          "warming_k",
          "warming_kwh",
          "warming_h",
          "gas_frac",
          "flush_l",
          "mix_summer_c",
          "hot_summer_s",
          "product_dose_g",
          "hot_sodium",
        ]}
      />
    </>
  );
}

import { Button } from "@/ui/controls";
import { Fields } from "@/ui/fields/Row";
import { usePlan } from "../../context";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { Figures, FigureValue } from "@/ui/root/Figures";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";

/** Every lamp over the tank, the day it makes, and the place to bask. */
export function LightFields() {
  const lamps = usePlan((plan) => plan.lamps) ?? [];
  const { add, remove, full } = useRows("lamps");
  const uvb = lamps.some((row) => row.lamp_kind === "uvb");
  return (
    <>
      <section aria-label="Lamps" className="mb-3">
        <h3 className="mb-1 text-sm font-semibold">Lamps</h3>
        <ul>
          {lamps.map((row, i) => (
            <li key={i} className={LINE}>
              <ChoiceField bare path={`lamps.${i}.lamp_kind`} label={`Lamp ${i + 1} is for`} />
              <NumberField bare path={`lamps.${i}.lamp_w`} label={`Lamp ${i + 1} takes`} />
              <NumberField bare path={`lamps.${i}.lamp_h`} label={`Lamp ${i + 1}, hours a day`} />
              <Remove label={`Take out lamp ${i + 1}`} run={() => remove(i)} />
              {row.lamp_kind === "uvb" && <UltravioletB at={i} />}
            </li>
          ))}
        </ul>
        <Adding to="lamps" full={full}>
          <Button look="word" onClick={() => add()}>
            add a lamp
          </Button>
        </Adding>
      </section>
      <Fields legend="Day and night">
        <NumberField path="light.ramp_min" />
        <NumberField path="light.siesta_h" />
        <NumberField path="light.basking_c" />
        <NumberField path="light.measured_uvi" />
        {uvb && <NumberField path="light.uvb_wanted_uvi" placeholder="middle" />}
      </Fields>
      {uvb && <Figures keys={["given_uvi"]} />}
    </>
  );
}

/** What the maker measured of a lamp at two distances, and what of it arrives. */
function UltravioletB({ at }: { at: number }) {
  const lamp = `lamps.${at}`;
  const name = `lamp ${at + 1}`;
  return (
    <span className="flex basis-full flex-wrap items-center gap-x-3 gap-y-1 pl-3">
      <Worded words="above the back">
        <NumberField bare path={`${lamp}.lamp_cm`} label={`Height of ${name} above the back`} />
      </Worded>
      <Worded words="index">
        <NumberField bare path={`${lamp}.near_uvi`} label={`Index near ${name}`} />
      </Worded>
      <Worded words="at">
        <NumberField bare path={`${lamp}.near_cm`} label={`Nearer distance of ${name}`} />
      </Worded>
      <Worded words="and">
        <NumberField bare path={`${lamp}.far_uvi`} label={`Index far from ${name}`} />
      </Worded>
      <Worded words="at">
        <NumberField bare path={`${lamp}.far_cm`} label={`Farther distance of ${name}`} />
      </Worded>
      <Worded words="lost in a screen">
        <NumberField bare path={`${lamp}.screen_frac`} label={`Screen of ${name}`} />
      </Worded>
      <Worded words="age">
        <NumberField bare path={`${lamp}.lamp_age_months`} label={`Age of ${name}`} />
      </Worded>
      <Worded words="of">
        <NumberField bare path={`${lamp}.lamp_life_months`} label={`Life of ${name}`} />
      </Worded>
      <span className="text-quiet">
        gives <FigureValue name={`${lamp}.lamp_uvi`} />, alone right at{" "}
        <FigureValue name={`${lamp}.uvb_hang_cm`} />, due in <FigureValue name={`${lamp}.uvb_due_months`} />
      </span>
    </span>
  );
}

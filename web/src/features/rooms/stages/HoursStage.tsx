import { Button } from "@/ui/controls";
import { NumberField, TextField } from "@/ui/editing/fields";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";
import { Fields } from "@/ui/fields/Row";
import { Figures } from "@/ui/root/Figures";

/** Work with and without the changer, and when it has paid for itself. */
export function HoursStage() {
  const tasks = useRows("tasks");
  return (
    <>
      <Figures
        keys={[
          "hours_before",
          "hours_after",
          "tank_work_min",
          "changer_kwh",
          "replaced_l_wk",
          "cartridges_money",
          "running_money",
          "gained_money",
        ]}
      />
      <fieldset className="mb-5">
        <legend className="mb-1 text-sm font-semibold">Work on each tank</legend>
        {Array.from({ length: tasks.count }, (_, i) => (
          <div key={i} className={LINE}>
            <TextField path={`tasks.${i}.task_name`} oneLine />
            <NumberField path={`tasks.${i}.task_min`} bare />
            <Worded words="from">
              <NumberField path={`tasks.${i}.task_low_min`} bare />
            </Worded>
            <Worded words="to">
              <NumberField path={`tasks.${i}.task_high_min`} bare />
            </Worded>
            <Worded words="a week">
              <NumberField path={`tasks.${i}.times_wk`} bare />
            </Worded>
            <Worded words="taken over">
              <NumberField path={`tasks.${i}.taken_frac`} bare />
            </Worded>
            <Remove label={`Take work ${i + 1} out`} run={() => tasks.remove(i)} />
          </div>
        ))}
        <Adding to="tasks" full={tasks.full}>
          <Button onClick={() => tasks.add({ task_name: "Other work", taken_frac: 0 })}>More work</Button>
        </Adding>
      </fieldset>
      <Fields legend="What it is worth">
        <NumberField path="worth.hour_low_money" />
        <NumberField path="worth.hour_money" />
        <NumberField path="worth.hour_high_money" />
        <NumberField path="worth.built_low_money" />
        <NumberField path="worth.built_money" />
        <NumberField path="worth.built_high_money" />
        <NumberField path="worth.upkeep_min" />
        <NumberField path="worth.kwh_money" />
        <NumberField path="worth.water_money" />
        <NumberField path="worth.cartridge_money" />
      </Fields>
    </>
  );
}

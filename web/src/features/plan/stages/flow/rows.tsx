import { Button } from "@/ui/controls";
import { usePlan, useSheet } from "../../context";
import { Fields } from "@/ui/fields/Row";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { Figures, FigureValue } from "@/ui/root/Figures";
import { Adding, LINE, Remove, useRows, Worded } from "@/ui/editing/rows";
import { Measure } from "@/ui/figures/Says";

/** The parts along the common run, from the pump on. */
export function RunRows() {
  const run = usePlan((plan) => plan.run) ?? [];
  const { add, remove, full } = useRows("run");
  return (
    <section aria-label="Along the run" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">Along the run, from the pump on</h3>
      <ul>
        {run.map((row, i) => (
          <li key={i} className={LINE}>
            <NumberField bare path={`run.${i}.run_count`} label={`How many of part ${i + 1}`} />
            <ChoiceField bare path={`run.${i}.part`} label={`Part ${i + 1}`} />
            <ChoiceField bare path={`run.${i}.run_pipe`} label={`Size of part ${i + 1}`} />
            {row.part === "pipe" && (
              <NumberField bare path={`run.${i}.run_length_m`} label={`Length of part ${i + 1}`} />
            )}
            <Remove label={`Take out part ${i + 1}`} run={() => remove(i)} />
          </li>
        ))}
      </ul>
      <Adding to="run" full={full}>
        <Button look="word" onClick={() => add({ part: "elbow_90" })}>
          add a part
        </Button>
      </Adding>
    </section>
  );
}

/** Every return with its own pipe and valve, and what it passes. */
export function ReturnRows() {
  const outlets_lph = useSheet((sheet) => sheet.flow?.outlets_lph) ?? [];
  const { count, add, remove, full } = useRows("returns");
  return (
    <section aria-label="Returns" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">Returns into the display</h3>
      <ul>
        {Array.from({ length: count }, (_, i) => (
          <li key={i} className={LINE}>
            <ChoiceField bare path={`returns.${i}.outlet_pipe`} label={`Size of return ${i + 1}`} />
            <NumberField bare path={`returns.${i}.outlet_length_m`} label={`Length of return ${i + 1}`} />
            <Worded words="elbows">
              <NumberField bare path={`returns.${i}.outlet_elbows`} label={`Elbows of return ${i + 1}`} />
            </Worded>
            <Worded words="valve open">
              <NumberField bare path={`returns.${i}.valve_open_frac`} label={`Valve of return ${i + 1}`} />
            </Worded>
            <Worded words="under water">
              <NumberField bare path={`returns.${i}.outlet_depth_cm`} label={`Depth of return ${i + 1}`} />
            </Worded>
            {outlets_lph[i] != null && (
              <span className="text-quiet">
                passes <Measure value={outlets_lph[i]} kind="flow" />
              </span>
            )}
            {count > 1 && <Remove label={`Take out return ${i + 1}`} run={() => remove(i)} />}
          </li>
        ))}
      </ul>
      <Adding to="returns" full={full}>
        <Button look="word" onClick={() => add()}>
          add a return
        </Button>
      </Adding>
    </section>
  );
}

/** The chambers in the order of the flow, with their running levels. */
export function Chambers() {
  const chambers = usePlan((plan) => plan.chambers) ?? [];
  const { count, add, remove, full } = useRows("chambers");
  return (
    <section aria-label="Chambers" className="mb-5">
      <h3 className="mb-1 text-sm font-semibold">
        Chambers, in the order of the flow{" "}
        <span className="font-normal text-quiet">(a baffle can be dragged in the drawing)</span>
      </h3>
      <ul>
        {chambers.map((chamber, i) => {
          const last = chamber.chamber_kind === "return";
          return (
            <li key={i} className={LINE}>
              <ChoiceField bare path={`chambers.${i}.chamber_kind`} label={`Kind of chamber ${i + 1}`} />
              {!last && (
                <NumberField bare path={`chambers.${i}.chamber_cm`} label={`Length of chamber ${i + 1}`} />
              )}
              {!last && (
                <Worded words="baffle">
                  <NumberField bare path={`chambers.${i}.baffle_cm`} label={`Baffle of chamber ${i + 1}`} />
                </Worded>
              )}
              <span className="text-quiet">
                {last && (
                  <>
                    <FigureValue name={`chambers.${i}.chamber_run_cm`} /> long,{" "}
                  </>
                )}
                stands at <FigureValue name={`chambers.${i}.chamber_level_cm`} />
              </span>
              {!last && <Remove label={`Take out chamber ${i + 1}`} run={() => remove(i)} />}
            </li>
          );
        })}
      </ul>
      <Adding to="chambers" full={full}>
        <Button
          look="word"
          onClick={() => add({ chamber_kind: "media", chamber_cm: 10 }, Math.max(0, count - 1))}
        >
          add a chamber
        </Button>
      </Adding>
    </section>
  );
}

/** What was measured once it stood, against what was planned. */
export function BuiltFields() {
  return (
    <>
      <Fields legend="Once it is built: measured, against planned">
        <NumberField path="flow.measured_return_lph" placeholder="none" />
        <NumberField path="flow.measured_drop_cm" placeholder="none" />
        <NumberField path="flow.measured_w" placeholder="none" />
      </Fields>
      <Figures keys={["planned_return_lph", "return_lph", "planned_drop_cm", "drop_cm", "return_w"]} />
    </>
  );
}

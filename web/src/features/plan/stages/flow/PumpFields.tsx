import { useMutation } from "@tanstack/react-query";
import { asked, client } from "@/api/client";
import { Button, Select } from "@/ui/controls";
import { usePlan, usePlanInUse } from "../../context";
import { FaultOf } from "@/ui/editing/FaultSays";
import { Fields, Row } from "@/ui/fields/Row";
import { NumberField } from "@/ui/editing/fields";
import { Remove } from "@/ui/editing/rows";

const FEWEST_POINTS = 2;

/** The return pump: a generic one, its two ends, or the maker's curve point by point. */
export function PumpFields() {
  const { session, library } = usePlanInUse();
  const by = usePlan((plan) => plan.flow?.pump_by) ?? "ends";
  const points = useMutation({
    mutationFn: () =>
      asked(
        client.POST("/api/sump/{question}", {
          params: { path: { question: "points" } },
          body: { plan: session.state.content },
        }),
      ),
    onSuccess: ({ changes }) => session.edit(changes),
  });
  const turn = (to: string) => {
    if (to === "points") points.mutate();
    else session.edit({ "flow.pump_by": to, "flow.curve_lph": null, "flow.curve_head_m": null });
  };
  const take = (key: string) => {
    const pump = library.pumps.find((row) => row.key === key);
    if (pump) session.edit(pump.changes);
  };
  return (
    <>
      <Fields legend="The pump">
        <Row wide label="From the library">
          <Select
            label="Pump from the library"
            value=""
            placeholder="a generic pump…"
            options={library.pumps.map((row) => [row.key, row.label])}
            onChange={take}
          />
        </Row>
        <Row label="Pump curve by">
          <Select
            label="Pump curve by"
            value={by}
            options={[
              ["ends", "its two ends"],
              ["points", "points of its curve"],
            ]}
            onChange={turn}
          />
        </Row>
        {by === "ends" && <NumberField path="flow.shutoff_head_m" />}
        {by === "ends" && <NumberField path="flow.pump_max_lph" />}
        <NumberField path="flow.pump_w" />
      </Fields>
      {by === "points" && <CurvePoints />}
    </>
  );
}

function CurvePoints() {
  const { session, library } = usePlanInUse();
  const flows = usePlan((plan) => plan.flow?.curve_lph) ?? [];
  const heads = usePlan((plan) => plan.flow?.curve_head_m) ?? [];
  const put = (lph: number[], head_m: number[]) =>
    session.edit({ "flow.curve_lph": lph, "flow.curve_head_m": head_m });
  const add = () => {
    const [before = 0, last = 1000] = flows.slice(-2);
    put([...flows, last + (last - before) / 2], [...heads, (heads.at(-1) ?? 1) / 2]);
  };
  return (
    <fieldset className="mb-5">
      <legend className="mb-1 text-sm font-semibold">Its curve, from no flow on</legend>
      <FaultOf path="flow.curve_lph" />
      <ul>
        {flows.map((_, i) => (
          <li key={i} className="flex flex-wrap items-center gap-x-3 border-b border-line/70 py-0.5 text-sm">
            <NumberField bare path={`flow.curve_lph.${i}`} label={`Flow at point ${i + 1}`} />
            <span className="text-quiet">lifts</span>
            <NumberField bare path={`flow.curve_head_m.${i}`} label={`Lift at point ${i + 1}`} />
            {flows.length > FEWEST_POINTS && (
              <Remove
                label={`Take out point ${i + 1}`}
                run={() => put(flows.toSpliced(i, 1), heads.toSpliced(i, 1))}
              />
            )}
          </li>
        ))}
      </ul>
      {flows.length < (library.limits["flow.curve_lph"] ?? Infinity) && (
        <Button look="word" onClick={add}>
          add a point
        </Button>
      )}
    </fieldset>
  );
}

import { useMutation } from "@tanstack/react-query";
import { asked, client } from "@/api/client";
import { Button } from "@/ui/controls";
import { Checks } from "../../Checks";
import { usePlan, usePlanInUse } from "../../context";
import { ChoiceField, NumberField } from "@/ui/editing/fields";
import { Figures, FigureValue } from "@/ui/root/Figures";
import { useRows } from "@/ui/editing/rows";
import { AddFilter } from "../FilterStage";
import { LINE } from "@/ui/editing/rows";
import { Sumped } from "./Sumped";

/** How water leaves, goes through the sump and comes back. */
export function FlowStage() {
  const { session } = usePlanInUse();
  const way = usePlan((plan) => plan.flow?.way) ?? "none";
  const start = useMutation({
    mutationFn: (way: "weir" | "holes") =>
      asked(client.POST("/api/sump/first", { body: { plan: session.state.content, way } })),
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

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Refused, type Forecast } from "@/api/client";
import { Button } from "@/ui/controls";
import { Fields } from "@/ui/fields/Row";
import { Says } from "@/ui/figures/Says";
import { EntryDialog } from "@/ui/log/EntryDialog";
import { logQuery } from "@/ui/log/log";
import { ReadingDialog } from "@/ui/log/ReadingDialog";
import { useShortcuts } from "@/ui/shortcuts";
import { usePlan, useSession, useSheet } from "../../context";
import { SetUp } from "../../SetUp";
import { useForecast } from "../../forecast";
import { ChoiceField, DateField, NumberField } from "@/ui/editing/fields";
import { Calendar } from "./Calendar";
import { DonorChoice } from "./DonorChoice";
import { Camps } from "./Camps";
import { CycleCharts } from "./CycleCharts";

/** How a filter is brought to life: forecast, what was read, what to do today, and whether it is done. */
export function CycleStage() {
  const id = useSession((state) => state.id);
  const phase = useSheet((sheet) => sheet.phase);
  const young = useSheet((sheet) => sheet.figures.mature_in_d?.value != null);
  const log = useQuery(logQuery(id)).data ?? [];
  const [open, setOpen] = useState<"reading" | "entry" | null>(null);
  const cycling = phase === "cycling";
  const forecast = useForecast("cycle", cycling);
  useShortcuts({ r: () => setOpen("reading") });
  return (
    <>
      <SetUp />
      {phase === "running" && (
        <p className="mb-4 text-lg">
          {young
            ? "By its age this filter does not carry its animals yet. Say how it was started and when, and its cycle is forecast."
            : "The filter has long been running. For a new one, say how it is started and when: with fish in it already too."}
        </p>
      )}
      {cycling && <Told forecast={forecast.data} error={forecast.error} waits={forecast.isFetching} />}
      {cycling && (
        <p className="mb-4 flex flex-wrap gap-2">
          <Button look="strong" onClick={() => setOpen("reading")}>
            Enter readings
          </Button>
          <Button onClick={() => setOpen("entry")}>Something was done</Button>
        </p>
      )}
      {forecast.data && cycling && <Page forecast={forecast.data} />}
      {phase !== "planned" && <Begun />}
      {open === "reading" && <ReadingDialog id={id} log={log} close={() => setOpen(null)} />}
      {open === "entry" && <EntryDialog id={id} close={() => setOpen(null)} />}
    </>
  );
}

function Told({ forecast, error, waits }: { forecast?: Forecast; error: Error | null; waits: boolean }) {
  const queries = useQueryClient();
  return (
    <div aria-live="polite" aria-busy={waits}>
      {error && (
        <p role="alert" className="mb-3 text-short">
          {error instanceof Refused ? <Says sentence={error.sentence} /> : error.message}
        </p>
      )}
      {waits && (
        <p role="status" className="mb-2 text-sm text-quiet">
          Running two hundred such tanks ahead…{" "}
          <Button look="word" onClick={() => void queries.cancelQueries({ queryKey: ["ahead"] })}>
            Stop
          </Button>
        </p>
      )}
      {forecast && (
        <>
          <p className={`mb-1 text-lg leading-snug ${waits ? "opacity-60" : ""}`}>
            <Says sentence={forecast.result} />
          </p>
          {[forecast.learned, forecast.soil].map(
            (sentence, i) =>
              sentence && (
                <p key={i} className="mb-2">
                  <Says sentence={sentence} />
                </p>
              ),
          )}
        </>
      )}
    </div>
  );
}

function Page({ forecast }: { forecast: Forecast }) {
  return (
    <>
      {[...forecast.stalls, ...forecast.asks].map((sentence, i) => (
        <p key={i} role="note" className="mb-2 border-l-3 border-short py-1 pl-3">
          <Says sentence={sentence} />
        </p>
      ))}
      {forecast.care && (
        <section aria-label="Today" className="mb-4">
          <h3 className="font-semibold">Today</h3>
          <ul>
            {forecast.care.lines.map((sentence, i) => (
              <li key={i} className={`py-0.5 ${i === 0 && forecast.care!.share > 0 ? "text-short" : ""}`}>
                <Says sentence={sentence} />
              </li>
            ))}
          </ul>
        </section>
      )}
      <CycleCharts forecast={forecast} />
      <section aria-label="Is it done?" className="mb-5">
        <h3 className="font-semibold">Is it done?</h3>
        <p className={forecast.done.answer === "yes" ? "font-semibold text-edge-deep" : ""}>
          <Says sentence={forecast.done.sentence} />
        </p>
        <p className="text-sm text-quiet">
          <Says sentence={forecast.done.rule} />
        </p>
        <ul className="text-sm text-quiet">
          {forecast.done.evidence.map((sentence, i) => (
            <li key={i}>
              <Says sentence={sentence} />
            </li>
          ))}
        </ul>
      </section>
      {forecast.hastens.length > 0 && (
        <p className="mb-5">
          Sooner:{" "}
          {forecast.hastens.map((one, i) => (
            <span key={i}>
              {i > 0 && "; "}
              <Says sentence={one.words} /> <b className="num">{Math.round(one.days)}</b> days
            </span>
          ))}
          .
        </p>
      )}
      <Camps camps={forecast.camps} />
      <Calendar lines={forecast.calendar} />
      {forecast.cautions.map((sentence, i) => (
        <p key={i} className="mb-1 text-sm text-brass">
          <Says sentence={sentence} />
        </p>
      ))}
    </>
  );
}

/** How it is begun, since when, and what brings the bacteria. */
function Begun() {
  const cycle = usePlan((plan) => plan.cycle);
  const begun = cycle?.begun_by ?? "running";
  return (
    <Fields legend="How it is started">
      <ChoiceField path="cycle.begun_by" />
      {begun !== "running" && (
        <>
          <DateField path="cycle.begun_on" />
          <ChoiceField path="cycle.seeded_by" />
          {cycle?.seeded_by === "media" && (
            <>
              <NumberField path="cycle.donor_frac" />
              <NumberField path="cycle.donor_mg_d" />
              <DonorChoice />
            </>
          )}
        </>
      )}
      {begun === "empty" && (
        <>
          <ChoiceField path="cycle.dose_kind" />
          {cycle?.dose_kind === "ammonia_solution" && <NumberField path="cycle.solution_pct" />}
        </>
      )}
      {begun === "soil" && (
        <>
          <ChoiceField path="run_in.stocked" />
        </>
      )}
      {(begun === "animals" || begun === "soil") && (
        <>
          <ChoiceField path="cycle.camp" />
          {(cycle?.camp === "rescue" || cycle?.camp === "detoxifier") && (
            <NumberField path="cycle.detoxifier_ml_100l" placeholder="by its label" />
          )}
          <NumberField path="cycle.tank_chloride_mg_l" />
        </>
      )}
    </Fields>
  );
}

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { asked, client, type Cared } from "@/api/client";
import { isoDay, shortDay, zone } from "@/lib/shown/days";
import { Button } from "@/ui/controls";
import { Says, useSentenceText } from "@/ui/figures/Says";
import { usePlanInUse, useSession } from "../../context";
import { DutyDialog } from "./DutyDialog";

/** What this system wants done, by its own numbers: how often, why, and when next; each set otherwise or left out. */
export function CareStage() {
  const id = useSession((state) => state.id);
  const revision = useSession((state) => state.revision);
  const { openFigure } = usePlanInUse();
  const queries = useQueryClient();
  const text = useSentenceText();
  const [setting, setSetting] = useState<Cared | "own" | null>(null);
  const today = isoDay(new Date());
  const care = useQuery({
    queryKey: ["round", "care", id, revision, today],
    queryFn: () =>
      asked(
        client.GET("/api/systems/{system_id}/care", {
          params: { path: { system_id: id }, query: { today, zone: zone() } },
        }),
      ),
  });
  const duties = care.data?.duties ?? [];
  const soon = [...duties].sort((a, b) => (a.next ?? "9").localeCompare(b.next ?? "9"));
  const saved = () => {
    setSetting(null);
    void queries.invalidateQueries({ queryKey: ["round"] });
  };
  if (care.isError)
    return (
      <p role="alert" className="text-short">
        {care.error.message}
      </p>
    );
  return (
    <>
      {care.data && (
        <p className="mb-3 text-lg leading-snug">
          {week(duties)} minutes of care a week, by this plan’s own numbers, the animals at today’s size.
        </p>
      )}
      <ul aria-label="Care">
        {soon.map((duty) => (
          <li key={duty.key} className={`border-b border-line/70 py-2 ${duty.off ? "opacity-60" : ""}`}>
            <div className="flex items-baseline gap-3">
              <span className="min-w-0 flex-1 leading-snug">
                <Says sentence={duty.words} open={openFigure} />
              </span>
              <span className="num text-sm whitespace-nowrap">
                {duty.off ? "left out" : duty.next === today ? "today" : duty.next ? shortDay(duty.next) : ""}
              </span>
            </div>
            <p className="flex flex-wrap items-baseline gap-x-2 text-sm text-quiet">
              <span className="min-w-0 flex-1">
                Comes <Says sentence={duty.often} />
                {duty.usual && " (set by you)"}. <Says sentence={duty.why} open={openFigure} />
              </span>
              <Button look="word" aria-label={`Set: ${text(duty.words)}`} onClick={() => setSetting(duty)}>
                Set
              </Button>
            </p>
          </li>
        ))}
      </ul>
      <p className="mt-3">
        <Button onClick={() => setSetting("own")}>Something of your own</Button>
      </p>
      {setting && (
        <DutyDialog
          id={id}
          duty={setting === "own" ? null : setting}
          close={() => setSetting(null)}
          saved={saved}
        />
      )}
    </>
  );
}

/** Minutes a week that all of it takes. */
function week(duties: Cared[]): number {
  return Math.round(
    duties
      .filter(({ off }) => !off)
      .reduce((sum, { minutes, days_between }) => sum + (minutes * 7) / Math.max(days_between, 1), 0),
  );
}

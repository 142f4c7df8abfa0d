import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { Printer } from "lucide-react";
import { useState } from "react";
import { asked, client, type AwaySystem } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { SectionDrawing } from "@/ui/section/SectionDrawing";
import { dayOn, longDay, shortDay, zone } from "@/lib/shown/days";
import { useToday } from "./useToday";

const FORTNIGHT = 14;

/** A holiday: what to do before leaving, what a stand-in must do on which visit, what can wait. Prints as their sheet. */
export function AwayPage() {
  const today = useToday();
  const [first, setFirst] = useState(() => dayOn(today, 1));
  const [last, setLast] = useState(() => dayOn(today, FORTNIGHT));
  const sheet = useQuery({
    queryKey: ["round", "away", first, last],
    queryFn: () => asked(client.GET("/api/round/away", { params: { query: { first, last, zone: zone() } } })),
    retry: false,
  });
  const found = sheet.data;
  return (
    <main className="max-w-4xl px-4 pt-3 pb-16 sm:px-6">
      <header className="mb-3 flex min-h-9 flex-wrap items-center gap-x-4 pr-44 print:hidden">
        <h1 className="text-xl font-semibold">
          <Link to="/round" className="text-edge-deep underline underline-offset-4">
            Round
          </Link>
          , holiday
        </h1>
      </header>
      <p className="mb-3 flex flex-wrap items-center gap-2 print:hidden">
        <label>
          From{" "}
          <input
            type="date"
            value={first}
            onChange={(event) => setFirst(event.target.value)}
            className="min-h-9 border border-line bg-paper px-2"
          />
        </label>
        <label>
          to{" "}
          <input
            type="date"
            value={last}
            onChange={(event) => setLast(event.target.value)}
            className="min-h-9 border border-line bg-paper px-2"
          />
        </label>
        <Button onClick={() => window.print()}>
          <Printer size={15} className="mr-1.5 inline" />
          Print the stand-in’s sheet
        </Button>
      </p>
      {sheet.isError && (
        <p role="alert" className="text-short">
          {sheet.error.message}
        </p>
      )}
      {found && (
        <div className="sheet">
          <p className="mb-2 text-lg leading-snug">
            {longDay(found.first)} to {longDay(found.last)}. <Says sentence={found.result} />
          </p>
          {found.visits.length > 0 && (
            <p className="mb-4 text-quiet">Visits: {found.visits.map(shortDay).join(", ")}.</p>
          )}
          {found.systems.map((system) => (
            <AwayOf key={system.system_id} system={system} visits={found.visits} />
          ))}
          <p className="border-t border-line pt-3 text-sm text-quiet">
            Feed no more than is written here: what is not eaten fouls the water, and no animal starves in
            these days. If something is dead or lies on its side, take it out and call. Switch off and unplug
            before you reach in.
          </p>
        </div>
      )}
    </main>
  );
}

function AwayOf({ system, visits }: { system: AwaySystem; visits: string[] }) {
  return (
    <section className="grid break-inside-avoid gap-x-6 border-t border-line py-3 sm:grid-cols-[170px_minmax(0,1fr)]">
      <div>
        {system.section && <SectionDrawing section={system.section} className="h-20 w-full" />}
        <h2 className="text-lg leading-tight font-semibold">{system.name}</h2>
      </div>
      <div>
        {system.before.length > 0 && (
          <p className="mb-1 print:hidden">
            <span className="text-sm text-quiet">Before leaving: </span>
            {system.before.map((task) => (
              <span key={task.key}>
                <Says sentence={task.words} />{" "}
              </span>
            ))}
          </p>
        )}
        {system.stand_in.map((task) => (
          <div key={task.key} className="mb-1">
            <p>
              <Says sentence={task.words} />{" "}
              <span className="text-sm text-quiet">
                {task.days.length === visits.length && visits.length > 1
                  ? "at every visit"
                  : task.days.map(shortDay).join(", ")}
              </span>
            </p>
            {task.steps.length > 0 && (
              <ul className="pl-4 text-sm text-quiet">
                {task.steps.map((step, i) => (
                  <li key={i}>
                    <Says sentence={step} />
                  </li>
                ))}
              </ul>
            )}
          </div>
        ))}
        {system.waits.length > 0 && (
          <p className="text-sm text-quiet print:hidden">
            Can wait:{" "}
            {system.waits.map((sentence, i) => (
              <span key={i}>
                {i > 0 && " · "}
                <Says sentence={sentence} />
              </span>
            ))}
          </p>
        )}
      </div>
    </section>
  );
}

import { weekday } from "@/lib/shown/days";
import { useState } from "react";
import { useQuery } from "@tanstack/react-query";
import type { Forecast } from "@/api/client";
import { Button } from "@/ui/controls";
import { Says } from "@/ui/figures/Says";
import { logQuery, useLogbook } from "@/ui/log/log";
import { ReadingDialog } from "@/ui/log/ReadingDialog";
import { usePlan, useSession } from "../../context";

type Line = Forecast["calendar"][number];

const DONE_BY_TICK = new Set(["dose", "detoxify", "buffer", "change"]);

/** What to do on which day: today's lines can be ticked off, which writes them into the log. */
export function Calendar({ lines }: { lines: Forecast["calendar"] }) {
  const id = useSession((state) => state.id);
  const begunOn = usePlan((plan) => plan.cycle?.begun_on) ?? "";
  const log = useQuery(logQuery(id)).data ?? [];
  const { add } = useLogbook(id);
  const [reading, setReading] = useState(false);
  const start = begunOn ? new Date(`${begunOn}T00:00`) : new Date();
  const first = lines[0]?.day ?? 0;
  const days = [...new Set(lines.map(({ day }) => day))].sort((a, b) => a - b);
  const tick = (line: Line) => {
    const at = new Date();
    if (line.kind === "dose")
      add.mutate([{ at, entry: { kind: "dose", what: "ammonia", amount: line.amount } }]);
    if (line.kind === "detoxify")
      add.mutate([{ at, entry: { kind: "dose", what: "detoxifier", amount: line.amount, unit: "mL" } }]);
    if (line.kind === "buffer")
      add.mutate([
        {
          at,
          entry: {
            kind: "dose",
            what: "buffer",
            amount: line.amount,
            unit: "g",
            product: "sodium bicarbonate",
          },
        },
      ]);
    if (line.kind === "change") add.mutate([{ at, entry: { kind: "change", share: line.share } }]);
  };
  return (
    <section aria-label="Calendar" className="mb-5">
      <h3 className="mb-1 font-semibold">What to do</h3>
      <ol>
        {days.map((day) => (
          <li key={day} className="flex gap-3 border-b border-line/60 py-1 text-sm">
            <span className="w-28 shrink-0 text-quiet">
              {day === first ? <b className="text-ink">today</b> : dateOf(start, day)}
              <span className="num block text-xs">day {day}</span>
            </span>
            <ul className="min-w-0 flex-1">
              {lines
                .filter((line) => line.day === day)
                .map((line, i) => (
                  <li
                    key={i}
                    className={`flex items-baseline gap-2 ${line.kind === "milestone" ? "font-semibold" : ""}`}
                  >
                    <span className="min-w-0 flex-1">
                      <Says sentence={line.words} />
                    </span>
                    {day === first && line.kind === "read" && (
                      <Button look="word" onClick={() => setReading(true)}>
                        enter
                      </Button>
                    )}
                    {day === first && DONE_BY_TICK.has(line.kind) && (
                      <Button look="word" disabled={add.isPending} onClick={() => tick(line)}>
                        done
                      </Button>
                    )}
                  </li>
                ))}
            </ul>
          </li>
        ))}
      </ol>
      {add.error && (
        <p role="alert" className="text-sm text-short">
          {add.error.message}
        </p>
      )}
      {reading && <ReadingDialog id={id} log={log} close={() => setReading(false)} />}
    </section>
  );
}

const dateOf = (start: Date, day: number): string =>
  weekday(new Date(start.getFullYear(), start.getMonth(), start.getDate() + day));

import { Trash2 } from "lucide-react";
import { useState } from "react";
import { asked, client, Refused, type Helper } from "@/api/client";
import { Button, Dialog } from "@/ui/controls";
import { zone } from "@/lib/shown/days";

const WEEK = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"] as const;
type Day = (typeof WEEK)[number];

interface Row {
  name: string;
  weekdays: Day[];
  hour: number;
}

/** Who does the round, on which evenings; and each one's calendar. */
export function HelpersDialog({
  helpers,
  close,
  saved,
}: {
  helpers: Helper[];
  close: () => void;
  saved: () => void;
}) {
  const [rows, setRows] = useState<Row[]>(() =>
    helpers.map((helper) => ({ ...helper, weekdays: helper.weekdays as Day[] })),
  );
  const [fault, setFault] = useState("");
  const change = (at: number, part: Partial<Row>) =>
    setRows(rows.map((row, i) => (i === at ? { ...row, ...part } : row)));
  const save = () => {
    const named = rows.filter(({ name }) => name.trim());
    asked(client.PUT("/api/round/helpers", { body: { helpers: named } })).then(
      () => {
        saved();
        close();
      },
      (cause: unknown) => setFault(cause instanceof Refused ? cause.message : String(cause)),
    );
  };
  return (
    <Dialog title="Who does the round" open onOpenChange={close} wide>
      <p className="mb-3 text-sm text-quiet">
        Names only, no accounts. What falls on a day on which nobody is there is done when somebody next is;
        food is not. Each calendar can be subscribed to on this machine.
      </p>
      <ul className="mb-3">
        {rows.map((row, at) => (
          <li key={at} className="flex flex-wrap items-center gap-2 border-b border-line/60 py-2">
            <input
              aria-label={`Name ${at + 1}`}
              value={row.name}
              maxLength={60}
              onChange={(event) => change(at, { name: event.target.value })}
              className="min-h-9 w-28 border border-line bg-paper px-2"
            />
            <span role="group" aria-label={`Days of ${row.name || `number ${at + 1}`}`} className="flex">
              {WEEK.map((day) => {
                const on = row.weekdays.includes(day);
                return (
                  <button
                    key={day}
                    type="button"
                    aria-pressed={on}
                    onClick={() =>
                      change(at, {
                        weekdays: on ? row.weekdays.filter((other) => other !== day) : [...row.weekdays, day],
                      })
                    }
                    className={`min-h-9 px-1.5 text-sm pointer-coarse:min-h-11 ${on ? "font-semibold text-edge-deep underline underline-offset-4" : "text-quiet"}`}
                  >
                    {day}
                  </button>
                );
              })}
            </span>
            <label className="text-sm text-quiet">
              from{" "}
              <input
                aria-label={`From, ${row.name}`}
                type="time"
                value={`${String(Math.floor(row.hour)).padStart(2, "0")}:${String(Math.round((row.hour % 1) * 60)).padStart(2, "0")}`}
                onChange={(event) => {
                  const [hours, minutes] = event.target.value.split(":").map(Number);
                  if (hours !== undefined && minutes !== undefined)
                    change(at, { hour: hours + minutes / 60 });
                }}
                className="min-h-9 border border-line bg-paper px-1"
              />
            </label>
            {helpers.some(({ name }) => name === row.name) && (
              <a
                href={`/api/round/calendar/${encodeURIComponent(row.name)}.ics?zone=${encodeURIComponent(zone())}`}
                className="text-sm font-semibold text-edge-deep underline-offset-4 hover:underline"
              >
                calendar
              </a>
            )}
            <span className="flex-1" />
            <button
              type="button"
              aria-label={`Remove ${row.name}`}
              onClick={() => setRows(rows.filter((_, i) => i !== at))}
              className="grid size-9 place-items-center text-quiet hover:text-ink pointer-coarse:size-11"
            >
              <Trash2 size={16} />
            </button>
          </li>
        ))}
      </ul>
      {fault && (
        <p role="alert" className="mb-3 text-short">
          {fault}
        </p>
      )}
      <span className="flex gap-2">
        <Button onClick={() => setRows([...rows, { name: "", weekdays: [], hour: 18 }])}>Another one</Button>
        <Button look="strong" onClick={save}>
          Keep
        </Button>
      </span>
    </Dialog>
  );
}

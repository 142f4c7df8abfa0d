import { useState } from "react";
import { asked, client, Refused, type Cared } from "@/api/client";
import { Button, Dialog, Select } from "@/ui/controls";
import { useSentenceText } from "@/ui/figures/Says";

const WEEK = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"] as const;
type Day = (typeof WEEK)[number];
type By = "weekdays" | "days" | "months";

interface DutyDialogProps {
  id: number;
  /** The duty that is set; null for one of one's own that is new. */
  duty: Cared | null;
  close: () => void;
  saved: () => void;
}

/** How often a duty comes; that it does not; or a duty of one's own. */
export function DutyDialog({ id, duty, close, saved }: DutyDialogProps) {
  const text = useSentenceText();
  const own = duty === null || duty.own;
  const rhythm = duty?.rhythm ?? { weekdays: [], every_d: 7, every_months: 0 };
  const [words, setWords] = useState(duty?.own ? text(duty.words) : "");
  const [by, setBy] = useState<By>(
    rhythm.weekdays.length ? "weekdays" : rhythm.every_months ? "months" : "days",
  );
  const [days, setDays] = useState<Day[]>(rhythm.weekdays);
  const [count, setCount] = useState(String((by === "months" ? rhythm.every_months : rhythm.every_d) || 1));
  const [fault, setFault] = useState("");
  const number = Number(count);
  const whole = by === "weekdays" ? days.length > 0 : Number.isInteger(number) && number >= 1;
  const put = (body: { rhythm?: Cared["rhythm"] | null; off?: boolean; words?: string }) => {
    const key = duty?.key ?? `own.${Date.now().toString(36)}`;
    asked(
      client.PUT("/api/systems/{system_id}/care/{key}", {
        params: { path: { system_id: id, key } },
        body: { rhythm: body.rhythm ?? null, off: body.off ?? false, words: body.words ?? "", minutes: 5 },
      }),
    ).then(saved, (cause: unknown) => setFault(cause instanceof Refused ? cause.message : String(cause)));
  };
  const keep = () =>
    put({
      rhythm: {
        weekdays: by === "weekdays" ? days : [],
        every_d: by === "days" ? number : 0,
        every_months: by === "months" ? number : 0,
      },
      words: own ? words.trim() : "",
    });
  return (
    <Dialog title={duty ? "How often" : "Something of your own"} open onOpenChange={close}>
      {duty && !own && <p className="mb-3">{text(duty.words)}</p>}
      {own && (
        <label className="mb-3 block">
          What is done
          <input
            value={words}
            maxLength={200}
            onChange={(event) => setWords(event.target.value)}
            className="mt-1 block min-h-9 w-full border border-line bg-paper px-2"
          />
        </label>
      )}
      <p className="mb-3 flex flex-wrap items-center gap-2">
        <Select
          label="How often"
          value={by}
          options={[
            ["weekdays", "on weekdays"],
            ["days", "every so many days"],
            ["months", "every so many months"],
          ]}
          onChange={(chosen) => setBy(chosen as By)}
        />
        {by === "weekdays" ? (
          <span role="group" aria-label="Weekdays" className="flex flex-wrap">
            {WEEK.map((day) => (
              <button
                key={day}
                type="button"
                aria-pressed={days.includes(day)}
                onClick={() =>
                  setDays(days.includes(day) ? days.filter((other) => other !== day) : [...days, day])
                }
                className={`min-h-9 px-1.5 text-sm pointer-coarse:min-h-11 ${days.includes(day) ? "font-semibold text-edge-deep underline underline-offset-4" : "text-quiet"}`}
              >
                {day}
              </button>
            ))}
          </span>
        ) : (
          <input
            aria-label={by === "days" ? "Days" : "Months"}
            inputMode="numeric"
            value={count}
            onChange={(event) => setCount(event.target.value)}
            className="num min-h-9 w-16 border border-line bg-paper px-2"
          />
        )}
      </p>
      {!whole && (
        <p className="mb-3 text-short">
          {by === "weekdays" ? "Choose a day." : "A whole number, 1 or more."}
        </p>
      )}
      {fault && (
        <p role="alert" className="mb-3 text-short">
          {fault}
        </p>
      )}
      <span className="flex flex-wrap gap-2">
        <Button look="strong" disabled={!whole || (own && !words.trim())} onClick={keep}>
          Keep
        </Button>
        {duty && !own && (duty.usual || duty.off) && (
          <Button onClick={() => put({})}>As the plan has it</Button>
        )}
        {duty && !own && !duty.off && <Button onClick={() => put({ off: true })}>Leave it out</Button>}
        {duty?.own && <Button onClick={() => put({})}>Remove</Button>}
      </span>
    </Dialog>
  );
}

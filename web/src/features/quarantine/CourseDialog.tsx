import { useState } from "react";
import { asked, client, type Course, type CourseOut, type TubOut } from "@/api/client";
import { dayOn } from "@/lib/shown/days";
import { Button, Dialog, Select, Switch } from "@/ui/controls";
import { Line, NumberLine, TextLine } from "@/ui/fields/Lines";
import { COURSE, today, wrongOf, type Wrong } from "./newcomers";

interface CourseDialogProps {
  tub: TubOut;
  row?: CourseOut;
  close: () => void;
  done: (words: string, back?: () => Promise<unknown>) => void;
}

const UNITS: [NonNullable<Course["dose_unit"]>, string][] = [
  ["mL", "mL"],
  ["g", "g"],
  ["drops", "drops"],
  ["tablets", "tablets"],
];
const WARNS: ["copper" | "harms_plants" | "harms_bare_skin" | "harms_filter", string][] = [
  ["copper", "Holds copper, or kills invertebrates"],
  ["harms_plants", "Harms plants"],
  ["harms_bare_skin", "Harms fish without scales, frogs and salamanders"],
  ["harms_filter", "Harms the filter’s bacteria"],
];
const SHOWN = ["product", "begun", "dose_days", "stopped"];

/** A course of treatment as its label says it: what a dose is, on which days, what it warns of. */
export function CourseDialog({ tub, row, close, done }: CourseDialogProps) {
  const [one, setOne] = useState<Course>(row?.course ?? { ...COURSE, tub: tub.system_id });
  const [days, setDays] = useState((row?.course.dose_days ?? COURSE.dose_days ?? []).join(", "));
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const set = (part: Partial<Course>) => setOne({ ...one, ...part });
  const sendWith = (part: Partial<Course>, words: string) => {
    const typed = days
      .split(/[^\d]+/)
      .filter(Boolean)
      .map(Number);
    const body: Course = { ...one, dose_days: typed, ...part };
    const sent: Promise<unknown> = row
      ? asked(client.PUT("/api/quarantine/courses/{number}", { params: { path: { number: row.id } }, body }))
      : asked(client.POST("/api/quarantine/courses", { body }));
    sent.then(
      () => done(words),
      (cause: unknown) => setWrong(wrongOf(cause)),
    );
  };
  const forget = (number: number) => {
    const params = { path: { number } };
    asked(client.DELETE("/api/quarantine/courses/{number}", { params })).then(
      () =>
        done(`${one.product}: taken out.`, () =>
          asked(client.POST("/api/quarantine/courses/{number}/restore", { params })),
        ),
      (cause: unknown) => setWrong(wrongOf(cause)),
    );
  };
  return (
    <Dialog
      title={`${tub.name}: a course by its label`}
      open
      onOpenChange={close}
      unsaved={!row && Boolean(one.product)}
    >
      <p className="mb-3 border-l-3 border-short pl-3 text-sm">
        What they have, and whether this helps, is for a vet to say. What may be sold and used is the law’s.
        More than the label says kills.
      </p>
      <TextLine
        label="Called on its label"
        value={one.product}
        fault={wrong?.fields.product}
        set={(product) => set({ product })}
      />
      <NumberLine
        label="A dose"
        kind="ratio"
        value={one.dose ?? 1}
        set={(dose) => set({ dose: dose ?? 0 })}
      />
      <Line label="Measured in">
        <Select
          label="Measured in"
          value={one.dose_unit ?? "mL"}
          options={UNITS}
          onChange={(unit) => set({ dose_unit: unit as Course["dose_unit"] })}
        />
      </Line>
      <NumberLine
        label="A dose treats"
        kind="volume"
        value={one.per_l ?? 10}
        set={(per_l) => set({ per_l: per_l ?? 0 })}
      />
      <TextLine
        label="First dose on"
        date
        value={one.begun}
        fault={wrong?.fields.begun}
        set={(begun) => set({ begun })}
      />
      <TextLine
        label="Dosed on days, the first is 1"
        value={days}
        fault={wrong?.fields.dose_days}
        set={setDays}
      />
      <NumberLine
        label="The course lasts"
        kind="days"
        value={one.lasts_d ?? 7}
        set={(lasts) => set({ lasts_d: Math.round(lasts ?? 0) })}
      />
      <Line label="What a change takes out is dosed again">
        <Switch
          label="What a change takes out is dosed again"
          on={one.redosed ?? true}
          onChange={(redosed) => set({ redosed })}
        />
      </Line>
      {WARNS.map(([key, label]) => (
        <Line key={key} label={label}>
          <Switch label={label} on={one[key] ?? false} onChange={(on) => set({ [key]: on })} />
        </Line>
      ))}
      <TextLine
        label="Nets, hoses and sponges used"
        value={one.equipment ?? ""}
        set={(equipment) => set({ equipment })}
      />
      {wrong && !Object.keys(wrong.fields).some((path) => SHOWN.includes(path)) && (
        <p role="alert" className="mt-2 text-short">
          {wrong.sentence}
        </p>
      )}
      {wrong?.fields.stopped && (
        <p role="alert" className="mt-2 text-short">
          {wrong.fields.stopped}
        </p>
      )}
      <p className="mt-3 flex flex-wrap gap-2">
        <Button look="strong" onClick={() => sendWith({}, `${one.product}: kept.`)}>
          {row ? "Keep" : "Begin"}
        </Button>
        {row?.running && (
          <Button
            onClick={() => sendWith({ stopped: dayOn(today(), 1) }, `${one.product}: today is its last day.`)}
          >
            Stop after today
          </Button>
        )}
        {row && (
          <Button look="word" onClick={() => forget(row.id)}>
            Written down by mistake
          </Button>
        )}
      </p>
    </Dialog>
  );
}

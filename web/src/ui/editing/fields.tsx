import { memo, useId, type ChangeEvent } from "react";
import type { FieldFault } from "@/api/client";
import { shortDay } from "@/lib/shown/days";
import { written } from "@/lib/document/paths";
import { parsed } from "@/lib/shown/quantity";
import { Select, Switch } from "@/ui/controls";
import { NumberBox } from "@/ui/fields/NumberBox";
import { Row } from "@/ui/fields/Row";
import { useUnits } from "@/ui/units";
import { FaultSays } from "./FaultSays";
import { useField } from "./context";

interface NumberProps {
  path: string;
  /** Replaces the library's label where the place says the rest. */
  label?: string;
  /** Only the box, for a cell of a table. */
  bare?: boolean;
  placeholder?: string;
}

/** A number of the plan, its fault said beside it. */
export const NumberField = memo(function NumberField({ path, label, bare, placeholder }: NumberProps) {
  const { entry, value, told: read, fault, change } = useField(path);
  const units = useUnits();
  const id = useId();
  const shown = typeof value === "number" ? units.entry(value, entry.kind) : written(value);
  const type = (text: string) => {
    const number = parsed(text, units.within(entry));
    if (text.trim() === "" && entry.optional) change(null);
    else change(number === null ? text : units.base(number, entry.kind));
  };
  const words = label ?? entry.label;
  const box = (
    <NumberBox
      id={id}
      label={bare ? words : undefined}
      shown={shown}
      type={type}
      unit={units.unit(entry.kind).label}
      narrow={bare}
      placeholder={placeholder}
      bad={Boolean(fault)}
      told={`${id}-fault`}
    />
  );
  const told = <Told id={`${id}-fault`} fault={fault} set={change} />;
  if (bare) {
    return (
      <span className="block">
        {box}
        {told}
      </span>
    );
  }
  return (
    <Row
      id={id}
      label={words}
      from={<From given={entry.given} read={read} left={value == null || value === ""} />}
      told={told}
    >
      {box}
    </Row>
  );
});

/** Where a reading is from: its day, or that it stands in for one that was never made. */
function From({ given, read, left }: { given: string; read: string | null; left: boolean }) {
  if (given !== "reading") return null;
  if (left) return <>not measured</>;
  if (read === null) return <>assumed</>;
  return read ? <>read {shortDay(read)}</> : null;
}

/** A label and its longest option have no room in half a line when they have more letters together. */
const HALF_A_LINE = 36;

export const ChoiceField = memo(function ChoiceField({
  path,
  label,
  bare,
}: {
  path: string;
  label?: string;
  bare?: boolean;
}) {
  const { entry, value, fault, change } = useField(path);
  const words = label ?? entry.label;
  const select = (
    <Select label={words} value={String(value)} options={Object.entries(entry.options)} onChange={change} />
  );
  if (bare) return select;
  return (
    <Row
      label={words}
      wide={Object.values(entry.options).some((option) => words.length + option.length > HALF_A_LINE)}
      told={<Told fault={fault} set={change} />}
    >
      <span className="max-w-[68%] min-w-0">{select}</span>
    </Row>
  );
});

export const SwitchField = memo(function SwitchField({ path }: { path: string }) {
  const { entry, value, fault, change } = useField(path);
  return (
    <Row label={entry.label} told={<Told fault={fault} set={change} />}>
      <Switch label={entry.label} on={value === true} onChange={change} />
    </Row>
  );
});

/** A day of the calendar, or none. */
export const DateField = memo(function DateField({ path }: { path: string }) {
  const { entry, value, fault, change } = useField(path);
  const id = useId();
  return (
    <Row id={id} label={entry.label} told={<Told fault={fault} set={change} />}>
      <input
        id={id}
        type="date"
        value={written(value)}
        onChange={(event) => change(event.target.value)}
        className="num min-h-8 rounded-sm border border-line bg-paper px-2 hover:border-edge pointer-coarse:min-h-11"
      />
    </Row>
  );
});

/** Words of the keeper's own. */
export const TextField = memo(function TextField({ path, oneLine }: { path: string; oneLine?: boolean }) {
  const { entry, value, change } = useField(path);
  const id = useId();
  const Box = oneLine ? "input" : "textarea";
  return (
    <div className={oneLine ? "mb-3" : "mb-5"}>
      <label htmlFor={id} className="block text-quiet">
        {entry.label}
      </label>
      <Box
        id={id}
        rows={oneLine ? undefined : 3}
        maxLength={oneLine ? 80 : 4000}
        value={written(value)}
        onChange={(event: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => change(event.target.value)}
        className="w-full rounded-sm border border-line bg-paper p-2"
      />
    </div>
  );
});

/** What is wrong with the field above it; nothing while nothing is. */
function Told({ id, fault, set }: { id?: string; fault?: FieldFault; set: (nearest: unknown) => void }) {
  if (!fault) return null;
  return (
    <span id={id} role="alert" className="block text-sm text-short">
      <FaultSays fault={fault} set={set} />
    </span>
  );
}

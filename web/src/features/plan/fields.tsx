import { memo, useId, useState, type ChangeEvent, type ReactNode } from "react";
import type { FieldFault } from "@/api/client";
import { parsed } from "@/lib/quantity";
import { Select, Switch } from "@/ui/controls";
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

/** A number with its unit. What is typed stays as typed until the field is left, and a fault is said beside it. */
export const NumberField = memo(function NumberField({ path, label, bare, placeholder }: NumberProps) {
  const { entry, value, fault, change } = useField(path);
  const units = useUnits();
  const [typed, setTyped] = useState<string | null>(null);
  const id = useId();
  const shown = typeof value === "number" ? units.entry(value, entry.kind) : String(value ?? "");
  const type = (text: string) => {
    setTyped(text);
    const number = parsed(text, units.within(entry));
    if (text.trim() === "" && entry.optional) change(null);
    else change(number === null ? text : units.base(number, entry.kind));
  };
  const set = (nearest: unknown) => {
    setTyped(null);
    change(nearest);
  };
  const unit = units.unit(entry.kind).label;
  const words = label ?? entry.label;
  const box = (
    <span className="inline-flex items-baseline gap-1.5">
      <input
        id={id}
        inputMode="decimal"
        autoComplete="off"
        aria-label={bare ? words : undefined}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        placeholder={placeholder}
        value={typed ?? shown}
        onChange={(event) => type(event.target.value)}
        onBlur={() => setTyped(null)}
        className={`num min-h-8 rounded-sm border bg-paper px-2 text-right placeholder:text-quiet/80 pointer-coarse:min-h-11 ${bare ? "w-16" : "w-20"} ${fault ? "border-short" : "border-line hover:border-edge"}`}
      />
      {unit && <span className="text-sm text-quiet">{unit}</span>}
    </span>
  );
  const told = <Told id={`${id}-fault`} fault={fault} set={set} />;
  if (bare) {
    return (
      <span className="block">
        {box}
        {told}
      </span>
    );
  }
  return (
    <Row id={id} label={words} told={told}>
      {box}
    </Row>
  );
});

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
        value={String(value ?? "")}
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

/** A label on its line with what is entered at the right. */
export function Row({
  id,
  label,
  told,
  wide,
  children,
}: {
  id?: string;
  label: string;
  told?: ReactNode;
  /** Takes the whole line where fields stand in two columns. */
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <div className={`border-b border-line/70 py-1 ${wide ? "md:col-span-2" : ""}`}>
      <div className="flex min-h-8 items-center justify-between gap-x-3">
        <label htmlFor={id} className="min-w-0 leading-tight text-quiet">
          {label}
        </label>
        {children}
      </div>
      {told}
    </div>
  );
}

/** Fields in two columns where there is room. */
export function Fields({ legend, children }: { legend: string; children: ReactNode }) {
  return (
    <fieldset className="mb-5">
      <legend className="mb-1 text-sm font-semibold">{legend}</legend>
      <div className="grid gap-x-7 md:grid-cols-2">{children}</div>
    </fieldset>
  );
}

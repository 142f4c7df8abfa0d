import { useState, type ReactNode } from "react";
import { parsed } from "@/lib/shown/quantity";
import { useUnits } from "@/ui/units";

const BOX = "min-h-9 rounded-sm border bg-paper px-2 pointer-coarse:min-h-11";

/** A label with what is entered beside it, and what is wrong with it under it. */
export function Line({ label, fault, children }: { label: string; fault?: string; children: ReactNode }) {
  return (
    <div className="border-b border-line/70 py-1.5">
      <label className="flex items-center justify-between gap-3">
        <span className="text-quiet">{label}</span>
        {children}
      </label>
      {fault && (
        <p role="alert" className="text-right text-sm text-short">
          {fault}
        </p>
      )}
    </div>
  );
}

export function TextLine(props: {
  label: string;
  value: string;
  set: (value: string) => void;
  fault?: string;
  date?: boolean;
}) {
  const { label, value, set, fault, date } = props;
  return (
    <Line label={label} fault={fault}>
      <input
        type={date ? "date" : "text"}
        value={value}
        maxLength={200}
        onChange={(event) => set(event.target.value)}
        className={`${BOX} w-52 ${fault ? "border-short" : "border-line"}`}
      />
    </Line>
  );
}

/** A number in the person's unit; null where it is empty. */
export function NumberLine(props: {
  label: string;
  kind: string;
  value: number | null;
  set: (value: number | null) => void;
  fault?: string;
}) {
  const { label, kind, value, set, fault } = props;
  const units = useUnits();
  const [typed, setTyped] = useState(() => (value === null ? "" : units.entry(value, kind)));
  return (
    <Line label={label} fault={fault}>
      <span className="flex items-baseline gap-1.5">
        <input
          inputMode="decimal"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            const number = parsed(event.target.value, () => true);
            set(number === null ? null : units.base(number, kind));
          }}
          className={`num ${BOX} w-24 text-right ${fault ? "border-short" : "border-line"}`}
        />
        <span className="w-8 text-sm text-quiet">{units.unit(kind).label}</span>
      </span>
    </Line>
  );
}

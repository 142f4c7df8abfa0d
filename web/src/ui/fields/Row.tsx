import type { ReactNode } from "react";

interface RowProps {
  id?: string;
  label: string;
  /** Where what is entered is from, in a word. */
  from?: ReactNode;
  told?: ReactNode;
  /** Takes the whole line where fields stand in two columns. */
  wide?: boolean;
  children: ReactNode;
}

/** A label on its line with what is entered at the right. */
export function Row({ id, label, from, told, wide, children }: RowProps) {
  const words = "min-w-0 leading-tight text-quiet";
  return (
    <div className={`border-b border-line/70 py-1 ${wide ? "md:col-span-2" : ""}`}>
      <div className="flex min-h-8 items-center justify-between gap-x-3">
        {id ? (
          <span className={words}>
            <label htmlFor={id}>{label}</label>
            {from && <span className="block text-xs empty:hidden">{from}</span>}
          </span>
        ) : (
          <span className={words}>{label}</span>
        )}
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

import { useState } from "react";

interface NumberBoxProps {
  /** What the number is, as it is shown while nobody types. */
  shown: string;
  /** What was typed, as it was typed. */
  type: (text: string) => void;
  id?: string;
  /** Read aloud, where no label stands beside it. */
  label?: string;
  unit?: string;
  /** Its width, 16 to 24 quarter rems. */
  narrow?: boolean;
  whole?: boolean;
  placeholder?: string;
  bad?: boolean;
  /** The id of what tells what is wrong. */
  told?: string;
}

/** A number with its unit. What is typed stays as typed until the field is left. */
export function NumberBox({ shown, type, unit, narrow, whole, bad, told, label, ...rest }: NumberBoxProps) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <span className="inline-flex items-baseline gap-1.5">
      <input
        {...rest}
        inputMode={whole ? "numeric" : "decimal"}
        autoComplete="off"
        aria-label={label}
        aria-invalid={bad || undefined}
        aria-describedby={bad ? told : undefined}
        value={typed ?? shown}
        onChange={(event) => {
          setTyped(event.target.value);
          type(event.target.value);
        }}
        onBlur={() => setTyped(null)}
        className={`num min-h-8 rounded-sm border bg-paper px-2 text-right placeholder:text-quiet/80 pointer-coarse:min-h-11 ${narrow ? "w-16" : "w-20"} ${bad ? "border-short" : "border-line hover:border-edge"}`}
      />
      {unit && <span className="text-sm text-quiet">{unit}</span>}
    </span>
  );
}

import type { Entry, Kind, Term, Unit } from "@/api/client";

/** The unit chosen for each kind; kinds without a choice show their first unit. */
export type UnitChoice = Record<string, string>;

export const US_UNITS: UnitChoice = {
  volume: "gal",
  volume_per_day: "gal/d",
  volume_per_week: "gal/wk",
  fill_rate: "gal/min",
  flow: "gal/h",
  length: "in",
  thickness: "in",
  area: "ft2",
  surface: "in2",
  temperature: "F",
  temperature_difference: "F",
  mass: "lb",
  small_mass: "oz",
  feed: "oz/d",
  pressure: "lbf/ft2",
  speed: "in/s",
};

const THIN_SPACE = "\u2009";
const PLAIN: Unit = { key: "", label: "", factor: 1, offset: 0, digits: 2, significant: 3, before: false };

export class Units {
  private readonly byKind: Map<string, Kind>;

  constructor(
    kinds: Kind[],
    readonly choice: UnitChoice,
  ) {
    this.byKind = new Map(kinds.map((kind) => [kind.key, kind]));
  }

  unit(kind: string): Unit {
    const units = this.byKind.get(kind)?.units ?? [];
    return units.find((unit) => unit.key === this.choice[kind]) ?? units[0] ?? PLAIN;
  }

  shown(value: number, kind: string): number {
    const { factor, offset } = this.unit(kind);
    return value * factor + offset;
  }

  base(shown: number, kind: string): number {
    const { factor, offset } = this.unit(kind);
    return (shown - offset) / factor;
  }

  /** A computed number: at most the unit's decimals, and no more digits than it deserves. */
  number(value: number, kind: string): string {
    const { digits, significant } = this.unit(kind);
    return rounded(this.shown(value, kind), digits, significant);
  }

  /** Whether a number in the unit in use lies within an entry's limits. */
  within({ kind, low, high }: Pick<Entry, "kind" | "low" | "high">): (shown: number) => boolean {
    return (shown) => {
      const value = this.base(shown, kind);
      return value >= (low ?? -Infinity) && value <= (high ?? Infinity);
    };
  }

  /** A difference: a change of the number, without the unit's offset. */
  difference(value: number, kind: string): string {
    const { factor, digits } = this.unit(kind);
    const text = rounded(Math.abs(value * factor), digits, 2);
    return (value < 0 ? "−" : "+") + text;
  }

  /** A number as it was entered: its digits are kept. */
  entry(value: number, kind: string): string {
    return String(Number(this.shown(value, kind).toFixed(this.unit(kind).digits + 2)));
  }

  text(value: number, kind: string): string {
    const { label, before } = this.unit(kind);
    if (label && before) return `${label}${this.number(value, kind)}`;
    return label ? `${this.number(value, kind)}${THIN_SPACE}${label}` : this.number(value, kind);
  }

  /** A number and its unit apart, so that each can be set in its own face; a sign that stands before it is with the number. */
  parts(value: number, kind: string): [string, string] {
    const { label, before } = this.unit(kind);
    return before ? [this.text(value, kind), ""] : [this.number(value, kind), label];
  }

  term(term: Term): string {
    if (typeof term.value === "string") return term.value;
    return term.bare ? this.number(term.value, term.kind) : this.text(term.value, term.kind);
  }
}

function rounded(value: number, digits: number, significant: number): string {
  const size = Math.abs(value);
  const whole = size > 0 ? Math.floor(Math.log10(size)) + 1 : 1;
  const places = Math.max(0, Math.min(digits, significant - whole));
  const fixed = value.toFixed(places);
  const [before = "", after] = fixed.split(".");
  const trimmed = after?.replace(/0+$/, "");
  const grouped = before.replace(/(\d)(?=(\d{3})+$)/g, `$1${THIN_SPACE}`).replace("-", "−");
  const text = trimmed ? `${grouped}.${trimmed}` : grouped;
  return text === "−0" ? "0" : text;
}

const EITHER = /^[+-]?[1-9]\d{0,2},\d{3}$/;
const SPACED = /^[+-]?\d{1,3}( \d{3})+([.,]\d+)?$/;
const PLAIN_NUMBER = /^[+-]?(\d+[.,]?\d*|[.,]\d+)(e[+-]?\d+)?$/i;

/**
 * What was typed as a number, with a decimal comma or spaces between thousands; null when it is none, or when it may
 * be two. Of 1,234 the reading that fits is meant when only one does; else it is sent as it is, and the server says so.
 */
export function parsed(text: string, fits: (value: number) => boolean = () => true): number | null {
  const plain = text
    .trim()
    .replace(/[\s\u2009\u00a0\u202f]/g, " ")
    .replace("−", "-");
  if (EITHER.test(plain)) {
    const fitting = [plain.replace(",", ""), plain.replace(",", ".")].map(Number).filter(fits);
    return fitting.length === 1 ? fitting[0]! : null;
  }
  if (!PLAIN_NUMBER.test(plain) && !SPACED.test(plain)) return null;
  return Number(plain.replaceAll(" ", "").replace(",", "."));
}

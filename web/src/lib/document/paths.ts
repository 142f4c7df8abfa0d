type Json = unknown;

/** The value at a path such as tank.pane_mm or animals.0.number. */
export function valueAt(plan: Json, path: string): Json {
  return path.split(".").reduce<Json>((part, key) => (part as Record<string, Json>)?.[key], plan);
}

/** The same plan with one value replaced; nothing is changed in place. */
export function withValue<T>(plan: T, path: string, value: Json): T {
  const [key = "", ...rest] = path.split(".");
  const inner = rest.length ? withValue((plan as Record<string, Json>)[key], rest.join("."), value) : value;
  if (Array.isArray(plan)) return plan.map((item: Json, i) => (String(i) === key ? inner : item)) as T;
  return { ...plan, [key]: inner };
}

/** The path under which the library tells what may be entered: rows are written with a star. */
export function entryPath(path: string): string {
  return path.replace(/\.\d+\./, ".*.").replace(/\.\d+$/, "");
}

/** A value as the text of its field: what was typed as it was typed, nothing for what is not entered. */
export function written(value: Json): string {
  return typeof value === "string" || typeof value === "number" ? String(value) : "";
}

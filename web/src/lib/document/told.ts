/** What a keeper told of a plan: rows such as "water.tank_ph 2026-06-17", the day left out where it is not known. */

const pathOf = (row: string): string => row.split(" ")[0] ?? "";

/** The day an input was read on, "" where none is known, null where nobody told it. */
export function dayTold(rows: readonly string[], path: string): string | null {
  const row = rows.find((one) => pathOf(one) === path);
  return row === undefined ? null : (row.split(" ")[1] ?? "");
}

/** The same rows with one input told on a day. */
export function withTold(rows: readonly string[], path: string, day: string): string[] {
  return [...rows.filter((row) => pathOf(row) !== path), `${path} ${day}`.trim()];
}

/** The rows when one of a list's is taken out, or put in: what is told of those behind moves along. */
export function withListMoved(rows: readonly string[], section: string, at: number, by: 1 | -1): string[] {
  return rows.flatMap((row) => {
    const [path = "", day] = row.split(" ");
    const [name, place, ...field] = path.split(".");
    if (name !== section || !/^\d+$/.test(place ?? "")) return [row];
    const number = Number(place);
    if (by === -1 && number === at) return [];
    const moved = number > at || (by === 1 && number === at) ? number + by : number;
    return [[[name, moved, ...field].join("."), day].filter(Boolean).join(" ")];
  });
}

const pad = (value: number) => String(value).padStart(2, "0");

/** A day as it is where the person is. */
export const isoDay = (at: Date): string =>
  `${at.getFullYear()}-${pad(at.getMonth() + 1)}-${pad(at.getDate())}`;

/** A day so many days on. */
export function dayOn(day: string, days: number): string {
  const at = new Date(`${day}T12:00`);
  at.setDate(at.getDate() + days);
  return isoDay(at);
}

export const longDay = (day: string): string =>
  new Date(`${day}T12:00`).toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long" });

export const shortDay = (day: string): string =>
  new Date(`${day}T12:00`).toLocaleDateString("en-GB", { weekday: "short", day: "numeric", month: "short" });

/** The person's own time zone. */
export const zone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";

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

/** The one way in which days and hours are written over the program, whatever the browser would: as its sentences do. */
const WRITTEN = "en-GB";

const noon = (day: string) => new Date(`${day}T12:00`);

const day = (at: Date, how: Intl.DateTimeFormatOptions): string => at.toLocaleDateString(WRITTEN, how);

/** 5 March */
export const dayMonth = (at: Date): string => day(at, { day: "numeric", month: "short" });

/** 5 March 2026 */
export const wholeDay = (at: Date): string => day(at, { day: "numeric", month: "long", year: "numeric" });

/** Thu, 5 March 2026 */
export const headingDay = (at: Date): string =>
  day(at, { weekday: "short", day: "numeric", month: "long", year: "numeric" });

/** Thu 5 Mar */
export const weekday = (at: Date): string => day(at, { weekday: "short", day: "numeric", month: "short" });

/** March 2026 */
export const wholeMonth = (iso: string): string => day(noon(iso), { month: "long", year: "numeric" });

/** Mar 26 */
export const monthYear = (at: Date): string => day(at, { month: "short", year: "2-digit" });

/** 14:05 */
export const clock = (at: Date): string =>
  at.toLocaleTimeString(WRITTEN, { hour: "2-digit", minute: "2-digit" });

export const longDay = (iso: string): string =>
  day(noon(iso), { weekday: "long", day: "numeric", month: "long" });

export const shortDay = (iso: string): string => weekday(noon(iso));

/** The person's own time zone. */
export const zone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";

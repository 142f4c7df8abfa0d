/** A moment as people say it: the time alone for today, with the date for another day. */
export function moment(iso: string, now = new Date()): string {
  const at = new Date(iso);
  const time = at.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  if (at.toDateString() === now.toDateString()) return time;
  return `${at.toLocaleDateString([], { day: "numeric", month: "long", year: "numeric" })}, ${time}`;
}

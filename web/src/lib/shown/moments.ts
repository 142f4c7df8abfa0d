import { clock, wholeDay } from "./days";

/** A moment as people say it: the time alone for today, with the date for another day. */
export function moment(iso: string, now = new Date()): string {
  const at = new Date(iso);
  const time = clock(at);
  if (at.toDateString() === now.toDateString()) return time;
  return `${wholeDay(at)}, ${time}`;
}

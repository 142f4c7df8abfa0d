import { dayMonth, monthYear } from "@/lib/shown/days";

/** A month in short, with its year where that is all there is to tell. */
export const monthOf = (day: string, withYear = false): string =>
  (withYear ? monthYear : dayMonth)(new Date(`${day}T12:00`));

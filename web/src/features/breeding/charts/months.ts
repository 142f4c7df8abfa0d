/** A month in short, with its year where that is all there is to tell. */
export const monthOf = (day: string, withYear = false): string =>
  new Date(`${day}T12:00`).toLocaleDateString("en-GB", {
    month: "short",
    ...(withYear ? { year: "2-digit" } : { day: "numeric" }),
  });

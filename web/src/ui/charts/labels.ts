/** As far apart as two lines of a chart's text need to stand. */
const APART = 13;
const CLASH = 12;

/** Label heights moved down until none touches the one above it. */
export function spaced(heights: number[]): number[] {
  const order = heights.map((height, i) => ({ height, i })).sort((a, b) => a.height - b.height);
  const placed = [...heights];
  order.forEach(({ height, i }, n) => {
    const above = order[n - 1];
    placed[i] = above ? Math.max(height, placed[above.i]! + APART) : height;
  });
  return placed;
}

/** A label's height moved clear of others that stand at the same edge. */
export function clearOf(wanted: number, others: number[]): number {
  const clash = others.find((other) => Math.abs(other - wanted) < CLASH);
  if (clash === undefined) return wanted + 4;
  return clash > wanted ? clash - 9 : clash + 16;
}

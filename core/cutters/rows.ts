/** A row of a table at a place between those that it has, all numbers on the straight line; the nearest beyond. */
export function rowAt(rows: readonly (readonly number[])[], at: number): number[] {
  const sorted = [...rows].sort((a, b) => a[0] - b[0]);
  const next = sorted.findIndex((row) => row[0] >= at);
  if (next <= 0) return [...sorted[next === 0 ? 0 : sorted.length - 1]];
  const [a, b] = [sorted[next - 1], sorted[next]];
  const f = (at - a[0]) / (b[0] - a[0]);
  return a.map((v, i) => v + f * (b[i] - v));
}

import { type HeightField, LEAST_CELL } from "./field.ts";

/** Where a tile's own samples go on beyond it: over again from its other side, or back the way they came. */
const FOLLOWS = {
  again: (i: number, n: number) => ((i % n) + n) % n,
  mirrored(i: number, n: number) {
    const k = ((i % (2 * n)) + 2 * n) % (2 * n);
    return k < n ? k : 2 * n - 1 - k;
  },
};
export type Seams = keyof typeof FOLLOWS;

/**
 * A surface laid side by side over an area like tiles, its corner at the area's; its depths stay.
 * @param tile how wide it then is, mm
 * @param most samples of the result
 */
export function tiled(
  t: HeightField,
  area: { x0: number; y0: number; wide: number; high: number },
  tile: number,
  seams: Seams,
  most: number,
): HeightField {
  const { x0, y0, wide, high } = area;
  const own = tile / t.width;
  const cell = Math.max(own, LEAST_CELL, Math.sqrt((wide * high) / most));
  const width = Math.max(1, Math.ceil(wide / cell - 1e-6));
  const height = Math.max(1, Math.ceil(high / cell - 1e-6));
  const follows = FOLLOWS[seams];
  const z = new Float32Array(width * height);
  /** columns of the tile on both sides of each of the result's, and how far it lies between them; rows likewise */
  const between = (count: number, n: number) =>
    Array.from({ length: count }, (_, k) => {
      const at = ((k + 0.5) * cell) / own - 0.5;
      const i = Math.floor(at);
      return { near: follows(i, n), far: follows(i + 1, n), share: at - i };
    });
  const columns = between(width, t.width);
  between(height, t.height).forEach((row, j) => {
    const [near, far] = [row.near * t.width, row.far * t.width];
    columns.forEach((c, i) => {
      const a = t.z[near + c.near] * (1 - c.share) + t.z[near + c.far] * c.share;
      const b = t.z[far + c.near] * (1 - c.share) + t.z[far + c.far] * c.share;
      z[j * width + i] = a * (1 - row.share) + b * row.share;
    });
  });
  return { x0, y0, cell, width, height, z };
}

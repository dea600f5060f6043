import { between, type HeightField, LEAST_CELL } from "./field.ts";

/** Ways of making one surface of two. */
export const BLENDS = ["higher", "lower", "added", "scaled", "second"] as const;
export type Blend = (typeof BLENDS)[number];

/** The rectangle round two fields in cells as fine as the finer one's, but never more than so many of them. */
export function spanOf(a: HeightField, b: HeightField, most: number): Omit<HeightField, "z"> {
  const [x0, y0] = [Math.min(a.x0, b.x0), Math.min(a.y0, b.y0)];
  const wide = Math.max(a.x0 + a.width * a.cell, b.x0 + b.width * b.cell) - x0;
  const high = Math.max(a.y0 + a.height * a.cell, b.y0 + b.height * b.cell) - y0;
  const cell = Math.max(Math.min(a.cell, b.cell), LEAST_CELL, Math.sqrt((wide * high) / most));
  // Rounding adds no row that only just begins.
  const count = (length: number) => Math.max(1, Math.ceil(length / cell - 1e-6));
  return { x0, y0, cell, width: count(wide), height: count(high) };
}

/**
 * Two surfaces as one, both as depths below the stock's top: the higher or the lower of both, both depths added,
 * the first one's depth scaled by the second's share of its own deepest, or the second alone. Where only one lies it
 * is taken as it is; where none does the stock's top stays.
 * @param share how much of this counts at a cell, 0…1; the first surface alone for the rest
 */
export function blended(
  a: HeightField,
  b: HeightField,
  how: Blend,
  cells: Omit<HeightField, "z">,
  share: (cell: number) => number,
): HeightField {
  const { width, height } = cells;
  const deepest = b.z.reduce((low, v) => Math.min(low, v), 0);
  const both = (p: number, q: number): number => {
    if (how === "higher") return Math.max(p, q);
    if (how === "lower") return Math.min(p, q);
    if (how === "added") return p + q;
    if (how === "second") return q;
    return deepest < 0 ? (p * q) / deepest : 0;
  };
  const z = new Float32Array(width * height);
  const [first, second] = [new Float64Array(width), new Float64Array(width)];
  for (let j = 0, k = 0; j < height; j++) {
    rowOf(a, cells, j, first);
    rowOf(b, cells, j, second);
    for (let i = 0; i < width; i++, k++) {
      const inA = !Number.isNaN(first[i]);
      const inB = !Number.isNaN(second[i]);
      const p = inA ? first[i] : 0;
      let mixed = 0;
      if (inA && inB) mixed = both(p, second[i]);
      else if (inA) mixed = p;
      else if (inB) mixed = second[i];
      const w = share(k);
      z[k] = w * mixed + (1 - w) * p;
    }
  }
  return { ...cells, z };
}

/** The heights of a field along a row of cells, mm; NaN where it does not lie. */
function rowOf(f: HeightField, { x0, y0, cell, width }: Omit<HeightField, "z">, j: number, into: Float64Array): void {
  const v = (y0 + (j + 0.5) * cell - f.y0) / f.cell;
  if (v < 0 || v > f.height) {
    into.fill(NaN);
    return;
  }
  for (let i = 0; i < width; i++) {
    const u = (x0 + (i + 0.5) * cell - f.x0) / f.cell;
    into[i] = u < 0 || u > f.width ? NaN : between(f, u - 0.5, v - 0.5);
  }
}

import { heightAt, type HeightField, LEAST_CELL } from "./field.ts";

/** Ways of making one surface of two. */
export const BLENDS = ["higher", "lower", "added", "scaled", "second"] as const;
export type Blend = (typeof BLENDS)[number];

/** Whether a place lies in a field. */
const holds = (f: HeightField, x: number, y: number): boolean =>
  x >= f.x0 && y >= f.y0 && x <= f.x0 + f.width * f.cell && y <= f.y0 + f.height * f.cell;

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
  const { x0, y0, cell, width, height } = cells;
  const deepest = b.z.reduce((low, v) => Math.min(low, v), 0);
  const both = (p: number, q: number): number => {
    if (how === "higher") return Math.max(p, q);
    if (how === "lower") return Math.min(p, q);
    if (how === "added") return p + q;
    if (how === "second") return q;
    return deepest < 0 ? (p * q) / deepest : 0;
  };
  const z = new Float32Array(width * height);
  for (let j = 0, k = 0; j < height; j++)
    for (let i = 0; i < width; i++, k++) {
      const [x, y] = [x0 + (i + 0.5) * cell, y0 + (j + 0.5) * cell];
      const [inA, inB] = [holds(a, x, y), holds(b, x, y)];
      const [p, q] = [inA ? heightAt(a, x, y) : 0, inB ? heightAt(b, x, y) : 0];
      let mixed = 0;
      if (inA && inB) mixed = both(p, q);
      else if (inA) mixed = p;
      else if (inB) mixed = q;
      const w = share(k);
      z[k] = w * mixed + (1 - w) * p;
    }
  return { ...cells, z };
}

/**
 * A surface over a board as heights on a grid: z[row·width + column] in mm, 0 the stock's top, down negative; row 0
 * at the front. Sample (i, j) lies at (x0 + (i + ½)·cell, y0 + (j + ½)·cell); between samples the surface is
 * bilinear. Of a surface that is wanted, the stock's top stays beyond them.
 */
export interface HeightField {
  x0: number;
  y0: number;
  cell: number;
  width: number;
  height: number;
  z: Float32Array;
}

/** Samples nearer to each other than this show nothing that a cutter can cut, mm. */
export const LEAST_CELL = 0.05;

/** The wanted z at a place, mm; 0 outside the field. */
export function heightAt(f: HeightField, x: number, y: number): number {
  const u = (x - f.x0) / f.cell;
  const v = (y - f.y0) / f.cell;
  if (u < 0 || v < 0 || u > f.width || v > f.height) return 0;
  return between(f, u - 0.5, v - 0.5);
}

/** The bilinear surface at a place in samples from the first; level beyond the outermost. */
export function between(
  { width, height, z }: Pick<HeightField, "width" | "height" | "z">,
  u: number,
  v: number,
): number {
  const a = Math.max(0, Math.min(width - 1, u));
  const b = Math.max(0, Math.min(height - 1, v));
  const i = Math.floor(a);
  const j = Math.floor(b);
  const right = Math.min(width - 1, i + 1);
  const far = Math.min(height - 1, j + 1) * width;
  const p = a - i;
  const q = b - j;
  const near = z[j * width + i] * (1 - p) + z[j * width + right] * p;
  const beyond = z[far + i] * (1 - p) + z[far + right] * p;
  return near * (1 - q) + beyond * q;
}

/** Lowest and highest z, mm. */
export function rangeOf({ z }: Pick<HeightField, "z">): { low: number; high: number } {
  let [low, high] = [Infinity, -Infinity];
  for (let k = 0; k < z.length; k++) {
    if (z[k] < low) low = z[k];
    if (z[k] > high) high = z[k];
  }
  return { low, high };
}

import { boxMeans } from "../picture/box.ts";

/** A map of numbers from 0 to 1, row by row. */
export interface Levels {
  width: number;
  height: number;
  v: Float32Array;
}

/** Differences below this share of the range are detail, above it edges of the broad form. */
const EDGE = 0.08;

/**
 * The broad form of a map: detail finer than the radius is gone, edges stay, so that no halo comes up round them
 * (K. He, J. Sun, X. Tang, "Guided image filtering", 2010, the map guiding itself).
 * @param radius samples
 */
export function broadForm({ width, height, v }: Levels, radius: number): Float32Array {
  if (radius < 1) return v;
  const mean = boxMeans(width, height, radius, v);
  const slope = boxMeans(width, height, radius, v, 2);
  const eps = EDGE * EDGE;
  const offset = new Float32Array(v.length);
  for (let i = 0; i < v.length; i++) {
    const variance = Math.max(0, slope[i] - mean[i] * mean[i]);
    slope[i] = variance / (variance + eps);
    offset[i] = mean[i] * (1 - slope[i]);
  }
  const a = boxMeans(width, height, radius, slope);
  const b = boxMeans(width, height, radius, offset);
  return v.map((g, i) => a[i] * g + b[i]);
}

/** Broad form and detail, each with its own gain; held to 0…1. */
export function balanced(levels: Levels, radius: number, broad: number, detail: number): Levels {
  if (broad === 1 && detail === 1) return levels;
  const form = broadForm(levels, radius);
  let mean = 0;
  for (const g of form) mean += g / form.length;
  const v = levels.v.map((g, i) => held(mean + broad * (form[i] - mean) + detail * (g - form[i])));
  return { ...levels, v };
}

const held = (v: number): number => Math.max(0, Math.min(1, v));

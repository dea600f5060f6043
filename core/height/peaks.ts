import type { HeightField } from "./field.ts";

/** Samples each way of the smallest squares. */
export const SMALLEST = 2;

/** Squares of samples, side by side over a surface: the highest sample of each, and the highest of those round them. */
export interface Peaks {
  /** samples each way of a square */
  size: number;
  /** squares each way */
  width: number;
  height: number;
  /** the highest sample in each square, mm */
  own: Float32Array;
  /** the same with the samples round its own, mm */
  round: Float32Array;
}

/**
 * The peaks of a surface, from the smallest squares on, each next twice as large.
 * @param tops the highest of each sample and those round it
 * @param largest samples each way that the largest squares need not exceed
 */
export function peaksOf(t: HeightField, tops: Float32Array, largest: number): Peaks[] {
  const levels = [peaksAt(SMALLEST, { width: t.width, height: t.height, own: t.z, round: tops }, SMALLEST)];
  for (let size = 2 * SMALLEST; size <= largest; size *= 2) levels.push(peaksAt(size, levels[levels.length - 1], 2));
  return levels;
}

/** @param each of the finer ones go into one each way */
function peaksAt(size: number, finer: Omit<Peaks, "size">, each: number): Peaks {
  const [width, height] = [Math.ceil(finer.width / each), Math.ceil(finer.height / each)];
  const own = new Float32Array(width * height).fill(-Infinity);
  const round = new Float32Array(width * height).fill(-Infinity);
  for (let j = 0; j < finer.height; j++)
    for (let i = 0, at = j * finer.width; i < finer.width; i++, at++) {
      const k = Math.floor(j / each) * width + Math.floor(i / each);
      if (finer.own[at] > own[k]) own[k] = finer.own[at];
      if (finer.round[at] > round[k]) round[k] = finer.round[at];
    }
  return { size, width, height, own, round };
}

/** The highest of each sample and the eight round it, mm. */
export function highestRound({ z, width, height }: Pick<HeightField, "z" | "width" | "height">): Float32Array {
  const across = new Float32Array(z.length);
  for (let j = 0; j < height; j++)
    for (let i = 0, k = j * width; i < width; i++, k++)
      across[k] = Math.max(z[k], i > 0 ? z[k - 1] : -Infinity, i < width - 1 ? z[k + 1] : -Infinity);
  const out = new Float32Array(z.length);
  for (let j = 0; j < height; j++)
    for (let i = 0, k = j * width; i < width; i++, k++)
      out[k] = Math.max(
        across[k],
        j > 0 ? across[k - width] : -Infinity,
        j < height - 1 ? across[k + width] : -Infinity,
      );
  return out;
}

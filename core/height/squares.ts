import type { Profile } from "../cutters/profile.ts";
import type { HeightField } from "./field.ts";

/** Samples exactly at the rim count, whichever way rounding goes. */
export const RIM = 1 + 1e-9;

/** Places each way that are looked at together, and samples each way that are told by the highest of them. */
export const SQUARE = 4;

/**
 * The cutter's height over samples round a square, by how far they lie from its first place, row by row; Infinity where
 * they are not under the cutter.
 */
export interface OverSamples {
  /** samples each way, and which of them is the square's first place */
  side: number;
  middle: number;
  /** over the first place */
  exact: Float64Array;
  /** over the place of the square that is nearest to the sample */
  nearest: Float64Array;
}

/** The cutter's height so many samples from its axis, mm. */
function heightFor(p: Profile, cell: number): (dx: number, dy: number) => number {
  const most = p.radius * p.radius * RIM;
  return (dx, dy) => {
    const d2 = (dx * dx + dy * dy) * cell * cell;
    return d2 > most ? Infinity : p.h(Math.min(p.radius, Math.sqrt(d2)));
  };
}

/** How many samples lie from a cutter's axis to its rim. */
const reachOf = (p: Profile, cell: number): number => Math.floor((p.radius * RIM) / cell);

export function overSamples(p: Profile, cell: number): OverSamples {
  const heightAt = heightFor(p, cell);
  // Samples come by whole squares, and places of the square are told from its first one.
  const middle = reachOf(p, cell) + 2 * SQUARE;
  const side = 2 * middle + 1;
  const exact = new Float64Array(side * side);
  const nearest = new Float64Array(side * side);
  const gap = (x: number) => Math.max(0, -x, x - SQUARE + 1);
  for (let b = 0; b < side; b++)
    for (let a = 0; a < side; a++) {
      exact[b * side + a] = heightAt(a - middle, b - middle);
      nearest[b * side + a] = heightAt(gap(a - middle), gap(b - middle));
    }
  return { side, middle, exact, nearest };
}

/** The highest sample of each square, and which it is. */
export interface Tops {
  width: number;
  height: number;
  z: Float64Array;
  at: Int32Array;
}

export function topsOf(t: HeightField): Tops {
  const [width, height] = [Math.ceil(t.width / SQUARE), Math.ceil(t.height / SQUARE)];
  const z = new Float64Array(width * height).fill(-Infinity);
  const at = new Int32Array(width * height);
  for (let j = 0; j < t.height; j++) {
    const row = Math.floor(j / SQUARE) * width;
    for (let i = 0; i < t.width; i++) {
      const k = row + Math.floor(i / SQUARE);
      if (t.z[j * t.width + i] <= z[k]) continue;
      z[k] = t.z[j * t.width + i];
      at[k] = j * t.width + i;
    }
  }
  return { width, height, z, at };
}

/** Squares of samples that may lie under the cutter somewhere in a square, by how far they lie from it, in squares. */
export interface Around {
  reach: number;
  x: Int32Array;
  y: Int32Array;
  /** the same in a row-by-row list of all squares */
  at: Int32Array;
  /** the cutter's height where both are nearest to each other, and where they are farthest: Infinity beyond its rim */
  nearest: Float64Array;
  farthest: Float64Array;
}

/** @param stride squares in a row */
export function squaresUnder(p: Profile, cell: number, stride: number): Around {
  const heightAt = heightFor(p, cell);
  const reach = Math.ceil(reachOf(p, cell) / SQUARE);
  const gap = (k: number) => (k === 0 ? 0 : (Math.abs(k) - 1) * SQUARE + 1);
  const far = (k: number) => Math.abs(k) * SQUARE + SQUARE - 1;
  const all: { x: number; y: number }[] = [];
  for (let y = -reach; y <= reach; y++)
    for (let x = -reach; x <= reach; x++) if (heightAt(gap(x), gap(y)) < Infinity) all.push({ x, y });
  return {
    reach,
    x: Int32Array.from(all, (s) => s.x),
    y: Int32Array.from(all, (s) => s.y),
    at: Int32Array.from(all, (s) => s.y * stride + s.x),
    nearest: Float64Array.from(all, (s) => heightAt(gap(s.x), gap(s.y))),
    farthest: Float64Array.from(all, (s) => heightAt(far(s.x), far(s.y))),
  };
}

/** Samples of a surface: their heights, and where they stand among those over which a cutter's height is known. */
export class Samples {
  readonly z: Float64Array;
  readonly place: Int32Array;
  count = 0;
  constructor(most: number) {
    this.z = new Float64Array(most);
    this.place = new Int32Array(most);
  }
}

/** Whether all squares round one are there. */
export const isInside = ({ width, height }: Tops, { reach }: Around, { i, j }: { i: number; j: number }): boolean =>
  Math.min(i, j) >= reach * SQUARE && i < (width - reach) * SQUARE && j < (height - reach) * SQUARE;

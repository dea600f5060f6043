import type { Profile } from "../cutters/profile.ts";
import { noProgress, type Progress } from "../problem.ts";
import { type HeightField, rangeOf } from "./field.ts";

/** Samples exactly at the rim count, whichever way rounding goes. */
export const RIM = 1 + 1e-9;

/** The lowest tips over the samples of a surface, and which sample holds each up. */
export interface TipSurface extends HeightField {
  holder: Int32Array;
}

/** Positions of a tile each way, and of the smaller tiles in it. */
const TILE = 8;
const PART = 4;

/**
 * The lowest tips over every sample of a surface, c(p) = max over |q − p| ≤ R of (z(q) − h(|q − p|)), exactly,
 * tile by tile: what a sample holds up at the farthest place of a tile bounds the tile's tips from below, and
 * samples that cannot reach that bound even at the nearest place are left out for all of its positions at once; in
 * small tiles again.
 */
export function tipSurface(t: HeightField, cutter: Profile, progress: Progress = noProgress): TipSurface {
  const p = used(cutter, t);
  const reach = Math.floor((p.radius * RIM) / t.cell);
  const window = TILE + 2 * reach;
  // One table serves every place of a smaller tile: it is as much wider as the tile is.
  const table = window + TILE;
  const bounds = (tile: number) => boundsFor(p, t.cell, tile, table, -reach - TILE);
  const [outer, inner, exact] = [bounds(TILE), bounds(PART), bounds(1)];
  /** where a table begins for the place (a, b) of a tile */
  const from = (a: number, b: number) => (TILE - b) * table + TILE - a;
  const near = new Samples(window * window);
  const nearer = new Samples(window * window);
  const z = new Float32Array(t.z.length);
  const holder = new Int32Array(t.z.length);
  for (let j = 0; j < t.height; j += TILE) {
    const high = Math.min(TILE, t.height - j);
    for (let i = 0; i < t.width; i += TILE) {
      const wide = Math.min(TILE, t.width - i);
      gather(t, i - reach, j - reach, window, table, outer, from(0, 0), near);
      for (let b = 0; b < high; b += PART)
        for (let a = 0; a < wide; a += PART) {
          sift(near, inner, from(a, b), nearer);
          for (let y = b; y < Math.min(high, b + PART); y++)
            for (let x = a; x < Math.min(wide, a + PART); x++) {
              const k = holderOf(nearer, exact.nearest, from(x, y));
              const at = (j + y) * t.width + i + x;
              const place = nearer.place[k];
              z[at] = nearer.z[k] - exact.nearest[place + from(x, y)];
              holder[at] = (j - reach + Math.floor(place / table)) * t.width + i - reach + (place % table);
            }
        }
    }
    progress(j / t.height);
  }
  return { ...t, z, holder };
}

/** The part of a cutter that a surface can meet: higher up it hangs over all of it. */
function used(p: Profile, surface: HeightField): Profile {
  const { low, high } = rangeOf(surface);
  // A little more than the difference, so that rounding leaves none out.
  return { ...p, radius: Math.min(p.radius, p.r((high - low) * 1.001 + 1e-4)) };
}

/**
 * What a cutter leaves that has been at every place of a surface of tips: min over q of (c(q) + h(|q − p|)); the
 * same search upside down.
 */
export function leftBy(tips: HeightField, p: Profile): HeightField {
  const turned = tipSurface({ ...tips, z: tips.z.map((z) => -z) }, p);
  return { ...turned, z: turned.z.map((z) => -z) };
}

/** Samples of a surface: their heights, and where they stand in a table. */
class Samples {
  z: Float64Array;
  place: Int32Array;
  count = 0;
  constructor(most: number) {
    this.z = new Float64Array(most);
    this.place = new Int32Array(most);
  }
}

/**
 * The cutter's height over samples round a tile, row by row: at the tile's nearest place and at its farthest. Infinity
 * where no place of the tile, or not every one, has the sample under the cutter.
 */
interface Bounds {
  nearest: Float64Array;
  farthest: Float64Array;
}

/** @param first column and row of the table's first entry, from the tile's first place, in cells */
function boundsFor(p: Profile, cell: number, tile: number, table: number, first: number): Bounds {
  const nearest = new Float64Array(table * table);
  const farthest = new Float64Array(table * table);
  const most = p.radius * p.radius * RIM;
  const heightAt = (dx: number, dy: number) => {
    const d2 = (dx * dx + dy * dy) * cell * cell;
    return d2 > most ? Infinity : p.h(Math.min(p.radius, Math.sqrt(d2)));
  };
  for (let v = 0; v < table; v++)
    for (let u = 0; u < table; u++) {
      const [x, y] = [u + first, v + first];
      const [farX, farY] = [x - tile + 1, y - tile + 1];
      const k = v * table + u;
      nearest[k] = heightAt(Math.max(0, -x, farX), Math.max(0, -y, farY));
      farthest[k] = heightAt(Math.max(Math.abs(x), Math.abs(farX)), Math.max(Math.abs(y), Math.abs(farY)));
    }
  return { nearest, farthest };
}

/** The samples of a window that may hold the cutter up somewhere in its tile. @param i @param j its first sample */
function gather(
  t: HeightField,
  i: number,
  j: number,
  window: number,
  stride: number,
  b: Bounds,
  from: number,
  into: Samples,
): void {
  const { z, width } = t;
  const u0 = Math.max(0, -i);
  const u1 = Math.min(window, width - i);
  const v0 = Math.max(0, -j);
  const v1 = Math.min(window, t.height - j);
  let least = -Infinity;
  // It holds the cutter everywhere in the tile: of others that hold it no higher none is needed.
  let everywhere = -1;
  for (let v = v0; v < v1; v++) {
    const row = (j + v) * width + i;
    const place = v * stride + from;
    for (let u = u0; u < u1; u++) {
      const held = z[row + u] - b.farthest[place + u];
      if (held > least) {
        least = held;
        everywhere = row + u;
      }
    }
  }
  let n = 0;
  for (let v = v0; v < v1; v++) {
    const row = (j + v) * width + i;
    const place = v * stride + from;
    for (let u = u0; u < u1; u++) {
      const high = z[row + u];
      if (!(high - b.nearest[place + u] > least) && row + u !== everywhere) continue;
      into.z[n] = high;
      into.place[n++] = v * stride + u;
    }
  }
  into.count = n;
}

/** Those of some samples that may hold the cutter up somewhere in a smaller tile, whose tables begin at `from`. */
function sift(of: Samples, b: Bounds, from: number, into: Samples): void {
  const { z, place, count } = of;
  const { nearest, farthest } = b;
  let least = -Infinity;
  let everywhere = -1;
  for (let k = 0; k < count; k++) {
    const held = z[k] - farthest[place[k] + from];
    if (held > least) {
      least = held;
      everywhere = k;
    }
  }
  let n = 0;
  for (let k = 0; k < count; k++) {
    if (!(z[k] - nearest[place[k] + from] > least) && k !== everywhere) continue;
    into.z[n] = z[k];
    into.place[n++] = place[k];
  }
  into.count = n;
}

/** Which of some samples holds the cutter up over one position. */
function holderOf({ z, place, count }: Samples, heights: Float64Array, from: number): number {
  let best = -Infinity;
  let holder = 0;
  for (let k = 0; k < count; k++) {
    const at = z[k] - heights[place[k] + from];
    if (at > best) {
      best = at;
      holder = k;
    }
  }
  return holder;
}

import type { Profile } from "../cutters/profile.ts";
import type { HeightField } from "./field.ts";
import {
  type Around,
  isInside,
  overSamples,
  type OverSamples,
  Samples,
  SQUARE,
  squaresUnder,
  type Tops,
  topsOf,
} from "./squares.ts";
import { usedOf } from "./used.ts";

/** The lowest tips over the samples of a surface, and how far away, in samples, the one lies that holds each up. */
export interface TipSurface extends HeightField {
  right: Int16Array;
  away: Int16Array;
}

/**
 * The lowest tips over every sample of a surface, exactly: c(p) = max over |q − p| ≤ R of (z(q) − h(|q − p|)).
 * Square by square: what holds the cutter beside a square holds it high over the square too, which bounds its tips
 * from below; whole squares of samples that cannot reach that bound, were their highest the nearest, are left out at
 * once, then single samples; the rest are tried at all places of the square.
 */
export function tipSurface(t: HeightField, cutter: Profile): TipSurface {
  const p = usedOf(cutter, t);
  const over = overSamples(p, t.cell);
  const tops = topsOf(t);
  const around = squaresUnder(p, t.cell, tops.width);
  const known = new Known();
  const found = new Samples(over.side ** 2);
  const z = new Float32Array(t.z.length);
  const right = new Int16Array(t.z.length);
  const away = new Int16Array(t.z.length);
  for (let j = 0; j < t.height; j += SQUARE) {
    const high = Math.min(SQUARE, t.height - j);
    for (let i = 0; i < t.width; i += SQUARE) {
      const wide = Math.min(SQUARE, t.width - i);
      const square = { i, j, wide, high };
      fromBeside(t, { right, away }, over, square, known);
      fromAround(t, tops, around, over, square, known);
      gather(t, tops, around, over, square, known.least, found);
      for (let b = 0; b < high; b++) {
        raise(found, over.exact, -b * over.side, known, b * SQUARE);
        for (let a = 0; a < wide; a++) {
          const k = b * SQUARE + a;
          const at = (j + b) * t.width + i + a;
          z[at] = known.tip[k];
          const row = Math.floor(known.by[k] / over.side);
          right[at] = known.by[k] - row * over.side - over.middle - a;
          away[at] = row - over.middle - b;
        }
      }
    }
  }
  return { ...t, z, right, away };
}

/**
 * What a cutter leaves that has been at every place of a surface of tips: min over q of (c(q) + h(|q − p|)); the
 * same search upside down.
 */
export function leftBy(tips: HeightField, p: Profile): HeightField {
  const { z, ...field } = tipSurface({ ...tips, z: tips.z.map((own) => -own) }, p);
  return { ...field, z: z.map((own) => -own) };
}

/** A square of places: its first one, and how many there are each way. */
interface Square {
  i: number;
  j: number;
  wide: number;
  high: number;
}

/** The highest tips known so far over the places of a square, what holds them, and the least of them. */
class Known {
  readonly tip = new Float64Array(SQUARE * SQUARE);
  readonly by = new Int32Array(SQUARE * SQUARE);
  least = 0;
  readonly beside = new Samples(2 * SQUARE);
}

/** Tips over a square by the samples there and by those that hold the cutter before and to the left of it. */
function fromBeside(
  t: HeightField,
  { right, away }: Pick<TipSurface, "right" | "away">,
  over: OverSamples,
  square: Square,
  known: Known,
): void {
  const { i, j, wide, high } = square;
  const { side, middle, exact } = over;
  const { tip, by, beside } = known;
  const { z, place } = beside;
  const before = j > 0 ? wide : 0;
  const all = before + (i > 0 ? high : 0);
  let n = 0;
  for (let q = 0; q < all; q++) {
    const [a, b] = q < before ? [q, -1] : [-1, q - before];
    const from = (j + b) * t.width + i + a;
    const [x, y] = [a + right[from], b + away[from]];
    const at = (y + middle) * side + x + middle;
    let earlier = 0;
    while (earlier < n && place[earlier] !== at) earlier++;
    if (earlier < n) continue;
    z[n] = t.z[(j + y) * t.width + i + x];
    place[n++] = at;
  }
  let least = Infinity;
  for (let b = 0; b < high; b++)
    for (let a = 0; a < wide; a++) {
      const offset = b * side + a;
      let best = t.z[(j + b) * t.width + i + a];
      let holds = middle * side + middle + offset;
      for (let q = 0; q < n; q++) {
        const held = z[q] - exact[place[q] - offset];
        if (held > best) {
          best = held;
          holds = place[q];
        }
      }
      tip[b * SQUARE + a] = best;
      by[b * SQUARE + a] = holds;
      if (best < least) least = best;
    }
  known.least = least;
}

/** The same by the highest sample of that square round it which holds the cutter highest all over it. */
function fromAround(t: HeightField, tops: Tops, around: Around, over: OverSamples, square: Square, known: Known): void {
  const { at, farthest } = around;
  if (!isInside(tops, around, square)) return;
  const own = (square.j / SQUARE) * tops.width + square.i / SQUARE;
  let most = known.least;
  let best = -1;
  for (let k = 0; k < at.length; k++) {
    const held = tops.z[own + at[k]] - farthest[k];
    if (held <= most) continue;
    most = held;
    best = own + at[k];
  }
  if (best < 0) return;
  const { beside, tip } = known;
  const row = Math.floor(tops.at[best] / t.width);
  const column = tops.at[best] - row * t.width;
  beside.z[0] = tops.z[best];
  beside.place[0] = (row - square.j + over.middle) * over.side + column - square.i + over.middle;
  beside.count = 1;
  for (let b = 0; b < SQUARE; b++) raise(beside, over.exact, -b * over.side, known, b * SQUARE);
  known.least = Infinity;
  for (let k = 0; k < tip.length; k++) if (tip[k] < known.least) known.least = tip[k];
}

/** The samples that may hold the cutter higher than `least` somewhere in a square. */
function gather(
  t: HeightField,
  tops: Tops,
  around: Around,
  over: OverSamples,
  square: Square,
  least: number,
  into: Samples,
): void {
  const { x, y, at, nearest } = around;
  const [u, v] = [square.i / SQUARE, square.j / SQUARE];
  const own = v * tops.width + u;
  const isWhole = isInside(tops, around, square);
  const from = (over.middle - square.j) * over.side + over.middle - square.i;
  into.count = 0;
  for (let k = 0; k < at.length; k++) {
    const isThere = isWhole || (u + x[k] >= 0 && v + y[k] >= 0 && u + x[k] < tops.width && v + y[k] < tops.height);
    if (!isThere || tops.z[own + at[k]] - nearest[k] <= least) continue;
    gatherSquare(t, (u + x[k]) * SQUARE, (v + y[k]) * SQUARE, over, from, least, into);
  }
}

function gatherSquare(
  { z, width, height }: HeightField,
  x0: number,
  y0: number,
  { side, nearest }: OverSamples,
  from: number,
  least: number,
  into: Samples,
): void {
  const x1 = Math.min(width, x0 + SQUARE);
  const y1 = Math.min(height, y0 + SQUARE);
  let n = into.count;
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) {
      const place = y * side + x + from;
      if (z[y * width + x] - nearest[place] <= least) continue;
      into.z[n] = z[y * width + x];
      into.place[n++] = place;
    }
  into.count = n;
}

/**
 * Raises the tips over a row of a square to where some samples hold them. Its four places are told one by one: a loop
 * over them would load each sample four times.
 * @param offset of the row in the table of heights
 * @param first of its places among those known
 */
function raise({ z, place, count }: Samples, heights: Float64Array, offset: number, known: Known, first: number): void {
  const { tip, by } = known;
  let [tip0, tip1, tip2, tip3] = [tip[first], tip[first + 1], tip[first + 2], tip[first + 3]];
  let [by0, by1, by2, by3] = [by[first], by[first + 1], by[first + 2], by[first + 3]];
  for (let k = 0; k < count; k++) {
    const top = z[k];
    const at = place[k] + offset;
    const held0 = top - heights[at];
    const held1 = top - heights[at - 1];
    const held2 = top - heights[at - 2];
    const held3 = top - heights[at - 3];
    if (held0 > tip0) {
      tip0 = held0;
      by0 = place[k];
    }
    if (held1 > tip1) {
      tip1 = held1;
      by1 = place[k];
    }
    if (held2 > tip2) {
      tip2 = held2;
      by2 = place[k];
    }
    if (held3 > tip3) {
      tip3 = held3;
      by3 = place[k];
    }
  }
  tip[first] = tip0;
  tip[first + 1] = tip1;
  tip[first + 2] = tip2;
  tip[first + 3] = tip3;
  by[first] = by0;
  by[first + 1] = by1;
  by[first + 2] = by2;
  by[first + 3] = by3;
}

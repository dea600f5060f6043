import { squaredDistance } from "../geometry/segmentcells.ts";
import { type Shape, STRIDE } from "../geometry/shape.ts";
import type { Pair } from "./fit.ts";
import { hypot } from "../hypot.ts";

/** The points that an edge of the picture runs through: a closed contour, or a border from one junction to another. */
export interface Course extends Pair {
  closed: boolean;
  /** how far fitted segments may stray from the raw points, mm; farther by 1/√ease where a point has that */
  hold: number;
}

/** A course fitted, and the same as cuts will read it. */
export interface Fitted {
  shape: Shape;
  /** the course's point at each segment's end; the first segment begins at `first` */
  ends: Int32Array;
  first: number;
  /** largest measured distance of a point from its segment, mm */
  deviation: number;
  /** points as cuts read them, x, y by turns, and which segment ends in each */
  xy: Float64Array;
  segment: Int32Array;
}

/** Mean distance between neighbouring points, mm. */
export function spacingOf(xy: Float64Array, closed: boolean): number {
  const n = xy.length / 2;
  let sum = 0;
  for (let i = closed ? 0 : 1; i < n; i++) {
    const p = 2 * (i > 0 ? i - 1 : n - 1);
    sum += hypot(xy[2 * i] - xy[p], xy[2 * i + 1] - xy[p + 1]);
  }
  return sum / n;
}

/** Every point of a course that one of its segments stands for; of the whole course where `segment` is −1. */
export function eachPoint(f: Fitted, n: number, segment: number, visit: (i: number) => void): void {
  if (segment < 0) {
    for (let i = 0; i < n; i++) visit(i);
    return;
  }
  const from = segment > 0 ? f.ends[segment - 1] : f.first;
  const to = f.ends[segment];
  let i = from;
  do {
    visit(i);
    i = i + 1 < n ? i + 1 : 0;
  } while (i !== to && i !== from);
  visit(to);
}

/** Segments on either side that may lie nearer to a point than its own: at a corner several short ones meet. */
const BESIDE = 3;

/**
 * Largest distance of a course's raw points from what was fitted to them, mm: from the segment that stands for a point
 * or one of those beside it.
 */
export function measured({ raw, closed }: Course, f: Fitted): number {
  const n = raw.length / 2;
  const all = f.ends.length;
  const begins = new Int32Array(all + 1).fill(f.segment.length);
  for (let q = f.segment.length - 1; q >= 0; q--) begins[f.segment[q]] = q;
  for (let s = all - 1; s >= 0; s--) begins[s] = Math.min(begins[s], begins[s + 1]);
  let worst = 0;
  for (let s = 0; s < all; s++)
    eachPoint(f, n, s, (i) => {
      const [x, y] = [raw[2 * i], raw[2 * i + 1]];
      let least = squaredFrom(f, closed, x, y, begins[s], begins[s + 1]);
      for (let k = 1; k <= BESIDE && least > worst; k++)
        for (const t of [s - k, s + k]) {
          if (!closed && (t < 0 || t >= all)) continue;
          const beside = (t + all * BESIDE) % all;
          least = Math.min(least, squaredFrom(f, closed, x, y, begins[beside], begins[beside + 1]));
        }
      if (least < Infinity) worst = Math.max(worst, least);
    });
  return Math.sqrt(worst);
}

/** Squared distance of (x, y) from the edges that end in the points `from` up to `to` as cuts read them, mm². */
function squaredFrom(f: Fitted, closed: boolean, x: number, y: number, from: number, to: number): number {
  const { xy } = f;
  let least = Infinity;
  for (let q = from; q < to; q++) {
    const before = q > 0 ? q - 1 : closed ? f.segment.length - 1 : 0;
    const d2 = squaredDistance(x, y, xy[2 * before], xy[2 * before + 1], xy[2 * q], xy[2 * q + 1]);
    if (d2 < least) least = d2;
  }
  return least;
}

/** Every course's segments as one shape. */
export function joined(fitted: readonly Fitted[]): Shape {
  const n = fitted.length;
  const total = fitted.reduce((s, f) => s + f.shape.kinds.length, 0);
  const shape: Shape = {
    kinds: new Uint8Array(total),
    nodes: new Float64Array(STRIDE * total),
    origin: new Float64Array(2 * n),
    starts: new Int32Array(n + 1),
    parent: new Int32Array(n).fill(-1),
  };
  let at = 0;
  fitted.forEach(({ shape: s }, k) => {
    shape.kinds.set(s.kinds, at);
    shape.nodes.set(s.nodes, STRIDE * at);
    shape.origin.set(s.origin, 2 * k);
    at += s.kinds.length;
    shape.starts[k + 1] = at;
  });
  return shape;
}

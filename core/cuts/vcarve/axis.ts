import type { Clearance } from "../../geometry/clearance/clearance.ts";

/** The part of a medial axis that is cut, with depths: nodes x, y, z and edges a–b. */
export interface CutAxis {
  x: number[];
  y: number[];
  z: number[];
  a: number[];
  b: number[];
}

/** A straight move between two depths of a round cutter opens no more than this beyond what it should, mm. */
const BULGE = 0.002;

/**
 * The medial axis where clearance is at most `rho` (and more than `least`: a flat tip cannot enter narrower strokes),
 * ends cut exactly at those clearances, each node at its depth.
 * @param depth z for a clearance, 0 or negative
 * @param opened of a round cutter, how wide it opens at a height z: edges are then parted so that straight moves open
 * no more
 */
export function axisBelow(
  c: Clearance,
  rho: number,
  depth: (d: number) => number,
  least: number,
  opened?: (z: number) => number,
): CutAxis {
  const { axis, kept } = c;
  const out: CutAxis = { x: [], y: [], z: [], a: [], b: [] };
  const index = new Int32Array(axis.x.length).fill(-1);
  const node = (i: number): number => {
    if (index[i] < 0) {
      index[i] = out.x.length;
      out.x.push(axis.x[i]);
      out.y.push(axis.y[i]);
      out.z.push(depth(axis.d[i]));
    }
    return index[i];
  };
  const crossing = (i: number, j: number, d: number): number => {
    const f = (d - axis.d[i]) / (axis.d[j] - axis.d[i]);
    out.x.push(axis.x[i] + f * (axis.x[j] - axis.x[i]));
    out.y.push(axis.y[i] + f * (axis.y[j] - axis.y[i]));
    out.z.push(depth(d));
    return out.x.length - 1;
  };
  for (let e = 0; e < axis.a.length; e++) {
    if (!kept[e]) continue;
    let lo = axis.a[e];
    let hi = axis.b[e];
    if (axis.d[lo] > axis.d[hi]) [lo, hi] = [hi, lo];
    if (axis.d[lo] >= rho || axis.d[hi] <= least) continue;
    const from = axis.d[lo] < least ? crossing(lo, hi, least) : node(lo);
    const to = axis.d[hi] > rho ? crossing(lo, hi, rho) : node(hi);
    let at = from;
    const join = (next: number): void => {
      out.a.push(at);
      out.b.push(next);
      at = next;
    };
    if (opened)
      for (const d of partings(Math.max(axis.d[lo], least), Math.min(axis.d[hi], rho), depth, opened))
        join(crossing(lo, hi, d));
    join(to);
  }
  return out;
}

/**
 * Clearances between two at which a straight move must be parted so as to open no more than {@link BULGE} beyond what
 * it should.
 */
function partings(d0: number, d1: number, depth: (d: number) => number, opened: (z: number) => number): number[] {
  const middle = (d0 + d1) / 2;
  if (opened((depth(d0) + depth(d1)) / 2) - middle <= BULGE) return [];
  return [...partings(d0, middle, depth, opened), middle, ...partings(middle, d1, depth, opened)];
}

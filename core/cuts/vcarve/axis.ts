import type { Clearance } from "../../geometry/clearance/clearance.ts";

/** The part of a medial axis that is cut, with depths: nodes x, y, z and edges a–b. */
export interface CutAxis {
  x: number[];
  y: number[];
  z: number[];
  a: number[];
  b: number[];
}

/** Clearance over which a round cutter's depth is near enough to straight, mm. */
const ROUND_STEP = 0.05;

/**
 * The medial axis where clearance is at most `rho` (and more than `least`: a flat tip cannot enter narrower strokes), ends
 * cut exactly at those clearances, each node at its depth.
 * @param depth z for a clearance, 0 or negative
 * @param round whether depth bends with clearance, as a round cutter's does: long edges are then parted
 */
export function axisBelow(c: Clearance, rho: number, depth: (d: number) => number, least: number, round: boolean): CutAxis {
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
    const parts = round ? Math.max(1, Math.ceil(Math.abs(Math.min(axis.d[hi], rho) - Math.max(axis.d[lo], least)) / ROUND_STEP)) : 1;
    let at = from;
    for (let k = 1; k <= parts; k++) {
      const next = k === parts ? to : crossing(lo, hi, Math.max(axis.d[lo], least) + ((Math.min(axis.d[hi], rho) - Math.max(axis.d[lo], least)) * k) / parts);
      out.a.push(at);
      out.b.push(next);
      at = next;
    }
  }
  return out;
}

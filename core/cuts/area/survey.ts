import { ascending } from "../../ascending.ts";
import type { Clearance } from "../../geometry/clearance/clearance.ts";
import type { Axis } from "../../geometry/clearance/graph.ts";
import { insetLengths } from "../../geometry/clearance/lengths.ts";
import type { Machine } from "../../cutters/machine.ts";
import { Groups } from "../../geometry/groups.ts";
import type { Rings } from "../../geometry/rings.ts";
import { trapezoid } from "../../toolpath/time.ts";
import { CLEAR, NEAR } from "../../toolpath/toolpath.ts";
import type { CutInputs } from "../kind.ts";
import { hypot } from "../../hypot.ts";

/**
 * What rings inside a region would come to, found from a few of them: enough to tell how long a cut takes without
 * planning it.
 */
export interface Survey {
  /** length of the curves this far inside the region, mm */
  length(d: number): number;
  /** of what lies this far inside the region, mm² */
  area(d: number): number;
  /** how many curves there are this far inside the region, islands' left out */
  curves(d: number): number;
  /** of what lies so far inside, the pieces of which nothing lies as far inside as `to` */
  ends(from: number, to: number): number;
  /** pieces that lie this far inside the region, less the islands in them: its Euler characteristic */
  pieces(d: number): number;
  /** ways along the axis that lead outwards at this distance, where it falls by less than `steepest` along them */
  corners(d: number, steepest: number): number;
  /** groups of rings that begin in solid stock: rings a step apart from a distance inwards, each group round one top */
  groups(from: number, step: number): number;
}

/** Distances at which the curves are measured; nearer together by the edge, where there are more of them. */
const MEASURED = 40;

/** The survey of a region, made once. */
export const surveyIn = (inputs: Pick<CutInputs, "kept" | "clearance">, region: Rings): Survey =>
  inputs.kept.of("survey", [region], (r) => surveyOf(inputs.clearance(r)));

function surveyOf(c: Clearance): Survey {
  const at = Float64Array.from({ length: MEASURED + 1 }, (_, k) => c.widest * (k / MEASURED) ** 1.5);
  const lengths = insetLengths(c, at.subarray(0, MEASURED));
  // From each distance inwards, the curves' lengths added up.
  const areas = new Float64Array(MEASURED + 1);
  for (let k = MEASURED - 1; k >= 0; k--)
    areas[k] = areas[k + 1] + ((at[k + 1] - at[k]) * (lengths[k] + (lengths[k + 1] ?? 0))) / 2;
  const tops = topsOf(c);
  const pieces = new Map<number, number>();
  /** The last distance measured before d, and the share of the way on to the next one. */
  const placeOf = (d: number): { k: number; f: number } => {
    const k = Math.min(MEASURED - 1, Math.floor(MEASURED * (Math.max(0, d) / c.widest) ** (2 / 3)));
    return { k, f: Math.min(1, Math.max(0, (d - at[k]) / (at[k + 1] - at[k]))) };
  };
  const length = (d: number): number => {
    if (!(d < c.widest)) return 0;
    const { k, f } = placeOf(d);
    return lengths[k] + f * ((lengths[k + 1] ?? 0) - lengths[k]);
  };
  return {
    length,
    area(d) {
      if (!(d < c.widest)) return 0;
      const { k } = placeOf(d);
      return areas[k + 1] + ((at[k + 1] - d) * (length(d) + (lengths[k + 1] ?? 0))) / 2;
    },
    ends: (from, to) => tops.filter((t) => t.saddle <= from && from < t.top && t.top <= to).length,
    pieces(d) {
      const known = pieces.get(d) ?? piecesOf(c, d);
      pieces.set(d, known);
      return known;
    },
    corners: (d, steepest) => cornersOf(c, d, steepest),
    curves: (d) => tops.filter((t) => t.top > d && t.saddle <= d).length,
    groups(from, step) {
      const ring = (d: number) => Math.floor((d - from) / step);
      return tops.filter((t) => t.top > from && ring(t.top) > (t.saddle > from ? ring(t.saddle) : -1)).length;
    },
  };
}

/** A place of greatest clearance, and the clearance of the neck over which it joins a wider one; mm. */
interface Top {
  top: number;
  saddle: number;
}

/**
 * Every place of greatest clearance along the axis. The ground of each is what leads up to it; over the necks between
 * them they join, the highest first, and where two meet the lower top ends (persistence of maxima: Edelsbrunner,
 * Letscher and Zomorodian, "Topological persistence and simplification", 2002).
 */
function topsOf({ axis }: Clearance): Top[] {
  const { a, b, d } = axis;
  const topOf = topsAbove(axis);
  // Edges between the grounds of two tops: few of all.
  const necks: number[] = [];
  for (let e = 0; e < a.length; e++) if (topOf[a[e]] !== topOf[b[e]]) necks.push(e);
  const lower = Float64Array.from(necks, (e) => Math.min(d[a[e]], d[b[e]]));
  const groups = new Groups(d.length);
  const tops: Top[] = [];
  for (const k of ascending(lower).reverse()) {
    const [p, q] = [groups.find(topOf[a[necks[k]]]), groups.find(topOf[b[necks[k]]])];
    if (p === q) continue;
    const [high, low] = d[p] >= d[q] ? [p, q] : [q, p];
    if (d[low] > lower[k]) tops.push({ top: d[low], saddle: lower[k] });
    groups.join(high, low);
  }
  for (let i = 0; i < d.length; i++) if (topOf[i] === i && groups.find(i) === i) tops.push({ top: d[i], saddle: 0 });
  return tops;
}

/** Of each node the top that one comes to by going on to the widest neighbour each time. */
function topsAbove({ a, b, d }: Axis): Int32Array {
  const up = new Int32Array(d.length);
  for (let i = 0; i < up.length; i++) up[i] = i;
  // On level ground the later node counts as the higher one.
  const isHigher = (i: number, j: number) => d[i] > d[j] || (d[i] === d[j] && i > j);
  for (let e = 0; e < a.length; e++) {
    if (isHigher(b[e], up[a[e]])) up[a[e]] = b[e];
    if (isHigher(a[e], up[b[e]])) up[b[e]] = a[e];
  }
  for (let i = 0; i < up.length; i++) {
    let top = i;
    while (up[top] !== top) top = up[top];
    for (let j = i; up[j] !== top;) {
      const next = up[j];
      up[j] = top;
      j = next;
    }
  }
  return up;
}

/** The axis has the shape of what lies about it: as many pieces, with as many ways round. */
function piecesOf({ axis }: Clearance, at: number): number {
  const { a, b, d } = axis;
  let count = 0;
  for (const there of d) if (there >= at) count++;
  for (let e = 0; e < a.length; e++) if (d[a[e]] >= at && d[b[e]] >= at) count--;
  return count;
}

function cornersOf({ axis, kept }: Clearance, at: number, steepest: number): number {
  const { x, y, d, a, b } = axis;
  let count = 0;
  for (let e = 0; e < a.length; e++) {
    if (!kept[e] || d[a[e]] < at === d[b[e]] < at) continue;
    const fall = Math.abs(d[a[e]] - d[b[e]]);
    if (fall < steepest * hypot(x[a[e]] - x[b[e]], y[a[e]] - y[b[e]])) count++;
  }
  return count;
}

/** Seconds to go up from a depth, over a few mm, and down again to the stock, at rapid speed. */
export function liftSeconds(m: Machine, depth: number, way: number): number {
  const up = trapezoid(CLEAR + depth, 0, 0, m.rapidZ / 60, m.accelerationZ);
  const down = trapezoid(CLEAR - NEAR, 0, 0, m.rapidZ / 60, m.accelerationZ);
  return up + trapezoid(way, 0, 0, m.rapid / 60, m.acceleration) + down;
}

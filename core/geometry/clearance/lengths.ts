import { type Boundary, newFoot, walkToFoot } from "./boundary.ts";
import type { Clearance } from "./clearance.ts";
import { FEET, feetOf, SIDES } from "./feet.ts";
import type { Axis } from "./graph.ts";
import { hypot } from "../../hypot.ts";

/** An edge's place at a node where there is none, or where more than two meet. */
const NONE = -1;
const MANY = -2;
/** Nodes nearer to the edge than this lie in a corner: no direction leads there, mm. */
const IN_CORNER = 1e-9;

/**
 * How long the insets of a region are at many distances, without drawing them. Between the feet of two neighbouring
 * nodes of the axis the parallel of the boundary is as much longer with distance as the boundary turns (J. Steiner,
 * "Über parallele Flächen", 1840), up to where the axis cuts it off.
 * @param at the distances, ascending, mm
 * @returns a length for each, mm
 */
export function insetLengths(c: Clearance, at: Float64Array): Float64Array {
  const { boundary, axis } = c;
  const { a, b, d } = axis;
  const feet = feetOf(c);
  const out = new Float64Array(at.length);
  // What the parallels come to by themselves, and for each mm of distance, where the axis leaves them whole: added up
  // at the last distance of each.
  const [still, growing] = [new Float64Array(at.length + 1), new Float64Array(at.length + 1)];
  const parallels = new Parallels(boundary);
  for (let e = 0; e < a.length; e++) {
    const [lo, hi] = d[a[e]] < d[b[e]] ? [a[e], b[e]] : [b[e], a[e]];
    const whole = countUpTo(at, d[lo]);
    const some = countUpTo(at, d[hi]);
    if (some === 0) continue;
    for (const side of SIDES) {
      const first = FEET * e + side;
      parallels.between(axis, lo, hi, feet, lo === a[e] ? first : first + 2, lo === a[e] ? first + 2 : first);
      still[whole] += parallels.still;
      growing[whole] += parallels.growing;
      for (let k = whole; k < some; k++)
        out[k] += ((d[hi] - at[k]) / (d[hi] - d[lo])) * (parallels.still + parallels.growing * at[k]);
    }
  }
  // Blunt corners have no branch: a node there has two feet on one side, between which the parallels close at the node.
  eachSide(axis, (node, one, other) => {
    if (one === other || d[node] < IN_CORNER) return;
    const round = parallels.apart(one, other, axis.x[node], axis.y[node]);
    const whole = countUpTo(at, d[node]);
    still[whole] += round;
    growing[whole] -= round / d[node];
  });
  let [s, g] = [0, 0];
  for (let k = at.length - 1; k >= 0; k--) {
    s += still[k + 1];
    g += growing[k + 1];
    out[k] += s + g * at[k];
  }
  return out;
}

/** The parallels of the boundary between the feet of two places near one edge of it. */
class Parallels {
  /** their length at the boundary, mm, and what it grows by for each mm inwards */
  still = 0;
  growing = 0;
  private readonly from = newFoot();
  private readonly to = newFoot();
  constructor(private readonly boundary: Boundary) {}

  /** Between the feet of one place near two edges, at the boundary, mm. */
  apart(one: number, other: number, x: number, y: number): number {
    walkToFoot(this.boundary, one, x, y, this.from);
    walkToFoot(this.boundary, other, x, y, this.to);
    return hypot(this.to.x - this.from.x, this.to.y - this.from.y);
  }

  /** Between the feet of two nodes of an axis; the x of each foot in `feet`. */
  between({ x, y }: Axis, lo: number, hi: number, feet: Float64Array, from: number, to: number): void {
    const [fx, fy, tx, ty] = [feet[from], feet[from + 1], feet[to], feet[to + 1]];
    this.still = hypot(tx - fx, ty - fy);
    this.growing = 0;
    const [fromD, toD] = [hypot(x[lo] - fx, y[lo] - fy), hypot(x[hi] - tx, y[hi] - ty)];
    const d = Math.min(fromD, toD);
    if (d < IN_CORNER) return;
    const [f, t] = [d / fromD, d / toD];
    const dx = tx + t * (x[hi] - tx) - fx - f * (x[lo] - fx);
    const dy = ty + t * (y[hi] - ty) - fy - f * (y[lo] - fy);
    this.growing = (hypot(dx, dy) - this.still) / d;
  }
}

/**
 * Tells of every node that two edges of the axis meet at, on each side, the boundary's edges that these two follow.
 */
function eachSide({ a, b, left, right, d }: Axis, tell: (node: number, one: number, other: number) => void): void {
  const edges = new Int32Array(2 * d.length).fill(NONE);
  for (let e = 0; e < a.length; e++) {
    join(edges, a[e], e);
    join(edges, b[e], e);
  }
  for (let node = 0; node < d.length; node++) {
    const [e, f] = [edges[2 * node], edges[2 * node + 1]];
    if (f < 0) continue;
    // Seen along one way through the node.
    const isTurned = (a[e] === node) === (a[f] === node);
    tell(node, left[e], isTurned ? right[f] : left[f]);
    tell(node, right[e], isTurned ? left[f] : right[f]);
  }
}

/** Puts an edge of the axis down at one of its nodes. */
function join(edges: Int32Array, node: number, e: number): void {
  if (edges[2 * node] === NONE) edges[2 * node] = e;
  else edges[2 * node + 1] = edges[2 * node + 1] === NONE ? e : MANY;
}

/** How many of some ascending numbers are no more than `most`. */
function countUpTo(values: Float64Array, most: number): number {
  let [low, high] = [0, values.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (values[mid] <= most) low = mid + 1;
    else high = mid;
  }
  return low;
}

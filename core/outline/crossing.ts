import Flatbush from "flatbush";
import { orient2d } from "robust-predicates";
import { type Rings, ringCount } from "../geometry/rings.ts";

/** A place where two edges cross that should not: the run of one of them, and where it is. */
export interface Crossing {
  run: number;
  x: number;
  y: number;
}

/**
 * Where rings' edges cross or touch an edge that is not their neighbour, in the same ring or another: both edges of each.
 * @param corners whether two rings that share a point count too
 */
export function crossingPlaces(r: Rings, corners = false): Crossing[] {
  const total = r.xy.length / 2;
  const next = new Int32Array(total);
  for (let k = 0; k < ringCount(r); k++) for (let i = r.starts[k]; i < r.starts[k + 1]; i++) next[i] = i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k];
  return crossings(r.xy, r.starts, next, corners);
}

const runsOf = (places: readonly Crossing[]): number[] => [...new Set(places.map((p) => p.run))].sort((a, b) => a - b);

/** The rings of {@link crossingPlaces}, ascending. */
export const crossingContours = (r: Rings): number[] => runsOf(crossingPlaces(r));

/**
 * As {@link crossingContours} for runs that may be open: run k begins at origin[k] and goes through its points; where it is
 * closed its last point is its first. Runs may share their end points.
 */
export function crossingPolylines(r: Rings, origin: Float64Array, closed: Uint8Array): number[] {
  const n = ringCount(r);
  const xy = new Float64Array(r.xy.length + 2 * n);
  const starts = new Int32Array(n + 1);
  const next = new Int32Array(xy.length / 2).fill(-1);
  for (let k = 0, at = 0; k < n; k++) {
    starts[k] = at;
    xy.set(origin.subarray(2 * k, 2 * k + 2), 2 * at);
    xy.set(r.xy.subarray(2 * r.starts[k], 2 * r.starts[k + 1]), 2 * (at + 1));
    const end = at + 1 + r.starts[k + 1] - r.starts[k];
    for (let i = at; i + 1 < end; i++) next[i] = i + 1;
    if (closed[k] && end - at > 2) next[end - 2] = at;
    at = starts[k + 1] = end;
  }
  return runsOf(crossings(xy, starts, next));
}

/** So many edges in a row share a box of the index. */
const TOGETHER = 8;
/** Cosine of the widest angle at which an edge surely goes forward. */
const CLEAR = 0.05;

/** @param next the point each edge leads to, −1 where a run ends */
function crossings(xy: Float64Array, starts: Int32Array, next: Int32Array, corners = false): Crossing[] {
  const total = xy.length / 2;
  const run = new Int32Array(total);
  const edges = new Int32Array(total);
  let count = 0;
  for (let k = 0; k + 1 < starts.length; k++)
    for (let i = starts[k]; i < starts[k + 1]; i++) {
      run[i] = k;
      if (next[i] >= 0) edges[count++] = i;
    }
  if (count === 0) return [];
  // Edges that follow one another are looked up together, by the box around them.
  const first: number[] = [];
  for (let k = 0; k < count; k++) if (k === 0 || k - first[first.length - 1] === TOGETHER || run[edges[k]] !== run[edges[k - 1]]) first.push(k);
  const groups = first.length;
  first.push(count);
  const box = new Float64Array(4 * groups);
  const index = new Flatbush(groups);
  for (let g = 0; g < groups; g++) {
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let k = first[g]; k < first[g + 1]; k++)
      for (let e = 0; e < 2; e++) {
        const i = 2 * (e === 0 ? edges[k] : next[edges[k]]);
        if (xy[i] < x0) x0 = xy[i];
        if (xy[i] > x1) x1 = xy[i];
        if (xy[i + 1] < y0) y0 = xy[i + 1];
        if (xy[i + 1] > y1) y1 = xy[i + 1];
      }
    box[4 * g] = x0;
    box[4 * g + 1] = y0;
    box[4 * g + 2] = x1;
    box[4 * g + 3] = y1;
    index.add(x0, y0, x1, y1);
  }
  index.finish();
  // Whether a group and the one behind it on the same run only ever go forward: then they cannot meet but where they join.
  const forward = new Uint8Array(groups);
  for (let g = 0; g < groups; g++) {
    const behind = g + 1 < groups && next[edges[first[g + 1] - 1]] === edges[first[g + 1]] ? 1 : 0;
    forward[g] = goesForward(xy, next, edges, first[g], first[g + 1], first[g + 1 + behind]) ? 1 + behind : 0;
  }
  const crossed: Crossing[] = [];
  const place = (i: number) => crossed.push({ run: run[i], x: (xy[2 * i] + xy[2 * next[i]]) / 2, y: (xy[2 * i + 1] + xy[2 * next[i] + 1]) / 2 });
  const same = (p: number, q: number) => xy[2 * p] === xy[2 * q] && xy[2 * p + 1] === xy[2 * q + 1];
  const check = (i: number, o: number) => {
    const j = next[i];
    const p = next[o];
    if (o === j || p === i || apart(xy, i, j, o, p)) return;
    // Runs that begin or end at one place touch there and nowhere else.
    if (!corners && run[i] !== run[o] && (same(i, o) || same(i, p) || same(j, o) || same(j, p))) return;
    if (meet(xy, i, j, o, p)) {
      place(i);
      place(o);
    }
  };
  for (let g = 0; g < groups; g++)
    index.search(box[4 * g], box[4 * g + 1], box[4 * g + 2], box[4 * g + 3], (h) => {
      if (h < g || h - g < forward[g]) return false;
      for (let k = first[g]; k < first[g + 1]; k++) for (let q = h === g ? k + 1 : first[h]; q < first[h + 1]; q++) check(edges[k], edges[q]);
      return false;
    });
  return crossed;
}

/** Whether edges k0…end all go the way that edges k0…k1 go together, well clear of a right angle to it. */
function goesForward(xy: Float64Array, next: Int32Array, edges: Int32Array, k0: number, k1: number, end: number): boolean {
  const a = 2 * edges[k0];
  const b = 2 * next[edges[k1 - 1]];
  const ux = xy[b] - xy[a];
  const uy = xy[b + 1] - xy[a + 1];
  const least = CLEAR * CLEAR * (ux * ux + uy * uy);
  for (let k = k0; k < end; k++) {
    const p = 2 * edges[k];
    const q = 2 * next[edges[k]];
    const ex = xy[q] - xy[p];
    const ey = xy[q + 1] - xy[p + 1];
    const dot = ex * ux + ey * uy;
    if (!(dot > 0 && dot * dot > least * (ex * ex + ey * ey))) return false;
  }
  return true;
}

/** Whether the boxes of segments a–b and c–d have nothing in common. */
function apart(xy: Float64Array, a: number, b: number, c: number, d: number): boolean {
  for (let k = 0; k < 2; k++) {
    const [p, q, r, s] = [xy[2 * a + k], xy[2 * b + k], xy[2 * c + k], xy[2 * d + k]];
    if (Math.max(p, q) < Math.min(r, s) || Math.max(r, s) < Math.min(p, q)) return true;
  }
  return false;
}

/** Whether closed segments a–b and c–d share a point; exact signs by Shewchuk's predicates. */
function meet(xy: Float64Array, a: number, b: number, c: number, d: number): boolean {
  const side = (p: number, q: number, s: number) => Math.sign(orient2d(xy[2 * p], xy[2 * p + 1], xy[2 * q], xy[2 * q + 1], xy[2 * s], xy[2 * s + 1]));
  const c1 = side(a, b, c);
  const d1 = side(a, b, d);
  if (c1 * d1 > 0) return false;
  const a1 = side(c, d, a);
  const b1 = side(c, d, b);
  if (a1 * b1 > 0) return false;
  // All four collinear: boxes overlap already, or the index would not have brought the pair.
  return true;
}

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

/** @param next the point each edge leads to, −1 where a run ends */
function crossings(xy: Float64Array, starts: Int32Array, next: Int32Array, corners = false): Crossing[] {
  const total = xy.length / 2;
  const run = new Int32Array(total);
  const edges: number[] = [];
  for (let k = 0; k + 1 < starts.length; k++)
    for (let i = starts[k]; i < starts[k + 1]; i++) {
      run[i] = k;
      if (next[i] >= 0) edges.push(i);
    }
  if (edges.length === 0) return [];
  // Edges that follow one another are looked up together, by the box around them.
  const first: number[] = [];
  edges.forEach((i, k) => {
    if (k === 0 || k - first[first.length - 1] === TOGETHER || run[i] !== run[edges[k - 1]]) first.push(k);
  });
  const groups = first.length;
  first.push(edges.length);
  const box = new Float64Array(4 * groups);
  const index = new Flatbush(groups);
  for (let g = 0; g < groups; g++) {
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let k = first[g]; k < first[g + 1]; k++)
      for (const i of [edges[k], next[edges[k]]]) {
        x0 = Math.min(x0, xy[2 * i]);
        y0 = Math.min(y0, xy[2 * i + 1]);
        x1 = Math.max(x1, xy[2 * i]);
        y1 = Math.max(y1, xy[2 * i + 1]);
      }
    box.set([x0, y0, x1, y1], 4 * g);
    index.add(x0, y0, x1, y1);
  }
  index.finish();
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
      if (h < g) return false;
      for (let k = first[g]; k < first[g + 1]; k++) for (let q = h === g ? k + 1 : first[h]; q < first[h + 1]; q++) check(edges[k], edges[q]);
      return false;
    });
  return crossed;
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

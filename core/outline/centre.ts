import type { Clearance } from "../geometry/clearance/clearance.ts";
import { thin } from "../geometry/thin.ts";
import { trails } from "../geometry/trail.ts";
import { hypot } from "../hypot.ts";

/** Open and closed lines with the stroke's width at every point; mm. */
export interface Lines {
  /** x, y by turns */
  xy: Float64Array;
  /** width of the stroke at each point */
  width: Float64Array;
  starts: Int32Array;
  /** 1 where a line ends at its own beginning */
  closed: Uint8Array;
}

/**
 * A branch shorter than this many times the clearance at its root is a spur: the local width is twice the clearance.
 */
const SPUR = 2;
/** Rounds of cutting spurs: each may lay bare another. */
const ROUNDS = 3;

/**
 * The centre line of strokes: the medial axis of the ink without the spurs that reach into corners and the ends of
 * strokes, as few lines as there are, each going straight on where it can.
 * @param tolerance how far lines may be thinned out, mm
 */
export function centreLines(c: Clearance, tolerance: number): Lines {
  const { axis } = c;
  const on = c.kept.slice();
  for (let round = 0; round < ROUNDS; round++) if (!cutSpurs(c, on)) break;
  const same = joinedJunctions(c, on, tolerance);
  const a: number[] = [];
  const b: number[] = [];
  for (let e = 0; e < on.length; e++) {
    if (!on[e]) continue;
    const [i, j] = [same(axis.a[e]), same(axis.b[e])];
    if (i === j && axis.a[e] !== axis.b[e]) continue;
    a.push(i);
    b.push(j);
  }
  const xy: number[] = [];
  const width: number[] = [];
  const starts = [0];
  const closed: number[] = [];
  for (const t of trails(axis.x, axis.y, axis.d, a, b)) {
    const keep = thin(t.x, t.y, t.z, 0, t.x.length - 1, tolerance);
    if (keep.length < 2) continue;
    for (const i of keep) {
      xy.push(t.x[i], t.y[i]);
      width.push(2 * t.z[i]);
    }
    const n = t.x.length - 1;
    closed.push(t.x[0] === t.x[n] && t.y[0] === t.y[n] ? 1 : 0);
    starts.push(width.length);
  }
  return {
    xy: Float64Array.from(xy),
    width: Float64Array.from(width),
    starts: Int32Array.from(starts),
    closed: Uint8Array.from(closed),
  };
}

/**
 * Where strokes cross the axis has two junctions side by side: ones nearer than `near` count as one.
 * @returns the node that stands for each
 */
function joinedJunctions(c: Clearance, on: Uint8Array, near: number): (i: number) => number {
  const { axis } = c;
  const degree = new Int32Array(axis.x.length);
  for (let e = 0; e < on.length; e++)
    if (on[e]) {
      degree[axis.a[e]]++;
      degree[axis.b[e]]++;
    }
  const stands = new Map<number, number>();
  const find = (i: number): number => {
    let at = i;
    for (let next = stands.get(at); next !== undefined; next = stands.get(at)) at = next;
    return at;
  };
  for (let e = 0; e < on.length; e++) {
    const [i, j] = [axis.a[e], axis.b[e]];
    if (!on[e] || degree[i] < 3 || degree[j] < 3 || hypot(axis.x[i] - axis.x[j], axis.y[i] - axis.y[j]) > near)
      continue;
    const [p, q] = [find(i), find(j)];
    if (p !== q) stands.set(q, p);
  }
  return find;
}

/**
 * Switches off every branch that ends freely and is shorter than the stroke is wide where it leaves.
 * @returns whether any went
 */
function cutSpurs(c: Clearance, on: Uint8Array): boolean {
  const { axis } = c;
  const n = axis.x.length;
  const degree = new Int32Array(n);
  for (let e = 0; e < on.length; e++)
    if (on[e]) {
      degree[axis.a[e]]++;
      degree[axis.b[e]]++;
    }
  const first = new Int32Array(n + 1);
  for (let i = 0; i < n; i++) first[i + 1] = first[i] + degree[i];
  const fill = first.slice(0, n);
  const incident = new Int32Array(first[n]);
  for (let e = 0; e < on.length; e++)
    if (on[e]) {
      incident[fill[axis.a[e]]++] = e;
      incident[fill[axis.b[e]]++] = e;
    }
  const spurs: { edges: number[]; root: number; length: number }[] = [];
  for (let tip = 0; tip < n; tip++) {
    if (degree[tip] !== 1) continue;
    const edges: number[] = [];
    let at = tip;
    let length = 0;
    let last = -1;
    do {
      let e = -1;
      for (let k = first[at]; k < first[at + 1]; k++) if (incident[k] !== last) e = incident[k];
      if (e < 0) break;
      edges.push(e);
      const to = axis.a[e] === at ? axis.b[e] : axis.a[e];
      length += hypot(axis.x[to] - axis.x[at], axis.y[to] - axis.y[at]);
      last = e;
      at = to;
    } while (degree[at] === 2);
    if (degree[at] > 2 && length < SPUR * axis.d[at]) spurs.push({ edges, root: at, length });
  }
  // Where every branch of a junction is a spur the longest two stay: a short stroke is still a stroke.
  const byRoot = new Map<number, typeof spurs>();
  for (const s of spurs) byRoot.set(s.root, [...(byRoot.get(s.root) ?? []), s]);
  let any = false;
  for (const [root, list] of byRoot) {
    list.sort((p, q) => p.length - q.length);
    const going = list.length === degree[root] ? list.slice(0, -2) : list;
    for (const s of going) {
      for (const e of s.edges) on[e] = 0;
      any = true;
    }
  }
  return any;
}

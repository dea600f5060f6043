import { GrowingF64, GrowingI32 } from "../../growing.ts";
import type { Rings } from "../rings.ts";
import { hypot } from "../../hypot.ts";

/**
 * A polygon's edges with their neighbours, so that the nearest boundary point can be found by walking along the chain.
 * Edge i runs from vertex i to vertex next[i]; the region lies on its left.
 */
export interface Boundary {
  x: Float64Array;
  y: Float64Array;
  next: Int32Array;
  prev: Int32Array;
  /** unit direction and length of edge i */
  ux: Float64Array;
  uy: Float64Array;
  len: Float64Array;
  ring: Int32Array;
  /** rings as first vertex and one past the last */
  starts: Int32Array;
  /** which ring of the region each of these is: rings that vanished are left out */
  source: Int32Array;
}

/** Edges shorter than this are merged into their neighbour: they carry no direction. mm */
const MIN_EDGE = 1e-6;

/** Rings with fewer than three distinct points vanish. */
export function boundaryOf(r: Rings): Boundary {
  const xs = new GrowingF64(r.xy.length / 2 + 8);
  const ys = new GrowingF64(r.xy.length / 2 + 8);
  const starts = new GrowingI32(64);
  starts.push(0);
  const source: number[] = [];
  for (let k = 0; k < r.starts.length - 1; k++) {
    const from = xs.length;
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const x = r.xy[2 * i];
      const y = r.xy[2 * i + 1];
      if (xs.length > from && hypot(x - xs.data[xs.length - 1], y - ys.data[ys.length - 1]) < MIN_EDGE) continue;
      xs.push(x);
      ys.push(y);
    }
    while (
      xs.length > from + 1 &&
      hypot(xs.data[xs.length - 1] - xs.data[from], ys.data[ys.length - 1] - ys.data[from]) < MIN_EDGE
    )
      xs.length = ys.length = xs.length - 1;
    if (xs.length < from + 3) xs.length = ys.length = from;
    else {
      starts.push(xs.length);
      source.push(k);
    }
  }
  const n = xs.length;
  const b: Boundary = {
    x: xs.take(),
    y: ys.take(),
    next: new Int32Array(n),
    prev: new Int32Array(n),
    ux: new Float64Array(n),
    uy: new Float64Array(n),
    len: new Float64Array(n),
    ring: new Int32Array(n),
    starts: starts.take(),
    source: Int32Array.from(source),
  };
  for (let k = 0; k < b.starts.length - 1; k++) {
    const s = b.starts[k];
    const e = b.starts[k + 1];
    for (let i = s; i < e; i++) {
      const j = i + 1 < e ? i + 1 : s;
      b.next[i] = j;
      b.prev[j] = i;
      b.ring[i] = k;
      const dx = b.x[j] - b.x[i];
      const dy = b.y[j] - b.y[i];
      const len = hypot(dx, dy);
      b.len[i] = len;
      b.ux[i] = dx / len;
      b.uy[i] = dy / len;
    }
  }
  return b;
}

/** The boundary point nearest to a query, as found by {@link walkToFoot}: on edge `edge` at `t` mm from its start. */
export interface Foot {
  edge: number;
  t: number;
  x: number;
  y: number;
  d: number;
  /** the foot is the vertex `edge` (t = 0) and not inside an edge */
  vertex: boolean;
}

export const newFoot = (): Foot => ({ edge: 0, t: 0, x: 0, y: 0, d: 0, vertex: false });

/** Edges to walk before giving up: a chain that needs more was sampled too coarsely. */
const MAX_WALK = 64;

/** Distance from (x, y) to the boundary near edge `start`: walks along the chain while it comes closer. */
export function walkToFoot(b: Boundary, start: number, x: number, y: number, out: Foot): void {
  let e = start;
  let t = along(b, e, x, y);
  for (let step = 0; step < MAX_WALK; step++) {
    if (t < 0) {
      const p = b.prev[e];
      const tp = along(b, p, x, y);
      if (tp >= b.len[p]) {
        // Before this edge and past the one before: the vertex between them.
        t = 0;
        break;
      }
      e = p;
      t = tp;
    } else if (t > b.len[e]) {
      const q = b.next[e];
      const tq = along(b, q, x, y);
      e = q;
      if (tq <= 0) {
        t = 0;
        break;
      }
      t = tq;
    } else break;
  }
  t = Math.max(0, Math.min(b.len[e], t));
  if (t >= b.len[e]) {
    e = b.next[e];
    t = 0;
  }
  out.edge = e;
  out.t = t;
  out.x = b.x[e] + t * b.ux[e];
  out.y = b.y[e] + t * b.uy[e];
  out.d = Math.sqrt((x - out.x) ** 2 + (y - out.y) ** 2);
  out.vertex = t === 0;
}

function along(b: Boundary, e: number, x: number, y: number): number {
  return (x - b.x[e]) * b.ux[e] + (y - b.y[e]) * b.uy[e];
}

/** Whether (x, y), whose foot this is, lies on the region's side of it. */
export function onInside(b: Boundary, f: Foot, x: number, y: number): boolean {
  const vx = x - f.x;
  const vy = y - f.y;
  const left = b.ux[f.edge] * vy - b.uy[f.edge] * vx;
  if (!f.vertex) return left >= 0;
  const p = b.prev[f.edge];
  const leftBefore = b.ux[p] * vy - b.uy[p] * vx;
  // At a vertex where the region is wider than half a turn what is left of either edge is inside, else of both. A sharp
  // one is seen from the right of one edge's line and from the left of the other's.
  const isReflex = b.ux[p] * b.uy[f.edge] - b.uy[p] * b.ux[f.edge] < 0;
  return isReflex ? left >= 0 || leftBefore >= 0 : left >= 0 && leftBefore >= 0;
}

/** The boundary's vertices, x and y by turns. */
export function pointsOf(b: Boundary): Float64Array {
  const xy = new Float64Array(2 * b.x.length);
  for (let i = 0; i < b.x.length; i++) {
    xy[2 * i] = b.x[i];
    xy[2 * i + 1] = b.y[i];
  }
  return xy;
}

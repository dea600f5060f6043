import type Delaunator from "delaunator";
import { GrowingF64, GrowingI32 } from "../../growing.ts";
import { boundsOf } from "../rings.ts";
import { type Boundary, newFoot, onInside, walkToFoot } from "./boundary.ts";
import { type Point, settleAmong, settleBetween } from "./equidistant.ts";
import { nearestSample } from "./nearest.ts";
import type { Samples } from "./samples.ts";

/**
 * The medial axis of a region as a graph: node i lies at x, y with clearance d; edge j joins nodes a and b, and is
 * equally far from the boundary near edges `left` and `right` (seen walking from a to b).
 */
export interface Axis {
  x: Float64Array;
  y: Float64Array;
  d: Float64Array;
  a: Int32Array;
  b: Int32Array;
  left: Int32Array;
  right: Int32Array;
}

/** How far the straight piece between two nodes may be from the true axis, in position or clearance, mm. */
export const AXIS_TOLERANCE = 0.001;
const MAX_HALVINGS = 7;
/** A node nearer to another piece than to its own by more than this is not on the axis, mm. */
const DOUBT = 2e-4;

/** Places on the boundary, edge and mm along it, that a node of the axis turned out to be nearer to than its own pieces. */
export interface Doubts {
  edges: number[];
  ts: number[];
}

/**
 * The medial axis inside the region, from the triangulation of its boundary's samples. Every node is checked against the
 * boundary near it; `doubts` collects the feet where a node's clearance was not the least distance after all, for the
 * caller to sample and try again. Such nodes keep the true distance, so that nothing is ever cut outside.
 */
export function axisOf(b: Boundary, s: Samples, delaunay: Delaunator<Float64Array>, doubts: Doubts): Axis {
  const { triangles, halfedges } = delaunay;
  const near = nearestSample(s, delaunay);
  const best = newFoot();
  /** Lowers p.d to the true distance where another piece is nearer; returns whether it was. */
  const doubt = (start: number, l: number, r: number): boolean => {
    near(b, start, p.x, p.y, best);
    if (best.d > p.d - DOUBT) return false;
    p.d = best.d;
    for (const e of [best.edge, l, r]) {
      walkToFoot(b, e, p.x, p.y, foot);
      doubts.edges.push(foot.edge);
      doubts.ts.push(foot.t);
    }
    return true;
  };
  const nT = triangles.length / 3;
  const x = new GrowingF64(nT + 64);
  const y = new GrowingF64(nT + 64);
  const d = new GrowingF64(nT + 64);
  const node = new Int32Array(nT).fill(-1);
  const foot = newFoot();
  const p: Point = { x: 0, y: 0, d: 0 };
  const add = (px: number, py: number, pd: number): number => {
    x.push(px);
    y.push(py);
    d.push(pd);
    return x.length - 1;
  };

  const box = boundsOf(s.xy);
  const size = Math.hypot(box.maxX - box.minX, box.maxY - box.minY);
  for (let t = 0; t < nT; t++) {
    const i = triangles[3 * t];
    const j = triangles[3 * t + 1];
    const k = triangles[3 * t + 2];
    const radius = circumcentre(s.xy, i, j, k, p);
    if (!(radius < size)) continue;
    walkToFoot(b, s.edge[i], p.x, p.y, foot);
    if (!onInside(b, foot, p.x, p.y)) continue;
    if (!settleAmong(b, p, s.edge[i], s.edge[j], s.edge[k], Math.max(0.5 * radius, 0.02))) continue;
    walkToFoot(b, s.edge[i], p.x, p.y, foot);
    if (!onInside(b, foot, p.x, p.y)) continue;
    doubt(i, s.edge[j], s.edge[k]);
    node[t] = add(p.x, p.y, p.d);
  }

  const a = new GrowingI32(nT + 64);
  const c = new GrowingI32(nT + 64);
  const left = new GrowingI32(nT + 64);
  const right = new GrowingI32(nT + 64);
  const join = (n0: number, n1: number, l: number, r: number) => {
    a.push(n0);
    c.push(n1);
    left.push(l);
    right.push(r);
  };
  const split = (n0: number, n1: number, sl: number, sr: number, depth: number): void => {
    const l = s.edge[sl];
    const r = s.edge[sr];
    const len = Math.hypot(x.data[n1] - x.data[n0], y.data[n1] - y.data[n0]);
    if (depth < MAX_HALVINGS && len > 0.02) {
      const mx = (x.data[n0] + x.data[n1]) / 2;
      const my = (y.data[n0] + y.data[n1]) / 2;
      p.x = mx;
      p.y = my;
      if (settleBetween(b, p, l, r, len)) {
        const off = Math.max(Math.hypot(p.x - mx, p.y - my), Math.abs(p.d - (d.data[n0] + d.data[n1]) / 2));
        if (off > AXIS_TOLERANCE && off < 0.5 * len) {
          const wrong = doubt(sl, l, r);
          const m = add(p.x, p.y, p.d);
          const deeper = wrong ? MAX_HALVINGS : depth + 1;
          split(n0, m, sl, sr, deeper);
          split(m, n1, sl, sr, deeper);
          return;
        }
      }
    }
    join(n0, n1, l, r);
  };

  for (let e = 0; e < triangles.length; e++) {
    const o = halfedges[e];
    if (o < e) continue;
    const n0 = node[(e / 3) | 0];
    const n1 = node[(o / 3) | 0];
    if (n0 < 0 || n1 < 0) continue;
    const i = triangles[e];
    const j = triangles[e % 3 === 2 ? e - 2 : e + 1];
    if (s.next[i] === j || s.next[j] === i) continue;
    // Triangle e lies on the right of half-edge i→j, its partner on the left: walking across, i is on the left.
    split(n0, n1, i, j, 0);
  }

  // Into every convex corner: the first triangle there has the vertex and its two neighbours.
  for (let t = 0; t < nT; t++) {
    if (node[t] < 0) continue;
    for (let q = 0; q < 3; q++) {
      const v = triangles[3 * t + q];
      if (s.t[v] !== 0) continue;
      const e1 = triangles[3 * t + ((q + 1) % 3)];
      const e2 = triangles[3 * t + ((q + 2) % 3)];
      if (!((s.next[v] === e1 && s.prev[v] === e2) || (s.next[v] === e2 && s.prev[v] === e1))) continue;
      const ve = s.edge[v];
      if (b.ux[b.prev[ve]] * b.uy[ve] - b.uy[b.prev[ve]] * b.ux[ve] <= 0) continue;
      // Walking out to the corner, the boundary edge that leaves it lies on the left, the one that reaches it on the right.
      split(node[t], add(b.x[ve], b.y[ve], 0), v, s.prev[v], 0);
    }
  }
  return { x: x.take(), y: y.take(), d: d.take(), a: a.take(), b: c.take(), left: left.take(), right: right.take() };
}

/** Centre into p; @returns the radius, or Infinity for three points in line */
function circumcentre(xy: Float64Array, i: number, j: number, k: number, p: Point): number {
  const dx = xy[2 * j] - xy[2 * i];
  const dy = xy[2 * j + 1] - xy[2 * i + 1];
  const ex = xy[2 * k] - xy[2 * i];
  const ey = xy[2 * k + 1] - xy[2 * i + 1];
  const det = dx * ey - dy * ex;
  if (Math.abs(det) < 1e-14) return Infinity;
  const bl = dx * dx + dy * dy;
  const cl = ex * ex + ey * ey;
  const ox = (ey * bl - dy * cl) / (2 * det);
  const oy = (dx * cl - ex * bl) / (2 * det);
  p.x = xy[2 * i] + ox;
  p.y = xy[2 * i + 1] + oy;
  return Math.hypot(ox, oy);
}

import Delaunator from "delaunator";
import type { Boundary } from "./boundary.ts";

/** Points along the boundary, each on edge `edge` at `t` mm from its start; in order, ring after ring. */
export interface Samples {
  /** x, y by turns */
  xy: Float64Array;
  edge: Int32Array;
  t: Float64Array;
  next: Int32Array;
  prev: Int32Array;
}

/** Longest spacing before anything is known, mm. */
const COARSE = 3;
/** Spacing against the circle that touches the boundary there: finer, and Voronoi nodes wander less. */
const BETA = 0.5;
/** No finer than this, mm; exact equidistance is reached by Newton steps, not by sampling. */
const FINEST = 0.01;
/** Neighbouring spacings differ by no more than this factor. */
const GRADE = 2.5;
const PASSES = 14;

/**
 * Samples a boundary so that the Delaunay triangulation holds every piece between neighbours and its circles on the
 * region's side are at least as wide as the spacing: then the Voronoi edges between samples that are not neighbours
 * follow the medial axis (N. Amenta, S. Choi, R. Kolluri, "The power crust" 2001, for the sampling condition).
 */
export function sampleBoundary(b: Boundary, rings: readonly number[]): Sampling {
  return refine(b, initialParts(b, rings));
}

/** The same with samples at the given places too: edge and mm along it, where the axis needs to know more. */
export function addSamples(b: Boundary, s: Samples, edges: readonly number[], ts: readonly number[]): Sampling | null {
  const marks = edges.map((edge, i) => ({ edge, t: ts[i] })).sort((p, q) => p.edge - q.edge || p.t - q.t);
  const edge: number[] = [];
  const t: number[] = [];
  const clear = (e: number, at: number, otherEdge: number, otherT: number) => e !== otherEdge || Math.abs(at - otherT) > FINEST / 4;
  let m = 0;
  for (let i = 0; i < s.edge.length; i++) {
    edge.push(s.edge[i]);
    t.push(s.t[i]);
    const e = s.edge[i];
    const end = i + 1 < s.edge.length && s.edge[i + 1] === e ? s.t[i + 1] : b.len[e];
    for (; m < marks.length && marks[m].edge === e && marks[m].t < end; m++) {
      const k = t.length - 1;
      if (!clear(e, marks[m].t, edge[k], t[k]) || end - marks[m].t < FINEST / 4 || marks[m].t <= t[k]) continue;
      edge.push(e);
      t.push(marks[m].t);
    }
  }
  return edge.length === s.edge.length ? null : refine(b, { edge: Int32Array.from(edge), t: Float64Array.from(t) });
}

export interface Sampling {
  samples: Samples;
  delaunay: Delaunator<Float64Array>;
}

function refine(b: Boundary, from: Parts): Sampling {
  let parts = from;
  for (let pass = 0; ; pass++) {
    const samples = place(b, parts);
    const delaunay = new Delaunator(samples.xy);
    const split = pass < PASSES ? wanted(samples, delaunay) : null;
    if (!split) return { samples, delaunay };
    parts = subdivide(samples, split);
  }
}

/** Offsets of samples along every edge, as a list per sample: edge and t, vertices having t = 0. */
interface Parts {
  edge: Int32Array;
  t: Float64Array;
}

function initialParts(b: Boundary, rings: readonly number[]): Parts {
  const edge: number[] = [];
  const t: number[] = [];
  for (const k of rings) for (let i = b.starts[k]; i < b.starts[k + 1]; i++) {
    const len = b.len[i];
    const marks = [0];
    const pieces = Math.ceil(len / COARSE);
    for (let k = 1; k < pieces; k++) marks.push((k * len) / pieces);
    grade(marks, len, sharpness(b, i), false);
    grade(marks, len, sharpness(b, b.next[i]), true);
    marks.sort((p, q) => p - q);
    let last = -Infinity;
    for (const m of marks) {
      if (m - last < FINEST / 2 || (m > 0 && len - m < FINEST / 2)) continue;
      edge.push(i);
      t.push(m);
      last = m;
    }
  }
  return { edge: Int32Array.from(edge), t: Float64Array.from(t) };
}

/** tan of half the inside angle at vertex i, or 0 where it needs no grading (blunt or reflex). */
function sharpness(b: Boundary, i: number): number {
  const p = b.prev[i];
  const cross = b.ux[p] * b.uy[i] - b.uy[p] * b.ux[i];
  const dot = b.ux[p] * b.ux[i] + b.uy[p] * b.uy[i];
  const inside = Math.PI - Math.atan2(cross, dot);
  return cross > 0 && inside < 1.4 ? Math.tan(inside / 2) : 0;
}

/** Marks that widen geometrically away from a sharp corner, the same on both its edges. */
function grade(marks: number[], len: number, tanHalf: number, fromEnd: boolean): void {
  if (tanHalf === 0) return;
  const growth = 1 + Math.min(1, BETA * tanHalf);
  for (let d = 2 * FINEST; d < 0.45 * len; d *= growth) marks.push(fromEnd ? len - d : d);
}

function place(b: Boundary, p: Parts): Samples {
  const n = p.edge.length;
  const xy = new Float64Array(2 * n);
  const next = new Int32Array(n);
  const prev = new Int32Array(n);
  let ringStart = 0;
  for (let i = 0; i < n; i++) {
    const e = p.edge[i];
    xy[2 * i] = b.x[e] + p.t[i] * b.ux[e];
    xy[2 * i + 1] = b.y[e] + p.t[i] * b.uy[e];
    const lastOfRing = i + 1 === n || b.ring[p.edge[i + 1]] !== b.ring[e];
    next[i] = lastOfRing ? ringStart : i + 1;
    prev[next[i]] = i;
    if (lastOfRing) ringStart = i + 1;
  }
  return { xy, edge: p.edge, t: p.t, next, prev };
}

/** How many parts each piece (sample i to its next) should become; null when all serve as they are. */
function wanted(s: Samples, d: Delaunator<Float64Array>): Uint8Array | null {
  const n = s.next.length;
  const split = new Uint8Array(n).fill(255);
  const length = new Float64Array(n);
  for (let i = 0; i < n; i++) length[i] = Math.hypot(s.xy[2 * s.next[i]] - s.xy[2 * i], s.xy[2 * s.next[i] + 1] - s.xy[2 * i + 1]);
  const { triangles } = d;
  let any = false;
  for (let e = 0; e < triangles.length; e++) {
    // Delaunator's triangles turn clockwise where y points up: a half-edge has the triangle on its right.
    const q = triangles[e];
    const p = triangles[e % 3 === 2 ? e - 2 : e + 1];
    if (s.next[p] !== q) continue;
    const apex = triangles[e % 3 === 0 ? e + 2 : e - 1];
    const corner = apex === s.next[q] || apex === s.prev[p];
    split[p] = 1;
    if (corner || length[p] <= 2 * FINEST) continue;
    const want = length[p] / (BETA * circumradius(s.xy, p, q, apex));
    if (want > 1) split[p] = Math.min(8, Math.ceil(want), Math.max(1, Math.floor(length[p] / FINEST)));
  }
  for (let i = 0; i < n; i++) {
    if (split[i] === 255) split[i] = length[i] > 2 * FINEST ? 2 : 1;
    const beside = Math.min(length[s.prev[i]], length[s.next[i]]);
    if (split[i] === 1 && length[i] > GRADE * beside && length[i] > 4 * FINEST) split[i] = Math.min(8, Math.ceil(length[i] / (GRADE * beside)));
    if (split[i] > 1) any = true;
  }
  return any ? split : null;
}

function subdivide(s: Samples, split: Uint8Array): Parts {
  let total = 0;
  for (const k of split) total += k;
  const edge = new Int32Array(total);
  const t = new Float64Array(total);
  let at = 0;
  for (let i = 0; i < split.length; i++) {
    const j = s.next[i];
    const gap = Math.hypot(s.xy[2 * j] - s.xy[2 * i], s.xy[2 * j + 1] - s.xy[2 * i + 1]);
    for (let k = 0; k < split[i]; k++) {
      edge[at] = s.edge[i];
      t[at++] = s.t[i] + (gap * k) / split[i];
    }
  }
  return { edge, t };
}

function circumradius(xy: Float64Array, i: number, j: number, k: number): number {
  const dx = xy[2 * j] - xy[2 * i];
  const dy = xy[2 * j + 1] - xy[2 * i + 1];
  const ex = xy[2 * k] - xy[2 * i];
  const ey = xy[2 * k + 1] - xy[2 * i + 1];
  const area2 = Math.abs(dx * ey - dy * ex);
  if (area2 < 1e-18) return Infinity;
  return (Math.hypot(dx, dy) * Math.hypot(ex, ey) * Math.hypot(ex - dx, ey - dy)) / (2 * area2);
}

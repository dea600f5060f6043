import { ascending } from "../../ascending.ts";
import { GrowingF64, GrowingI32, picked } from "../../growing.ts";
import type { Rings } from "../rings.ts";
import type { SegmentGrid } from "../segmentgrid.ts";
import { arcSteps } from "../shape.ts";
import { type Boundary, type Foot, newFoot } from "./boundary.ts";
import { type Point, settleCrossing } from "./equidistant.ts";
import type { Axis } from "./graph.ts";
import { gridOf, passesBack, takeOutNear } from "./overlap.ts";

/**
 * The curve at distance ρ inside the region, read off its medial axis in time linear in its length.
 *
 * Where clearance along the axis passes ρ, an inset curve turns from following one boundary chain to following
 * another: it ends at the foot on the left chain and begins at the foot on the right one (seen walking towards more
 * clearance). Between a beginning and the next end along a boundary it is the plain parallel of that chain: offset
 * edges, joined by arcs round reflex vertices. Boundaries without such events are inside everywhere or nowhere.
 *
 * @param tolerance how far chords may be from the arcs, mm
 * @returns rings with the region beyond ρ on their left, and for each the index of a ring of the region that it
 * follows
 */
export function insetRings(
  b: Boundary,
  axis: Axis,
  widest: Float64Array,
  rho: number,
  tolerance: number,
): { rings: Rings; follows: Int32Array } {
  const events = collect(b, axis, rho);
  const xy = new GrowingF64(1024);
  const starts = new GrowingI32(64);
  const follows = new GrowingI32(64);
  starts.push(0);
  let edges: SegmentGrid | null = null;
  const close = (from: number, ring: number, backwards: boolean) => {
    // Few loops are; looking up every point of all of them would cost far more than making them.
    if (backwards) takeOutNear((edges ??= gridOf(b)), xy, from, rho);
    if (xy.length - from < 6) xy.length = from;
    else {
      starts.push(xy.length / 2);
      follows.push(b.source[ring]);
    }
  };
  const used = new Uint8Array(events.length);
  const touched = new Uint8Array(b.starts.length);
  for (let s = 0; s < events.length; s++) {
    touched[b.ring[events[s].edge]] = 1;
    if (used[s] || !events[s].begins) continue;
    const from = xy.length;
    let at = s;
    let backwards = false;
    for (;;) {
      used[at] = 1;
      const end = endAfter(b, events, at);
      // An unmatched event (lost to rounding in a degenerate spot): leave the loop out rather than guess.
      if (end < 0 || used[end]) {
        xy.length = from;
        break;
      }
      used[end] = 1;
      const stretch = xy.length;
      parallel(b, events[at], events[end], rho, tolerance, xy);
      backwards ||= passesBack(xy, stretch);
      at = events[end].partner;
      if (at === s) {
        close(from, b.ring[events[s].edge], backwards);
        break;
      }
      if (used[at]) {
        xy.length = from;
        break;
      }
    }
  }
  for (let k = 0; k < b.starts.length - 1; k++) {
    if (touched[k] || widest[k] < rho) continue;
    const from = xy.length;
    for (let e = b.starts[k]; e < b.starts[k + 1]; e++) {
      round(b, e, 0, 1, rho, tolerance, xy, e > b.starts[k]);
      offset(b, e, b.len[e], rho, xy);
    }
    // The last edge ends where the first vertex's turn began.
    xy.length -= 2;
    close(from, k, passesBack(xy, from));
  }
  const offsets = starts.take();
  return {
    rings: { xy: xy.take(), starts: offsets, parent: new Int32Array(offsets.length - 1).fill(-1) },
    follows: follows.take(),
  };
}

interface Event {
  edge: number;
  /** mm from the edge's start */
  t: number;
  vertex: boolean;
  /** at a vertex: how far round it, 0 square to the edge before, 1 square to the edge after */
  turn: number;
  /** orders events along a ring: vertex i fills 2i…2i+1, edge i fills 2i+1…2i+2 */
  key: number;
  begins: boolean;
  /** the inset's point there */
  x: number;
  y: number;
  /** for an end: the beginning that continues from it */
  partner: number;
}

/** Edges of an axis by the clearance of their wider end, widest first, for whoever asks for many insets. */
interface ByWidth {
  edges: Int32Array;
  widest: Float64Array;
  narrowest: Float64Array;
}
const byWidth = new WeakMap<Axis, ByWidth | null>();

/** The edges along which the clearance passes `rho`, in their order. */
function edgesAcross(axis: Axis, rho: number): number[] {
  const sorted = byWidth.get(axis);
  const across: number[] = [];
  if (sorted) {
    const { edges, widest, narrowest } = sorted;
    for (let k = 0; k < edges.length && widest[k] >= rho; k++) if (narrowest[k] < rho) across.push(edges[k]);
    return across.sort((e, f) => e - f);
  }
  // Sorting is worth while from the second inset on.
  byWidth.set(axis, sorted === null ? sortedByWidth(axis) : null);
  const { a, b, d } = axis;
  for (let e = 0; e < a.length; e++) if (d[a[e]] < rho !== d[b[e]] < rho) across.push(e);
  return across;
}

function sortedByWidth({ a, b, d }: Axis): ByWidth {
  const n = a.length;
  const [wider, narrower] = [new Float64Array(n), new Float64Array(n)];
  for (let e = 0; e < n; e++) {
    wider[e] = Math.max(d[a[e]], d[b[e]]);
    narrower[e] = Math.min(d[a[e]], d[b[e]]);
  }
  const edges = ascending(wider).reverse();
  return { edges, widest: picked(wider, edges), narrowest: picked(narrower, edges) };
}

const nodeOf = ({ x, y, d }: Axis, i: number): Point => ({ x: x[i], y: y[i], d: d[i] });

function collect(b: Boundary, axis: Axis, rho: number): Event[] {
  const found: Event[] = [];
  const fl = newFoot();
  const fr = newFoot();
  for (const e of edgesAcross(axis, rho)) {
    let lo = axis.a[e];
    let hi = axis.b[e];
    let left = axis.left[e];
    let right = axis.right[e];
    if (axis.d[lo] > axis.d[hi]) {
      [lo, hi] = [hi, lo];
      [left, right] = [right, left];
    }
    const p = settleCrossing(b, nodeOf(axis, lo), nodeOf(axis, hi), left, right, rho, fl, fr);
    const at = found.length;
    found.push(eventAt(b, fl, p, false), eventAt(b, fr, p, true));
    found[at].partner = at + 1;
  }
  const order = found
    .map((_, i) => i)
    .sort((i, j) => b.ring[found[i].edge] - b.ring[found[j].edge] || found[i].key - found[j].key);
  alternate(b, found, order);
  const rank = new Int32Array(found.length);
  order.forEach((i, r) => (rank[i] = r));
  for (const e of found) if (e.partner >= 0) e.partner = rank[e.partner];
  return order.map((i) => found[i]);
}

/**
 * Inset points this close are one place, mm: rounding decided the order of their events, so these may change places.
 */
const SAME_PLACE = 0.01;

/** Along a ring beginnings and ends take turns; puts neighbours at one place into that order. */
function alternate(b: Boundary, found: Event[], order: number[]): void {
  for (let s = 0; s < order.length;) {
    let e = s + 1;
    while (e < order.length && b.ring[found[order[e]].edge] === b.ring[found[order[s]].edge]) e++;
    const n = e - s;
    for (let i = 0; n > 2 && i < n; i++) {
      const j = s + ((i + 1) % n);
      const k = s + ((i + 2) % n);
      const [p, q, r] = [found[order[s + i]], found[order[j]], found[order[k]]];
      if (
        p.begins !== q.begins ||
        q.begins === r.begins ||
        (q.x - r.x) ** 2 + (q.y - r.y) ** 2 > SAME_PLACE * SAME_PLACE
      )
        continue;
      [order[j], order[k]] = [order[k], order[j]];
      const { edge, t, vertex, turn, key } = q;
      Object.assign(r, { edge, t, vertex, turn, key });
    }
    s = e;
  }
}

function eventAt(b: Boundary, f: Foot, p: Point, begins: boolean): Event {
  let turn = 0;
  if (f.vertex) {
    const q = b.prev[f.edge];
    const whole = angle(-b.uy[q], b.ux[q], -b.uy[f.edge], b.ux[f.edge]);
    const part = angle(-b.uy[q], b.ux[q], p.x - f.x, p.y - f.y);
    turn = Math.abs(whole) < 1e-12 ? 0.5 : Math.max(0, Math.min(1, part / whole));
  }
  const key = f.vertex ? 2 * f.edge + turn : 2 * f.edge + 1 + f.t / b.len[f.edge];
  return { edge: f.edge, t: f.t, vertex: f.vertex, turn, key, begins, x: p.x, y: p.y, partner: -1 };
}

const angle = (ax: number, ay: number, bx: number, by: number): number =>
  Math.atan2(ax * by - ay * bx, ax * bx + ay * by);

/** The first end after a beginning, round its own ring; −1 when there is none. */
function endAfter(b: Boundary, events: Event[], start: number): number {
  const ring = b.ring[events[start].edge];
  for (let i = start + 1; i < events.length && b.ring[events[i].edge] === ring; i++) if (!events[i].begins) return i;
  let first = start;
  while (first > 0 && b.ring[events[first - 1].edge] === ring) first--;
  for (let i = first; i < start; i++) if (!events[i].begins) return i;
  return -1;
}

/** Pushes the parallel of the chain from one event to another. */
function parallel(b: Boundary, from: Event, to: Event, rho: number, tolerance: number, out: GrowingF64): void {
  const first = out.length;
  let e = from.edge;
  const ahead = to.key >= from.key;
  if (from.vertex) {
    if (to.vertex && to.edge === e && ahead) return round(b, e, from.turn, to.turn, rho, tolerance, out, false);
    round(b, e, from.turn, 1, rho, tolerance, out, false);
  } else offset(b, e, from.t, rho, out);
  // Not ahead on the same edge or vertex: all the way round the ring and back to it.
  let arrived = to.edge === e && !to.vertex && ahead;
  while (!arrived) {
    offset(b, e, b.len[e], rho, out);
    e = b.next[e];
    if (to.vertex && to.edge === e) return round(b, e, 0, to.turn, rho, tolerance, out, true);
    round(b, e, 0, 1, rho, tolerance, out, true);
    arrived = to.edge === e;
  }
  offset(b, e, to.t, rho, out);
  if (!from.vertex) trim(out, first, first + 2, b.ux[from.edge], b.uy[from.edge]);
  if (!to.vertex) trim(out, out.length - 2, out.length - 4, -b.ux[e], -b.uy[e], first);
}

/**
 * Takes out the point at `next` while it lies behind the one at `end`: a blunt vertex's mitre beyond where the stretch
 * ends.
 */
function trim(out: GrowingF64, end: number, next: number, ux: number, uy: number, first = end): void {
  const { data } = out;
  while (out.length - first > 4 && (data[next] - data[end]) * ux + (data[next + 1] - data[end + 1]) * uy < 0) {
    data.copyWithin(next, next + 2, out.length);
    out.length -= 2;
    if (next < end) {
      end -= 2;
      next -= 2;
    }
  }
}

function offset(b: Boundary, e: number, t: number, rho: number, out: GrowingF64): void {
  out.push2(b.x[e] + t * b.ux[e] - rho * b.uy[e], b.y[e] + t * b.uy[e] + rho * b.ux[e]);
}

/**
 * The turn at vertex v, from share f0 to f1 of it: an arc where the vertex is reflex, the mitre point where it is
 * blunt.
 * @param joined whether the point before is the end of the parallel of the edge that reaches v
 */
function round(
  b: Boundary,
  v: number,
  f0: number,
  f1: number,
  rho: number,
  tolerance: number,
  out: GrowingF64,
  joined: boolean,
): void {
  const q = b.prev[v];
  const nx = -b.uy[q];
  const ny = b.ux[q];
  const whole = angle(nx, ny, -b.uy[v], b.ux[v]);
  if (whole >= 0) {
    // A convex vertex inside a stretch turns by next to nothing: both edges' offsets meet at the mitre.
    const k = rho / (1 + Math.cos(whole));
    if (joined) out.length -= 2;
    out.push2(b.x[v] + k * (nx - b.uy[v]), b.y[v] + k * (ny + b.ux[v]));
    return;
  }
  const sweep = whole * (f1 - f0);
  const steps = arcSteps(rho, sweep, tolerance);
  const a0 = Math.atan2(ny, nx) + whole * f0;
  for (let i = joined ? 1 : 0; i <= steps; i++) {
    const a = a0 + (sweep * i) / steps;
    out.push2(b.x[v] + rho * Math.cos(a), b.y[v] + rho * Math.sin(a));
  }
}

import { ascending } from "../../ascending.ts";
import { GrowingI32, picked } from "../../growing.ts";
import { type Boundary, type Foot, newFoot } from "./boundary.ts";
import { type Point, settleCrossing } from "./equidistant.ts";
import type { Axis } from "./graph.ts";

/** Where an inset turns from one chain of the boundary to another, in their order along the boundary's rings. */
export interface Events {
  count: number;
  /** of the boundary, that it lies on or at whose first vertex it does */
  edge: Int32Array;
  /** mm from the edge's start */
  t: Float64Array;
  vertex: Uint8Array;
  /** at a vertex: how far round it, 0 square to the edge before, 1 square to the edge after */
  turn: Float64Array;
  /** orders events along a ring: vertex i fills 2i…2i+1, edge i fills 2i+1…2i+2 */
  key: Float64Array;
  begins: Uint8Array;
  /** the inset's point there */
  x: Float64Array;
  y: Float64Array;
  /** for an end: the beginning that continues from it */
  partner: Int32Array;
}

const newEvents = (count: number): Events => ({
  count,
  edge: new Int32Array(count),
  t: new Float64Array(count),
  vertex: new Uint8Array(count),
  turn: new Float64Array(count),
  key: new Float64Array(count),
  begins: new Uint8Array(count),
  x: new Float64Array(count),
  y: new Float64Array(count),
  partner: new Int32Array(count).fill(NO_PARTNER),
});

const NO_PARTNER = -1;

/** Edges of an axis by the clearance of their wider end, widest first, for whoever asks for many insets. */
interface ByWidth {
  edges: Int32Array;
  widest: Float64Array;
  narrowest: Float64Array;
}
const byWidth = new WeakMap<Axis, ByWidth | null>();

/** The edges along which the clearance passes `rho`, in their order. */
function edgesAcross(axis: Axis, rho: number): Int32Array {
  const sorted = byWidth.get(axis);
  const across = new GrowingI32(256);
  if (sorted) {
    const { edges, widest, narrowest } = sorted;
    for (let k = 0; k < edges.length && widest[k] >= rho; k++) if (narrowest[k] < rho) across.push(edges[k]);
    return across.take().sort();
  }
  // Sorting is worth while from the second inset on.
  byWidth.set(axis, sorted === null ? sortedByWidth(axis) : null);
  const { a, b, d } = axis;
  for (let e = 0; e < a.length; e++) if (d[a[e]] < rho !== d[b[e]] < rho) across.push(e);
  return across.take();
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

/** The events of the inset at a distance: where the axis passes it one chain's stretch ends and another's begins. */
export function eventsOf(b: Boundary, axis: Axis, rho: number): Events {
  const across = edgesAcross(axis, rho);
  const found = newEvents(2 * across.length);
  const fl = newFoot();
  const fr = newFoot();
  for (let k = 0; k < across.length; k++) {
    const e = across[k];
    let lo = axis.a[e];
    let hi = axis.b[e];
    let left = axis.left[e];
    let right = axis.right[e];
    if (axis.d[lo] > axis.d[hi]) {
      [lo, hi] = [hi, lo];
      [left, right] = [right, left];
    }
    const p = settleCrossing(b, nodeOf(axis, lo), nodeOf(axis, hi), left, right, rho, fl, fr);
    put(found, 2 * k, b, fl, p);
    put(found, 2 * k + 1, b, fr, p);
    found.begins[2 * k + 1] = 1;
    found.partner[2 * k] = 2 * k + 1;
  }
  // The last of one ring's keys may be the first of the next one's: a ring more is one more.
  const order = ascending(found.key.map((key, i) => key + b.ring[found.edge[i]]));
  alternate(b, found, order);
  return inOrder(found, order);
}

/** Events in another order. */
function inOrder(all: Events, order: Int32Array): Events {
  const rank = new Int32Array(order.length);
  for (let r = 0; r < order.length; r++) rank[order[r]] = r;
  const out = newEvents(order.length);
  for (let r = 0; r < order.length; r++) {
    const i = order[r];
    out.edge[r] = all.edge[i];
    out.t[r] = all.t[i];
    out.vertex[r] = all.vertex[i];
    out.turn[r] = all.turn[i];
    out.key[r] = all.key[i];
    out.begins[r] = all.begins[i];
    out.x[r] = all.x[i];
    out.y[r] = all.y[i];
    if (all.partner[i] !== NO_PARTNER) out.partner[r] = rank[all.partner[i]];
  }
  return out;
}

/**
 * Inset points this close are one place, mm: rounding decided the order of their events, so these may change places.
 */
const SAME_PLACE = 0.01;

/** Along a ring beginnings and ends take turns; puts neighbours at one place into that order. */
function alternate(b: Boundary, found: Events, order: Int32Array): void {
  const { edge, begins, x, y } = found;
  const ringAt = (k: number) => b.ring[edge[order[k]]];
  for (let s = 0; s < order.length;) {
    let e = s + 1;
    while (e < order.length && ringAt(e) === ringAt(s)) e++;
    const n = e - s;
    for (let i = 0; n > 2 && i < n; i++) {
      const j = s + ((i + 1) % n);
      const k = s + ((i + 2) % n);
      const [p, q, r] = [order[s + i], order[j], order[k]];
      const isInTurn = begins[p] !== begins[q] || begins[q] === begins[r];
      if (isInTurn || (x[q] - x[r]) ** 2 + (y[q] - y[r]) ** 2 > SAME_PLACE * SAME_PLACE) continue;
      [order[j], order[k]] = [r, q];
      // The one that comes first now lies where the other did.
      for (const places of [found.edge, found.t, found.vertex, found.turn, found.key]) places[r] = places[q];
    }
    s = e;
  }
}

/** Puts down where an event lies, whose foot and whose place on the inset these are. */
function put(events: Events, i: number, b: Boundary, f: Foot, p: Point): void {
  let turn = 0;
  if (f.vertex) {
    const q = b.prev[f.edge];
    const whole = angle(-b.uy[q], b.ux[q], -b.uy[f.edge], b.ux[f.edge]);
    const part = angle(-b.uy[q], b.ux[q], p.x - f.x, p.y - f.y);
    turn = Math.abs(whole) < 1e-12 ? 0.5 : Math.max(0, Math.min(1, part / whole));
  }
  events.edge[i] = f.edge;
  events.t[i] = f.t;
  events.vertex[i] = Number(f.vertex);
  events.turn[i] = turn;
  events.key[i] = f.vertex ? 2 * f.edge + turn : 2 * f.edge + 1 + f.t / b.len[f.edge];
  events.x[i] = p.x;
  events.y[i] = p.y;
}

/** The first end after a beginning, round its own ring; −1 when there is none. */
export function endAfter(b: Boundary, { count, edge, begins }: Events, start: number): number {
  const ring = b.ring[edge[start]];
  for (let i = start + 1; i < count && b.ring[edge[i]] === ring; i++) if (!begins[i]) return i;
  let first = start;
  while (first > 0 && b.ring[edge[first - 1]] === ring) first--;
  for (let i = first; i < start; i++) if (!begins[i]) return i;
  return -1;
}

/** From one direction to another, anticlockwise; radians. */
export const angle = (ax: number, ay: number, bx: number, by: number): number =>
  Math.atan2(ax * by - ay * bx, ax * bx + ay * by);

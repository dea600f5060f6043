import { GrowingF64, GrowingI32 } from "../../growing.ts";
import type { Rings } from "../rings.ts";
import type { SegmentGrid } from "../segmentgrid.ts";
import { arcSteps } from "../shape.ts";
import type { Boundary } from "./boundary.ts";
import { angle, endAfter, type Events, eventsOf } from "./events.ts";
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
  const events = eventsOf(b, axis, rho);
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
  const used = new Uint8Array(events.count);
  const touched = new Uint8Array(b.starts.length);
  for (let s = 0; s < events.count; s++) {
    const ring = b.ring[events.edge[s]];
    touched[ring] = 1;
    if (used[s] || !events.begins[s]) continue;
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
      parallel(b, events, at, end, rho, tolerance, xy);
      backwards ||= passesBack(xy, stretch);
      at = events.partner[end];
      if (at === s) {
        close(from, ring, backwards);
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

/** Pushes the parallel of the chain from one event to another. */
function parallel(
  b: Boundary,
  { edge, t, vertex, turn, key }: Events,
  from: number,
  to: number,
  rho: number,
  tolerance: number,
  out: GrowingF64,
): void {
  const first = out.length;
  const last = edge[to];
  let e = edge[from];
  const ahead = key[to] >= key[from];
  if (vertex[from]) {
    if (vertex[to] && last === e && ahead) return round(b, e, turn[from], turn[to], rho, tolerance, out, false);
    round(b, e, turn[from], 1, rho, tolerance, out, false);
  } else offset(b, e, t[from], rho, out);
  // Not ahead on the same edge or vertex: all the way round the ring and back to it.
  let arrived = last === e && !vertex[to] && ahead;
  while (!arrived) {
    offset(b, e, b.len[e], rho, out);
    e = b.next[e];
    if (vertex[to] && last === e) return round(b, e, 0, turn[to], rho, tolerance, out, true);
    round(b, e, 0, 1, rho, tolerance, out, true);
    arrived = last === e;
  }
  offset(b, e, t[to], rho, out);
  if (!vertex[from]) trim(out, first, first + 2, b.ux[edge[from]], b.uy[edge[from]]);
  if (!vertex[to]) trim(out, out.length - 2, out.length - 4, -b.ux[e], -b.uy[e], first);
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

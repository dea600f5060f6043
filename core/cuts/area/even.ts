import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { ringCount } from "../../geometry/rings.ts";
import { picked } from "../../growing.ts";
import { cutAlong, unroll } from "../../toolpath/loops.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { Ground } from "./ground.ts";
import { LEAST_HELIX, sinkHelix } from "./sink.ts";
import type { AreaPlan, Level } from "./level.ts";
import { hypot } from "../../hypot.ts";

/**
 * Steps forward are never shorter than this share of the cutter's radius: slots hardly wider than the cutter load it
 * whatever is done.
 */
const LEAST_STEP = 0.06;
/** Discs smaller than this share of the cutter's radius are cut straight on rather than round. */
const TIP = 0.15;
/** Slivers thinner than this are not worth an arc, mm. */
const SLIVER = 0.02;
/** Spiral points stay this close to the spiral, mm. */
const SPIRAL_TOLERANCE = 0.01;

/** The angle a cutter is engaged by when it takes `width` beside a straight wall: cos φ = 1 − a/R. */
export const engagedAngle = (width: number, radius: number): number => Math.acos(Math.max(-1, 1 - width / radius));

/**
 * Clears one level with the cutter's engagement held: discs that just fit the region, one after another along its
 * medial axis, each entered only as far as the limit allows beyond the one before and cut by the arc that is new. With
 * the disc before of radius ρ₁ (of the cutter's centre) and this one's of ρ₂ at a distance L, the cutter of
 * radius R is engaged by φ, cos φ = ((ρ₁ + R)² − (L + ρ₂)² − R²) / (2·(L + ρ₂)·R), at most. The
 * edge is cut once round at the end.
 *
 * The limit is stated as the stepover: the engagement of a straight cut that wide.
 * @returns mm along the axis where the region is too narrow to hold the limit; NaN when there was nothing to clear
 */
export function clearEven(g: Ground, level: Level): number {
  const { w, p } = g;
  g.begin(level);
  const { from, z1 } = level;
  if (from >= p.c.widest) return NaN;
  const limit = engagedAngle(p.stepover, p.radius);
  const graph = wideAxis(p.c, from);
  let crowded = 0;
  for (;;) {
    const start = widestLeft(graph);
    if (start < 0) break;
    if (!open(g, level, graph, start)) {
      leaveOut(graph, start);
      continue;
    }
    const stack = [start];
    let here = start;
    while (stack.length > 0) {
      const node = stack[stack.length - 1];
      const edge = graph.edges[node].find((e) => !graph.used[e]);
      if (edge === undefined) {
        stack.pop();
        continue;
      }
      if (node !== here && g.enter(Float64Array.of(graph.x[node]), Float64Array.of(graph.y[node]), false) < 0) {
        stack.pop();
        continue;
      }
      const chain = chainFrom(graph, node, edge);
      crowded += follow(w, p, limit, z1, graph, chain);
      here = chain[chain.length - 1];
      stack.push(here);
    }
  }
  const { rings } = inset(p.c, from);
  for (let k = 0; k < ringCount(rings); k++) {
    const loop = g.enterLoop(unroll(rings.xy, rings.starts[k], rings.starts[k + 1], 0, p.conventional));
    if (loop) cutAlong(w, loop.x, loop.y, 0, loop.x.length - 1, z1);
  }
  return crowded;
}

interface AxisGraph {
  x: number[];
  y: number[];
  /** how far the cutter's centre may go from here, mm */
  rho: number[];
  a: number[];
  b: number[];
  edges: number[][];
  used: Uint8Array;
}

/** The axis where the cutter fits, edges cut off at clearance `from`. */
function wideAxis({ axis, kept }: Clearance, from: number): AxisGraph {
  const g: AxisGraph = { x: [], y: [], rho: [], a: [], b: [], edges: [], used: new Uint8Array(0) };
  const index = new Int32Array(axis.x.length).fill(-1);
  const add = (x: number, y: number, rho: number): number => {
    g.x.push(x);
    g.y.push(y);
    g.rho.push(rho);
    g.edges.push([]);
    return g.x.length - 1;
  };
  const node = (i: number): number =>
    index[i] >= 0 ? index[i] : (index[i] = add(axis.x[i], axis.y[i], axis.d[i] - from));
  for (let e = 0; e < axis.a.length; e++) {
    const [lo, hi] = axis.d[axis.a[e]] < axis.d[axis.b[e]] ? [axis.a[e], axis.b[e]] : [axis.b[e], axis.a[e]];
    if (!kept[e] || axis.d[hi] <= from) continue;
    const f = (from - axis.d[lo]) / (axis.d[hi] - axis.d[lo]);
    const end =
      axis.d[lo] >= from
        ? node(lo)
        : add(axis.x[lo] + f * (axis.x[hi] - axis.x[lo]), axis.y[lo] + f * (axis.y[hi] - axis.y[lo]), 0);
    g.edges[end].push(g.a.length);
    g.edges[node(hi)].push(g.a.length);
    g.a.push(end);
    g.b.push(node(hi));
  }
  g.used = new Uint8Array(g.a.length);
  return g;
}

/** The widest node with an edge not followed yet; −1 when all are. */
function widestLeft(g: AxisGraph): number {
  let best = -1;
  for (let i = 0; i < g.x.length; i++)
    if ((best < 0 || g.rho[i] > g.rho[best]) && g.edges[i].some((e) => !g.used[e])) best = i;
  return best;
}

/** Edges that can be reached from a node count as followed. */
function leaveOut(graph: AxisGraph, start: number): void {
  const stack = [start];
  for (let node = stack.pop(); node !== undefined; node = stack.pop())
    for (const e of graph.edges[node]) {
      if (graph.used[e]) continue;
      graph.used[e] = 1;
      stack.push(graph.a[e] === node ? graph.b[e] : graph.a[e]);
    }
}

/** Room to sink along the axis where a helix has none: so many radii of it. */
const ALONG_AXIS = 6;

/**
 * The first disc: down in a helix, out in a spiral, once round; in a slot down along it.
 * @returns whether there was a way down
 */
function open(g: Ground, level: Level, graph: AxisGraph, start: number): boolean {
  const { w, p } = g;
  const { z0, z1 } = level;
  const [x, y, rho] = [graph.x[start], graph.y[start], graph.rho[start]];
  const helix = Math.min(0.8 * p.radius, rho);
  if (helix < LEAST_HELIX * p.radius || p.entry === "ramp" || p.entry === "plunge") {
    const way = axisFrom(graph, start, ALONG_AXIS * p.radius);
    return g.enter(picked(graph.x, way), picked(graph.y, way), false) >= 0;
  }
  sinkHelix(w, x, y, helix, z0, z1, p.slope, true);
  let a = 0;
  for (let r = helix; r < rho;) {
    const step = Math.min(0.3, Math.sqrt((8 * SPIRAL_TOLERANCE) / Math.max(r, 0.1)));
    a += step;
    r = Math.min(rho, r + (widening(r, p) * step) / (2 * Math.PI));
    w.to(x + r * Math.cos(a), y + r * Math.sin(a), z1);
  }
  if (rho > helix)
    for (const half of [Math.PI, 2 * Math.PI])
      w.arc(true, x, y, x + rho * Math.cos(a + half), y + rho * Math.sin(a + half), z1);
  return true;
}

/** Nodes along the axis from one on, about `most` mm of it. */
function axisFrom(graph: AxisGraph, start: number, most: number): number[] {
  const out = [start];
  const passed = new Set<number>();
  for (let length = 0; length < most;) {
    const at = out[out.length - 1];
    const e = graph.edges[at].find((q) => !passed.has(q));
    if (e === undefined) break;
    passed.add(e);
    const to = graph.a[e] === at ? graph.b[e] : graph.a[e];
    length += hypot(graph.x[to] - graph.x[at], graph.y[to] - graph.y[at]);
    out.push(to);
  }
  return out;
}

/** How much wider the next turn of a spiral of radius r may be within the limit, mm. */
function widening(r: number, p: AreaPlan): number {
  const limit = engagedAngle(p.stepover, p.radius);
  let lo = 0;
  let hi = p.stepover;
  for (let q = 0; q < 20; q++) {
    const mid = (lo + hi) / 2;
    if (engaged(r, r + mid, 0, p.radius) <= limit) lo = mid;
    else hi = mid;
  }
  return lo;
}

/** Nodes from one along an edge to the next where the axis branches or ends; its edges count as followed. */
function chainFrom(g: AxisGraph, node: number, first: number): number[] {
  const chain = [node];
  for (let edge: number | undefined = first; edge !== undefined;) {
    g.used[edge] = 1;
    const to: number = g.a[edge] === chain[chain.length - 1] ? g.b[edge] : g.a[edge];
    chain.push(to);
    edge = g.edges[to].length === 2 ? g.edges[to].find((e) => !g.used[e]) : undefined;
  }
  return chain;
}

interface Disc {
  x: number;
  y: number;
  rho: number;
}

/** Along a chain, disc by disc as far apart as the limit allows. @returns mm of it where the limit could not be held */
function follow(
  w: ToolpathWriter,
  p: AreaPlan,
  limit: number,
  z: number,
  g: AxisGraph,
  chain: readonly number[],
): number {
  const disc = (i: number): Disc => ({ x: g.x[i], y: g.y[i], rho: g.rho[i] });
  const load = (a: Disc, b: Disc) => engaged(a.rho, b.rho, hypot(b.x - a.x, b.y - a.y), p.radius);
  const least = LEAST_STEP * p.radius;
  // In a corner's tip the disc is next to nothing: the cutter goes straight in and bites to both sides.
  const headOn = (a: Disc, b: Disc): number =>
    b.rho < TIP * p.radius && 2 * load(a, b) > limit ? hypot(b.x - a.x, b.y - a.y) : 0;
  let last = disc(chain[0]);
  let crowded = 0;
  for (let k = 1; k < chain.length; k++) {
    const [from, to] = [disc(chain[k - 1]), disc(chain[k])];
    const length = hypot(to.x - from.x, to.y - from.y);
    const on = (s: number): Disc => ({
      x: from.x + (s * (to.x - from.x)) / length,
      y: from.y + (s * (to.y - from.y)) / length,
      rho: from.rho + (s * (to.rho - from.rho)) / length,
    });
    for (let s = 0; s < length - 1e-9 && load(last, to) > limit;) {
      let lo = s;
      let hi = length;
      for (let q = 0; q < 24; q++) {
        const mid = (lo + hi) / 2;
        if (load(last, on(mid)) <= limit) lo = mid;
        else hi = mid;
      }
      if (lo - s < 1e-6 || hypot(on(lo).x - last.x, on(lo).y - last.y) < least) {
        const t = Math.min(length, s + least);
        if (load(last, on(t)) > limit) crowded += t - s;
        lo = t;
      }
      s = lo;
      crescent(w, z, last, on(s));
      crowded += headOn(last, on(s));
      last = on(s);
    }
  }
  const end = disc(chain[chain.length - 1]);
  crescent(w, z, last, end);
  return crowded + headOn(last, end);
}

/**
 * Largest engagement when a disc of radius ρ₂ is cut at a distance L from one of ρ₁, radians; 0 where it lies
 * inside.
 */
export function engaged(rho1: number, rho2: number, L: number, R: number): number {
  const far = L + rho2;
  if (far <= rho1) return 0;
  const cos = ((rho1 + R) ** 2 - far * far - R * R) / (2 * far * R);
  return Math.acos(Math.max(-1, Math.min(1, cos)));
}

/** The part of the second disc's edge that lies outside the first one, cut counter-clockwise. */
function crescent(w: ToolpathWriter, z: number, a: Disc, b: Disc): void {
  const L = hypot(b.x - a.x, b.y - a.y);
  if (L + b.rho - a.rho < SLIVER) return;
  if (b.rho < SLIVER) return w.to(b.x, b.y, z);
  const u = Math.atan2(b.y - a.y, b.x - a.x);
  const cos = (a.rho * a.rho - L * L - b.rho * b.rho) / (2 * L * b.rho);
  const half = cos <= -1 ? Math.PI : Math.acos(Math.min(1, cos));
  const at = (t: number): [number, number] => [b.x + b.rho * Math.cos(u + t), b.y + b.rho * Math.sin(u + t)];
  w.to(...at(-half), z);
  w.arc(true, b.x, b.y, ...at(0), z);
  w.arc(true, b.x, b.y, ...at(half), z);
}

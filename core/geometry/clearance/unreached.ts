import { hypot } from "../../hypot.ts";
import { Groups } from "../groups.ts";
import type { Clearance } from "./clearance.ts";
import type { Axis } from "./graph.ts";
import { Discs, type Way } from "./spokes.ts";
import { wayOf, type Within, within } from "./within.ts";

/** Where discs may cover the same, ways from the axis to the boundary are looked along, so far apart, in radii. */
const APART = 0.1;

/** What a round cutter does not reach of a region. */
export interface Unreached {
  /** mm² */
  area: number;
  /** how far from the region's edge it goes, at most: in every corner, mm */
  corners: Float64Array;
  /** … and at every way into a neck between places that the cutter reaches, mm */
  necks: Float64Array;
}

/** Of a region only what lies so far inside it, and of that not what lies less than `foot` from its edge. */
export interface Only {
  /** mm */
  inside?: number;
  /** so much less than a cutter's radius, mm */
  foot?: number;
}

/** The area of a region that a round cutter does not reach, mm². @param radius mm */
export function unreachedArea(clearance: Clearance, radius: number): number {
  const ground = within(clearance, 0);
  return areaLeft(ground, new Narrow(ground.axis, radius), radius, () => 0);
}

/**
 * What a round cutter does not reach of a region: what its opening leaves of it (J. Serra, "Image Analysis and
 * Mathematical Morphology", 1982). Where the axis is nearer to the edge than the radius the cutter's centre does not
 * come; what lies between the axis and its feet there is left, less what discs cover that stand where the axis passes
 * the radius.
 * @param radius mm
 */
export function unreached(clearance: Clearance, radius: number, { inside = 0, foot = 0 }: Only = {}): Unreached {
  const ground = within(clearance, inside);
  const narrow = new Narrow(ground.axis, radius);
  // Where a disc touches the edge it covers nearly all of what lies next to it.
  const touched = (4 / 3) * foot * Math.sqrt(2 * radius * foot);
  const strip = (edge: number, ways: number) => Math.max(0, foot * edge - ways * touched);
  return {
    area: areaLeft(ground, narrow, radius, strip),
    corners: heightsAlone(ground.axis, narrow, radius),
    necks: heightsBetween(ground.axis, narrow, radius),
  };
}

/** Of a length of the region's edge, with so many ways into it, the area of what lies next to it: left out; mm². */
type Strip = (edge: number, ways: number) => number;

const areaLeft = (ground: Within, narrow: Narrow, radius: number, strip: Strip): number =>
  leftAlone(ground, narrow, radius, strip) + leftBetween(ground, narrow, radius, strip);

/** Of the pieces with one way out at most, mm²: most of it, since only the disc that stands there covers any. */
function leftAlone(
  { axis, spokes, beside, edge, round }: Within,
  { of, ways }: Narrow,
  radius: number,
  strip: Strip,
): number {
  const { d, a, b } = axis;
  const left = new Left(d.length);
  for (let i = 0; i < of.length; i++)
    if (of[i] !== WIDE && round[i] > 0) left.add(of[i], (d[i] * d[i] * round[i]) / 2, d[i] * round[i]);
  for (let e = 0; e < beside.length; e++) {
    const [p, q] = [of[a[e]], of[b[e]]];
    // Two narrow nodes that are neighbours lie in one piece.
    const piece = Math.max(p, q);
    if (piece === WIDE || ways[piece] > 1) continue;
    if (p === q) left.add(piece, beside[e], edge[e]);
    else {
      const end = spokes.beside(stumpOf(axis, e, radius));
      left.add(piece, end.area - (radius * radius * end.first) / 2, end.edge);
    }
  }
  let area = 0;
  for (let i = 0; i < d.length; i++) if (ways[i] <= 1) area += Math.max(0, left.area[i] - strip(left.edge[i], ways[i]));
  return area;
}

/** What is left of the pieces that join several wider places, mm². */
function leftBetween(ground: Within, narrow: Narrow, radius: number, strip: Strip): number {
  const { axis, spokes, beside, edge, round, near } = ground;
  const { x, y, d } = axis;
  let area = 0;
  for (const { edges, ends, nodes } of narrow.between) {
    const stumps = ends.map((e) => stumpOf(axis, e, radius));
    const discs = new Discs(stumps, radius);
    let [open, length] = [0, 0];
    for (const e of edges) {
      const way = wayOf(axis, e);
      const isNear = discs.areNear(way, Math.max(d[axis.a[e]], d[axis.b[e]]));
      open += isNear ? spokes.uncovered(way, discs, APART * radius) : beside[e];
      length += edge[e];
    }
    for (const stump of stumps) {
      open += spokes.uncovered(stump, discs, APART * radius);
      length += spokes.beside(stump).edge;
    }
    for (const i of nodes)
      if (round[i] > 0) {
        // As much of it as in the direction of one of the feet beside it, from the node on wider and wider.
        const { x: fx, y: fy } = spokes.foot(near[i], x[i], y[i]);
        open += ((d[i] * d[i] * round[i]) / 2) * discs.open(x[i], y[i], fx, fy, 0);
        length += d[i] * round[i];
      }
    area += Math.max(0, open - strip(length, ends.length));
  }
  return area;
}

/** What is left of each piece, by the node that stands for it: area, mm², and of the region's edge, mm. */
class Left {
  readonly area: Float64Array;
  readonly edge: Float64Array;
  constructor(pieces: number) {
    [this.area, this.edge] = [new Float64Array(pieces), new Float64Array(pieces)];
  }
  add(piece: number, area: number, edge: number): void {
    this.area[piece] += area;
    this.edge[piece] += edge;
  }
}

/** How much nearer the edge comes along an edge of an axis, a share of its length: 1 along a straight wall's normal. */
function fallOf({ x, y, d, a, b }: Axis, e: number): number {
  const length = hypot(x[a[e]] - x[b[e]], y[a[e]] - y[b[e]]);
  return length > 0 ? Math.min(1, Math.abs(d[a[e]] - d[b[e]]) / length) : 0;
}

/**
 * How far from the region's edge goes what is left of each piece with one way out at most, where any is left. Round a
 * place of the axis, clearance d, there is a ring at every distance up to d from the edge, and the farthest of it from
 * the disc's centre is as far as the place and what d is more.
 */
function heightsAlone(axis: Axis, { of, ways }: Narrow, radius: number): Float64Array {
  const { x, y, d, a, b } = axis;
  const [outX, outY] = [new Float64Array(d.length), new Float64Array(d.length)];
  const pieceAt = (e: number) => Math.max(of[a[e]], of[b[e]]);
  for (let e = 0; e < a.length; e++)
    if (of[a[e]] !== of[b[e]]) {
      const { x0, y0 } = stumpOf(axis, e, radius);
      [outX[pieceAt(e)], outY[pieceAt(e)]] = [x0, y0];
    }
  const heights = new Float64Array(d.length);
  const free = (i: number, piece: number) => hypot(x[i] - outX[piece], y[i] - outY[piece]) + d[i] - radius;
  for (let e = 0; e < a.length; e++) {
    const piece = pieceAt(e);
    if (piece === WIDE || ways[piece] > 1) continue;
    if (ways[piece] === 0) {
      // No disc stands by it.
      heights[piece] = Math.max(heights[piece], d[a[e]], d[b[e]]);
      continue;
    }
    // At the disc's own place nothing is free, and there is a ring at every distance up to the radius.
    const [d0, free0] = of[a[e]] === WIDE ? [radius, 0] : [d[a[e]], free(a[e], piece)];
    const [d1, free1] = of[b[e]] === WIDE ? [radius, 0] : [d[b[e]], free(b[e], piece)];
    heights[piece] = Math.max(heights[piece], leastOnWay(d0, free0, d1, free1));
  }
  return heights.filter((h) => h > 0);
}

/** The same of the pieces that join several wider places: a height for each way into them. */
function heightsBetween(axis: Axis, narrow: Narrow, radius: number): Float64Array {
  const heights: number[] = [];
  for (const { edges, ends } of narrow.between) {
    const stumps = ends.map((e) => stumpOf(axis, e, radius));
    const most = heightBetween(axis, { edges, ends }, stumps, radius);
    for (const e of ends) heights.push(Math.min(most, radius * (1 - fallOf(axis, e))));
  }
  return Float64Array.from(heights);
}

/** Of more ways out than this the nearest one is not looked for at every place. */
const FEW_WAYS = 8;

/** How far from the region's edge goes what discs at the ways out of a piece leave of it, at most. */
function heightBetween(
  { x, y, d, a, b }: Axis,
  { edges, ends }: Pick<Between, "edges" | "ends">,
  discs: readonly Way[],
  radius: number,
): number {
  if (discs.length > FEW_WAYS) return radius;
  const free = (i: number) => Math.min(...discs.map(({ x0, y0 }) => hypot(x[i] - x0, y[i] - y0))) + d[i] - radius;
  let most = 0;
  for (const e of edges) most = Math.max(most, leastOnWay(d[a[e]], free(a[e]), d[b[e]], free(b[e])));
  for (const e of ends) {
    const outer = d[a[e]] < radius ? a[e] : b[e];
    most = Math.max(most, leastOnWay(radius, 0, d[outer], free(outer)));
  }
  return most;
}

/** The greatest that the lesser of two numbers is along a way on which both change evenly. */
function leastOnWay(a0: number, b0: number, a1: number, b1: number): number {
  const ends = Math.max(Math.min(a0, b0), Math.min(a1, b1));
  const [from, to] = [a0 - b0, a1 - b1];
  if (from * to >= 0) return ends;
  const f = from / (from - to);
  return Math.max(ends, a0 + f * (a1 - a0));
}

/** A piece of an axis that joins several wider places. */
interface Between {
  nodes: number[];
  /** edges of it that lie there */
  edges: number[];
  /** those that lead out of it */
  ends: number[];
}

/** Of a node that lies in no narrow piece. */
const WIDE = -1;

/** What is connected of an axis where it is nearer to the boundary than a radius, piece by piece. */
class Narrow {
  /** the node that stands for the piece that each lies in, or {@link WIDE} */
  readonly of: Int32Array;
  /** edges that lead out of a piece, at the node that stands for it */
  readonly ways: Int32Array;
  /** the pieces with more than one way out */
  readonly between: Between[];

  constructor(axis: Axis, radius: number) {
    const { a, b, d } = axis;
    const groups = new Groups(d.length);
    for (let e = 0; e < a.length; e++) if (d[a[e]] < radius && d[b[e]] < radius) groups.join(a[e], b[e]);
    this.of = new Int32Array(d.length);
    for (let i = 0; i < d.length; i++) this.of[i] = d[i] < radius ? groups.find(i) : WIDE;
    this.ways = new Int32Array(d.length);
    for (let e = 0; e < a.length; e++) {
      const [p, q] = [this.of[a[e]], this.of[b[e]]];
      if (p !== q) this.ways[Math.max(p, q)]++;
    }
    this.between = this.piecesBetween(axis);
  }

  /** The pieces with more than one way out. */
  private piecesBetween({ a, b }: Axis): Between[] {
    const { of, ways } = this;
    const pieces = new Map<number, Between>();
    const pieceAt = (key: number): Between | null => {
      if (key === WIDE || ways[key] <= 1) return null;
      let piece = pieces.get(key);
      if (!piece) pieces.set(key, (piece = { nodes: [], edges: [], ends: [] }));
      return piece;
    };
    for (let i = 0; i < of.length; i++) pieceAt(of[i])?.nodes.push(i);
    for (let e = 0; e < a.length; e++) {
      const [p, q] = [of[a[e]], of[b[e]]];
      if (p === q) pieceAt(p)?.edges.push(e);
      else pieceAt(Math.max(p, q))?.ends.push(e);
    }
    return [...pieces.values()];
  }
}

/** The part of an edge that leads out of a narrow piece which lies in it, from its outer end. */
function stumpOf(axis: Axis, e: number, radius: number): Way {
  const { a, b, d } = axis;
  const { left, right, x0, y0, x1, y1 } = wayOf(axis, e);
  const f = (radius - d[a[e]]) / (d[b[e]] - d[a[e]]);
  const [x, y] = [x0 + f * (x1 - x0), y0 + f * (y1 - y0)];
  if (d[b[e]] < radius) return { left, right, x0: x, y0: y, x1, y1 };
  return { left: right, right: left, x0: x, y0: y, x1: x0, y1: y0 };
}

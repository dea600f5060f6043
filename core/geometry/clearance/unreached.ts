import { Groups } from "../groups.ts";
import type { Clearance } from "./clearance.ts";
import { feetOf } from "./feet.ts";
import type { Axis } from "./graph.ts";
import { Discs, Spokes, TURN, type Way } from "./spokes.ts";

/** Where discs may cover the same, ways from the axis to the boundary are looked along, so far apart, in radii. */
const APART = 0.1;

/**
 * The area of a region that a round cutter does not reach: what its opening leaves of the region (J. Serra, "Image
 * Analysis and Mathematical Morphology", 1982). Where the axis is nearer to the edge than the radius the cutter's
 * centre does not come; what lies between the axis and its feet there is left, less what discs cover that stand where
 * the axis passes the radius.
 * @param radius mm
 * @returns mm²
 */
export function unreachedArea(clearance: Clearance, radius: number): number {
  const { axis, boundary } = clearance;
  const { x, y, d } = axis;
  const { beside, round, near } = areasOf(clearance);
  const spokes = new Spokes(boundary);
  const narrow = new Narrow(axis, radius);
  // Most pieces have one way out at most, and only the disc that stands there covers any of them.
  const left = new Float64Array(d.length);
  const { of, ways } = narrow;
  for (let i = 0; i < of.length; i++) if (of[i] !== WIDE) left[of[i]] += round[i];
  for (let e = 0; e < beside.length; e++) {
    const [p, q] = [of[axis.a[e]], of[axis.b[e]]];
    // Two narrow nodes that are neighbours lie in one piece.
    const piece = Math.max(p, q);
    if (piece === WIDE || ways[piece] > 1) continue;
    if (p === q) left[piece] += beside[e];
    else {
      const end = spokes.beside(stumpOf(axis, e, radius));
      left[piece] += end.area - (radius * radius * end.first) / 2;
    }
  }
  let area = 0;
  for (let i = 0; i < left.length; i++) if (ways[i] <= 1) area += Math.max(0, left[i]);
  for (const { edges, ends, nodes } of narrow.between()) {
    const stumps = ends.map((e) => stumpOf(axis, e, radius));
    const discs = new Discs(stumps, radius);
    for (const e of edges) {
      const way = wayOf(axis, e);
      const isNear = discs.areNear(way, Math.max(d[axis.a[e]], d[axis.b[e]]));
      area += isNear ? spokes.uncovered(way, discs, APART * radius) : beside[e];
    }
    for (const stump of stumps) area += spokes.uncovered(stump, discs, APART * radius);
    for (const i of nodes)
      if (round[i] > 0) {
        // As much of it as in the direction of one of the feet beside it, from the node on wider and wider.
        const { x: fx, y: fy } = spokes.foot(near[i], x[i], y[i]);
        area += round[i] * discs.open(x[i], y[i], fx, fy, 0);
      }
  }
  return area;
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

  constructor(
    private readonly axis: Axis,
    radius: number,
  ) {
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
  }

  /** The pieces with more than one way out. */
  between(): Iterable<Between> {
    const { of, ways } = this;
    const { a, b } = this.axis;
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
    return pieces.values();
  }
}

const wayOf = ({ x, y, a, b, left, right }: Axis, e: number): Way => ({
  left: left[e],
  right: right[e],
  x0: x[a[e]],
  y0: y[a[e]],
  x1: x[b[e]],
  y1: y[b[e]],
});

/** The part of an edge that leads out of a narrow piece which lies in it, from its outer end. */
function stumpOf(axis: Axis, e: number, radius: number): Way {
  const { a, b, d } = axis;
  const { left, right, x0, y0, x1, y1 } = wayOf(axis, e);
  const f = (radius - d[a[e]]) / (d[b[e]] - d[a[e]]);
  const [x, y] = [x0 + f * (x1 - x0), y0 + f * (y1 - y0)];
  if (d[b[e]] < radius) return { left, right, x0: x, y0: y, x1, y1 };
  return { left: right, right: left, x0: x, y0: y, x1: x0, y1: y0 };
}

/** Areas between an axis and the boundary, mm². */
interface Areas {
  /** between each edge of the axis and its feet on both sides */
  beside: Float64Array;
  /** round each node where no edge of the axis leads: in round ends, and in blunt corners */
  round: Float64Array;
  /** an edge of the boundary that each node is beside */
  near: Int32Array;
}

const held = new WeakMap<Axis, Areas>();

function areasOf(c: Clearance): Areas {
  const { axis, boundary } = c;
  const known = held.get(axis);
  if (known) return known;
  const { d, a, b, left } = axis;
  const spokes = new Spokes(boundary);
  const feet = feetOf(c);
  const beside = new Float64Array(a.length);
  // What of a turn no edge of the axis leads through: those between its feet on the right and on the left do.
  const rest = new Float64Array(d.length).fill(TURN);
  const near = new Int32Array(d.length);
  for (let e = 0; e < a.length; e++) {
    const { area, first, last } = spokes.besideEdge(axis, e, feet);
    beside[e] = area;
    rest[a[e]] -= first;
    rest[b[e]] -= last;
    near[a[e]] = near[b[e]] = left[e];
  }
  const round = rest.map((angle, i) => (angle < TURN ? (d[i] * d[i] * Math.max(0, angle)) / 2 : 0));
  const areas = { beside, round, near };
  held.set(axis, areas);
  return areas;
}

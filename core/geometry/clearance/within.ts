import { GrowingF64, GrowingI32 } from "../../growing.ts";
import type { Clearance } from "./clearance.ts";
import { feetOf } from "./feet.ts";
import type { Axis } from "./graph.ts";
import { Spokes, TURN, type Way } from "./spokes.ts";

/** What lies so far inside a region or farther, and how much of it lies where along the axis. */
export interface Within {
  /** the part of the axis that lies there; d is the distance to that curve and not to the boundary, mm */
  axis: Axis;
  spokes: Spokes;
  /** between each edge of the axis and its feet on both sides, mm² */
  beside: Float64Array;
  /** from foot to foot on both sides of it, mm */
  edge: Float64Array;
  /** the angle round each node where no edge of the axis leads, in round ends and in blunt corners; radians */
  round: Float64Array;
  /** an edge of the boundary that each node is beside */
  near: Int32Array;
}

/** The same ones are asked for with cutter after cutter: up to the boundary, and up to the foot of the walls. */
const held = new WeakMap<Axis, Map<number, Within>>();
const MOST_HELD = 2;

/** What lies `inside` mm within a region or farther. */
export function within(c: Clearance, inside: number): Within {
  let all = held.get(c.axis);
  if (!all) held.set(c.axis, (all = new Map()));
  let found = all.get(inside);
  if (!found) {
    if (all.size === MOST_HELD) all.delete(all.keys().next().value!);
    all.set(inside, (found = withinOf(c, inside)));
  }
  return found;
}

function withinOf(c: Clearance, inside: number): Within {
  const { axis, of } = inside > 0 ? cutOff(c.axis, inside) : { axis: c.axis, of: null };
  const { d, a, b, left } = axis;
  const spokes = new Spokes(c.boundary, inside);
  const feet = feetOf(c);
  const [beside, edge] = [new Float64Array(a.length), new Float64Array(a.length)];
  // What of a turn no edge of the axis leads through: those between its feet on the right and on the left do.
  const round = new Float64Array(d.length).fill(TURN);
  const near = new Int32Array(d.length);
  for (let e = 0; e < a.length; e++) {
    const whole = of ? of[e] : e;
    const it = whole === CUT ? spokes.beside(wayOf(axis, e)) : spokes.besideEdge(axis, e, feet, whole);
    beside[e] = it.area;
    edge[e] = it.edge;
    round[a[e]] -= it.first;
    round[b[e]] -= it.last;
    near[a[e]] = near[b[e]] = left[e];
  }
  for (let i = 0; i < d.length; i++) round[i] = round[i] < TURN ? Math.max(0, round[i]) : 0;
  return { axis, spokes, beside, edge, round, near };
}

/** An edge of which a part was cut off. */
const CUT = -1;

/**
 * The part of an axis that lies farther inside than this, with an end wherever it is cut off.
 * @returns of each edge the one of the whole axis that it is, or {@link CUT}
 */
function cutOff({ x, y, d, a, b, left, right }: Axis, inside: number): { axis: Axis; of: Int32Array } {
  const [xs, ys, ds] = [new GrowingF64(x.length), new GrowingF64(x.length), new GrowingF64(x.length)];
  const [as, bs, of] = [new GrowingI32(a.length), new GrowingI32(a.length), new GrowingI32(a.length)];
  const [lefts, rights] = [new GrowingI32(a.length), new GrowingI32(a.length)];
  const add = (nx: number, ny: number, nd: number): number => {
    xs.push(nx);
    ys.push(ny);
    ds.push(nd);
    return xs.length - 1;
  };
  const node = new Int32Array(d.length);
  for (let i = 0; i < d.length; i++) if (d[i] > inside) node[i] = add(x[i], y[i], d[i] - inside);
  for (let e = 0; e < a.length; e++) {
    const [p, q] = [a[e], b[e]];
    const [isP, isQ] = [d[p] > inside, d[q] > inside];
    if (!isP && !isQ) continue;
    const end = () => {
      const f = (inside - d[p]) / (d[q] - d[p]);
      return add(x[p] + f * (x[q] - x[p]), y[p] + f * (y[q] - y[p]), 0);
    };
    as.push(isP ? node[p] : end());
    bs.push(isQ ? node[q] : end());
    lefts.push(left[e]);
    rights.push(right[e]);
    of.push(isP && isQ ? e : CUT);
  }
  const axis: Axis = {
    x: xs.take(),
    y: ys.take(),
    d: ds.take(),
    a: as.take(),
    b: bs.take(),
    left: lefts.take(),
    right: rights.take(),
  };
  return { axis, of: of.take() };
}

/** An edge of an axis as a way from its first node to its second. */
export const wayOf = ({ x, y, a, b, left, right }: Axis, e: number): Way => ({
  left: left[e],
  right: right[e],
  x0: x[a[e]],
  y0: y[a[e]],
  x1: x[b[e]],
  y1: y[b[e]],
});

import { GrowingF64, GrowingI32 } from "../../growing.ts";
import { type Boundary, newFoot } from "./boundary.ts";
import { isOnePoint, type Point, settleBetween } from "./equidistant.ts";
import { TriangleNodes } from "./nodes.ts";
import { Samples } from "./samples.ts";
import { FRAME } from "./triangulation.ts";

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
/** Shorter ways are not halved, mm. */
const SHORT = 0.02;
/**
 * How often the whole graph is drawn again because a point between two nodes was in doubt, and how often where a way
 * was left out that seemed to lead through a needle: a branch that ends in the open lets insets run on into the edge.
 */
const REDRAWS = 2;
const MOST_REDRAWS = 8;

/**
 * The medial axis inside some rings of a boundary that bound one connected piece. Every node is moved to exact
 * equidistance and checked against the boundary near it; where another piece turned out to be nearer, samples are added
 * there and the nodes around are found anew. Nodes that stay in doubt keep the true distance, so that nothing is ever
 * cut outside.
 */
export function axisOf(b: Boundary, rings: readonly number[]): Axis {
  const s = new Samples(b, rings);
  const nodes = new TriangleNodes(b, s);
  let drawn: Drawn | null = null;
  for (let redraw = 0; ; redraw++) {
    // Where every doubt has a sample already, looking again would find the same.
    const isNew = nodes.settle();
    if (drawn && !isNew) return drawn.axis;
    drawn = draw(b, s, nodes);
    if (nodes.doubts.length === 0 || redraw >= (drawn.isBroken ? MOST_REDRAWS : REDRAWS)) return drawn.axis;
  }
}

/** An axis, and whether ways between its nodes were left out. */
interface Drawn {
  axis: Axis;
  isBroken: boolean;
}

/** Joins the triangles' nodes across their edges. */
function draw(b: Boundary, s: Samples, nodes: TriangleNodes): Drawn {
  const { corner, twin, triangles, leaving } = s.tri;
  const x = new GrowingF64(triangles + 64);
  const y = new GrowingF64(triangles + 64);
  const d = new GrowingF64(triangles + 64);
  const node = new Int32Array(triangles).fill(-1);
  const p: Point = { x: 0, y: 0, d: 0 };
  const add = (px: number, py: number, pd: number): number => {
    x.push(px);
    y.push(py);
    d.push(pd);
    return x.length - 1;
  };
  for (let t = 0; t < triangles; t++) if (nodes.has[t]) node[t] = add(nodes.x[t], nodes.y[t], nodes.d[t]);

  const a = new GrowingI32(triangles + 64);
  const c = new GrowingI32(triangles + 64);
  const left = new GrowingI32(triangles + 64);
  const right = new GrowingI32(triangles + 64);
  let isBroken = false;
  const from = { x: 0, y: 0 };
  const to = { x: 0, y: 0 };
  const footLeft = newFoot();
  const footRight = newFoot();
  const split = (n0: number, n1: number, sl: number, sr: number, depth: number): void => {
    const dx = x.data[n1] - x.data[n0];
    const dy = y.data[n1] - y.data[n0];
    const len = Math.sqrt(dx * dx + dy * dy);
    from.x = x.data[n0];
    from.y = y.data[n0];
    to.x = x.data[n1];
    to.y = y.data[n1];
    const l = nodes.seen(from, sl, to);
    const r = nodes.seen(from, sr, to);
    const mx = (from.x + to.x) / 2;
    const my = (from.y + to.y) / 2;
    p.x = mx;
    p.y = my;
    const isLong = depth < MAX_HALVINGS && len > SHORT;
    let isNear = false;
    let off = 0;
    if (isLong) {
      const isSettled = settleBetween(b, p, l, r, len, NaN, footLeft, footRight);
      // One and the same point of the boundary on both sides, the tip of a needle: no axis.
      if (isOnePoint(footLeft, footRight)) return;
      off = Math.max(Math.sqrt((p.x - mx) ** 2 + (p.y - my) ** 2), Math.abs(p.d - (d.data[n0] + d.data[n1]) / 2));
      isNear = isSettled && off < 0.5 * len;
      if (!isNear) [p.x, p.y] = [mx, my];
    }
    // Both ends inside, the way between them through a needle of what is not: they are no neighbours.
    if ((isLong || depth === 0) && !nodes.bothInside(p, sl, sr)) {
      isBroken = true;
      return;
    }
    if (isNear && off > AXIS_TOLERANCE) {
      const deeper = nodes.doubt(p, sl, l, r) ? MAX_HALVINGS : depth + 1;
      const m = add(p.x, p.y, p.d);
      split(n0, m, sl, sr, deeper);
      split(m, n1, sl, sr, deeper);
      return;
    }
    a.push(n0);
    c.push(n1);
    left.push(l);
    right.push(r);
  };

  for (let e = 0; e < 3 * triangles; e++) {
    const o = twin[e];
    if (o < e) continue;
    const n0 = node[(e / 3) | 0];
    const n1 = node[(o / 3) | 0];
    if (n0 < 0 || n1 < 0) continue;
    const i = corner[e];
    const j = corner[e % 3 === 2 ? e - 2 : e + 1];
    if (s.next[i] === j || s.next[j] === i) continue;
    // Triangle e lies on the right of half-edge i→j, its partner on the left: walking across, i is on the left.
    split(n0, n1, i, j, 0);
  }

  // Into every convex corner: the triangle there has the vertex and its two neighbours.
  for (let v = FRAME; v < s.tri.count; v++) {
    if (s.t[v] !== 0) continue;
    const ve = s.edge[v];
    const pe = b.prev[ve];
    if (b.ux[pe] * b.uy[ve] - b.uy[pe] * b.ux[ve] <= 0) continue;
    const first = leaving[v];
    let h = first;
    do {
      const e1 = corner[h % 3 === 2 ? h - 2 : h + 1];
      const e2 = corner[h % 3 === 0 ? h + 2 : h - 1];
      const t = (h / 3) | 0;
      if (node[t] >= 0 && ((s.next[v] === e1 && s.prev[v] === e2) || (s.next[v] === e2 && s.prev[v] === e1))) {
        // Walking out to the corner, the boundary edge that leaves it lies on the left, the one that reaches it on the
        // right.
        split(node[t], add(b.x[ve], b.y[ve], 0), v, s.prev[v], 0);
        break;
      }
      h = twin[h % 3 === 0 ? h + 2 : h - 1];
    } while (h >= 0 && h !== first);
  }
  const ways = { a: a.take(), b: c.take(), left: left.take(), right: right.take() };
  return { axis: { x: x.take(), y: y.take(), d: d.take(), ...ways }, isBroken };
}

import { GrowingF64, GrowingI32 } from "../../growing.ts";
import { type Boundary, newFoot, onInside, walkToFoot } from "./boundary.ts";
import { type Point, settleAmong, settleBetween } from "./equidistant.ts";
import { Nearest } from "./nearest.ts";
import { Samples } from "./samples.ts";
import { FRAME } from "./triangulation.ts";
import { hypot } from "../../hypot.ts";

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
/** Nearer to the edge than this, which side of it a place is on is rounding, mm. */
const ON_EDGE = 1e-5;
/** How often samples are added where nodes were in doubt; each round looks only at what changed. */
const ROUNDS = 12;
/** How often the whole graph is drawn again because a point between two nodes was in doubt. */
const REDRAWS = 2;

/**
 * The medial axis inside some rings of a boundary that bound one connected piece. Every node is moved to exact
 * equidistance and checked against the boundary near it; where another piece turned out to be nearer, samples are added
 * there and the nodes around are found anew. Nodes that stay in doubt keep the true distance, so that nothing is ever
 * cut outside.
 */
export function axisOf(b: Boundary, rings: readonly number[]): Axis {
  const s = new Samples(b, rings);
  const nodes = new TriangleNodes(b, s);
  for (let redraw = 0; ; redraw++) {
    nodes.settle();
    const axis = draw(b, s, nodes, redraw < REDRAWS);
    if (axis) return axis;
  }
}

/** The axis's node in each triangle that has one. */
class TriangleNodes {
  x = new Float64Array(0);
  y = new Float64Array(0);
  d = new Float64Array(0);
  has = new Uint8Array(0);
  private near: Nearest;
  private foot = newFoot();
  private best = newFoot();
  private p: Point = { x: 0, y: 0, d: 0 };
  /** places on the boundary, edge and mm along it, that a node was nearer to than its own pieces */
  readonly doubts: number[] = [];
  private size: number;

  constructor(
    private b: Boundary,
    private s: Samples,
  ) {
    this.near = new Nearest(b, s);
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = FRAME; i < s.tri.count; i++) {
      x0 = Math.min(x0, s.tri.xy[2 * i]);
      x1 = Math.max(x1, s.tri.xy[2 * i]);
      y0 = Math.min(y0, s.tri.xy[2 * i + 1]);
      y1 = Math.max(y1, s.tri.xy[2 * i + 1]);
    }
    this.size = hypot(x1 - x0, y1 - y0);
  }

  /** Finds the nodes of all changed triangles, adding samples where one is in doubt until none is. */
  settle(): void {
    this.sampleDoubts();
    for (let round = 0; ; round++) {
      const dirty = this.s.takeDirty();
      const n = this.s.tri.triangles;
      if (this.has.length < n) this.grow(Math.max(n, Math.floor(1.3 * this.has.length)));
      for (const t of dirty) this.node(t);
      if (!this.sampleDoubts() || round === ROUNDS) return;
    }
  }

  /** Lowers p.d to the true distance where another piece is nearer; @returns whether it was */
  doubt(p: Point, start: number, l: number, r: number): boolean {
    this.near.find(start, p.x, p.y, this.best);
    if (this.best.d > p.d - DOUBT) return false;
    p.d = this.best.d;
    for (const e of [this.best.edge, l, r]) {
      walkToFoot(this.b, e, p.x, p.y, this.foot);
      this.doubts.push(this.foot.edge, this.foot.t);
    }
    return true;
  }

  private sampleDoubts(): boolean {
    let added = false;
    for (let k = 0; k < this.doubts.length; k += 2) if (this.s.add(this.doubts[k], this.doubts[k + 1])) added = true;
    this.doubts.length = 0;
    if (added) this.s.refine();
    return added;
  }

  private node(t: number): void {
    const { b, p, foot } = this;
    const { tri, edge } = this.s;
    this.has[t] = 0;
    const i = tri.corner[3 * t];
    const j = tri.corner[3 * t + 1];
    const k = tri.corner[3 * t + 2];
    if (i < FRAME || j < FRAME || k < FRAME) return;
    const radius = circumcentre(tri.xy, i, j, k, p);
    if (!(radius < this.size)) return;
    walkToFoot(b, edge[i], p.x, p.y, foot);
    if (!onInside(b, foot, p.x, p.y)) return;
    const cx = p.x;
    const cy = p.y;
    if (settleAmong(b, p, edge[i], edge[j], edge[k], Math.max(0.5 * radius, 0.02))) {
      if (!this.isInsideOf(p, i) || !this.isInsideOf(p, j) || !this.isInsideOf(p, k)) return;
      this.doubt(p, i, edge[j], edge[k]);
    } else {
      // Newton's way led astray: the circle's own centre serves, at its true distance, so that the graph stays whole.
      this.near.find(i, cx, cy, this.best);
      if (!onInside(b, this.best, cx, cy) || this.best.d < 0.5 * radius) return;
      p.x = cx;
      p.y = cy;
      p.d = this.best.d;
    }
    this.x[t] = p.x;
    this.y[t] = p.y;
    this.d[t] = p.d;
    this.has[t] = 1;
  }

  /**
   * Whether a place lies on the region's side of the boundary near a sample. Where two contours all but touch, a place
   * outside may be as far from the one as from the other and on the inside of one: a node is inside of all its samples.
   */
  private isInsideOf(p: Point, sample: number): boolean {
    const { edge, t } = this.s;
    // A needle's tip belongs to both its edges, and is seen through it from the one.
    return this.isInside(p, edge[sample]) || (t[sample] === 0 && this.isInside(p, this.b.prev[edge[sample]]));
  }

  private isInside(p: Point, edge: number): boolean {
    walkToFoot(this.b, edge, p.x, p.y, this.foot);
    return onInside(this.b, this.foot, p.x, p.y);
  }

  /** Whether a place between two nodes is inside of the samples beside it; where it is not, more are added there. */
  bothInside(p: Point, left: number, right: number): boolean {
    const { b, foot } = this;
    const isIn = (i: number) => this.isInsideOf(p, i) || foot.d < ON_EDGE;
    if (isIn(left) && isIn(right)) return true;
    for (const i of [left, right]) {
      walkToFoot(b, this.s.edge[i], p.x, p.y, foot);
      this.doubts.push(foot.edge, foot.t);
    }
    return false;
  }

  private grow(n: number): void {
    const more = (a: Float64Array) => {
      const next = new Float64Array(n);
      next.set(a);
      return next;
    };
    this.x = more(this.x);
    this.y = more(this.y);
    this.d = more(this.d);
    const has = new Uint8Array(n);
    has.set(this.has);
    this.has = has;
  }
}

/**
 * Joins the triangles' nodes across their edges.
 * @returns null where new doubts came up and `strict` asks to look again
 */
function draw(b: Boundary, s: Samples, nodes: TriangleNodes, strict: boolean): Axis | null {
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
  const split = (n0: number, n1: number, sl: number, sr: number, depth: number): void => {
    const l = s.edge[sl];
    const r = s.edge[sr];
    const dx = x.data[n1] - x.data[n0];
    const dy = y.data[n1] - y.data[n0];
    const len = Math.sqrt(dx * dx + dy * dy);
    if (depth < MAX_HALVINGS && len > 0.02) {
      const mx = (x.data[n0] + x.data[n1]) / 2;
      const my = (y.data[n0] + y.data[n1]) / 2;
      p.x = mx;
      p.y = my;
      const isSettled = settleBetween(b, p, l, r, len);
      const off = Math.max(Math.sqrt((p.x - mx) ** 2 + (p.y - my) ** 2), Math.abs(p.d - (d.data[n0] + d.data[n1]) / 2));
      const isNear = isSettled && off < 0.5 * len;
      if (!isNear) [p.x, p.y] = [mx, my];
      // Both ends inside, the way between them through a needle of what is not: they are no neighbours.
      if (!nodes.bothInside(p, sl, sr)) return;
      if (isNear && off > AXIS_TOLERANCE) {
        const deeper = nodes.doubt(p, sl, l, r) ? MAX_HALVINGS : depth + 1;
        const m = add(p.x, p.y, p.d);
        split(n0, m, sl, sr, deeper);
        split(m, n1, sl, sr, deeper);
        return;
      }
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
  if (strict && nodes.doubts.length > 0) return null;
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
  return Math.sqrt(ox * ox + oy * oy);
}

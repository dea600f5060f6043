import { hypot } from "../../hypot.ts";
import { type Boundary, newFoot, onInside, walkToFoot } from "./boundary.ts";
import { type Point, settleAmong } from "./equidistant.ts";
import { Nearest } from "./nearest.ts";
import type { Samples } from "./samples.ts";
import { FRAME } from "./triangulation.ts";

/** A node nearer to another piece than to its own by more than this is not on the axis, mm. */
const DOUBT = 2e-4;
/** Nearer to the edge than this, which side of it a place is on is rounding, mm. */
const ON_EDGE = 1e-5;
/** How often samples are added where nodes were in doubt; each round looks only at what changed. */
const ROUNDS = 12;

export interface Place {
  x: number;
  y: number;
}

/** The axis's node in each triangle that has one. */
export class TriangleNodes {
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

  /**
   * Finds the nodes of all changed triangles, adding samples where one is in doubt until none is.
   * @returns whether the doubts that there were before added any
   */
  settle(): boolean {
    const isNew = this.sampleDoubts();
    for (let round = 0; ; round++) {
      const dirty = this.s.takeDirty();
      const n = this.s.tri.triangles;
      if (this.has.length < n) this.grow(Math.max(n, Math.floor(1.3 * this.has.length)));
      for (const t of dirty) this.node(t);
      if (!this.sampleDoubts() || round === ROUNDS) return isNew;
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
    const { b, p } = this;
    const { tri } = this.s;
    this.has[t] = 0;
    const i = tri.corner[3 * t];
    const j = tri.corner[3 * t + 1];
    const k = tri.corner[3 * t + 2];
    if (i < FRAME || j < FRAME || k < FRAME) return;
    const radius = circumcentre(tri.xy, i, j, k, p);
    if (!(radius < this.size)) return;
    const [ei, ej, ek] = [this.seen(p, i), this.seen(p, j), this.seen(p, k)];
    if (!this.isInside(p, ei)) return;
    const cx = p.x;
    const cy = p.y;
    if (settleAmong(b, p, ei, ej, ek, Math.max(0.5 * radius, 0.02))) {
      if (!this.isInsideOf(p, i) || !this.isInsideOf(p, j) || !this.isInsideOf(p, k)) return;
      this.doubt(p, i, ej, ek);
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
    return this.isInside(p, this.seen(p, sample));
  }

  /**
   * The edge of a sample that is seen from a place, and from another one. A needle's tip belongs to two, and through it
   * one sees the wrong one.
   */
  seen(p: Place, sample: number, q: Place = p): number {
    const { edge, t } = this.s;
    const own = edge[sample];
    if (t[sample] !== 0) return own;
    const isInside = (e: number) => this.isInside(p, e) && (p === q || this.isInside(q, e));
    if (isInside(own)) return own;
    const before = this.b.prev[own];
    return isInside(before) ? before : own;
  }

  private isInside(p: Place, edge: number): boolean {
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

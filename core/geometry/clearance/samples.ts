import { GrowingF64, GrowingI32 } from "../../growing.ts";
import type { Boundary } from "./boundary.ts";
import { FRAME, Triangulation } from "./triangulation.ts";

/** Longest spacing before anything is known, mm. */
const COARSE = 3;
/** Spacing against the circle that touches the boundary there: finer, and Voronoi nodes wander less. */
const BETA = 0.5;
/** No finer than this, mm; exact equidistance is reached by Newton steps, not by sampling. */
const FINEST = 0.01;
/** No finer than this along needles, whose other side keeps pieces out of the triangulation, mm. */
const NEEDLE = 0.001;
/** Corners get a branch of their own where leaving it out would lose more than this, mm. */
const CORNER_LOSS = 0.004;
/** Neighbouring spacings differ by no more than this factor. */
const GRADE = 2.5;

/**
 * Points along some rings of a boundary with their triangulation, dense enough that it holds every piece between
 * neighbours and that its circles on the region's side are at least as wide as the spacing: then the Voronoi edges
 * between samples that are not neighbours follow the medial axis (N. Amenta, S. Choi, R. Kolluri, "The power crust"
 * 2001, for the sampling condition). Pieces are halved one at a time, so that each costs only its own surroundings.
 *
 * Sample i lies on boundary edge `edge[i]` at `t[i]` mm from its start; the frame's points have edge −1.
 */
export class Samples {
  readonly tri: Triangulation;
  edge: Int32Array;
  t: Float64Array;
  next: Int32Array;
  prev: Int32Array;
  /** triangles changed since the last {@link takeDirty}, each once */
  private dirty: number[] = [];
  private isDirty: Uint8Array;
  private queue: number[] = [];
  private queued: Uint8Array;
  /** the sample at the start of each boundary edge */
  private vertexSample = new Map<number, number>();

  constructor(
    readonly b: Boundary,
    rings: readonly number[],
  ) {
    const edge = new GrowingI32(1024);
    const t = new GrowingF64(1024);
    for (let i = 0; i < FRAME; i++) {
      edge.push(-1);
      t.push(0);
    }
    const firsts: number[] = [];
    for (const k of rings) {
      firsts.push(edge.length);
      for (let e = b.starts[k]; e < b.starts[k + 1]; e++) initialMarks(b, e, edge, t);
    }
    firsts.push(edge.length);
    this.edge = edge.take();
    this.t = t.take();
    const n = this.edge.length;
    this.next = new Int32Array(n).fill(-1);
    this.prev = new Int32Array(n).fill(-1);
    const points = new Float64Array(2 * (n - FRAME));
    for (let r = 0; r + 1 < firsts.length; r++)
      for (let i = firsts[r]; i < firsts[r + 1]; i++) {
        const e = this.edge[i];
        points[2 * (i - FRAME)] = b.x[e] + this.t[i] * b.ux[e];
        points[2 * (i - FRAME) + 1] = b.y[e] + this.t[i] * b.uy[e];
        this.next[i] = i + 1 < firsts[r + 1] ? i + 1 : firsts[r];
        this.prev[this.next[i]] = i;
        if (this.t[i] === 0) this.vertexSample.set(e, i);
      }
    this.tri = new Triangulation(points);
    this.queued = new Uint8Array(n);
    this.isDirty = new Uint8Array(this.tri.triangles);
    for (let i = 0; i < this.tri.triangles; i++) this.mark(i);
    for (let i = n - 1; i >= FRAME; i--) this.want(i);
    this.refine();
  }

  /** Triangles that are new or changed since the last call. */
  takeDirty(): number[] {
    const d = this.dirty;
    for (const t of d) this.isDirty[t] = 0;
    this.dirty = [];
    return d;
  }

  /** Adds a sample on boundary edge `e` at `t` mm along it. @returns false where one is there already */
  add(e: number, t: number): boolean {
    let i = this.vertexSample.get(e);
    if (i === undefined) return false;
    for (let n = this.next[i]; this.edge[n] === e && this.t[n] > 0 && this.t[n] <= t; n = this.next[i]) i = n;
    const end = this.edge[this.next[i]] === e && this.t[this.next[i]] > 0 ? this.t[this.next[i]] : this.b.len[e];
    if (t - this.t[i] <= FINEST / 4 || end - t <= FINEST / 4) return false;
    this.insert(i, t);
    return true;
  }

  /** Halves pieces until every one holds the condition. */
  refine(): void {
    const { queue } = this;
    while (queue.length > 0) {
      const i = queue.pop()!;
      this.queued[i] = 0;
      const len = this.pieceLength(i);
      const isMissing = this.tri.edge(this.next[i], i) < 0;
      if (len > 2 * (isMissing ? NEEDLE : FINEST) && (isMissing || this.tooLong(i, len)))
        this.insert(i, this.t[i] + len / 2);
    }
  }

  private tooLong(i: number, len: number): boolean {
    const { tri, next, prev } = this;
    const j = next[i];
    // A half-edge has its triangle on the right; the region lies on the left of i → j, so on the right of j → i.
    const e = tri.edge(j, i);
    const apex = tri.corner[e % 3 === 0 ? e + 2 : e - 1];
    if (apex >= FRAME && apex !== next[j] && apex !== prev[i]) {
      const r = circumradius(tri.xy, i, j, apex);
      if (len > BETA * r) return true;
      // The branch into a corner begins where the corner and its two neighbours are one triangle: what a missing one
      // would lose.
      const blunt = Math.max(
        this.t[i] === 0 ? this.bluntness(this.edge[i]) : 0,
        this.t[j] === 0 ? this.bluntness(this.edge[j]) : 0,
      );
      if (blunt * r > CORNER_LOSS) return true;
    }
    return len > 4 * FINEST && len > GRADE * Math.min(this.pieceLength(prev[i]), this.pieceLength(j));
  }

  /**
   * How much farther than its clearance a disc under the corner at vertex v would have to reach, as a share; 0 where it
   * is reflex.
   */
  private bluntness(v: number): number {
    const { ux, uy, prev } = this.b;
    const p = prev[v];
    if (ux[p] * uy[v] - uy[p] * ux[v] <= 0) return 0;
    // cos of half the turn, from the cosine of the turn.
    const half = Math.sqrt(Math.max(1e-12, (1 + ux[p] * ux[v] + uy[p] * uy[v]) / 2));
    return 1 / half - 1;
  }

  private pieceLength(i: number): number {
    const j = this.next[i];
    return (this.edge[j] === this.edge[i] && this.t[j] > 0 ? this.t[j] : this.b.len[this.edge[i]]) - this.t[i];
  }

  private insert(i: number, t: number): void {
    const { b, tri } = this;
    const e = this.edge[i];
    const v = tri.insert(b.x[e] + t * b.ux[e], b.y[e] + t * b.uy[e], i);
    if (v >= this.edge.length) this.makeRoom(v);
    const j = this.next[i];
    this.edge[v] = e;
    this.t[v] = t;
    this.next[i] = this.prev[j] = v;
    this.prev[v] = i;
    this.next[v] = j;
    this.want(j);
    this.want(this.prev[i]);
    this.want(v);
    this.want(i);
    // Every triangle that changed has v for a corner; the pieces across from it see a new circle.
    const first = tri.leaving[v];
    let h = first;
    do {
      this.mark((h / 3) | 0);
      const hn = h % 3 === 2 ? h - 2 : h + 1;
      const hp = h % 3 === 0 ? h + 2 : h - 1;
      const p = tri.corner[hn];
      const q = tri.corner[hp];
      if (this.next[p] === q) this.want(p);
      else if (this.next[q] === p) this.want(q);
      // And a piece that it has cut in two, whose ends both are its neighbours now.
      if (p >= FRAME && tri.edge(this.next[p], p) < 0) this.want(p);
      if (p >= FRAME && tri.edge(p, this.prev[p]) < 0) this.want(this.prev[p]);
      h = tri.twin[hp];
    } while (h >= 0 && h !== first);
  }

  private want(i: number): void {
    if (i < FRAME || this.queued[i]) return;
    this.queued[i] = 1;
    this.queue.push(i);
  }

  private mark(t: number): void {
    if (t >= this.isDirty.length) this.isDirty = grown(this.isDirty, 2 * t);
    if (this.isDirty[t]) return;
    this.isDirty[t] = 1;
    this.dirty.push(t);
  }

  private makeRoom(v: number): void {
    this.edge = grown(this.edge, 2 * v);
    this.t = grown(this.t, 2 * v);
    this.next = grown(this.next, 2 * v);
    this.prev = grown(this.prev, 2 * v);
    this.queued = grown(this.queued, 2 * v);
  }
}

function grown<T extends Uint8Array | Int32Array | Float64Array>(a: T, n: number): T {
  const out = new (a.constructor as new (n: number) => T)(n);
  out.set(a);
  return out;
}

/**
 * First samples of boundary edge e: its start, evenly no farther apart than COARSE, and closer towards sharp corners.
 */
function initialMarks(b: Boundary, e: number, edge: GrowingI32, t: GrowingF64): void {
  const len = b.len[e];
  const pieces = Math.ceil(len / COARSE);
  const start = sharpness(b, e);
  const end = sharpness(b, b.next[e]);
  const marks = [0];
  for (let k = 1; k < pieces; k++) marks.push((k * len) / pieces);
  if (start > 0 || end > 0) {
    grade(marks, len, start, false);
    grade(marks, len, end, true);
    marks.sort((p, q) => p - q);
  }
  let last = -Infinity;
  for (const m of marks) {
    if (m - last < FINEST / 2 || (m > 0 && len - m < FINEST / 2)) continue;
    edge.push(e);
    t.push(m);
    last = m;
  }
}

/** tan of half the inside angle at vertex i, or 0 where it needs no grading (blunt or reflex). */
function sharpness(b: Boundary, i: number): number {
  const p = b.prev[i];
  const cross = b.ux[p] * b.uy[i] - b.uy[p] * b.ux[i];
  if (cross <= 0) return 0;
  const inside = Math.PI - Math.atan2(cross, b.ux[p] * b.ux[i] + b.uy[p] * b.uy[i]);
  return inside < 1.4 ? Math.tan(inside / 2) : 0;
}

/** Marks that widen geometrically away from a sharp corner, the same on both its edges. */
function grade(marks: number[], len: number, tanHalf: number, fromEnd: boolean): void {
  if (tanHalf === 0) return;
  const growth = 1 + Math.min(1, BETA * tanHalf);
  for (let d = 2 * FINEST; d < 0.45 * len; d *= growth) marks.push(fromEnd ? len - d : d);
}

function circumradius(xy: Float64Array, i: number, j: number, k: number): number {
  const dx = xy[2 * j] - xy[2 * i];
  const dy = xy[2 * j + 1] - xy[2 * i + 1];
  const ex = xy[2 * k] - xy[2 * i];
  const ey = xy[2 * k + 1] - xy[2 * i + 1];
  const area2 = Math.abs(dx * ey - dy * ex);
  if (area2 < 1e-18) return Infinity;
  const fx = ex - dx;
  const fy = ey - dy;
  return Math.sqrt((dx * dx + dy * dy) * (ex * ex + ey * ey) * (fx * fx + fy * fy)) / (2 * area2);
}

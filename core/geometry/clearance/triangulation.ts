import Delaunator from "delaunator";
import { incircle, orient2d } from "robust-predicates";

/** Corners of the frame around all points: the first so many points of every triangulation. */
export const FRAME = 4;
/** The frame stands this many times the points' own extent away. */
const FRAME_REACH = 8;
const NONE = -1;

/**
 * A Delaunay triangulation that takes further points one at a time. Built in one go by `delaunator`; points are then
 * added by splitting the triangle they fall in and flipping edges until every circle is empty again (C. Lawson,
 * "Software for C¹ surface interpolation", 1977). A frame of {@link FRAME} far points keeps every later one inside the
 * hull.
 *
 * Half-edge e runs from `corner[e]` to the next corner of its triangle (3t, 3t+1, 3t+2); `twin[e]` is the same edge
 * seen from the other side. Triangles turn the way `delaunator` turns them: clockwise where y points up.
 */
export class Triangulation {
  /** x, y by turns, the frame first */
  xy: Float64Array;
  count: number;
  corner: Int32Array;
  twin: Int32Array;
  triangles: number;
  /** a half-edge that leaves each point */
  leaving: Int32Array;
  private stack: number[] = [];

  /** @param points x, y by turns; point i becomes number i + {@link FRAME} */
  constructor(points: Float64Array) {
    const n = points.length / 2 + FRAME;
    const room = 2 * n + 64;
    this.xy = new Float64Array(2 * room);
    this.xy.set(points, 2 * FRAME);
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < points.length; i += 2) {
      x0 = Math.min(x0, points[i]);
      x1 = Math.max(x1, points[i]);
      y0 = Math.min(y0, points[i + 1]);
      y1 = Math.max(y1, points[i + 1]);
    }
    const far = FRAME_REACH * Math.max(x1 - x0, y1 - y0, 1e-3);
    this.xy.set([x0 - far, y0 - far, x1 + far, y0 - far, x1 + far, y1 + far, x0 - far, y1 + far]);
    this.count = n;
    const d = new Delaunator(this.xy.subarray(0, 2 * n));
    this.corner = new Int32Array(6 * room);
    this.twin = new Int32Array(6 * room);
    this.corner.set(d.triangles);
    this.twin.set(d.halfedges);
    this.triangles = d.triangles.length / 3;
    this.leaving = new Int32Array(room).fill(NONE);
    for (let e = 0; e < d.triangles.length; e++) this.leaving[d.triangles[e]] = e;
  }

  /** Adds a point near point `near`. @returns its number */
  insert(x: number, y: number, near: number): number {
    this.makeRoom();
    const v = this.count++;
    this.xy[2 * v] = x;
    this.xy[2 * v + 1] = y;
    const t = this.locate(x, y, near);
    const { corner, twin, leaving } = this;
    const e = 3 * t;
    const [a, b, c] = [corner[e], corner[e + 1], corner[e + 2]];
    const [ha, hb, hc] = [twin[e], twin[e + 1], twin[e + 2]];
    const f = 3 * this.triangles++;
    const g = 3 * this.triangles++;
    this.put(e, a, b, v);
    this.put(f, b, c, v);
    this.put(g, c, a, v);
    this.link(e, ha);
    this.link(f, hb);
    this.link(g, hc);
    this.link(e + 1, f + 2);
    this.link(f + 1, g + 2);
    this.link(g + 1, e + 2);
    leaving[a] = e;
    leaving[b] = f;
    leaving[c] = g;
    leaving[v] = e + 2;
    this.stack.push(e, f, g);
    this.legalize();
    return v;
  }

  private makeRoom(): void {
    const n = this.leaving.length;
    if (this.count + 1 < n) return;
    const grow = <T extends Float64Array | Int32Array>(a: T): T => {
      const next = new (a.constructor as new (n: number) => T)(2 * a.length);
      next.set(a);
      return next;
    };
    this.xy = grow(this.xy);
    this.corner = grow(this.corner);
    this.twin = grow(this.twin);
    this.leaving = grow(this.leaving).fill(NONE, n);
  }

  private put(e: number, a: number, b: number, c: number): void {
    this.corner[e] = a;
    this.corner[e + 1] = b;
    this.corner[e + 2] = c;
  }

  private link(e: number, o: number): void {
    this.twin[e] = o;
    if (o !== NONE) this.twin[o] = e;
  }

  /** The triangle around (x, y): walks across edges that have it on their other side. */
  private locate(x: number, y: number, near: number): number {
    const { xy, corner, twin } = this;
    let t = (this.leaving[near] / 3) | 0;
    for (let step = 0; step < 4 * this.triangles; step++) {
      let crossed = false;
      for (let k = 0; k < 3; k++) {
        const e = 3 * t + k;
        const a = corner[e];
        const b = corner[k === 2 ? e - 2 : e + 1];
        // Triangles turn clockwise where y points up, which this predicate calls positive.
        if (orient2d(xy[2 * a], xy[2 * a + 1], xy[2 * b], xy[2 * b + 1], x, y) < 0 && twin[e] !== NONE) {
          t = (twin[e] / 3) | 0;
          crossed = true;
          break;
        }
      }
      if (!crossed) return t;
    }
    return t;
  }

  private legalize(): void {
    const { xy, corner, twin, leaving, stack } = this;
    while (stack.length > 0) {
      const e = stack.pop()!;
      const o = twin[e];
      if (o === NONE) continue;
      const en = e % 3 === 2 ? e - 2 : e + 1;
      const ep = e % 3 === 0 ? e + 2 : e - 1;
      const on = o % 3 === 2 ? o - 2 : o + 1;
      const op = o % 3 === 0 ? o + 2 : o - 1;
      const a = corner[e];
      const b = corner[en];
      const v = corner[ep];
      const d = corner[op];
      // Negative: d lies inside the circle of a clockwise triangle.
      if (
        incircle(
          xy[2 * a],
          xy[2 * a + 1],
          xy[2 * b],
          xy[2 * b + 1],
          xy[2 * v],
          xy[2 * v + 1],
          xy[2 * d],
          xy[2 * d + 1],
        ) >= 0
      )
        continue;
      // The edge a–b becomes d–v: triangles a d v and d b v.
      const outerD = twin[on];
      const outerB = twin[op];
      const outerV = twin[en];
      corner[en] = d;
      corner[o] = d;
      corner[on] = b;
      corner[op] = v;
      this.link(e, outerD);
      this.link(o, outerB);
      this.link(on, outerV);
      this.link(en, op);
      leaving[a] = e;
      leaving[d] = o;
      leaving[b] = on;
      leaving[v] = ep;
      stack.push(e, o);
    }
  }

  /** The half-edge from point i to point j, or −1 where there is none. */
  edge(i: number, j: number): number {
    const { corner, twin } = this;
    const first = this.leaving[i];
    let e = first;
    do {
      if (corner[e % 3 === 2 ? e - 2 : e + 1] === j) return e;
      e = twin[e % 3 === 0 ? e + 2 : e - 1];
    } while (e !== NONE && e !== first);
    return NONE;
  }
}

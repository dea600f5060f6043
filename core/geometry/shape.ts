import { GrowingF64, GrowingI32 } from "../growing.ts";
import { boundsOf, type Box, type Rings } from "./rings.ts";
import { hypot } from "../hypot.ts";

/** Segment kinds of a {@link Shape}. */
export const LINE = 0;
export const ARC = 1;
export const CUBIC = 2;
/**
 * Numbers a segment: two control points and the end. A line uses the end only; an arc its centre and its turn (+1 ccw,
 * −1 cw).
 */
export const STRIDE = 6;

/**
 * Closed curves of lines, circular arcs and cubic Béziers in mm. Contour k is the segments starts[k] …
 * starts[k+1]−1; it begins at origin[k] and ends there. Outer contours run counter-clockwise, holes clockwise.
 */
export interface Shape {
  kinds: Uint8Array;
  /** STRIDE numbers a segment: c1x c1y c2x c2y x y; for an arc: centreX centreY turn 0 x y */
  nodes: Float64Array;
  origin: Float64Array;
  starts: Int32Array;
  parent: Int32Array;
}

export const contourCount = (s: Shape): number => s.starts.length - 1;

/** Collects segments of a shape one after another. */
export class ShapeBuilder {
  private kinds: GrowingI32;
  private nodes: GrowingF64;
  private origin = new GrowingF64(4);
  private starts = new GrowingI32(4);
  private parent = new GrowingI32(4);

  /** @param segments how many are expected */
  constructor(segments = 256) {
    this.kinds = new GrowingI32(Math.max(1, segments));
    this.nodes = new GrowingF64(Math.max(1, STRIDE * segments));
  }
  begin(x: number, y: number, parent: number): void {
    this.origin.push2(x, y);
    this.starts.push(this.kinds.length);
    this.parent.push(parent);
  }
  line(x: number, y: number): void {
    this.add(LINE, 0, 0, 0, 0, x, y);
  }
  arc(cx: number, cy: number, turn: number, x: number, y: number): void {
    this.add(ARC, cx, cy, turn, 0, x, y);
  }
  cubic(ax: number, ay: number, bx: number, by: number, x: number, y: number): void {
    this.add(CUBIC, ax, ay, bx, by, x, y);
  }
  private add(kind: number, a: number, b: number, c: number, d: number, x: number, y: number): void {
    this.kinds.push(kind);
    this.nodes.push2(a, b);
    this.nodes.push2(c, d);
    this.nodes.push2(x, y);
  }
  take(): Shape {
    this.starts.push(this.kinds.length);
    return {
      kinds: Uint8Array.from(this.kinds.take()),
      nodes: this.nodes.take(),
      origin: this.origin.take(),
      starts: this.starts.take(),
      parent: this.parent.take(),
    };
  }
}

/** Calls `visit(kind, x0, y0, offset)` for each segment of contour k, `offset` into `nodes`. */
export function eachSegment(
  s: Shape,
  k: number,
  visit: (kind: number, x0: number, y0: number, at: number) => void,
): void {
  let x = s.origin[2 * k];
  let y = s.origin[2 * k + 1];
  for (let i = s.starts[k]; i < s.starts[k + 1]; i++) {
    const at = i * STRIDE;
    visit(s.kinds[i], x, y, at);
    x = s.nodes[at + 4];
    y = s.nodes[at + 5];
  }
}

/** Angle swept by an arc from (x0,y0) round (cx,cy) to (x1,y1), signed by turn; a closed circle sweeps 2π. */
export function arcSweep(x0: number, y0: number, cx: number, cy: number, turn: number, x1: number, y1: number): number {
  let sweep = Math.atan2(y1 - cy, x1 - cx) - Math.atan2(y0 - cy, x0 - cx);
  if (turn > 0) while (sweep <= 1e-12) sweep += 2 * Math.PI;
  else while (sweep >= -1e-12) sweep -= 2 * Math.PI;
  return sweep;
}

/** Steps that keep the chords of an arc within `tolerance` of it: sagitta r(1 − cos(φ/2)). */
export function arcSteps(radius: number, sweep: number, tolerance: number): number {
  const step = 2 * Math.acos(Math.max(0, 1 - tolerance / Math.max(radius, tolerance)));
  return Math.max(1, Math.ceil(Math.abs(sweep) / Math.max(step, 1e-3)));
}

/** Steps that keep the chords of a cubic within `tolerance`: Wang's bound on the second difference (G. Wang 1984). */
export function cubicSteps(
  x0: number,
  y0: number,
  ax: number,
  ay: number,
  bx: number,
  by: number,
  x1: number,
  y1: number,
  tolerance: number,
): number {
  const d = Math.max(hypot(x0 - 2 * ax + bx, y0 - 2 * ay + by), hypot(ax - 2 * bx + x1, ay - 2 * by + y1));
  return Math.max(1, Math.ceil(Math.sqrt((0.75 * d) / tolerance)));
}

/** Pushes the points of one segment after its start, chords within `tolerance` mm. */
export function flattenSegment(
  kind: number,
  x0: number,
  y0: number,
  n: Float64Array,
  at: number,
  tolerance: number,
  out: GrowingF64,
): void {
  const x1 = n[at + 4];
  const y1 = n[at + 5];
  if (kind === ARC) {
    const cx = n[at];
    const cy = n[at + 1];
    const sweep = arcSweep(x0, y0, cx, cy, n[at + 2], x1, y1);
    const radius = hypot(x0 - cx, y0 - cy);
    const steps = arcSteps(radius, sweep, tolerance);
    const a0 = Math.atan2(y0 - cy, x0 - cx);
    for (let i = 1; i < steps; i++) {
      const a = a0 + (sweep * i) / steps;
      out.push2(cx + radius * Math.cos(a), cy + radius * Math.sin(a));
    }
  } else if (kind === CUBIC) {
    const ax = n[at];
    const ay = n[at + 1];
    const bx = n[at + 2];
    const by = n[at + 3];
    const steps = cubicSteps(x0, y0, ax, ay, bx, by, x1, y1, tolerance);
    for (let i = 1; i < steps; i++) {
      const t = i / steps;
      const u = 1 - t;
      const c0 = u * u * u;
      const c1 = 3 * u * u * t;
      const c2 = 3 * u * t * t;
      const c3 = t * t * t;
      out.push2(c0 * x0 + c1 * ax + c2 * bx + c3 * x1, c0 * y0 + c1 * ay + c2 * by + c3 * y1);
    }
  }
  out.push2(x1, y1);
}

/**
 * Polygons whose chords stay within `tolerance` mm of the curves. Contours that vanish keep their index with no points.
 */
export function flatten(s: Shape, tolerance: number): Rings {
  const out = new GrowingF64(4 * s.kinds.length + 16);
  const n = contourCount(s);
  const starts = new Int32Array(n + 1);
  for (let k = 0; k < n; k++) {
    eachSegment(s, k, (kind, x0, y0, at) => flattenSegment(kind, x0, y0, s.nodes, at, tolerance, out));
    starts[k + 1] = out.length / 2;
  }
  return { xy: out.take(), starts, parent: s.parent };
}

/** Chords of curves that cuts read stay this close, mm. */
export const FLATTEN = 0.002;
/**
 * What cuts read lies on a grid of a hundred-thousandth of a millimetre, so that files written with as many digits say
 * the same.
 */
export const GRID = 1e-5;

/**
 * Contour k as cuts read it: flattened within {@link FLATTEN}, on the {@link GRID}, without points that repeat the one
 * before. A closed one begins after its origin and ends there; an open one begins at its origin.
 * @param xy receives the points, x, y by turns
 * @param segment receives for each point the segment of the contour that it lies on, where wanted
 */
export function readContour(s: Shape, k: number, closed: boolean, xy: GrowingF64, segment?: GrowingI32): void {
  const from = xy.length;
  const put = (x: number, y: number, of: number): void => {
    const [gx, gy] = [Math.round(x / GRID) * GRID, Math.round(y / GRID) * GRID];
    const n = xy.length;
    if (n > from && xy.data[n - 2] === gx && xy.data[n - 1] === gy) return;
    xy.push2(gx, gy);
    segment?.push(of);
  };
  if (!closed) put(s.origin[2 * k], s.origin[2 * k + 1], 0);
  const flat = new GrowingF64(64);
  let of = 0;
  eachSegment(s, k, (kind, x0, y0, at) => {
    flat.length = 0;
    flattenSegment(kind, x0, y0, s.nodes, at, FLATTEN, flat);
    for (let i = 0; i < flat.length; i += 2) put(flat.data[i], flat.data[i + 1], of);
    of++;
  });
  if (!closed) return;
  while (
    xy.length > from + 2 &&
    xy.data[xy.length - 2] === xy.data[from] &&
    xy.data[xy.length - 1] === xy.data[from + 1]
  ) {
    xy.length -= 2;
    if (segment) segment.length--;
  }
}

/**
 * A shape of closed contours as cuts read it: see {@link readContour}. Ones that are less than a triangle keep their
 * index with no points.
 */
export function asRead(s: Shape): Rings {
  const xy = new GrowingF64(4 * s.kinds.length + 16);
  const n = contourCount(s);
  const starts = new Int32Array(n + 1);
  for (let k = 0; k < n; k++) {
    const from = xy.length;
    readContour(s, k, true, xy);
    if (xy.length < from + 6) xy.length = from;
    starts[k + 1] = xy.length / 2;
  }
  return { xy: xy.take(), starts, parent: s.parent };
}

/** Bounds of the shape in mm, exact to 0.01 mm. */
export function shapeBounds(s: Shape): Box {
  return boundsOf(flatten(s, 0.01).xy);
}

/** A closed polygon for each ring, as a shape of lines. */
export function shapeOfRings(r: Rings): Shape {
  const b = new ShapeBuilder();
  for (let k = 0; k < r.starts.length - 1; k++) {
    const last = r.starts[k + 1] - 1;
    b.begin(r.xy[2 * last], r.xy[2 * last + 1], r.parent[k]);
    for (let i = r.starts[k]; i <= last; i++) b.line(r.xy[2 * i], r.xy[2 * i + 1]);
  }
  return b.take();
}

/** An axis-parallel rectangle, counter-clockwise. */
export function rectangle(x0: number, y0: number, x1: number, y1: number): Rings {
  return {
    xy: Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1),
    starts: Int32Array.of(0, 4),
    parent: Int32Array.of(-1),
  };
}

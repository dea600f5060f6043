import { GrowingI32 } from "../growing.ts";
import { type Shape, ShapeBuilder } from "../geometry/shape.ts";
import { fitCubic } from "./cubic.ts";
import { chordLengths, fitArc, lineError, LOOK, type Fit, type Points } from "../geometry/segments.ts";
import { hypot } from "../hypot.ts";

/** Contour points on either side whose chord gives the direction at a point. */
const TANGENT_ARM = 4;
/** Lines and arcs are tried first, within this share of the hold: where they nearly miss, a cubic follows better. */
const SIMPLE = 0.75;
/** A run shorter than this many points is worth a line or a cubic, never a split. */
const MIN_RUN = 3;
/** Points that the first try goes beyond it. */
const FIRST_STEP = 24;
/** The reach of a segment is found to one part in 2^FINE. */
const FINE = 3;
/** Share of the hold that a spread of the points must keep, so that all of them keep the whole. */
const MARGIN = 0.98;

/** Collects fitted segments, and which of the contour's points each of them ends at. */
export class FitWriter {
  private readonly shape: ShapeBuilder;
  private readonly ends = new GrowingI32(32);
  /** largest measured distance of a point from its segment, mm */
  worst = 0;
  /** the point that the contour begins at */
  private first = 0;
  /** which of the course's points those that are fitted are, where some were left out */
  points: Int32Array | null = null;
  /** @param segments how many are expected */
  constructor(segments = 32) {
    this.shape = new ShapeBuilder(segments);
  }
  begin(x: number, y: number, point: number): void {
    this.shape.begin(x, y, -1);
    this.first = this.points ? this.points[point] : point;
  }
  add(fit: Fit, x: number, y: number, end: number): void {
    if (fit.kind === "line") this.shape.line(x, y);
    else if (fit.kind === "arc") this.shape.arc(fit.a, fit.b, fit.c, x, y);
    else this.shape.cubic(fit.a, fit.b, fit.c, fit.d, x, y);
    this.ends.push(this.points ? this.points[end] : end);
    if (fit.error > this.worst) this.worst = fit.error;
  }
  line(x: number, y: number, end: number): void {
    this.shape.line(x, y);
    this.ends.push(this.points ? this.points[end] : end);
  }
  /** The shape, the point it begins at, and for each segment the point at its end. */
  take(): { shape: Shape; first: number; ends: Int32Array } {
    return { shape: this.shape.take(), first: this.first, ends: this.ends.take() };
  }
}

/** What is fitted: the points as the picture has them, and the same with noise averaged out, x and y by turns, mm. */
export interface Pair {
  raw: Float64Array;
  smooth: Float64Array;
  /** share of its squared distance that counts at each point; all of it where not given */
  ease?: Float64Array;
}

/** The points a … a + n − 1 of a ring of `total` points, going round it. */
function pointsOf({ raw, smooth, ease }: Pair, total: number, a: number, n: number): Points {
  const [px, py] = unrolled(raw, total, a, n);
  const along = chordLengths(px, py);
  const eased = ease && Float64Array.from({ length: n }, (_, i) => ease[(a + i) % total]);
  if (raw === smooth) return { px, py, sx: px, sy: py, along, ease: eased };
  const [sx, sy] = unrolled(smooth, total, a, n);
  return { px, py, sx, sy, along, ease: eased };
}

function unrolled(xy: Float64Array, total: number, a: number, n: number): [Float64Array, Float64Array] {
  const x = new Float64Array(n);
  const y = new Float64Array(n);
  for (let i = 0, j = 2 * (a % total); i < n; i++, j += 2) {
    if (j === 2 * total) j = 0;
    x[i] = xy[j];
    y[i] = xy[j + 1];
  }
  return [x, y];
}

/**
 * Replaces one closed contour by lines, circular arcs and cubic Béziers within `hold`.
 *
 * Between corners: the longest run that one line, arc or cubic holds is found by trying ever longer runs and bisecting
 * back; each try is a least-squares fit (P. Schneider, "An algorithm for automatically fitting digitized curves",
 * Graphics Gems 1990) with smooth joins keeping the contour's own direction. Every accepted segment's error has been
 * measured.
 *
 * @param c the contour's points, n of them
 * @param corners indices of corner points, ascending
 * @param out receives the segments; the caller has not begun the contour
 */
export function fitContour(c: Pair, n: number, corners: readonly number[], hold: number, out: FitWriter): void {
  // Unrolled copy beginning at a corner (or anywhere on a smooth contour), its first point repeated at the end.
  const first = corners[0] ?? straightest(c.smooth, n);
  const p = pointsOf(c, n, first, n + 1);
  const isCorner = new Uint8Array(n + 1);
  for (const at of corners) isCorner[(at - first + n) % n] = 1;
  isCorner[n] = isCorner[0];
  out.begin(p.sx[0], p.sy[0], first);
  let from = 0;
  while (from < n) {
    let end = from + 1;
    while (end < n && !isCorner[end]) end++;
    fitRun(p, { from, end, cornerStart: !!isCorner[from], cornerEnd: !!isCorner[end], n, first, of: n }, hold, out);
    from = end;
  }
}

/**
 * As {@link fitContour} for a stretch of points from one to another, whose first has already been begun or drawn to.
 * @param c points of a ring of `total`, or of an open run of as many
 * @param from the stretch's first point
 * @param count how many points it has; it goes round the ring's end where it must
 * @param corners which points are corners, by their index in the ring
 */
export function fitStretch(
  c: Pair,
  total: number,
  from: number,
  count: number,
  corners: Uint8Array,
  hold: number,
  out: FitWriter,
): void {
  const p = pointsOf(c, total, from, count);
  let a = 0;
  for (let b = 1; b < count; b++) {
    if (b < count - 1 && !corners[(from + b) % total]) continue;
    // One more than the last index: an open run never wraps round.
    fitRun(p, { from: a, end: b, cornerStart: true, cornerEnd: true, n: count + 1, first: from, of: total }, hold, out);
    a = b;
  }
}

/** Index whose neighbourhood bends least: the best place to cut a contour that has no corner. */
function straightest(xy: Float64Array, n: number): number {
  let best = 0;
  let least = Infinity;
  const arm = Math.max(1, Math.min(TANGENT_ARM, n >> 2));
  for (let i = 0; i < n; i += arm) {
    const p = 2 * ((i - arm + n) % n);
    const q = 2 * ((i + arm) % n);
    const bend = (xy[p] - 2 * xy[2 * i] + xy[q]) ** 2 + (xy[p + 1] - 2 * xy[2 * i + 1] + xy[q + 1]) ** 2;
    if (bend < least) {
      least = bend;
      best = i;
    }
  }
  return best;
}

/** A run between two corners, or round a contour without any. */
interface Run {
  from: number;
  end: number;
  cornerStart: boolean;
  cornerEnd: boolean;
  /** points round, one more where the run is open */
  n: number;
  /** the contour's index of point 0, and how many points the contour has */
  first: number;
  of: number;
}

function fitRun(
  p: Points,
  { from, end, cornerStart, cornerEnd, n, first, of }: Run,
  hold: number,
  out: FitWriter,
): void {
  const { sx, sy } = p;
  let a = from;
  // The direction to leave a smooth join with; corners are free.
  let tx = 0;
  let ty = 0;
  if (!cornerStart) [tx, ty] = tangent(sx, sy, a, n, from, end, true);
  while (a < end) {
    const reach = longest(p, a, end, tx, ty, hold);
    const { b } = reach;
    let { fit } = reach;
    if (fit.kind === "cubic" && !(b === end && cornerEnd)) {
      // Where the contour's own direction serves as well, the join is smoother for it.
      const [ex, ey] = tangent(sx, sy, b, n, from, end, false);
      fit = fitCubic(p, a, b, tx, ty, ex, ey, hold) ?? fit;
    }
    out.add(fit, sx[b], sy[b], (first + b) % of);
    [tx, ty] = b < end || !cornerEnd ? leaving(fit, sx[b], sy[b], sx[a], sy[a]) : [0, 0];
    a = b;
  }
}

/**
 * The farthest b for which one segment holds points a…b: looked for with a spread of the points, then measured at
 * every one.
 */
function longest(p: Points, a: number, end: number, tx: number, ty: number, hold: number): { b: number; fit: Fit } {
  const sparse = search(p, a, end, tx, ty, MARGIN * hold, true);
  if (sparse.b - a < 2 * LOOK) return sparse;
  const fit = attempt(p, a, sparse.b, tx, ty, hold, false);
  return fit ? { b: sparse.b, fit } : search(p, a, sparse.b, tx, ty, hold, false);
}

function attempt(p: Points, a: number, b: number, tx: number, ty: number, hold: number, sparse: boolean): Fit | null {
  return simple(p, a, b, hold, sparse) ?? fitCubic(p, a, b, tx, ty, 0, 0, hold, sparse);
}

/** Ever longer runs, then bisection between the last good and the first bad. */
function search(
  p: Points,
  a: number,
  end: number,
  tx: number,
  ty: number,
  hold: number,
  sparse: boolean,
): { b: number; fit: Fit } {
  let good = Math.min(end, a + MIN_RUN);
  let fit = attempt(p, a, good, tx, ty, hold, sparse);
  while (!fit && good > a + 1) fit = attempt(p, a, --good, tx, ty, hold, sparse);
  if (!fit) return { b: good, fit: { kind: "line", a: 0, b: 0, c: 0, d: 0, error: 0 } };
  let step = FIRST_STEP;
  let bad = -1;
  while (good < end) {
    const b = Math.min(end, good + step);
    const next = attempt(p, a, b, tx, ty, hold, sparse);
    if (next) {
      good = b;
      fit = next;
      step *= 2;
    } else {
      bad = b;
      break;
    }
  }
  while (bad - good > Math.max(1, (good - a) >> FINE)) {
    const mid = (good + bad) >> 1;
    const next = attempt(p, a, mid, tx, ty, hold, sparse);
    if (next) {
      good = mid;
      fit = next;
    } else bad = mid;
  }
  return { b: good, fit };
}

/** A line or an arc that holds; null when neither does. */
function simple(p: Points, a: number, b: number, hold: number, sparse: boolean): Fit | null {
  const straight = lineError(p, a, b, b === a + 1 ? Infinity : SIMPLE * hold);
  if (straight <= SIMPLE * hold || b === a + 1) return { kind: "line", a: 0, b: 0, c: 0, d: 0, error: straight };
  return fitArc(p, a, b, SIMPLE * hold, sparse);
}

/** Direction of the contour at point i; backward at the end of a segment, so that it points into the segment. */
function tangent(
  px: Float64Array,
  py: Float64Array,
  i: number,
  n: number,
  lo: number,
  hi: number,
  forward: boolean,
): [number, number] {
  const closed = lo === 0 && hi === n;
  let p = i - TANGENT_ARM;
  let q = i + TANGENT_ARM;
  if (closed) {
    p = (p + n) % n;
    q %= n;
  } else {
    p = Math.max(lo, p);
    q = Math.min(hi, q);
  }
  const dx = px[q] - px[p];
  const dy = py[q] - py[p];
  const len = hypot(dx, dy) || 1;
  return forward ? [dx / len, dy / len] : [-dx / len, -dy / len];
}

/** Direction in which a fitted segment arrives at (x, y). */
function leaving(fit: Fit, x: number, y: number, x0: number, y0: number): [number, number] {
  let dx = x - x0;
  let dy = y - y0;
  if (fit.kind === "arc") {
    dx = -(y - fit.b) * fit.c;
    dy = (x - fit.a) * fit.c;
  } else if (fit.kind === "cubic" && hypot(x - fit.c, y - fit.d) > 1e-9) {
    dx = x - fit.c;
    dy = y - fit.d;
  }
  const len = hypot(dx, dy) || 1;
  return [dx / len, dy / len];
}

import { ShapeBuilder } from "../geometry/shape.ts";
import { fitCubic } from "./cubic.ts";
import { chordLengths, fitArc, lineError, LOOK, type Fit } from "./segments.ts";

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

/**
 * Replaces one closed contour by lines, circular arcs and cubic Béziers within `hold`.
 *
 * Between corners: the longest run that one line, arc or cubic holds is found by trying ever longer runs and bisecting
 * back; each try is a least-squares fit (P. Schneider, "An algorithm for automatically fitting digitized curves", Graphics
 * Gems 1990) with smooth joins keeping the contour's own direction. Every accepted segment's error has been measured.
 *
 * @param xy the contour's points, mm, n of them
 * @param corners indices of corner points, ascending
 * @param out receives the segments; the caller has not begun the contour
 * @returns the largest measured distance of a contour point from its curve, mm
 */
export function fitContour(xy: Float64Array, n: number, corners: readonly number[], parent: number, hold: number, out: ShapeBuilder): number {
  // Unrolled copy beginning at a corner (or anywhere on a smooth contour), its first point repeated at the end.
  const first = corners[0] ?? straightest(xy, n);
  const px = new Float64Array(n + 1);
  const py = new Float64Array(n + 1);
  for (let i = 0, j = 2 * first; i <= n; i++, j += 2) {
    if (j === 2 * n) j = 0;
    px[i] = xy[j];
    py[i] = xy[j + 1];
  }
  const isCorner = new Uint8Array(n + 1);
  for (const c of corners) isCorner[(c - first + n) % n] = 1;
  isCorner[n] = isCorner[0];
  const along = chordLengths(px, py);

  out.begin(px[0], py[0], parent);
  let worst = 0;
  let from = 0;
  while (from < n) {
    let end = from + 1;
    while (end < n && !isCorner[end]) end++;
    worst = Math.max(worst, fitRun(px, py, along, from, end, !!isCorner[from], !!isCorner[end], n, hold, out));
    from = end;
  }
  return worst;
}

/**
 * As {@link fitContour} for an open run from its first point to its last.
 * @param corners indices of corner points inside the run, ascending
 */
export function fitOpen(xy: Float64Array, n: number, corners: readonly number[], parent: number, hold: number, out: ShapeBuilder): number {
  const px = new Float64Array(n);
  const py = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    px[i] = xy[2 * i];
    py[i] = xy[2 * i + 1];
  }
  const along = chordLengths(px, py);
  out.begin(px[0], py[0], parent);
  let worst = 0;
  let from = 0;
  for (const end of [...corners, n - 1]) {
    // One more than the last index: an open run never wraps round.
    if (end > from) worst = Math.max(worst, fitRun(px, py, along, from, end, true, true, n + 1, hold, out));
    from = end;
  }
  return worst;
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

function fitRun(px: Float64Array, py: Float64Array, along: Float64Array, from: number, end: number, cornerStart: boolean, cornerEnd: boolean, n: number, hold: number, out: ShapeBuilder): number {
  let worst = 0;
  let a = from;
  // The direction to leave a smooth join with; corners are free.
  let tx = 0;
  let ty = 0;
  if (!cornerStart) [tx, ty] = tangent(px, py, a, n, from, end, true);
  while (a < end) {
    const reach = longest(px, py, along, a, end, tx, ty, hold);
    const { b } = reach;
    let { fit } = reach;
    if (fit.kind === "cubic" && !(b === end && cornerEnd)) {
      // Where the contour's own direction serves as well, the join is smoother for it.
      const [ex, ey] = tangent(px, py, b, n, from, end, false);
      fit = fitCubic(px, py, along, a, b, tx, ty, ex, ey, hold) ?? fit;
    }
    emit(out, fit, px[b], py[b]);
    worst = Math.max(worst, fit.error);
    [tx, ty] = b < end || !cornerEnd ? leaving(fit, px[b], py[b], px[a], py[a]) : [0, 0];
    a = b;
  }
  return worst;
}

/** The farthest b for which one segment holds points a…b: looked for with a spread of the points, then measured at every one. */
function longest(px: Float64Array, py: Float64Array, along: Float64Array, a: number, end: number, tx: number, ty: number, hold: number): { b: number; fit: Fit } {
  const sparse = search(px, py, along, a, end, tx, ty, MARGIN * hold, true);
  if (sparse.b - a < 2 * LOOK) return sparse;
  const fit = attempt(px, py, along, a, sparse.b, tx, ty, hold, false);
  return fit ? { b: sparse.b, fit } : search(px, py, along, a, sparse.b, tx, ty, hold, false);
}

function attempt(px: Float64Array, py: Float64Array, along: Float64Array, a: number, b: number, tx: number, ty: number, hold: number, sparse: boolean): Fit | null {
  return simple(px, py, a, b, hold, sparse) ?? fitCubic(px, py, along, a, b, tx, ty, 0, 0, hold, sparse);
}

/** Ever longer runs, then bisection between the last good and the first bad. */
function search(px: Float64Array, py: Float64Array, along: Float64Array, a: number, end: number, tx: number, ty: number, hold: number, sparse: boolean): { b: number; fit: Fit } {
  let good = Math.min(end, a + MIN_RUN);
  let fit = attempt(px, py, along, a, good, tx, ty, hold, sparse);
  while (!fit && good > a + 1) fit = attempt(px, py, along, a, --good, tx, ty, hold, sparse);
  if (!fit) return { b: good, fit: { kind: "line", a: 0, b: 0, c: 0, d: 0, error: 0 } };
  let step = FIRST_STEP;
  let bad = -1;
  while (good < end) {
    const b = Math.min(end, good + step);
    const next = attempt(px, py, along, a, b, tx, ty, hold, sparse);
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
    const next = attempt(px, py, along, a, mid, tx, ty, hold, sparse);
    if (next) {
      good = mid;
      fit = next;
    } else bad = mid;
  }
  return { b: good, fit };
}

/** A line or an arc that holds; null when neither does. */
function simple(px: Float64Array, py: Float64Array, a: number, b: number, hold: number, sparse: boolean): Fit | null {
  const straight = lineError(px, py, a, b, SIMPLE * hold);
  if (straight <= SIMPLE * hold || b === a + 1) return { kind: "line", a: 0, b: 0, c: 0, d: 0, error: straight };
  return fitArc(px, py, a, b, SIMPLE * hold, sparse);
}

/** Direction of the contour at point i; backward at the end of a segment, so that it points into the segment. */
function tangent(px: Float64Array, py: Float64Array, i: number, n: number, lo: number, hi: number, forward: boolean): [number, number] {
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
  const len = Math.hypot(dx, dy) || 1;
  return forward ? [dx / len, dy / len] : [-dx / len, -dy / len];
}

/** Direction in which a fitted segment arrives at (x, y). */
function leaving(fit: Fit, x: number, y: number, x0: number, y0: number): [number, number] {
  let dx = x - x0;
  let dy = y - y0;
  if (fit.kind === "arc") {
    dx = -(y - fit.b) * fit.c;
    dy = (x - fit.a) * fit.c;
  } else if (fit.kind === "cubic" && Math.hypot(x - fit.c, y - fit.d) > 1e-9) {
    dx = x - fit.c;
    dy = y - fit.d;
  }
  const len = Math.hypot(dx, dy) || 1;
  return [dx / len, dy / len];
}

function emit(out: ShapeBuilder, fit: Fit, x: number, y: number): void {
  if (fit.kind === "line") out.line(x, y);
  else if (fit.kind === "arc") out.arc(fit.a, fit.b, fit.c, x, y);
  else out.cubic(fit.a, fit.b, fit.c, fit.d, x, y);
}

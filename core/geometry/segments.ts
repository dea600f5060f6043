import { hypot } from "../hypot.ts";

/** One fitted segment: an arc has its centre in a, b and its turn in c; a cubic its control points in a, b and c, d. */
export interface Fit {
  kind: "line" | "arc" | "cubic";
  a: number;
  b: number;
  c: number;
  d: number;
  /** largest measured distance of a point from the segment, mm */
  error: number;
}

/**
 * Points to fit, x and y apart: segments hold `px`, `py`, and join at `sx`, `sy`, the same points with noise averaged
 * out.
 */
export interface Polyline {
  px: Float64Array;
  py: Float64Array;
  sx: Float64Array;
  sy: Float64Array;
  /**
   * share of its squared distance that counts at each point: below 1 where the picture hardly says where the edge is
   */
  ease?: Float64Array;
}

/** The same for curves, which need a parameter. */
export interface Points extends Polyline {
  /** how far along the run each point lies, by the chords between them */
  along: Float64Array;
}

/** Largest distance of points a…b from the chord between their joins; any number beyond `most` where it is more. */
export function lineError({ px, py, sx, sy, ease }: Polyline, a: number, b: number, most = Infinity): number {
  const x0 = sx[a];
  const y0 = sy[a];
  const dx = sx[b] - x0;
  const dy = sy[b] - y0;
  const len2 = dx * dx + dy * dy;
  let worst = 0;
  const enough = most * most;
  // The middle first: where a chord fails, it mostly fails there.
  const mid = (a + b) >> 1;
  const away = (px[mid] - x0) * dy - (py[mid] - y0) * dx;
  if (away * away * (ease ? ease[mid] : 1) > enough * len2) return Infinity;
  // The ends count too where their joins lie elsewhere.
  for (let i = a; i <= b && worst <= enough; i++) {
    const vx = px[i] - x0;
    const vy = py[i] - y0;
    const t = len2 > 0 ? Math.max(0, Math.min(1, (vx * dx + vy * dy) / len2)) : 0;
    const ex = vx - t * dx;
    const ey = vy - t * dy;
    const e = (ex * ex + ey * ey) * (ease ? ease[i] : 1);
    if (e > worst) worst = e;
  }
  return Math.sqrt(worst);
}

/** Points of a long run that a sparse look takes in, at least; runs shorter than twice as many are looked at whole. */
export const LOOK = 32;

/** Largest arc a single segment may be: below a full turn, so that controllers read it without doubt. */
const MAX_SWEEP = 1.5 * Math.PI;

/**
 * The circle through both ends that fits the points between best; null where it does not hold them. With the chord as x
 * axis, a circle through both ends is x² + y² − c·x − 2k·y = 0: one unknown, linear least squares.
 * @param sparse whether a spread of {@link LOOK} points tells enough
 */
export function fitArc(points: Polyline, a: number, b: number, hold: number, sparse = false): Fit | null {
  const { px, py, sx, sy, ease } = points;
  const x0 = sx[a];
  const y0 = sy[a];
  const cx = sx[b] - x0;
  const cy = sy[b] - y0;
  const chord = Math.sqrt(cx * cx + cy * cy);
  if (b - a < 4 || chord < 4 * hold) return null;
  const ux = cx / chord;
  const uy = cy / chord;
  // The circle through both ends and the middle first: most tries fail, and fail here. Where some circle through the
  // ends holds all points, this one is within another hold of it at the middle and less elsewhere.
  const mid = (a + b) >> 1;
  const rise = (py[mid] - y0) * ux - (px[mid] - x0) * uy;
  const reach = (px[mid] - x0) * ux + (py[mid] - y0) * uy;
  if (Math.abs(rise) > hold && !ease) {
    const bow = (reach * reach + rise * rise - chord * reach) / (2 * rise);
    const r = Math.sqrt((chord * chord) / 4 + bow * bow);
    for (let q = 1; q < 4; q += 2) {
      const i = a + (((b - a) * q) >> 2);
      const x = (px[i] - x0) * ux + (py[i] - y0) * uy - chord / 2;
      const y = (py[i] - y0) * ux - (px[i] - x0) * uy - bow;
      if (Math.abs(Math.sqrt(x * x + y * y) - r) > 2 * hold) return null;
    }
  }
  let num = 0;
  let den = 0;
  const stride = sparse ? Math.max(1, Math.floor((b - a) / LOOK)) : 1;
  for (let i = a + 1; i < b; i += stride) {
    const vx = px[i] - x0;
    const vy = py[i] - y0;
    const x = vx * ux + vy * uy;
    const y = vy * ux - vx * uy;
    num += y * (x * x + y * y - chord * x);
    den += 2 * y * y;
  }
  if (den < 1e-12) return null;
  const k = num / den;
  const radius = hypot(chord / 2, k);
  if (radius > 1000 * chord) return null;
  const mx = x0 + (ux * chord) / 2 - uy * k;
  const my = y0 + (uy * chord) / 2 + ux * k;
  // The side the points lie on says which way round: left of the chord is clockwise.
  const side = (px[mid] - x0) * -uy + (py[mid] - y0) * ux;
  const turn = side > 0 ? -1 : 1;
  const half = Math.asin(Math.min(1, chord / 2 / radius));
  const sweep = side > 0 === k < 0 ? 2 * half : 2 * Math.PI - 2 * half;
  if (sweep > MAX_SWEEP) return null;
  // Squared distances from the centre between which points are no farther from the arc than any before.
  let [inner, outer] = [radius * radius, radius * radius];
  const least = radius > hold ? (radius - hold) ** 2 : 0;
  const most = (radius + hold) ** 2;
  let widest = 0;
  let qx = px[a] - mx;
  let qy = py[a] - my;
  // Points may go back along the arc by the hold and no more: a way out beyond its end and back again would pass
  // unseen.
  const back = -hold * radius;
  for (let i = a + stride; ; i += stride) {
    if (i > b) i = b;
    const rx = px[i] - mx;
    const ry = py[i] - my;
    const step = (rx - qx) * (rx - qx) + (ry - qy) * (ry - qy);
    if (step > widest) widest = step;
    if ((qx * ry - qy * rx) * turn < back) return null;
    if (i === b) break;
    let d2 = rx * rx + ry * ry;
    if (ease) d2 = (radius + (Math.sqrt(d2) - radius) * Math.sqrt(ease[i])) ** 2;
    if (d2 < inner) inner = d2;
    else if (d2 > outer) outer = d2;
    if (d2 < least || d2 > most) return null;
    qx = rx;
    qy = ry;
  }
  // Between two points on it the arc leaves their chord c by r − √(r² − c²/4): sparse points must not hide
  // that.
  const sagitta =
    stride > 1 ? 0 : widest >= 4 * radius * radius ? radius : radius - Math.sqrt(radius * radius - widest / 4);
  const ends = sx === px ? 0 : Math.sqrt(Math.max(fromJoin(points, a), fromJoin(points, b)));
  const worst = Math.max(sagitta, ends, radius - Math.sqrt(inner), Math.sqrt(outer) - radius);
  if (worst > hold) return null;
  return { kind: "arc", a: mx, b: my, c: turn, d: 0, error: worst };
}

/** Squared distance of point i from its own join, as far as it counts. */
export const fromJoin = ({ px, py, sx, sy, ease }: Polyline, i: number): number =>
  ((px[i] - sx[i]) ** 2 + (py[i] - sy[i]) ** 2) * (ease ? ease[i] : 1);

/** How far along a run of points each one is, by the chords between them. */
export function chordLengths(px: Float64Array, py: Float64Array): Float64Array {
  const along = new Float64Array(px.length);
  for (let i = 1; i < px.length; i++) {
    const dx = px[i] - px[i - 1];
    const dy = py[i] - py[i - 1];
    along[i] = along[i - 1] + Math.sqrt(dx * dx + dy * dy);
  }
  return along;
}

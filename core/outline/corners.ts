import { hypot } from "../hypot.ts";

/**
 * Corners of a closed contour: points where the direction turns by more than `cornerAngle` over a short arm on either
 * side, and more than anywhere nearby. Directions come from chords of `arm` points, long enough to see past the
 * rounding that a pixel grid gives every corner.
 *
 * @param xy x, y by turns
 * @param cornerAngle radians
 * @param closed whether the last point joins the first; an open run's ends are never corners
 * @returns indices into the contour, ascending
 */
export function findCorners(xy: Float64Array, n: number, arm: number, cornerAngle: number, closed = true): number[] {
  if (n < 4 * arm) arm = Math.max(1, Math.floor(n / 4));
  const turn = new Float64Array(n);
  const from = closed ? 0 : 1;
  const to = closed ? n : n - 1;
  for (let i = from; i < to; i++) {
    // Near the ends of an open run both arms shorten alike.
    const a = closed ? arm : Math.min(arm, i, n - 1 - i);
    const p = 2 * (i < a ? i - a + n : i - a);
    const q = 2 * (i + a < n ? i + a : i + a - n);
    const ax = xy[2 * i] - xy[p];
    const ay = xy[2 * i + 1] - xy[p + 1];
    const bx = xy[q] - xy[2 * i];
    const by = xy[q + 1] - xy[2 * i + 1];
    const cross = ax * by - ay * bx;
    const dot = ax * bx + ay * by;
    // Gentle turns, most of them, need no angle.
    turn[i] = dot > 0 && Math.abs(cross) < 0.1 * dot ? Math.abs(cross) / dot : Math.abs(Math.atan2(cross, dot));
  }
  const corners: number[] = [];
  for (let i = from; i < to; i++) {
    if (turn[i] < cornerAngle) continue;
    let peak = true;
    for (let d = 1; d <= arm && peak; d++) {
      if (!closed && (i - d < 0 || i + d >= n)) break;
      peak = turn[(i - d + n) % n] < turn[i] && turn[(i + d) % n] <= turn[i];
    }
    if (peak) corners.push(i);
  }
  return corners;
}

/**
 * Points next to a corner that the pixel grid has rounded off, and points beyond them that still tell the legs'
 * direction.
 */
const ROUNDED = 3;
const LEG = 7;
/** Legs bent more than this many point spacings are curves: their meeting point would be a guess. */
const STRAIGHT = 0.2;

/**
 * Puts corners back where their straight legs meet: a pixel grid cuts every corner off by a good part of a pixel. Only
 * where both legs are straight and no point left out is farther than `hold` from them.
 * @param fixed points that must stay as they are, where there are any: 1 for each
 * @returns the points with each sharpened corner in place of the rounded ones, the index each of them had before, the
 * corners' new indices, and the largest distance of a left-out point from the legs
 */
export function sharpenCorners(
  xy: Float64Array,
  n: number,
  corners: readonly number[],
  hold: number,
  fixed: Uint8Array | null = null,
): Sharpened {
  if (corners.length === 0 || n < 4 * (ROUNDED + LEG)) return { xy, source: null, corners: [...corners], deviation: 0 };
  const drop = new Uint8Array(n);
  const moved = new Map<number, [number, number]>();
  let deviation = 0;
  const isCorner = new Uint8Array(n);
  for (const c of corners) isCorner[c] = 1;
  corners.forEach((c, k) => {
    const gapBefore = (c - corners[(k - 1 + corners.length) % corners.length] + n) % n || n;
    const gapAfter = (corners[(k + 1) % corners.length] - c + n) % n || n;
    if (Math.min(gapBefore, gapAfter) < ROUNDED + LEG + 2) return;
    if (fixed && anyFixed(fixed, n, c - ROUNDED, c + ROUNDED)) return;
    const a = legLine(xy, n, c - ROUNDED - LEG, c - ROUNDED);
    const b = legLine(xy, n, c + ROUNDED, c + ROUNDED + LEG);
    if (!a || !b) return;
    const det = a.ux * b.uy - a.uy * b.ux;
    if (Math.abs(det) < 0.2) return;
    const t = ((b.x - a.x) * b.uy - (b.y - a.y) * b.ux) / det;
    const x = a.x + t * a.ux;
    const y = a.y + t * a.uy;
    if (hypot(x - xy[2 * c], y - xy[2 * c + 1]) > ROUNDED * a.spacing) return;
    let worst = 0;
    for (let i = c - ROUNDED + 1; i < c + ROUNDED; i++) {
      const j = 2 * ((i + n) % n);
      worst = Math.max(worst, Math.min(distance(a, xy[j], xy[j + 1]), distance(b, xy[j], xy[j + 1])));
    }
    if (worst > hold) {
      // Too much is rounded off to put back: keep the rounding as a piece of its own, so that the legs stay straight.
      isCorner[c] = 0;
      isCorner[(c - ROUNDED + n) % n] = isCorner[(c + ROUNDED) % n] = 1;
      return;
    }
    deviation = Math.max(deviation, worst);
    for (let i = c - ROUNDED + 1; i < c + ROUNDED; i++) drop[(i + n) % n] = 1;
    drop[c] = 0;
    moved.set(c, [x, y]);
  });
  const out = new Float64Array(2 * n);
  const source = new Int32Array(n);
  const at: number[] = [];
  let m = 0;
  for (let i = 0; i < n; i++) {
    if (drop[i]) continue;
    out[2 * m] = xy[2 * i];
    out[2 * m + 1] = xy[2 * i + 1];
    source[m] = i;
    if (isCorner[i]) {
      const p = moved.get(i);
      if (p) out.set(p, 2 * m);
      at.push(m);
    }
    m++;
  }
  return { xy: out.subarray(0, 2 * m), source: source.subarray(0, m), corners: at, deviation };
}

/** A contour with its corners put back. */
export interface Sharpened {
  xy: Float64Array;
  /** which of the contour's points each one is; null where all of them are there */
  source: Int32Array | null;
  corners: number[];
  /** largest distance of a left-out point from a corner's legs, mm */
  deviation: number;
}

function anyFixed(fixed: Uint8Array, n: number, from: number, to: number): boolean {
  for (let i = from; i <= to; i++) if (fixed[(i + n) % n]) return true;
  return false;
}

interface Leg {
  x: number;
  y: number;
  ux: number;
  uy: number;
  /** mean distance between its points */
  spacing: number;
}

/** The line of least squared distance through points from…to, or null where they bend. */
function legLine(xy: Float64Array, n: number, from: number, to: number): Leg | null {
  let mx = 0;
  let my = 0;
  const count = to - from + 1;
  for (let i = from; i <= to; i++) {
    const j = 2 * ((i + n) % n);
    mx += xy[j] / count;
    my += xy[j + 1] / count;
  }
  let sxx = 0;
  let sxy = 0;
  let syy = 0;
  for (let i = from; i <= to; i++) {
    const j = 2 * ((i + n) % n);
    sxx += (xy[j] - mx) ** 2;
    sxy += (xy[j] - mx) * (xy[j + 1] - my);
    syy += (xy[j + 1] - my) ** 2;
  }
  const angle = Math.atan2(2 * sxy, sxx - syy) / 2;
  const leg = { x: mx, y: my, ux: Math.cos(angle), uy: Math.sin(angle), spacing: 0 };
  const a = 2 * ((from + n) % n);
  const b = 2 * ((to + n) % n);
  leg.spacing = hypot(xy[b] - xy[a], xy[b + 1] - xy[a + 1]) / (count - 1);
  for (let i = from; i <= to; i++) {
    const j = 2 * ((i + n) % n);
    if (distance(leg, xy[j], xy[j + 1]) > STRAIGHT * leg.spacing) return null;
  }
  return leg;
}

const distance = (l: Leg, x: number, y: number): number => Math.abs((x - l.x) * l.uy - (y - l.y) * l.ux);

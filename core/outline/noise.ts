import { hypot } from "../hypot.ts";

/** Runs of points along edges: run k is the points starts[k] … starts[k+1] − 1, x and y by turns, px. */
export interface EdgePoints {
  xy: Float64Array;
  starts: Int32Array;
}

/**
 * Points on either side of one that tell the edge's own smooth course there: many, and few, which fine detail disturbs
 * less.
 */
const ARM = 6;
const SHORT_ARM = 3;
/** A window takes three of its points' freedoms for its parabola. */
const PARABOLA = 3;
/** Noise that neighbours share shows less in a short window: it may be this much more than it looks there. */
const SHARED = 1.5;
/** At most so many windows are looked at. */
const MOST_WINDOWS = 6000;
/** Cosine of the widest turn within a window that is no corner. */
const STRAIGHT = 0.8;
/**
 * Share of windows that are no noisier than what is taken for the noise: fine detail makes the others look worse than
 * they are.
 */
const QUANTILE = 0.4;
/**
 * Points this near to the middle between two pixels, px, are steps of a picture in two greys; so many of all points
 * make it one.
 */
const STEP = 0.02;
const STEPPED_SHARE = 0.7;
/**
 * What whole pixels do to an edge: even between −½ and ½ across it, so 1/√12, less what a parabola takes up of
 * it. px
 */
const STEP_NOISE = 0.27;

/**
 * How far noise, blended colours, compression or whole pixels move an edge about its own smooth course, px: the spread
 * of points about a parabola through each window of neighbours, corners left out, at the {@link QUANTILE} of all
 * windows.
 * @param which whether run k counts; all when not given
 */
export function edgeNoise({ xy, starts }: EdgePoints, which: (k: number) => boolean = () => true): number {
  let points = 0;
  let steps = 0;
  for (let k = 0; k + 1 < starts.length; k++) {
    if (!which(k)) continue;
    for (let i = starts[k]; i < starts[k + 1]; i++) if (onStep(xy[2 * i]) && onStep(xy[2 * i + 1])) steps++;
    points += starts[k + 1] - starts[k];
  }
  if (points === 0) return 0;
  const noise = Math.min(
    typical({ xy, starts }, which, ARM, points),
    SHARED * typical({ xy, starts }, which, SHORT_ARM, points),
  );
  return steps > STEPPED_SHARE * points ? Math.max(noise, STEP_NOISE) : noise;
}

/** The spread about a parabola that {@link QUANTILE} of all windows of so many points stay under, px. */
function typical({ xy, starts }: EdgePoints, which: (k: number) => boolean, arm: number, points: number): number {
  const window = 2 * arm + 1;
  const stride = Math.max(1, Math.ceil(points / MOST_WINDOWS));
  const spreads: number[] = [];
  for (let k = 0; k + 1 < starts.length; k++) {
    if (!which(k)) continue;
    for (let i = starts[k]; i + window <= starts[k + 1]; i += stride) {
      const s = spread(xy, i, arm);
      if (s >= 0) spreads.push(s);
    }
  }
  spreads.sort((a, b) => a - b);
  return spreads.length > 0 ? spreads[Math.floor(QUANTILE * spreads.length)] : 0;
}

/** Whether a coordinate lies on a pixel's centre line or midway between two. */
const onStep = (v: number): boolean => Math.abs(2 * v - Math.round(2 * v)) < 2 * STEP;

/**
 * Root mean square distance of a window's points from the parabola over its chord that fits them best; −1 at a
 * corner. px
 */
function spread(xy: Float64Array, from: number, arm: number): number {
  const window = 2 * arm + 1;
  const a = 2 * from;
  const m = a + 2 * arm;
  const b = m + 2 * arm;
  const [ux, uy, vx, vy] = [xy[m] - xy[a], xy[m + 1] - xy[a + 1], xy[b] - xy[m], xy[b + 1] - xy[m + 1]];
  const dot = ux * vx + uy * vy;
  if (!(dot > STRAIGHT * Math.sqrt((ux * ux + uy * uy) * (vx * vx + vy * vy)))) return -1;
  const length = hypot(xy[b] - xy[a], xy[b + 1] - xy[a + 1]);
  const [cx, cy] = [(xy[b] - xy[a]) / length, (xy[b + 1] - xy[a + 1]) / length];
  // Least squares of h = p + q·s + r·s² with s from the window's middle: sums of powers of s, and of h with them.
  let [s1, s2, s3, s4, h0, h1, h2, hh] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (let i = a; i <= b; i += 2) {
    const s = (xy[i] - xy[m]) * cx + (xy[i + 1] - xy[m + 1]) * cy;
    const h = (xy[i + 1] - xy[m + 1]) * cx - (xy[i] - xy[m]) * cy;
    const ss = s * s;
    s1 += s;
    s2 += ss;
    s3 += ss * s;
    s4 += ss * ss;
    h0 += h;
    h1 += h * s;
    h2 += h * ss;
    hh += h * h;
  }
  const det = window * (s2 * s4 - s3 * s3) - s1 * (s1 * s4 - s3 * s2) + s2 * (s1 * s3 - s2 * s2);
  if (!(Math.abs(det) > 1e-9)) return -1;
  const p = (h0 * (s2 * s4 - s3 * s3) - s1 * (h1 * s4 - s3 * h2) + s2 * (h1 * s3 - s2 * h2)) / det;
  const q = (window * (h1 * s4 - h2 * s3) - h0 * (s1 * s4 - s3 * s2) + s2 * (s1 * h2 - s2 * h1)) / det;
  const r = (window * (s2 * h2 - s3 * h1) - s1 * (s1 * h2 - s2 * h1) + h0 * (s1 * s3 - s2 * s2)) / det;
  return Math.sqrt(Math.max(0, hh - p * h0 - q * h1 - r * h2) / (window - PARABOLA));
}

/** Noise under this needs no averaging, px; at the noise of whole pixels so many rounds of it serve. */
const QUIET = 0.05;
const ROUNDS = 8;
/** How far a point may move at most, in spreads of the noise. */
const REACH = 2.25;

/**
 * A run of points averaged with their neighbours as its noise asks, no point moved farther than the noise itself moves
 * points. The ends of an open run stay.
 * @param noise {@link edgeNoise} in the points' own unit, whose pixel is `pixel`
 * @param most how far a point may move at most
 */
export function smoothed(xy: Float64Array, closed: boolean, noise: number, pixel: number, most: number): Float64Array {
  const n = xy.length / 2;
  const rounds = Math.round(ROUNDS * Math.min(1, noise / (STEP_NOISE * pixel)));
  if (noise < QUIET * pixel || n < 12 || rounds === 0) return xy;
  // Rounding must not carry a point beyond what is allowed.
  const reach = Math.min(REACH * noise, most) * (1 - 1e-9);
  let from = xy.slice();
  let to = xy.slice();
  for (let round = 0; round < rounds; round++) {
    for (let i = closed ? 0 : 1; i < (closed ? n : n - 1); i++) {
      const p = 2 * (i > 0 ? i - 1 : n - 1);
      const q = 2 * (i + 1 < n ? i + 1 : 0);
      let dx = (from[p] + 2 * from[2 * i] + from[q]) / 4 - xy[2 * i];
      let dy = (from[p + 1] + 2 * from[2 * i + 1] + from[q + 1]) / 4 - xy[2 * i + 1];
      const away2 = dx * dx + dy * dy;
      if (away2 > reach * reach) {
        const share = reach / Math.sqrt(away2);
        dx *= share;
        dy *= share;
      }
      to[2 * i] = xy[2 * i] + dx;
      to[2 * i + 1] = xy[2 * i + 1] + dy;
    }
    [from, to] = [to, from];
  }
  return from;
}

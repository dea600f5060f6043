import { type Fit, fromJoin, LOOK, type Points } from "../geometry/segments.ts";
import { hypot } from "../hypot.ts";

/** Points of a run that its least squares take in, at least. */
const SAMPLES = 12;
/**
 * A cubic's control polygon against the way it follows: half a circle's is 1.49 times as long, and none turns farther.
 */
const LONGEST_SIDES = 1.6;
/**
 * How far a cubic may go from one point's foot to the next's, against the way between the points, and one hold more.
 */
const FARTHEST = 1.5;
/** Parameters of the points at hand. */
const ts = new Float64Array(4096);

/**
 * Cubic Bézier through both ends; a zero tangent leaves that end free, otherwise the control point lies along it.
 * Least squares on a chord-length parameter, improved by Newton steps towards each point's foot; long runs fit on a
 * spread of their points and are then measured at every one.
 * @param sparse whether a spread of {@link LOOK} points tells enough
 */
export function fitCubic(
  points: Points,
  a: number,
  b: number,
  tx: number,
  ty: number,
  ex: number,
  ey: number,
  hold: number,
  sparse = false,
): Fit | null {
  const { sx, sy, along } = points;
  const n = b - a;
  if (n < 2) return null;
  const stride = Math.max(1, Math.floor(n / SAMPLES));
  const count = Math.floor((n - 1) / stride);
  const length = along[b] - along[a];
  if (length < 1e-12) return null;
  const m = Math.min(count, ts.length);
  for (let k = 0; k < m; k++) ts[k] = (along[a + (k + 1) * stride] - along[a]) / length;

  let c: [number, number, number, number] | null = null;
  let sampled = 0;
  for (let round = 0; round < 3; round++) {
    c = solve(points, a, b, stride, m, tx, ty, ex, ey);
    if (!c) return null;
    sampled = reparameterise(points, a, b, stride, m, c);
    if (sampled <= 0.7 * hold) break;
    if (sampled > (round === 0 ? 4 : 1.6) * hold) return null;
  }
  // Hopeless where even the sampled points stray: measuring every point would only tell the same.
  if (sampled > 1.2 * hold) return null;
  // Points may lie on a curve that swings far out between them: no longer than the way the points go, it cannot.
  const sides =
    hypot(c![0] - sx[a], c![1] - sy[a]) + hypot(c![2] - c![0], c![3] - c![1]) + hypot(sx[b] - c![2], sy[b] - c![3]);
  if (sides > LONGEST_SIDES * length + 2 * hold) return null;
  const error = cubicError(points, a, b, c!, hold, sparse ? Math.max(1, Math.floor(n / LOOK)) : 1);
  return error <= hold ? { kind: "cubic", a: c![0], b: c![1], c: c![2], d: c![3], error } : null;
}

function solve(
  { px, py, sx, sy }: Points,
  a: number,
  b: number,
  stride: number,
  m: number,
  tx: number,
  ty: number,
  ex: number,
  ey: number,
): [number, number, number, number] | null {
  const x0 = sx[a];
  const y0 = sy[a];
  const x3 = sx[b];
  const y3 = sy[b];
  let s11 = 0;
  let s12 = 0;
  let s22 = 0;
  let r1x = 0;
  let r1y = 0;
  let r2x = 0;
  let r2y = 0;
  for (let i = 0, p = a + stride; i < m; i++, p += stride) {
    const t = ts[i];
    const u = 1 - t;
    const b1 = 3 * u * u * t;
    const b2 = 3 * u * t * t;
    const w0 = u * u * u;
    const w3 = t * t * t;
    // Written relative to the ends, so that a control point at its own end is the zero of the unknown.
    const qx = px[p] - (w0 + b1) * x0 - (w3 + b2) * x3;
    const qy = py[p] - (w0 + b1) * y0 - (w3 + b2) * y3;
    s11 += b1 * b1;
    s12 += b1 * b2;
    s22 += b2 * b2;
    r1x += b1 * qx;
    r1y += b1 * qy;
    r2x += b2 * qx;
    r2y += b2 * qy;
  }
  const freeStart = tx === 0 && ty === 0;
  const freeEnd = ex === 0 && ey === 0;
  const chord = hypot(x3 - x0, y3 - y0);
  let ax: number;
  let ay: number;
  let bx: number;
  let by: number;
  const det = s11 * s22 - s12 * s12;
  if (freeStart && freeEnd) {
    if (m < 2 || det < 1e-12) return null;
    ax = (r1x * s22 - r2x * s12) / det;
    ay = (r1y * s22 - r2y * s12) / det;
    bx = (r2x * s11 - r1x * s12) / det;
    by = (r2y * s11 - r1y * s12) / det;
  } else if (!freeStart && !freeEnd) {
    const dot = tx * ex + ty * ey;
    const d = s11 * s22 - s12 * s12 * dot * dot;
    const ra = r1x * tx + r1y * ty;
    const rb = r2x * ex + r2y * ey;
    let alpha = d > 1e-12 ? (ra * s22 - rb * s12 * dot) / d : chord / 3;
    let beta = d > 1e-12 ? (rb * s11 - ra * s12 * dot) / d : chord / 3;
    if (!(alpha > 1e-3 * chord)) alpha = chord / 3;
    if (!(beta > 1e-3 * chord)) beta = chord / 3;
    ax = alpha * tx;
    ay = alpha * ty;
    bx = beta * ex;
    by = beta * ey;
  } else {
    // One end free: eliminate the free vector, then solve for the length along the tangent.
    const [gx, gy] = freeStart ? [ex, ey] : [tx, ty];
    const [sf, sg, fx, fy, hx, hy] = freeStart ? [s11, s22, r1x, r1y, r2x, r2y] : [s22, s11, r2x, r2y, r1x, r1y];
    if (sf < 1e-12) return null;
    const den = sg - (s12 * s12) / sf;
    let len = den > 1e-12 ? ((hx - (s12 * fx) / sf) * gx + (hy - (s12 * fy) / sf) * gy) / den : chord / 3;
    if (!(len > 1e-3 * chord)) len = chord / 3;
    const vx = (fx - s12 * len * gx) / sf;
    const vy = (fy - s12 * len * gy) / sf;
    [ax, ay, bx, by] = freeStart ? [vx, vy, len * gx, len * gy] : [len * gx, len * gy, vx, vy];
  }
  return [x0 + ax, y0 + ay, x3 + bx, y3 + by];
}

/**
 * One Newton step of every sampled parameter towards its point's foot.
 * @returns the largest distance of a sampled point from the tangent where it stood: the distance from the curve, nearly
 */
function reparameterise(
  { px, py, sx, sy, ease }: Points,
  a: number,
  b: number,
  stride: number,
  m: number,
  c: readonly [number, number, number, number],
): number {
  const [c0x, c0y, c1x, c1y, c2x, c2y, c3x, c3y] = powerSeries(sx[a], sy[a], c, sx[b], sy[b]);
  let worst = 0;
  for (let i = 0, p = a + stride; i < m; i++, p += stride) {
    const t = ts[i];
    const qx = ((c3x * t + c2x) * t + c1x) * t + c0x - px[p];
    const qy = ((c3y * t + c2y) * t + c1y) * t + c0y - py[p];
    const dx = (3 * c3x * t + 2 * c2x) * t + c1x;
    const dy = (3 * c3y * t + 2 * c2y) * t + c1y;
    const speed = dx * dx + dy * dy;
    const dot = qx * dx + qy * dy;
    const den = speed + qx * (6 * c3x * t + 2 * c2x) + qy * (6 * c3y * t + 2 * c2y);
    const next = den > 1e-12 ? t - dot / den : t;
    ts[i] = next > 1e-6 ? (next < 1 - 1e-6 ? next : 1 - 1e-6) : 1e-6;
    // Times the squared speed, so that no division is needed but where it counts.
    const off = qx * dy - qy * dx;
    const off2 = off * off * (ease ? ease[p] : 1);
    if (off2 > worst * speed) worst = off2 / speed;
  }
  return Math.sqrt(worst);
}

/** The cubic as the coefficients of its power series, x and y by turns. */
function powerSeries(
  x0: number,
  y0: number,
  c: readonly [number, number, number, number],
  x3: number,
  y3: number,
): [number, number, number, number, number, number, number, number] {
  const [ax, ay, bx, by] = c;
  return [
    x0,
    y0,
    3 * (ax - x0),
    3 * (ay - y0),
    3 * (bx - 2 * ax + x0),
    3 * (by - 2 * ay + y0),
    x3 - 3 * bx + 3 * ax - x0,
    y3 - 3 * by + 3 * ay - y0,
  ];
}

/**
 * Largest distance of every point a…b from the cubic, each found from its neighbour's parameter; stops above `hold`.
 * From one point to the next the curve may go little farther than the points do: then all of it is near the points, as
 * they are near to it. @returns infinity where it goes farther
 */
function cubicError(
  points: Points,
  a: number,
  b: number,
  c: readonly [number, number, number, number],
  hold: number,
  stride: number,
): number {
  const { px, py, sx, sy, along, ease } = points;
  const [c0x, c0y, c1x, c1y, c2x, c2y, c3x, c3y] = powerSeries(sx[a], sy[a], c, sx[b], sy[b]);
  const near = (stride > 1 ? 1 : 0.64) * hold * hold;
  let worst = sx === px ? 0 : Math.max(fromJoin(points, a), fromJoin(points, b));
  if (worst > hold * hold) return Infinity;
  let lag = 0;
  const share = 1 / (along[b] - along[a]);
  let before = a;
  let stood = 0;
  let pace = Math.sqrt(c1x * c1x + c1y * c1y);
  for (let i = a + 1; i < b; i += stride) {
    const here = (along[i] - along[a]) * share;
    let t = here + lag;
    let d2 = Infinity;
    let foot = 0;
    let speed2 = 0;
    for (let k = 0; k < 4; k++) {
      t = t > 0 ? (t < 1 ? t : 1) : 0;
      const qx = ((c3x * t + c2x) * t + c1x) * t + c0x - px[i];
      const qy = ((c3y * t + c2y) * t + c1y) * t + c0y - py[i];
      const now = qx * qx + qy * qy;
      const dx = (3 * c3x * t + 2 * c2x) * t + c1x;
      const dy = (3 * c3y * t + 2 * c2y) * t + c1y;
      if (now < d2) {
        d2 = now;
        foot = t;
        speed2 = dx * dx + dy * dy;
      }
      const den = dx * dx + dy * dy + qx * (6 * c3x * t + 2 * c2x) + qy * (6 * c3y * t + 2 * c2y);
      if (den > 1e-12) t -= (qx * dx + qy * dy) / den;
      if (d2 <= near) break;
    }
    lag = t - here;
    const speed = Math.sqrt(speed2);
    const gone = (foot > stood ? foot - stood : stood - foot) * (speed > pace ? speed : pace);
    if (gone > FARTHEST * (along[i] - along[before]) + hold) return Infinity;
    before = i;
    stood = foot;
    pace = speed;
    if (ease) d2 *= ease[i];
    if (d2 > worst) {
      worst = d2;
      if (worst > hold * hold) break;
    }
  }
  const last = 3 * hypot(sx[b] - c[2], sy[b] - c[3]);
  return (1 - stood) * (last > pace ? last : pace) > FARTHEST * (along[b] - along[before]) + hold
    ? Infinity
    : Math.sqrt(worst);
}

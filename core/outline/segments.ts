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

/** Largest distance of points a…b from the chord between the first and the last. */
export function lineError(px: Float64Array, py: Float64Array, a: number, b: number): number {
  const x0 = px[a];
  const y0 = py[a];
  const dx = px[b] - x0;
  const dy = py[b] - y0;
  const len2 = dx * dx + dy * dy;
  let worst = 0;
  for (let i = a + 1; i < b; i++) {
    const vx = px[i] - x0;
    const vy = py[i] - y0;
    const t = len2 > 0 ? Math.max(0, Math.min(1, (vx * dx + vy * dy) / len2)) : 0;
    const ex = vx - t * dx;
    const ey = vy - t * dy;
    const e = ex * ex + ey * ey;
    if (e > worst) worst = e;
  }
  return Math.sqrt(worst);
}

/** Largest arc a single segment may be: below a full turn, so that controllers read it without doubt. */
const MAX_SWEEP = 1.5 * Math.PI;

/**
 * The circle through both ends that fits the points between best; null where it does not hold them.
 * With the chord as x axis, a circle through both ends is x² + y² − c·x − 2k·y = 0: one unknown, linear least squares.
 */
export function fitArc(px: Float64Array, py: Float64Array, a: number, b: number, hold: number): Fit | null {
  const x0 = px[a];
  const y0 = py[a];
  const cx = px[b] - x0;
  const cy = py[b] - y0;
  const chord = Math.hypot(cx, cy);
  if (b - a < 4 || chord < 4 * hold) return null;
  const ux = cx / chord;
  const uy = cy / chord;
  let num = 0;
  let den = 0;
  for (let i = a + 1; i < b; i++) {
    const vx = px[i] - x0;
    const vy = py[i] - y0;
    const x = vx * ux + vy * uy;
    const y = vy * ux - vx * uy;
    num += y * (x * x + y * y - chord * x);
    den += 2 * y * y;
  }
  if (den < 1e-12) return null;
  const k = num / den;
  const radius = Math.hypot(chord / 2, k);
  if (radius > 1000 * chord) return null;
  const mx = x0 + (ux * chord) / 2 - uy * k;
  const my = y0 + (uy * chord) / 2 + ux * k;
  // The side the points lie on says which way round: left of the chord is clockwise.
  const mid = (a + b) >> 1;
  const side = (px[mid] - x0) * -uy + (py[mid] - y0) * ux;
  const turn = side > 0 ? -1 : 1;
  const half = Math.asin(Math.min(1, chord / 2 / radius));
  const sweep = side > 0 === k < 0 ? 2 * half : 2 * Math.PI - 2 * half;
  if (sweep > MAX_SWEEP) return null;
  let worst = 0;
  let before = 0;
  const a0 = Math.atan2(y0 - my, x0 - mx);
  for (let i = a + 1; i <= b; i++) {
    // Between two points on it the arc leaves their chord by r − √(r² − (c/2)²): sparse points must not hide that.
    const half2 = ((px[i] - px[i - 1]) ** 2 + (py[i] - py[i - 1]) ** 2) / 4;
    const sagitta = half2 >= radius * radius ? radius : radius - Math.sqrt(radius * radius - half2);
    if (i === b) {
      if (sagitta > hold) return null;
      break;
    }
    const e = Math.max(sagitta, Math.abs(Math.hypot(px[i] - mx, py[i] - my) - radius));
    if (e > worst) worst = e;
    if (worst > hold) return null;
    // Points must come in order along the arc, or a bulge beyond its ends would pass unseen.
    let along = (Math.atan2(py[i] - my, px[i] - mx) - a0) * turn;
    if (along < -1) along += 2 * Math.PI;
    if (along < before - 0.5 || along > sweep + 0.5) return null;
    before = along;
  }
  return { kind: "arc", a: mx, b: my, c: turn, d: 0, error: worst };
}

const SAMPLES = 48;
const ts = new Float64Array(4096);

/**
 * Cubic Bézier through both ends; a zero tangent leaves that end free, otherwise the control point lies along it.
 * Least squares on a chord-length parameter, improved by Newton steps towards each point's foot; long runs fit on a
 * spread of their points and are then measured at every one.
 */
export function fitCubic(px: Float64Array, py: Float64Array, a: number, b: number, tx: number, ty: number, ex: number, ey: number, hold: number): Fit | null {
  const n = b - a;
  if (n < 2) return null;
  const stride = Math.max(1, Math.floor(n / SAMPLES));
  const count = Math.floor((n - 1) / stride);
  // Chord-length parameter of the sampled points.
  let length = 0;
  let m = 0;
  for (let i = a + 1; i <= b; i++) {
    length += Math.hypot(px[i] - px[i - 1], py[i] - py[i - 1]);
    if ((i - a) % stride === 0 && i < b && m < count) ts[m++] = length;
  }
  if (length < 1e-12) return null;
  for (let i = 0; i < m; i++) ts[i] /= length;

  let c: [number, number, number, number] | null = null;
  for (let round = 0; round < 4; round++) {
    c = solve(px, py, a, b, stride, m, tx, ty, ex, ey);
    if (!c) return null;
    const sampled = reparameterise(px, py, a, b, stride, m, c);
    if (sampled <= 0.7 * hold) break;
    if (sampled > 8 * hold && round > 0) return null;
  }
  const error = cubicError(px, py, a, b, c!, length, hold);
  return error <= hold ? { kind: "cubic", a: c![0], b: c![1], c: c![2], d: c![3], error } : null;
}

function solve(px: Float64Array, py: Float64Array, a: number, b: number, stride: number, m: number, tx: number, ty: number, ex: number, ey: number): [number, number, number, number] | null {
  const x0 = px[a];
  const y0 = py[a];
  const x3 = px[b];
  const y3 = py[b];
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
  const chord = Math.hypot(x3 - x0, y3 - y0);
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

/** One Newton step of every sampled parameter towards its point's foot; returns the largest sampled distance. */
function reparameterise(px: Float64Array, py: Float64Array, a: number, b: number, stride: number, m: number, c: [number, number, number, number]): number {
  let worst = 0;
  for (let i = 0, p = a + stride; i < m; i++, p += stride) {
    const r = foot(px[a], py[a], c, px[b], py[b], px[p], py[p], ts[i]);
    ts[i] = Math.max(1e-6, Math.min(1 - 1e-6, r.t));
    if (r.d > worst) worst = r.d;
  }
  return worst;
}

const footResult = { t: 0, d: 0 };

/** Newton step for the parameter nearest to (x, y), and the distance before the step. */
function foot(x0: number, y0: number, c: [number, number, number, number], x3: number, y3: number, x: number, y: number, t: number): { t: number; d: number } {
  const u = 1 - t;
  const [x1, y1, x2, y2] = c;
  const qx = u * u * u * x0 + 3 * u * u * t * x1 + 3 * u * t * t * x2 + t * t * t * x3 - x;
  const qy = u * u * u * y0 + 3 * u * u * t * y1 + 3 * u * t * t * y2 + t * t * t * y3 - y;
  const dx = 3 * (u * u * (x1 - x0) + 2 * u * t * (x2 - x1) + t * t * (x3 - x2));
  const dy = 3 * (u * u * (y1 - y0) + 2 * u * t * (y2 - y1) + t * t * (y3 - y2));
  const ddx = 6 * (u * (x2 - 2 * x1 + x0) + t * (x3 - 2 * x2 + x1));
  const ddy = 6 * (u * (y2 - 2 * y1 + y0) + t * (y3 - 2 * y2 + y1));
  const den = dx * dx + dy * dy + qx * ddx + qy * ddy;
  footResult.t = den > 1e-12 ? t - (qx * dx + qy * dy) / den : t;
  footResult.d = Math.hypot(qx, qy);
  return footResult;
}

/** Largest distance of every point a…b from the cubic, each found from its neighbour's parameter; stops above `hold`. */
function cubicError(px: Float64Array, py: Float64Array, a: number, b: number, c: [number, number, number, number], length: number, hold: number): number {
  let worst = 0;
  let along = 0;
  let lag = 0;
  for (let i = a + 1; i < b; i++) {
    along += Math.hypot(px[i] - px[i - 1], py[i] - py[i - 1]);
    let t = Math.max(0, Math.min(1, along / length + lag));
    let d = Infinity;
    for (let k = 0; k < 4; k++) {
      const r = foot(px[a], py[a], c, px[b], py[b], px[i], py[i], t);
      if (r.d < d) d = r.d;
      if (d <= 0.5 * hold || k === 3) {
        t = Math.max(0, Math.min(1, r.t));
        break;
      }
      t = Math.max(0, Math.min(1, r.t));
    }
    lag = t - along / length;
    if (d > worst) worst = d;
    if (worst > hold) return worst;
  }
  return worst;
}

import { type Boundary, type Foot, newFoot, walkToFoot } from "./boundary.ts";
import { hypot } from "../../hypot.ts";

/**
 * Moves approximate Voronoi nodes to exact equidistance from the boundary pieces near their samples, by Newton's method
 * on the distance functions; the gradient of a distance is the unit vector away from its foot.
 */
const f1 = newFoot();
const f2 = newFoot();
const f3 = newFoot();
const ROUNDS = 8;
/** Residual at which equidistance counts as reached, mm. */
const EXACT = 1e-9;

export interface Point {
  x: number;
  y: number;
  d: number;
}

/** Feet closer than this share a boundary point: they tell nothing about direction. mm */
const SAME_FOOT = 1e-9;

/** Whether two feet are one and the same point of the boundary. */
export const isOnePoint = (a: Foot, c: Foot): boolean => Math.abs(a.x - c.x) + Math.abs(a.y - c.y) < SAME_FOOT;

/**
 * Towards the point equally far from the chains near edges e1 and e2, along the line that changes the difference
 * fastest. `to` given, also to that distance: the crossing of the axis with the inset at `to`. Leaves the feet in `a`
 * and `b`. @returns false where the two chains are one and the same piece
 */
export function settleBetween(
  b: Boundary,
  p: Point,
  e1: number,
  e2: number,
  reach: number,
  to = NaN,
  a: Foot = f1,
  c: Foot = f2,
): boolean {
  const x0 = p.x;
  const y0 = p.y;
  for (let k = 0; ; k++) {
    walkToFoot(b, e1, p.x, p.y, a);
    walkToFoot(b, e2, p.x, p.y, c);
    p.d = Math.min(a.d, c.d);
    if (p.d < EXACT) return true;
    const gx = (p.x - a.x) / a.d;
    const gy = (p.y - a.y) / a.d;
    const hx = (p.x - c.x) / c.d;
    const hy = (p.y - c.y) / c.d;
    const dx = gx - hx;
    const dy = gy - hy;
    const g2 = dx * dx + dy * dy;
    if (g2 < 1e-10 || isOnePoint(a, c))
      return Math.abs(a.d - c.d) < 1e-6 && (Number.isNaN(to) || Math.abs(p.d - to) < 1e-6);
    const diff = a.d - c.d;
    let sx = (-diff * dx) / g2;
    let sy = (-diff * dy) / g2;
    if (!Number.isNaN(to)) {
      // along the axis, at right angles to the difference: the mean gradient's share of it brings d to `to`
      const mx = -dy;
      const my = dx;
      const slope = ((gx + hx) * mx + (gy + hy) * my) / 2;
      const want = to - (a.d + c.d) / 2 - ((gx + hx) * sx + (gy + hy) * sy) / 2;
      if (Math.abs(slope) > 1e-6) {
        sx += (want / slope) * mx;
        sy += (want / slope) * my;
      }
      if (Math.abs(diff) + Math.abs(p.d - to) < EXACT) return true;
    } else if (Math.abs(diff) < EXACT) return true;
    if (k === ROUNDS) return Math.abs(diff) < 1e-4;
    const nx = p.x + sx;
    const ny = p.y + sy;
    if (!((nx - x0) ** 2 + (ny - y0) ** 2 <= reach * reach)) return Math.abs(diff) < 1e-4;
    p.x = nx;
    p.y = ny;
  }
}

/** How far the crossing may lie beyond the nodes, as a share of the way between them: rounding. */
const BEYOND = 1e-6;
/** Halvings of the way between two nodes: to less than a millionth of a millimetre on the longest. */
const HALVINGS = 30;

/**
 * Where the axis between two nodes, equally far from the chains near e1 and e2, crosses the inset at `rho`, which lies
 * between the nodes' clearances. Leaves the feet in `a` and `c`.
 */
export function settleCrossing(
  b: Boundary,
  low: Point,
  high: Point,
  e1: number,
  e2: number,
  rho: number,
  a: Foot,
  c: Foot,
): Point {
  const [dx, dy] = [high.x - low.x, high.y - low.y];
  const len = hypot(dx, dy);
  const p: Point = { x: 0, y: 0, d: 0 };
  const settleFrom = (share: number, to: number) => {
    p.x = low.x + share * dx;
    p.y = low.y + share * dy;
    settleBetween(b, p, e1, e2, len + 0.01, to, a, c);
  };
  settleFrom((rho - low.d) / (high.d - low.d), rho);
  const at = ((p.x - low.x) * dx + (p.y - low.y) * dy) / (len * len);
  if (at >= -BEYOND && at <= 1 + BEYOND) return p;
  // Beside a neck the same clearance is met on both sides, and Newton's method may go to the other one, which belongs
  // to the next edge: a ring that begins there would find no end. Halving stays between the nodes.
  let [below, above] = [0, 1];
  for (let k = 0; k < HALVINGS; k++) {
    const share = (below + above) / 2;
    settleFrom(share, NaN);
    if (p.d < rho) below = share;
    else above = share;
  }
  return p;
}

/**
 * Towards the point equally far from three chains. Where two of the feet coincide, or all three lie in line, the node
 * lies on an axis of two pieces only and settles between the pair farthest apart.
 */
export function settleAmong(b: Boundary, p: Point, e1: number, e2: number, e3: number, reach: number): boolean {
  const x0 = p.x;
  const y0 = p.y;
  for (let k = 0; k <= ROUNDS; k++) {
    walkToFoot(b, e1, p.x, p.y, f1);
    walkToFoot(b, e2, p.x, p.y, f2);
    walkToFoot(b, e3, p.x, p.y, f3);
    p.d = Math.min(f1.d, f2.d, f3.d);
    if (p.d < EXACT) return true;
    if (Math.max(f1.d, f2.d, f3.d) - p.d < EXACT) return true;
    const ax = (p.x - f1.x) / f1.d - (p.x - f2.x) / f2.d;
    const ay = (p.y - f1.y) / f1.d - (p.y - f2.y) / f2.d;
    const bx = (p.x - f1.x) / f1.d - (p.x - f3.x) / f3.d;
    const by = (p.y - f1.y) / f1.d - (p.y - f3.y) / f3.d;
    const det = ax * by - ay * bx;
    if (Math.abs(det) < 1e-3) break;
    const ra = f2.d - f1.d;
    const rb = f3.d - f1.d;
    const sx = (ra * by - rb * ay) / det;
    const sy = (ax * rb - bx * ra) / det;
    if (!((p.x + sx - x0) ** 2 + (p.y + sy - y0) ** 2 <= reach * reach)) break;
    p.x += sx;
    p.y += sy;
  }
  p.x = x0;
  p.y = y0;
  walkToFoot(b, e1, x0, y0, f1);
  walkToFoot(b, e2, x0, y0, f2);
  walkToFoot(b, e3, x0, y0, f3);
  const d12 = hypot(f1.x - f2.x, f1.y - f2.y);
  const d13 = hypot(f1.x - f3.x, f1.y - f3.y);
  const d23 = hypot(f2.x - f3.x, f2.y - f3.y);
  const [i, j] = d12 >= d13 && d12 >= d23 ? [e1, e2] : d13 >= d23 ? [e1, e3] : [e2, e3];
  return settleBetween(b, p, i, j, reach);
}

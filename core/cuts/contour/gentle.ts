import type { Loop } from "../../toolpath/loops.ts";
import { hypot } from "../../hypot.ts";

/** Bending round a loop: how much it turns near any place on it. */
export class Bending {
  private turn: Float64Array;
  private n: number;
  readonly total: number;
  constructor(private l: Loop) {
    const n = (this.n = l.x.length - 1);
    this.total = l.s[n];
    this.turn = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const p = (i - 1 + n) % n;
      const a = Math.atan2(l.y[i] - l.y[p], l.x[i] - l.x[p]);
      const b = Math.atan2(l.y[i + 1] - l.y[i], l.x[i + 1] - l.x[i]);
      let d = Math.abs(b - a);
      if (d > Math.PI) d = 2 * Math.PI - d;
      this.turn[i] = d;
    }
  }
  /** Radians turned within `window` mm of a place, what is farther counting less. */
  near(at: number, window: number): number {
    const { s } = this.l;
    let sum = 0;
    const from = at - window;
    // Vertices in the window, which may wrap: found from the first one past its beginning.
    let i = this.first(from < 0 ? from + this.total : from);
    for (let seen = 0; seen < this.n; seen++, i = i + 1 < this.n ? i + 1 : 0) {
      let d = Math.abs(s[i] - at);
      d = Math.min(d, this.total - d);
      if (d >= window) break;
      sum += this.turn[i] * (1 - d / window / 2);
    }
    return sum;
  }
  private first(at: number): number {
    let lo = 0;
    let hi = this.n;
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (this.l.s[mid] <= at) lo = mid + 1;
      else hi = mid;
    }
    return lo % this.n;
  }
}

/** A place on a loop with the way it runs there. */
export interface Place {
  x: number;
  y: number;
  /** unit direction along the loop */
  ux: number;
  uy: number;
  /** mm from the loop's beginning, and the piece it lies in */
  s: number;
  piece: number;
}

export function placeOn(l: Loop, at: number): Place {
  const n = l.x.length - 1;
  const s = ((at % l.s[n]) + l.s[n]) % l.s[n];
  let lo = 0;
  let hi = n - 1;
  while (lo < hi) {
    const mid = (lo + hi + 1) >> 1;
    if (l.s[mid] <= s) lo = mid;
    else hi = mid - 1;
  }
  const len = l.s[lo + 1] - l.s[lo] || 1;
  const f = (s - l.s[lo]) / len;
  const [dx, dy] = [l.x[lo + 1] - l.x[lo], l.y[lo + 1] - l.y[lo]];
  return { x: l.x[lo] + f * dx, y: l.y[lo] + f * dy, ux: dx / len, uy: dy / len, s, piece: lo };
}

/** The place of a loop nearest to a point, with how far it is. */
export function nearestPlace(l: Loop, x: number, y: number): { s: number; d: number } {
  let best = Infinity;
  let at = 0;
  for (let i = 0; i + 1 < l.x.length; i++) {
    const [dx, dy] = [l.x[i + 1] - l.x[i], l.y[i + 1] - l.y[i]];
    const len2 = dx * dx + dy * dy || 1;
    const t = Math.max(0, Math.min(1, ((x - l.x[i]) * dx + (y - l.y[i]) * dy) / len2));
    const d = (x - l.x[i] - t * dx) ** 2 + (y - l.y[i] - t * dy) ** 2;
    if (d < best) {
      best = d;
      at = l.s[i] + t * Math.sqrt(len2);
    }
  }
  return { s: at, d: Math.sqrt(best) };
}

/** The same loop begun at a place in the middle of a piece. */
export function begunAt(l: Loop, p: Place): Loop {
  const n = l.x.length - 1;
  const x: number[] = [p.x];
  const y: number[] = [p.y];
  for (let k = 1; k <= n; k++) {
    const i = (p.piece + k) % n;
    if (hypot(l.x[i] - x[x.length - 1], l.y[i] - y[y.length - 1]) > 1e-9) {
      x.push(l.x[i]);
      y.push(l.y[i]);
    }
  }
  if (hypot(p.x - x[x.length - 1], p.y - y[y.length - 1]) > 1e-9) {
    x.push(p.x);
    y.push(p.y);
  }
  const s = new Float64Array(x.length);
  for (let i = 1; i < x.length; i++) s[i] = s[i - 1] + hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
  return { x: Float64Array.from(x), y: Float64Array.from(y), s };
}

import { fitArc, lineError, type Polyline } from "../geometry/segments.ts";
import type { ToolpathWriter } from "./toolpath.ts";
import { hypot } from "../hypot.ts";

/** How far thinned lines and fitted arcs may be from the computed path, mm. */
export const PATH_TOLERANCE = 0.003;

/**
 * Cuts along a polyline as few lines and arcs within `tolerance` mm. The cutter is already at point `from` and at its
 * height. Longest runs first by doubling and bisecting, as the outline's fit does.
 * @param z the height of all of it, or of each point where it falls evenly along the way; less than a full turn then
 */
export function cutAlong(
  w: ToolpathWriter,
  x: Float64Array,
  y: Float64Array,
  from: number,
  to: number,
  z: number | ArrayLike<number>,
  tolerance = PATH_TOLERANCE,
): void {
  const p: Polyline = { px: x, py: y, sx: x, sy: y };
  const height = (i: number): number => (typeof z === "number" ? z : z[i]);
  let a = from;
  while (a < to) {
    let good = a + 1;
    let bad = -1;
    for (let step = 4; good < to && bad < 0; step *= 2) {
      const b = Math.min(to, a + step);
      if (holds(p, a, b, tolerance)) good = b;
      else bad = b;
    }
    while (bad - good > 1) {
      const mid = (good + bad) >> 1;
      if (holds(p, a, mid, tolerance)) good = mid;
      else bad = mid;
    }
    if (good === a + 1 || lineError(p, a, good, tolerance) <= tolerance) w.to(x[good], y[good], height(good));
    else {
      const f = fitArc(p, a, good, tolerance)!;
      w.arc(f.c > 0, f.a, f.b, x[good], y[good], height(good));
    }
    a = good;
  }
}

function holds(p: Polyline, a: number, b: number, tolerance: number): boolean {
  return lineError(p, a, b, tolerance) <= tolerance || fitArc(p, a, b, tolerance) !== null;
}

/** A closed loop unrolled to begin (and end) at point `first`, optionally the other way round. */
export interface Loop {
  x: Float64Array;
  y: Float64Array;
  /** distance from the beginning, mm */
  s: Float64Array;
}

export function unroll(xy: Float64Array, start: number, end: number, first: number, reverse: boolean): Loop {
  const n = end - start;
  const x = new Float64Array(n + 1);
  const y = new Float64Array(n + 1);
  const s = new Float64Array(n + 1);
  for (let i = 0; i <= n; i++) {
    const j = start + ((((reverse ? first - i : first + i) % n) + n) % n);
    x[i] = xy[2 * j];
    y[i] = xy[2 * j + 1];
    if (i > 0) s[i] = s[i - 1] + hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
  }
  return { x, y, s };
}

/** A closed path, with how far along each point lies. */
export function loopOf(x: Float64Array, y: Float64Array): Loop {
  const s = new Float64Array(x.length);
  for (let i = 1; i < x.length; i++) s[i] = s[i - 1] + hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
  return { x, y, s };
}

/** The same closed loop begun at point i. */
export function rotate(l: Loop, i: number): Loop {
  if (i === 0) return l;
  const n = l.x.length - 1;
  const xy = new Float64Array(2 * n);
  for (let k = 0; k < n; k++) {
    xy[2 * k] = l.x[k];
    xy[2 * k + 1] = l.y[k];
  }
  return unroll(xy, 0, n, i, false);
}

/**
 * Sinks along a loop from depth z0 to z1 at `slope` (fall over run), round and round as often as it takes; ends
 * anywhere on it.
 * @returns index of the point reached
 */
export function rampDown(w: ToolpathWriter, loop: Loop, z0: number, z1: number, slope: number): number {
  const n = loop.x.length - 1;
  const total = loop.s[n];
  if (!(total > 1e-6)) {
    w.plunge(z1);
    return 0;
  }
  let z = z0;
  let i = 0;
  while (z > z1 + 1e-9) {
    // Turn by turn: whether an arc holds points is told of less than a full turn.
    const x = [loop.x[i]];
    const y = [loop.y[i]];
    const zs = [z];
    do {
      const fall = (loop.s[i + 1] - loop.s[i]) * slope;
      const share = z - fall <= z1 && fall > 0 ? (z - z1) / fall : 1;
      z = Math.max(z1, z - fall);
      x.push(loop.x[i] + share * (loop.x[i + 1] - loop.x[i]));
      y.push(loop.y[i] + share * (loop.y[i + 1] - loop.y[i]));
      zs.push(z);
      i = (i + 1) % n;
    } while (i > 0 && z > z1 + 1e-9);
    cutAlong(w, Float64Array.from(x), Float64Array.from(y), 0, x.length - 1, zs);
  }
  // The depth is reached somewhere inside a piece: on to its end from there.
  if (w.x !== loop.x[i] || w.y !== loop.y[i]) w.to(loop.x[i], loop.y[i], z1);
  return i;
}

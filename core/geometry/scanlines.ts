import { ringCount, type Rings } from "./rings.ts";
import { hypot } from "../hypot.ts";

/** A stretch of a straight line inside a region, with where its ends lie on the region's rings. */
export interface Span {
  /** which line, counted across */
  row: number;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /**
   * rings crossed at the beginning and the end, and how far along them, as vertex index and share of the edge after it
   */
  ring0: number;
  at0: number;
  ring1: number;
  at1: number;
}

/**
 * Parallel lines at `angle` (radians, 0 along X), `spacing` mm apart, clipped to a region (even–odd), row by row.
 * They lie evenly about the middle of the region's extent, the first being row 0.
 * @param through mm across at which row 0 lies instead
 */
export function spans(r: Rings, angle: number, spacing: number, through?: number): Span[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const n = r.xy.length / 2;
  const u = new Float64Array(n);
  const v = new Float64Array(n);
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < n; i++) {
    u[i] = c * r.xy[2 * i] + s * r.xy[2 * i + 1];
    v[i] = c * r.xy[2 * i + 1] - s * r.xy[2 * i];
    low = Math.min(low, v[i]);
    high = Math.max(high, v[i]);
  }
  if (n === 0 || !(spacing > 0)) return [];
  const rows = Math.max(1, Math.ceil((high - low) / spacing - 1e-9));
  const before = through === undefined ? 0 : Math.ceil((low - through) / spacing);
  const first = through === undefined ? (low + high) / 2 - ((rows - 1) / 2) * spacing : through + before * spacing;
  const hits: { u: number; ring: number; at: number }[][] = Array.from({ length: rows }, () => []);
  for (let k = 0; k < ringCount(r); k++)
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const j = i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k];
      const [a, b] = [Math.min(v[i], v[j]), Math.max(v[i], v[j])];
      // Rows with a < row ≤ b: each vertex belongs to one edge only. Dividing may round to the row at a itself.
      let row = Math.max(0, Math.floor((a - first) / spacing));
      while (first + row * spacing <= a) row++;
      for (; row < rows && first + row * spacing <= b; row++) {
        const f = (first + row * spacing - v[i]) / (v[j] - v[i]);
        hits[row].push({ u: u[i] + f * (u[j] - u[i]), ring: k, at: i - r.starts[k] + f });
      }
    }
  const out: Span[] = [];
  for (let row = 0; row < rows; row++) {
    const w = first + row * spacing;
    const h = hits[row].sort((p, q) => p.u - q.u);
    for (let q = 0; q + 1 < h.length; q += 2) {
      const [a, b] = [h[q], h[q + 1]];
      if (b.u - a.u < 1e-9) continue;
      out.push({
        row: before + row,
        x0: c * a.u - s * w,
        y0: s * a.u + c * w,
        x1: c * b.u - s * w,
        y1: s * b.u + c * w,
        ring0: a.ring,
        at0: a.at,
        ring1: b.ring,
        at1: b.at,
      });
    }
  }
  return out;
}

/** The same span run from its other end. */
export const turnedSpan = (s: Span): Span => ({
  row: s.row,
  x0: s.x1,
  y0: s.y1,
  x1: s.x0,
  y1: s.y0,
  ring0: s.ring1,
  at0: s.at1,
  ring1: s.ring0,
  at1: s.at0,
});

/** A way along a ring: its points, and how long it is, mm. */
export interface RingWay {
  x: Float64Array;
  y: Float64Array;
  length: number;
}

/**
 * The shorter way along a ring from one place on it to another, both ends with it.
 * @param most longer ones are not wanted, mm: it costs no more than a way so long
 * @returns null where both are longer
 */
export function alongRing(r: Rings, k: number, from: number, to: number, most: number): RingWay | null {
  const forth = walk(r, k, from, to, most);
  const back = walk(r, k, to, from, forth ? forth.length : most);
  if (!back || (forth && forth.length <= back.length)) return forth;
  return { x: back.x.reverse(), y: back.y.reverse(), length: back.length };
}

/** Along a ring in its own sense; null where that is farther than `most`, mm. */
function walk(r: Rings, k: number, from: number, to: number, most: number): RingWay | null {
  const n = r.starts[k + 1] - r.starts[k];
  const at = (p: number): [number, number] => {
    const i = Math.floor(p);
    const [a, b] = [r.starts[k] + (i % n), r.starts[k] + ((i + 1) % n)];
    const f = p - i;
    return [r.xy[2 * a] + f * (r.xy[2 * b] - r.xy[2 * a]), r.xy[2 * a + 1] + f * (r.xy[2 * b + 1] - r.xy[2 * a + 1])];
  };
  const end = to >= from ? to : to + n;
  const points = [at(from)];
  let length = 0;
  for (let i = Math.floor(from) + 1; length <= most; i++) {
    const [x, y] = points[points.length - 1];
    const next = at(Math.min(i, end));
    points.push(next);
    length += hypot(next[0] - x, next[1] - y);
    if (i >= end) break;
  }
  if (length > most) return null;
  return { x: Float64Array.from(points, (p) => p[0]), y: Float64Array.from(points, (p) => p[1]), length };
}

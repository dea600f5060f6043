import type { GrowingF64 } from "../../growing.ts";
import { insideRegion } from "../rings.ts";
import { SegmentGrid } from "../segmentgrid.ts";
import { type Boundary, pointsOf } from "./boundary.ts";
import { hypot } from "../../hypot.ts";

/**
 * Whether a stretch of parallel, from `from` on, turns back on itself: where edges are shorter than the offset and a
 * corner has no branch of the axis, since it is too small to sample, the parallels of its edges pass each other before
 * they end.
 */
export function passesBack(out: GrowingF64, from: number): boolean {
  const { data } = out;
  for (let i = from + 4; i < out.length; i += 2) {
    const [ax, ay] = [data[i - 2] - data[i - 4], data[i - 1] - data[i - 3]];
    const [bx, by] = [data[i] - data[i - 2], data[i + 1] - data[i - 1]];
    if (ax * bx + ay * by < -BACKWARDS * BACKWARDS) return true;
  }
  return false;
}

/** Ways back shorter than this are rounding, mm. */
const BACKWARDS = 0.001;
/** Points of an inset may be nearer to the boundary than its distance by this much: arcs have chords, mm. */
const NEARER = 0.003;

/**
 * Takes out the points of a loop, from `from` on, that are too near to the boundary or beyond it; where the ways on
 * either side of them meet, the loop goes on there.
 */
export function takeOutNear(edges: SegmentGrid, out: GrowingF64, from: number, rho: number): void {
  const near = (x: number, y: number): boolean => edges.distance(x, y, rho) < rho - NEARER;
  const all = out.data.slice(from, out.length);
  const n = all.length / 2;
  const good = new Uint8Array(n);
  // Points on one side of the boundary stay there until they come near to it: one of each run is asked.
  let inside: boolean | null = null;
  for (let i = 0; i < n; i++) {
    if (near(all[2 * i], all[2 * i + 1])) inside = null;
    else {
      inside ??= insideRegion(edges.rings, all[2 * i], all[2 * i + 1]);
      good[i] = inside ? 1 : 0;
    }
  }
  out.length = from;
  for (let i = 0; i < n; i++) {
    if (!good[i]) continue;
    out.push2(all[2 * i], all[2 * i + 1]);
    if (good[(i + 1) % n]) continue;
    let j = (i + 1) % n;
    while (!good[j] && j !== i) j = (j + 1) % n;
    const [before, after] = [(i + n - 1) % n, (j + 1) % n];
    if (j === i || !good[before] || !good[after]) continue;
    const at = meeting(all, before, i, after, j);
    if (at && !near(at[0], at[1])) out.push2(at[0], at[1]);
  }
}

/**
 * Where the way from point a through b meets the one from point c through d, beyond both; null where it does not, or
 * far off.
 */
function meeting(xy: Float64Array, a: number, b: number, c: number, d: number): [number, number] | null {
  const [ux, uy] = [xy[2 * b] - xy[2 * a], xy[2 * b + 1] - xy[2 * a + 1]];
  const [vx, vy] = [xy[2 * d] - xy[2 * c], xy[2 * d + 1] - xy[2 * c + 1]];
  const det = ux * vy - uy * vx;
  const [wx, wy] = [xy[2 * d] - xy[2 * b], xy[2 * d + 1] - xy[2 * b + 1]];
  const s = (wx * vy - wy * vx) / det;
  const t = (wx * uy - wy * ux) / det;
  const gap = hypot(wx, wy);
  const far = Math.max(s * hypot(ux, uy), t * hypot(vx, vy));
  return s >= 0 && t >= 0 && far <= 2 * gap ? [xy[2 * b] + s * ux, xy[2 * b + 1] + s * uy] : null;
}

/** The boundary as it is looked up by place. */
export const gridOf = (b: Boundary): SegmentGrid =>
  new SegmentGrid({ xy: pointsOf(b), starts: b.starts, parent: new Int32Array(b.starts.length - 1).fill(-1) });

import { ringsOf } from "../../geometry/morph.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import type { Loop } from "../../toolpath/loops.ts";
import { nearestPlace, placeOn } from "../contour/gentle.ts";
import type { ContourLoop } from "../contour/loops.ts";
import type { Tab } from "../contour/tabs.ts";
import type { PassShape } from "./pass.ts";
import { hypot } from "../../hypot.ts";

/**
 * Paths that keep farther off the wall, by the path at the wall that each was cut for: the nearest. Rings do not tell:
 * where pieces stand close together one path goes round several, and a hole with a neck has several paths.
 */
export function fartherPaths(
  loops: readonly ContourLoop[],
  farther: readonly ContourLoop[],
): Map<ContourLoop, ContourLoop[]> {
  const out = new Map<ContourLoop, ContourLoop[]>();
  if (farther.length === 0) return out;
  const at = loops.map((l) => new SegmentGrid(ringsOf([pointsOf(l)])));
  for (const q of farther) {
    const [x, y] = [q.xy[2 * q.start], q.xy[2 * q.start + 1]];
    let [nearest, best] = [-1, Infinity];
    at.forEach((grid, k) => {
      const d = grid.distance(x, y, best);
      if (d < best) [nearest, best] = [k, d];
    });
    if (nearest >= 0) out.set(loops[nearest], [...(out.get(loops[nearest]) ?? []), q]);
  }
  return out;
}

const pointsOf = (l: ContourLoop): number[] => [...l.xy.subarray(2 * l.start, 2 * l.end)];

/** The edges of paths that are open. */
export const openPaths = (paths: readonly ContourLoop[]): SegmentGrid => new SegmentGrid(ringsOf(paths.map(pointsOf)));

/** Whether all of a loop lies within `most` mm of paths that are open, so that a cutter takes only a sliver there. */
export function isBeside({ x, y }: Loop, open: SegmentGrid, most: number): boolean {
  for (let i = 0; i + 1 < x.length; i++) {
    // Close enough together that no gap between open paths is stepped over.
    const steps = Math.max(1, Math.ceil(hypot(x[i + 1] - x[i], y[i + 1] - y[i]) / most));
    for (let k = 0; k < steps; k++) {
      const t = k / steps;
      if (open.distance(x[i] + t * (x[i + 1] - x[i]), y[i] + t * (y[i + 1] - y[i]), most) >= most) return false;
    }
  }
  return true;
}

/** Places of a loop at which a way over from open paths is looked for. */
const MOST_LOOKED = 200;
/** A way over may be so many times as long as the open path lies off the loop. */
const LONGEST_WAY = 1.5;

/** A way from a path that is open onto a loop beside it: from (x, y) to the loop's point i. */
export interface WayOver {
  i: number;
  x: number;
  y: number;
}

/**
 * A way onto a loop from an open path beside it that crosses nothing and is clear of tabs.
 * @param off how far the open paths lie off the loop, mm
 * @param isClear whether the cutter may go straight from one place to another
 * @returns null where there is none, such as where tabs stand all round
 */
export function wayOver(
  { loop, tabs }: { loop: Loop; tabs: readonly Tab[] },
  open: readonly Loop[],
  off: number,
  z1: number,
  shape: PassShape,
  isClear: (x0: number, y0: number, x1: number, y1: number) => boolean,
): WayOver | null {
  const reach = (shape.top - z1) / shape.tabSlope + shape.half;
  const step = Math.max(1, Math.floor(loop.x.length / MOST_LOOKED));
  for (let i = 0; i + 1 < loop.x.length; i += step) {
    // Over a tab the ground stays closed.
    if (tabs.some((t) => aroundLoop(loop, t.at, loop.s[i]) < reach)) continue;
    for (const path of open) {
      const near = nearestPlace(path, loop.x[i], loop.y[i]);
      if (near.d > LONGEST_WAY * off) continue;
      const { x, y } = placeOn(path, near.s);
      if (isClear(x, y, loop.x[i], loop.y[i])) return { i, x, y };
    }
  }
  return null;
}

/** Distance between two places of a loop, the shorter way round. */
function aroundLoop(l: Loop, a: number, b: number): number {
  const total = l.s[l.s.length - 1];
  const d = Math.abs(a - b) % total;
  return Math.min(d, total - d);
}

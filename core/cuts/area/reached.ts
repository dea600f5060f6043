import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import type { Leeway } from "../../geometry/leeway.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";

/**
 * Whether all that lies within `by` mm of a place is in what cutters have opened of a region; the leeway is that of
 * places with the same clearance d.
 */
export type Reached = (x: number, y: number, d: number, by: number) => Leeway;

/** Places out of reach are told so far ahead at most, mm: looking farther costs more than it saves. */
const AHEAD = 1;

/**
 * What cutters reach of a region: everything within a cutter's radius of where its centre may go, {d ≥ from} grown by
 * the radius.
 * @returns null when none reaches anything
 */
export function reachedBy(c: Clearance, cutters: readonly { radius: number; from: number }[]): Reached | null {
  const parts = cutters
    .filter((q) => q.from < c.widest)
    .map((q) => ({ ...q, grid: new SegmentGrid(inset(c, q.from).rings) }));
  if (parts.length === 0) return null;
  return (x, y, d, by) => {
    let leeway = -Infinity;
    for (const { radius, from, grid } of parts) {
      const within = radius - by;
      if (within <= 0) continue;
      leeway = Math.max(leeway, d >= from ? Infinity : within - grid.distance(x, y, within + AHEAD, within));
      if (leeway > 0) break;
    }
    return leeway;
  };
}

/** Along a wall both cutters cut the same line: less than this left beside it, mm, is nothing left. */
const SLIVER = 0.01;

/** Whether a cutter of this radius has nothing left to cut at a place with clearance d. */
export const isDone = (reached: Reached, radius: number, x: number, y: number, d: number): Leeway =>
  reached(x, y, d, radius - SLIVER);

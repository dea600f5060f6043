import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";

/** Whether all that lies within `by` of a place with clearance d is in what cutters have opened of a region; mm. */
export type Reached = (x: number, y: number, d: number, by: number) => boolean;

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
  return (x, y, d, by) =>
    parts.some(({ radius, from, grid }) => {
      const within = radius - by;
      if (within <= 0) return false;
      return d >= from || grid.distance(x, y, within, within) < within;
    });
}

/** Along a wall both cutters cut the same line: less than this left beside it, mm, is nothing left. */
const SLIVER = 0.01;

/** Whether a cutter of this radius has nothing left to cut at a place with clearance d. */
export const isDone = (reached: Reached, radius: number, x: number, y: number, d: number): boolean =>
  reached(x, y, d, radius - SLIVER);

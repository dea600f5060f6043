import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";

/** Signed distance to what cutters have opened of a region, for a point with clearance d: negative inside, mm. */
export type Reached = (x: number, y: number, d: number) => number;

/**
 * What cutters reach of a region: everything within a cutter's radius of where its centre may go, {d ≥ from} grown by
 * the radius. Deeper inside than the radius it says minus the radius: enough to tell that a smaller cutter has nothing
 * to do.
 * @returns null when none reaches anything
 */
export function reachedBy(c: Clearance, cutters: readonly { radius: number; from: number }[]): Reached | null {
  const parts = cutters
    .filter((q) => q.from < c.widest)
    .map((q) => ({ ...q, grid: new SegmentGrid(inset(c, q.from).rings) }));
  if (parts.length === 0) return null;
  return (x, y, d) => {
    let best = Infinity;
    for (const q of parts) best = Math.min(best, d >= q.from ? -q.radius : q.grid.distance(x, y, q.radius) - q.radius);
    return best;
  };
}

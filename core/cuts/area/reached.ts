import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import type { Leeway } from "../../geometry/leeway.ts";
import type { Rings } from "../../geometry/rings.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";

/**
 * Whether all that lies within `by` mm of a place is in what cutters have opened of a region; the leeway is that of
 * places with the same clearance d.
 */
export type Reached = (x: number, y: number, d: number, by: number) => Leeway;

/** A cutter, and how far its centre keeps from the walls, mm. */
export interface Reach {
  radius: number;
  from: number;
}

/** Places out of reach are told so far ahead at most, mm: looking farther costs more than it saves. */
const AHEAD = 1;

/**
 * What cutters reach of a region: everything within a cutter's radius of where its centre may go, {d ≥ from} grown by
 * the radius.
 * @returns null when none reaches anything
 */
export function reachedBy(c: Clearance, cutters: readonly Reach[]): Reached | null {
  const parts = cutters.filter((q) => q.from < c.widest).map((q) => ({ ...q, grid: null as SegmentGrid | null }));
  if (parts.length === 0) return null;
  return (x, y, d, by) => {
    let leeway = -Infinity;
    for (const part of parts) {
      const within = part.radius - by;
      if (within <= 0) continue;
      // Far inside nobody asks how far away the centre's edge is.
      if (d >= part.from) return Infinity;
      part.grid ??= gridOf(inset(c, part.from).rings);
      leeway = Math.max(leeway, within - part.grid.distance(x, y, within + AHEAD, enoughOf(part.from - d, within)));
      if (leeway > 0) break;
    }
    return leeway;
  };
}

const grids = new WeakMap<Rings, SegmentGrid>();

/** Kept with the rings: several cutters in turn come after the same one. */
function gridOf(rings: Rings): SegmentGrid {
  let grid = grids.get(rings);
  if (!grid) grids.set(rings, (grid = new SegmentGrid(rings)));
  return grid;
}

/**
 * Where it may be by more than `WIDE` mm within, an answer that holds for this share of that is looked for: the next
 * places along a ring are known by it. Nearer by the first edge that is near enough will do.
 */
const WIDE = 0.1;
const SHARE = 0.7;

/** A distance that will do, of those from the least that it may be to one that is just within. */
function enoughOf(least: number, within: number): number {
  const spare = within - least;
  return spare > WIDE ? within - SHARE * spare : within;
}

/** Along a wall both cutters cut the same line: less than this left beside it, mm, is nothing left. */
export const SLIVER = 0.01;

/** Whether a cutter of this radius has nothing left to cut at a place with clearance d. */
export const isDone = (reached: Reached, radius: number, x: number, y: number, d: number): Leeway =>
  reached(x, y, d, radius - SLIVER);

import { edgeDistance } from "../geometry/nearedge.ts";
import { SegmentGrid } from "../geometry/segmentgrid.ts";
import type { Rings } from "../geometry/rings.ts";

/** Square cells of a map: how many, and how wide, mm. */
export interface Grid {
  width: number;
  height: number;
  cell: number;
}

/**
 * The surface that a cut is asked for. What the proof leaves above it is lost detail, or floor that was not cut.
 */
export interface Asked {
  /** where anything is asked for */
  region: Rings;
  /** the level that lies flat, z in mm, where ridges may stay; null where none does */
  flat: number | null;
  /** ridges this high may stay on it, mm */
  ridge: number;
  /** the wanted z in the middle of a cell inside the region, mm, as a function of the cell's place in a map */
  over(grid: Grid): (cell: number) => number;
  /**
   * Whether a surface at z stands at most `within` mm above what is asked for, found without working that out; not
   * given where that is no quicker.
   */
  isReached?(grid: Grid): (cell: number, z: number, within: number) => boolean;
  /** whether a cell is half upright wall, so that nothing can be said of it; not given where there are none */
  isWall?(grid: Grid): (cell: number) => boolean;
}

/** Cells beside an upright wall are half wall: those this near to the edge are not judged, in cells. */
export const BESIDE = 0.75;

/** Upright walls down to a floor. */
export const upright = (region: Rings, floor: number): Asked => ({
  region,
  flat: null,
  ridge: 0,
  over: () => () => -floor,
  isWall(grid) {
    const band = BESIDE * grid.cell;
    const d = edgeDistance(region, grid, band);
    return (k) => d[k] < band;
  },
});

/** Walls that fall `slope` mm in one away from the region's edge, down to a floor where ridges may stay. */
export const sloping = (region: Rings, floor: number, slope: number, ridge: number): Asked => ({
  region,
  flat: -floor,
  ridge,
  over(grid) {
    const edges = new SegmentGrid(region);
    const foot = floor / slope;
    return (k) => {
      const d = edges.distance(...middleOf(k, grid), foot);
      return d < foot ? -d * slope : -floor;
    };
  },
  isReached(grid) {
    const edges = new SegmentGrid(region);
    return (k, z, within) => {
      if (z <= within - floor) return true;
      // Any edge so near means that no more is asked for; which one is nearest does not matter.
      const near = (within - z) / slope;
      return edges.distance(...middleOf(k, grid), near, near) < near;
    };
  },
});

/** The middle of a cell of a map, mm. */
export function middleOf(k: number, { width, cell }: Grid): [number, number] {
  const i = k % width;
  return [(i + 0.5) * cell, ((k - i) / width + 0.5) * cell];
}

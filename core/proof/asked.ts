import { edgeDistance } from "../geometry/nearedge.ts";
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
    const band = floor / slope + grid.cell;
    const d = edgeDistance(region, grid, band);
    return (k) => (d[k] < band ? -Math.min(floor, d[k] * slope) : -floor);
  },
});

import { boundsOf, ringCount, type Rings } from "../geometry/rings.ts";

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
  /**
   * The wanted z in the middle of a cell inside the region, mm, as a function of the cell's place in a map; NaN where
   * a cell is half wall and nothing can be said.
   */
  over(grid: Grid): (cell: number) => number;
}

/** Cells beside an upright wall are half wall: those this near to the edge are not judged, in cells. */
const BESIDE = 0.75;

/** Upright walls down to a floor. */
export const upright = (region: Rings, floor: number): Asked => ({
  region,
  flat: null,
  ridge: 0,
  over(grid) {
    const band = BESIDE * grid.cell;
    const d = edgeDistance(grid, region, band);
    return (k) => (d[k] < band ? NaN : -floor);
  },
});

/** Walls that fall `slope` mm in one away from the region's edge, down to a floor where ridges may stay. */
export const sloping = (region: Rings, floor: number, slope: number, ridge: number): Asked => ({
  region,
  flat: -floor,
  ridge,
  over(grid) {
    const band = floor / slope + grid.cell;
    const d = edgeDistance(grid, region, band);
    return (k) => (d[k] < band ? -Math.min(floor, d[k] * slope) : -floor);
  },
});

/** Distance of every cell's middle to the region's edge where it is less than `band`, Infinity elsewhere; mm. */
function edgeDistance({ width: W, height: H, cell }: Grid, region: Rings, band: number): Float32Array {
  const d2 = new Float32Array(W * H).fill(Infinity);
  const { xy, starts } = region;
  const most = band * band;
  for (let k = 0; k < ringCount(region); k++)
    for (let i = starts[k]; i < starts[k + 1]; i++) {
      const j = i + 1 < starts[k + 1] ? i + 1 : starts[k];
      const [x0, y0] = [xy[2 * i], xy[2 * i + 1]];
      const [dx, dy] = [xy[2 * j] - x0, xy[2 * j + 1] - y0];
      const len2 = dx * dx + dy * dy || 1e-12;
      const b = boundsOf(Float64Array.of(x0, y0, x0 + dx, y0 + dy));
      const u0 = Math.max(0, Math.floor((b.minX - band) / cell));
      const u1 = Math.min(W - 1, Math.ceil((b.maxX + band) / cell));
      const v0 = Math.max(0, Math.floor((b.minY - band) / cell));
      const v1 = Math.min(H - 1, Math.ceil((b.maxY + band) / cell));
      for (let v = v0; v <= v1; v++)
        for (let u = u0, at = v * W + u0; u <= u1; u++, at++) {
          const [px, py] = [(u + 0.5) * cell - x0, (v + 0.5) * cell - y0];
          const t = Math.max(0, Math.min(1, (px * dx + py * dy) / len2));
          const q = (px - t * dx) * (px - t * dx) + (py - t * dy) * (py - t * dy);
          if (q < most && q < d2[at]) d2[at] = q;
        }
    }
  for (let k = 0; k < d2.length; k++) if (d2[k] !== Infinity) d2[k] = Math.sqrt(d2[k]);
  return d2;
}

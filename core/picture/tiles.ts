import type { Grey } from "./raster.ts";

/** Side of a tile in pixels. */
export const TILE = 32;

/**
 * Least and greatest grey of every tile, each tile reaching one pixel left and up, so that a contour between two
 * tiles belongs to the right or lower one. Built once a picture; lets every later ink level skip flat areas.
 */
export interface TileRange {
  columns: number;
  rows: number;
  min: Uint16Array;
  max: Uint16Array;
}

/** @param grey the picture */
export function tileRange(grey: Grey): TileRange {
  const { width, height, data } = grey;
  const columns = Math.ceil(width / TILE);
  const rows = Math.ceil(height / TILE);
  const min = new Uint16Array(columns * rows).fill(65535);
  const max = new Uint16Array(columns * rows);
  for (let ty = 0; ty < rows; ty++) {
    const y1 = Math.min(height, (ty + 1) * TILE);
    for (let y = Math.max(0, ty * TILE - 1); y < y1; y++) {
      const row = y * width;
      for (let tx = 0; tx < columns; tx++) {
        const x1 = Math.min(width, (tx + 1) * TILE);
        let lo = 65535;
        let hi = 0;
        for (let x = Math.max(0, tx * TILE - 1); x < x1; x++) {
          const v = data[row + x];
          if (v < lo) lo = v;
          if (v > hi) hi = v;
        }
        const t = ty * columns + tx;
        if (lo < min[t]) min[t] = lo;
        if (hi > max[t]) max[t] = hi;
      }
    }
  }
  return { columns, rows, min, max };
}

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

/** The bytes as numbers of four bytes each, where they lie so in memory; else none. The last few bytes may be left over. */
export function wordsOf(d: Uint8Array): Uint32Array {
  return d.byteOffset % 4 === 0 ? new Uint32Array(d.buffer, d.byteOffset, d.length >> 2) : new Uint32Array(0);
}

/** @param grey the picture */
export function tileRange(grey: Grey): TileRange {
  const { width, height, data } = grey;
  const columns = Math.ceil(width / TILE);
  const rows = Math.ceil(height / TILE);
  const min = new Uint16Array(columns * rows).fill(65535);
  const max = new Uint16Array(columns * rows);
  const words = data instanceof Uint8Array && width % 4 === 0 ? wordsOf(data) : new Uint32Array(0);
  const byFours = words.length > 0;
  for (let ty = 0; ty < rows; ty++) {
    const y1 = Math.min(height, (ty + 1) * TILE);
    for (let y = Math.max(0, ty * TILE - 1); y < y1; y++) {
      const row = y * width;
      for (let tx = 0; tx < columns; tx++) {
        const x1 = Math.min(width, (tx + 1) * TILE);
        const first = data[row + Math.max(0, tx * TILE - 1)];
        let lo = first;
        let hi = first;
        let x = tx * TILE;
        if (byFours) {
          // Words of one grey that is known already, most of a drawing, need no look at their pixels.
          for (let known = first * 0x1010101; x < x1; x += 4) {
            const word = words[(row + x) >> 2];
            if (word === known) continue;
            known = word;
            for (let q = row + x; q < row + x + 4; q++) {
              // Without branches: in noise they would be guessed wrong half the time.
              const below = data[q] - lo;
              lo += below & (below >> 31);
              const above = hi - data[q];
              hi -= above & (above >> 31);
            }
          }
        } else
          for (; x < x1; x++) {
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

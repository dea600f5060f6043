import { Problem } from "../problem.ts";

/**
 * The stock's upper surface as heights on a grid of square cells: z[row·width + column] in mm, 0 the stock's top, row
 * 0 at the front (y = 0). Cell (i, j) is sampled at its centre, ((i + ½)·cell, (j + ½)·cell). `by` names the cut
 * that made it.
 */
export interface Surface {
  cell: number;
  width: number;
  height: number;
  z: Float32Array;
  /** 0 untouched, k the k-th cut */
  by: Uint8Array;
  /** how thick the stock is, mm: where a torch's cut ends */
  thickness: number;
}

/** Every n-th cell of each row and column: as much coarser. */
export function everyNth(s: Surface, n: number): Surface {
  if (n === 1) return s;
  const width = Math.max(1, Math.floor(s.width / n));
  const height = Math.max(1, Math.floor(s.height / n));
  const z = new Float32Array(width * height);
  const by = new Uint8Array(width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      z[j * width + i] = s.z[j * n * s.width + i * n];
      by[j * width + i] = s.by[j * n * s.width + i * n];
    }
  return { cell: s.cell * n, width, height, z, by, thickness: s.thickness };
}

/**
 * Most cells a proof may have: at five bytes each these are 320 MB, a board of 1 m × 0.6 m in tenths of a millimetre.
 */
const MOST_CELLS = 64e6;

/** @throws Problem `proof-too-fine` */
export function newSurface(stockWidth: number, stockHeight: number, cell: number, thickness = Infinity): Surface {
  const width = Math.max(1, Math.round(stockWidth / cell));
  const height = Math.max(1, Math.round(stockHeight / cell));
  if (!(width * height <= MOST_CELLS))
    throw new Problem(
      "proof-too-fine",
      `A proof of ${stockWidth} × ${stockHeight} mm in cells of ${cell} mm would need ` +
        `${Math.round((width * height) / 1e6)} million cells; use a coarser cell (at most ${MOST_CELLS / 1e6} ` +
        "million).",
    );
  return { cell, width, height, z: new Float32Array(width * height), by: new Uint8Array(width * height), thickness };
}

/** Cells a proof has by itself: fine enough for a 0.1 mm cell on a small board, coarser on large ones. */
const USUAL_CELLS = 1.5e6;
const FINEST_CELL = 0.05;

/** A cell for a stock size: as fine as about 1.5 million cells allow, in steps of 0.01 mm. */
export function usualCell(stockWidth: number, stockHeight: number, cells = USUAL_CELLS): number {
  return Math.max(FINEST_CELL, Math.ceil(Math.sqrt((stockWidth * stockHeight) / cells) * 100) / 100);
}

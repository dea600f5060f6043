import { lightOf } from "../../colour.ts";
import type { GreyProduct } from "../../makings/product.ts";

/** A picture's linear light on the board: each cell the mean of the pixels in it, between cells' middles bilinear. */
export interface LightMap {
  /** @returns 0 black to 1 white, level beyond the outermost cells' middles */
  at(x: number, y: number): number;
}

/**
 * A tone's greys as the light that they stand for, averaged over cells of about `cell` mm: the eye averages light, and
 * what is finer than the lines that draw it cannot be drawn.
 */
export function lightMap({ grey, picture }: GreyProduct, cell: number): LightMap {
  const { width: W, height: H, data, max } = grey;
  const { x0, y0, width, height } = picture.place;
  const columns = Math.max(1, Math.min(W, Math.round(width / cell)));
  const rows = Math.max(1, Math.min(H, Math.round(height / cell)));
  const light = Float64Array.from({ length: max + 1 }, (_, v) => lightOf(v / max));
  const sum = new Float64Array(columns * rows);
  const pixels = new Float64Array(columns * rows);
  for (let y = 0; y < H; y++) {
    // Row 0 of the picture is the far edge.
    const row = rows - 1 - Math.floor((y * rows) / H);
    for (let x = 0; x < W; x++) {
      const k = row * columns + Math.floor((x * columns) / W);
      sum[k] += light[data[y * W + x]];
      pixels[k]++;
    }
  }
  const mean = sum.map((v, k) => v / pixels[k]);
  const value = (i: number, j: number) =>
    mean[Math.max(0, Math.min(rows - 1, j)) * columns + Math.max(0, Math.min(columns - 1, i))];
  return {
    at(x, y) {
      const u = ((x - x0) / width) * columns - 0.5;
      const v = ((y - y0) / height) * rows - 0.5;
      const [i, j] = [Math.floor(u), Math.floor(v)];
      const [p, q] = [u - i, v - j];
      const near = value(i, j) * (1 - p) + value(i + 1, j) * p;
      const far = value(i, j + 1) * (1 - p) + value(i + 1, j + 1) * p;
      return near * (1 - q) + far * q;
    },
  };
}

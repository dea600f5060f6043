import type { Raster } from "./raster.ts";

/**
 * A smaller copy with at most `pixels` pixels, each the mean of a square block; the picture itself where it has no
 * more.
 */
export function shrunk(r: Raster, pixels: number): Raster {
  const k = Math.ceil(Math.sqrt((r.width * r.height) / pixels));
  if (k <= 1) return r;
  const width = Math.max(1, Math.floor(r.width / k));
  const height = Math.max(1, Math.floor(r.height / k));
  const data = r.data instanceof Uint16Array ? new Uint16Array(4 * width * height) : new Uint8Array(4 * width * height);
  const n = k * k;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let [a, b, c, d] = [0, 0, 0, 0];
      for (let v = 0; v < k; v++) {
        let o = 4 * ((y * k + v) * r.width + x * k);
        for (let u = 0; u < k; u++, o += 4) {
          a += r.data[o];
          b += r.data[o + 1];
          c += r.data[o + 2];
          d += r.data[o + 3];
        }
      }
      const o = 4 * (y * width + x);
      data[o] = a / n;
      data[o + 1] = b / n;
      data[o + 2] = c / n;
      data[o + 3] = d / n;
    }
  return { width, height, data };
}

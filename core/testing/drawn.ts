import type { Raster } from "../picture/raster.ts";

/** Pixels in a millimetre of a board 150 mm wide. */
const SCALE = 4;

/**
 * A picture of 600 by 400 pixels, 150 by 100 mm.
 * @param ink how dark it is, 0 to 1, by mm from its left and its top
 */
export function drawn(ink: (x: number, y: number) => number | boolean): Raster {
  const [width, height] = [150 * SCALE, 100 * SCALE];
  const data = new Uint8Array(4 * width * height).fill(255);
  for (let k = 0; k < width * height; k++)
    data.fill(255 * (1 - Number(ink((k % width) / SCALE, Math.floor(k / width) / SCALE))), 4 * k, 4 * k + 3);
  return { width, height, data };
}

/** Bowls that a 10 mm cutter fits into when they are 8 mm deep, though not down a ramp: it has no way in. */
export const bowlsDrawn = (): Raster =>
  drawn((x, y) => Math.max(0, 1 - (Math.hypot((x % 32) - 16, (y % 32) - 16) / 15) ** 2));

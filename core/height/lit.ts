/** A surface in samples, the first row nearest. */
interface Lit {
  width: number;
  height: number;
  z: Float32Array;
}

/** Slopes are looked at over this share of the longer side, whatever the picture's size. */
const STEPS = 180;
/** How bright level ground at the bottom is, what height adds to that, and how much a slope towards the light does. */
const GROUND = 150;
const HIGH = 90;
const FACING = 420;
/** Warm like wood: what of the light comes back in green and blue. */
const GREEN = 0.93;
const BLUE = 0.8;

/**
 * A surface from above, whole in a picture of so many pixels: lighter where it is high and where it faces a light from
 * the upper left. Pixels beside it are clear.
 */
export function litFromTheSide({ width, height, z }: Lit, wide: number, high: number): Uint8ClampedArray<ArrayBuffer> {
  const rgba = new Uint8ClampedArray(4 * wide * high);
  const low = z.reduce((a, b) => Math.min(a, b), Infinity);
  const range = Math.max(1e-6, z.reduce((a, b) => Math.max(a, b), -Infinity) - low);
  const k = Math.max(width / wide, height / high);
  const at = (i: number, j: number) => z[Math.min(height - 1, j) * width + Math.min(width - 1, i)];
  const step = Math.max(1, Math.round(Math.max(width, height) / STEPS));
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      const i = Math.floor(width / 2 + (x + 0.5 - wide / 2) * k);
      const j = Math.floor(height / 2 - (y + 0.5 - high / 2) * k);
      if (i < 0 || j < 0 || i >= width || j >= height) continue;
      const rise = (at(i + step, j) - at(i, j + step)) / range;
      const v = GROUND + (HIGH * (at(i, j) - low)) / range + FACING * rise;
      rgba.set([v, v * GREEN, v * BLUE, 255], 4 * (y * wide + x));
    }
  return rgba;
}

/** Longest side of the picture that a kept height goes by, px. */
const CARD = 640;

/** A surface's picture for its card, in the surface's own proportion. */
export function cardOf(surface: Lit): { width: number; height: number; data: Uint8ClampedArray<ArrayBuffer> } {
  const k = CARD / Math.max(surface.width, surface.height);
  const [width, height] = [surface.width, surface.height].map((v) => Math.max(1, Math.round(k * v)));
  return { width, height, data: litFromTheSide(surface, width, height) };
}

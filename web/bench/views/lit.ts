import type { DrawnSurface } from "../../compute/messages.ts";

/**
 * A surface from above, whole in a picture of so many pixels: lighter where it is high and where it faces a light from
 * the side.
 */
export function litFromTheSide(surface: DrawnSurface, wide: number, high: number): ImageData {
  const { width, height, z } = surface;
  const low = z.reduce((a, b) => Math.min(a, b), -1e-6);
  const pixels = new ImageData(wide, high);
  const k = Math.max(width / wide, height / high);
  const at = (i: number, j: number) => z[Math.min(height - 1, j) * width + Math.min(width - 1, i)];
  // Slopes over as much of the surface whatever the picture's size.
  const step = Math.max(1, Math.round(Math.max(width, height) / STEPS));
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      const i = Math.round(width / 2 + (x - wide / 2) * k);
      const j = Math.round(height / 2 - (y - high / 2) * k);
      if (i < 0 || j < 0 || i >= width || j >= height) continue;
      const here = at(i, j);
      const rise = (at(i + step, j) - at(i, j + step)) / -low;
      const v = 150 + 90 * (1 - here / low) - 260 * rise;
      pixels.data.set([v, v * 0.93, v * 0.8, 255], 4 * (y * wide + x));
    }
  return pixels;
}
const STEPS = 180;

/** Longest side of the picture that a kept height goes by, px. */
const CARD = 640;

/** A surface's picture for its card, as PNG. */
export function cardOf(surface: DrawnSurface): Promise<Blob> {
  const k = CARD / Math.max(surface.width, surface.height);
  const [wide, high] = [surface.width, surface.height].map((v) => Math.max(1, Math.round(k * v)));
  const canvas = new OffscreenCanvas(wide, high);
  canvas.getContext("2d")!.putImageData(litFromTheSide(surface, wide, high), 0, 0);
  return canvas.convertToBlob({ type: "image/png" });
}

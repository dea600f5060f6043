import type { GreyProduct } from "../makings/product.ts";
import { contrast, findInkLevel, histogram } from "../picture/tone.ts";

/** Where a tone lies: its corner and its width, mm; its size in pixels. */
export interface Lies {
  x0?: number;
  y0?: number;
  wide: number;
  width?: number;
  height?: number;
}

/**
 * A tone as a making would give it.
 * @param at its grey, 0 to 1, by place in shares of its width and height, from the left and from the front
 */
export function greyOf(at: (x: number, y: number) => number, lies: Lies): GreyProduct {
  const { x0 = 0, y0 = 0, wide, width = 400, height = 300 } = lies;
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      data[y * width + x] = Math.round(255 * at((x + 0.5) / width, 1 - (y + 0.5) / height));
  const grey = { width, height, data, max: 255 as const };
  const bins = histogram(grey);
  const scale = wide / width;
  return {
    is: "grey",
    grey,
    bins,
    found: findInkLevel(bins),
    contrast: contrast(bins),
    picture: {
      is: "raster",
      raster: { width, height, data: new Uint8Array(4) },
      place: { scale, x0, y0, y1: y0 + height * scale, width: wide, height: height * scale },
      art: null,
      shrunk: 1,
    },
  };
}

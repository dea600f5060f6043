import { Problem } from "../problem.ts";

/**
 * A decoded picture: RGBA, not premultiplied, sRGB-encoded, upright.
 * `data` holds width × height × 4 samples, 8 bit (0…255) or 16 bit (0…65535), row 0 at the top.
 */
export interface Raster {
  width: number;
  height: number;
  data: Uint8Array | Uint16Array;
}

/** A grey picture: width × height samples from 0 (black) to `max` (white), row 0 at the top. */
export interface Grey {
  width: number;
  height: number;
  data: Uint8Array | Uint16Array;
  max: 255 | 65535;
}

/** Largest picture taken in, in pixels: 100 megapixels is a 10,000 × 10,000 scan. */
export const MAX_PIXELS = 100e6;
/** Smallest side that can hold a machinable shape, in pixels. */
export const MIN_SIDE = 16;

/**
 * Refuses sizes nobody can trace.
 * @throws Problem `picture-too-large` or `picture-too-thin`
 */
export function checkPictureSize(width: number, height: number, name: string): void {
  if (width * height > MAX_PIXELS)
    throw new Problem(
      "picture-too-large",
      `${name} has ${Math.round((width * height) / 1e6)} megapixels; Oaken Bit takes up to ` +
        `${MAX_PIXELS / 1e6}. Scale it down and try again.`,
    );
  if (Math.min(width, height) < MIN_SIDE)
    throw new Problem(
      "picture-too-thin",
      `${name} is ${width} × ${height} pixels; both sides need at least ${MIN_SIDE}. Use a larger picture.`,
    );
}

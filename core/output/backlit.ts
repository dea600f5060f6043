import { encoded } from "../colour.ts";
import type { Litho } from "../makings/product.ts";
import type { Surface } from "../proof/surface.ts";

/** The colour of a warm lamp behind a sheet, 0…1 each. */
const LAMP = [1, 0.93, 0.82];

/**
 * A sheet with a lamp behind it, as it is looked at: RGBA, row 0 at the top. Light through a thickness t is
 * exp(−t/λ); the thinnest that the sheet was to have is white. Where it is cut through the lamp itself shows.
 */
export function backlit(s: Surface, sheet: number, { lambda, thin, mirrored }: Litho): Uint8ClampedArray {
  const { width: W, height: H, z } = s;
  const out = new Uint8ClampedArray(4 * W * H);
  for (let j = 0; j < H; j++)
    for (let i = 0; i < W; i++) {
      const t = Math.max(0, sheet + z[j * W + (mirrored ? W - 1 - i : i)]);
      const light = Math.min(1, Math.exp((thin - t) / lambda));
      const at = 4 * ((H - 1 - j) * W + i);
      for (let c = 0; c < 3; c++) out[at + c] = 255 * encoded(light * LAMP[c]);
      out[at + 3] = 255;
    }
  return out;
}

import type { Grey } from "../picture/raster.ts";
import { contoursAt } from "./contours.ts";
import { fitOutline } from "./outline.ts";

/**
 * Side of the picture that is traced to warm up, px: enough turns of every loop to have it compiled, in about a tenth
 * of a second.
 */
const SIDE = 144;

let warm = false;

/**
 * Traces a small picture of waves and grain once, for nothing but to have the engine compile the tracer: the first
 * picture that someone waits for then takes half as long. Meant for the time in which that picture is still being
 * fetched or decoded.
 */
export function warmUp(): void {
  if (warm) return;
  warm = true;
  const data = new Uint8Array(SIDE * SIDE);
  for (let i = 0; i < data.length; i++) {
    const [x, y] = [i % SIDE, Math.floor(i / SIDE)];
    data[i] = 128 + 90 * Math.sin(x / 9) * Math.cos(y / 11) + 6 * (((i * 7919) % 13) / 6 - 1);
  }
  const grey: Grey = { width: SIDE, height: SIDE, data, max: 255 };
  for (const level of [0.5, 0.6])
    fitOutline(
      contoursAt(grey, level),
      { scale: 1, x0: 0, y1: SIDE },
      { hold: 0.33, specks: 9, pinholes: 9, cornerAngle: 0.7, faint: true },
    );
}

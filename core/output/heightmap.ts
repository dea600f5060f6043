import type { Surface } from "../proof/surface.ts";

/**
 * Heights as 16-bit grey, row 0 at the far edge: 65535 is the stock's top, 0 is `zLow`.
 * @returns samples and the mm that one grey step stands for
 */
export function heightMap(
  s: Pick<Surface, "width" | "height" | "z">,
  zLow: number,
): { data: Uint16Array; mmPerStep: number } {
  const low = Math.min(zLow, -1e-3);
  const data = new Uint16Array(s.width * s.height);
  for (let j = 0; j < s.height; j++)
    for (let i = 0; i < s.width; i++) {
      const z = Math.max(low, s.z[j * s.width + i]);
      data[(s.height - 1 - j) * s.width + i] = Math.round((1 - z / low) * 65535);
    }
  return { data, mmPerStep: -low / 65535 };
}

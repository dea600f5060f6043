import type { HeightField } from "./field.ts";
import { smooth } from "./soft.ts";

/** How a field meets what lies round it. */
export const BORDERS = ["none", "rim", "bevel", "fade"] as const;
export type Border = (typeof BORDERS)[number];

/**
 * A field with a border along its edges: a flat rim at the stock's top, a bevel that falls from there evenly to the
 * surface's lowest, cutting through it, or a fade of the surface into the stock's top.
 * @param wide mm
 */
export function bordered(f: HeightField, border: Border, wide: number): HeightField {
  if (border === "none" || wide <= 0) return f;
  const { width, height, cell } = f;
  let low = 0;
  for (const top of f.z) low = Math.min(low, top);
  const z = f.z.slice();
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const d = cell * (Math.min(i, j, width - 1 - i, height - 1 - j) + 0.5);
      if (d >= wide) continue;
      const at = j * width + i;
      if (border === "rim") z[at] = 0;
      else if (border === "bevel") z[at] = Math.max(z[at], (low * d) / wide);
      else z[at] *= smooth(d / wide);
    }
  return { ...f, z };
}

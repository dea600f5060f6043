import type { Ray } from "three";
import type { DrawnSurface } from "../../compute/messages.ts";

/** A place on the piece, mm, and which cut made it. */
export interface Picked {
  x: number;
  y: number;
  z: number;
  by: number;
}

/** A surface is steep in places: its height where a ray meets it is found in so many steps. */
const STEPS = 4;

/** Where a ray from above meets the computed surface, or the stock's top where there is none; null where it rises. */
export function pickOn(
  s: DrawnSurface | null,
  { origin, direction }: Pick<Ray, "origin" | "direction">,
): Picked | null {
  if (direction.z >= -1e-6) return null;
  const at: Picked = { x: 0, y: 0, z: 0, by: 0 };
  for (let i = 0; i < STEPS; i++) {
    const t = (at.z - origin.z) / direction.z;
    at.x = origin.x + t * direction.x;
    at.y = origin.y + t * direction.y;
    if (!s) break;
    const ci = Math.floor(at.x / s.cell);
    const cj = Math.floor(at.y / s.cell);
    const isOn = ci >= 0 && cj >= 0 && ci < s.width && cj < s.height;
    at.z = isOn ? s.z[cj * s.width + ci] : 0;
    at.by = isOn ? s.by[cj * s.width + ci] : 0;
  }
  return at;
}

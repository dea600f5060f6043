import type { Profile } from "../cutters/profile.ts";
import { type HeightField, rangeOf } from "./field.ts";

/**
 * The part of a cutter that a surface can meet: higher up it hangs over all of it.
 * @param more of it round that part, mm
 */
export function usedOf(p: Profile, surface: HeightField, more = 0): Profile {
  const { low, high } = rangeOf(surface);
  // A little more than the difference, so that rounding leaves none out.
  return { ...p, radius: Math.min(p.radius, p.r((high - low) * 1.001 + 1e-4) + more) };
}

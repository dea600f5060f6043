import { CLEAR, type Toolpath } from "./toolpath.ts";

/** The cutter passes this far above the tallest clamp, mm. */
const ABOVE_CLAMPS = 3;

/** How high above the stock rapids go so that they pass over everything that stands on it, mm. */
export const travelHeight = (clamps: readonly { tall: number }[] = []): number =>
  Math.max(CLEAR, ...clamps.map((c) => c.tall + ABOVE_CLAMPS));

/** The same moves with everything at clear height at another one. */
export function raised(t: Toolpath, height: number): Toolpath {
  if (height <= CLEAR) return t;
  return { ...t, z: t.z.map((z) => (z === CLEAR ? height : z)) };
}

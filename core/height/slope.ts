import type { HeightField } from "./field.ts";
import { hypot } from "../hypot.ts";

/** Steps to a sample's neighbours: straight, slanted and as a chess knight goes, with their lengths in cells. */
const STEPS = [
  [1, 0],
  [0, 1],
  [1, 1],
  [-1, 1],
  [2, 1],
  [1, 2],
  [-1, 2],
  [-2, 1],
].map(([x, y]) => ({ x, y, length: hypot(x, y) }));

/**
 * Ways of such steps are at most this much longer than the straight way they stand for: G. Borgefors, "Distance
 * transformations in digital images", 1986. The limit is kept by as much, so that no slope is steeper.
 */
const DETOUR = 1.0275;

/**
 * The highest surface that lies nowhere above a field and is nowhere steeper than `slope`: min over q of
 * (w(q) + slope·|p − q|). Two sweeps over the samples pass heights on to their neighbours until nothing changes.
 */
export function limitSlope(f: HeightField, slope: number): HeightField {
  const { width, height, cell } = f;
  const z = f.z.slice();
  const rise = STEPS.map((s) => (slope * cell * s.length) / DETOUR);
  const pass = (sign: 1 | -1): boolean => {
    let changed = false;
    const rows = sign === 1 ? 0 : height - 1;
    for (let n = 0, j = rows; n < height; n++, j += sign)
      for (let m = 0, i = sign === 1 ? 0 : width - 1; m < width; m++, i += sign) {
        const at = j * width + i;
        for (let k = 0; k < STEPS.length; k++) {
          const [x, y] = [i - sign * STEPS[k].x, j - sign * STEPS[k].y];
          if (x < 0 || y < 0 || x >= width || y >= height) continue;
          const most = z[y * width + x] + rise[k];
          if (z[at] > most + 1e-7) {
            z[at] = most;
            changed = true;
          }
        }
      }
    return changed;
  };
  for (let changed = true, n = 0; changed && n < MOST_SWEEPS; n++) changed = [pass(1), pass(-1)].some(Boolean);
  return { ...f, z };
}

/** A height passes a whole map in two sweeps unless its way winds; more than this would be a fault. */
const MOST_SWEEPS = 40;

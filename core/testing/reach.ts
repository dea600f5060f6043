import { insideRegion, type Rings } from "../geometry/rings.ts";
import type { Surface } from "../proof/surface.ts";
import { distanceToRings } from "./random.ts";

/**
 * What a pocket must have done, by the definition and without any of its code: nothing cut outside the region, and
 * every place that a disc of the cutter's radius inside the region can cover at the floor.
 * @param slack how far from the edge of the reachable set a cell may be left alone, mm
 */
export function againstPocket(
  s: Surface,
  region: Rings,
  radius: number,
  depth: number,
  slack: number,
): { outside: number; left: number; deeper: number; reachable: number } {
  const { width: W, height: H, cell } = s;
  const d = new Float64Array(W * H);
  const centre = new Uint8Array(W * H);
  for (let j = 0; j < H; j++)
    for (let i = 0; i < W; i++) {
      const [x, y] = [(i + 0.5) * cell, (j + 0.5) * cell];
      const k = j * W + i;
      d[k] = (insideRegion(region, x, y) ? 1 : -1) * distanceToRings(region, x, y);
      centre[k] = d[k] >= radius ? 1 : 0;
    }
  const out = { outside: 0, left: 0, deeper: 0, reachable: 0 };
  const r = Math.floor((radius - slack) / cell);
  for (let j = 0; j < H; j++)
    for (let i = 0; i < W; i++) {
      const k = j * W + i;
      const z = s.z[k];
      if (d[k] < -0.01 && z < -1e-6) out.outside++;
      if (z < -depth - 1e-4) out.deeper++;
      if (d[k] < 0) continue;
      let reach = false;
      for (let v = -r; v <= r && !reach; v++)
        for (let u = -r; u <= r; u++) {
          if (u * u + v * v > (radius - slack) ** 2 / cell ** 2) continue;
          const [x, y] = [i + u, j + v];
          if (x >= 0 && y >= 0 && x < W && y < H && centre[y * W + x]) {
            reach = true;
            break;
          }
        }
      if (!reach) continue;
      out.reachable++;
      if (z > -depth + 1e-3) out.left++;
    }
  return out;
}

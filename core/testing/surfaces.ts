import type { Planned } from "../cuts/kind.ts";
import type { Profile } from "../cutters/profile.ts";
import { type HeightField, heightAt } from "../height/field.ts";
import { newSurface, type Surface } from "../proof/surface.ts";
import { nothingSwept, sweep } from "../proof/sweep.ts";
import { seeded } from "./random.ts";

/** The board that these surfaces lie on, and the cell that they are swept at, mm. */
export const BOARD = { width: 40, height: 30, thickness: 12 };
export const CELL = 0.05;

/** A surface on the board: smooth hills, with a step and a spike where asked. */
export function surface(seed: number, cell: number, rough: boolean, inset = 0): HeightField {
  const random = seeded(seed);
  const waves = Array.from({ length: 6 }, () => [random() * 0.6, random() * 0.6, random() * 6, 0.3 + random() * 0.5]);
  const width = Math.round((BOARD.width - 2 * inset) / cell);
  const height = Math.round((BOARD.height - 2 * inset) / cell);
  const w = new Float32Array(width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      let z = -2.4;
      for (const [a, b, c, gain] of waves) z += gain * Math.sin(a * i * cell + b * j * cell + c);
      if (rough && i * cell > 12 && i * cell < 18) z -= 1.5;
      w[j * width + i] = Math.min(0, z);
    }
  if (rough) w[Math.floor(height / 2) * width + Math.floor(0.7 * width)] = 0;
  return { x0: inset, y0: inset, cell, width, height, z: w };
}

/** Plans swept through fresh stock one after another. */
export function swept(
  plans: [Planned, Profile][],
  cell = CELL,
): { s: Surface; reports: ReturnType<typeof nothingSwept>[] } {
  const s = newSurface(BOARD.width, BOARD.height, cell, BOARD.thickness);
  const reports = plans.map(([plan, p], k) => {
    const report = nothingSwept();
    sweep(s, plan.toolpath, p, k + 1, 0, plan.toolpath.kind.length, report);
    return report;
  });
  return { s, reports };
}

/** How far the swept stock lies below the wanted surface, and above it, mm; sorted. */
export function against(s: Surface, f: HeightField, edge = 0): { below: number; above: number[] } {
  let below = 0;
  const above: number[] = [];
  for (let k = 0; k < s.z.length; k++) {
    const i = k % s.width;
    const [x, y] = [(i + 0.5) * s.cell, ((k - i) / s.width + 0.5) * s.cell];
    if (Math.min(x - edge, y - edge, BOARD.width - edge - x, BOARD.height - edge - y) < 0) continue;
    const high = s.z[k] - heightAt(f, x, y);
    below = Math.max(below, -high);
    above.push(high);
  }
  return { below, above: above.sort((a, b) => a - b) };
}

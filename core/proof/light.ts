import type { Surface } from "./surface.ts";
import type { Material } from "../cutters/materials.ts";
import { parseHex } from "../colour.ts";
import { USUAL_LIGHT as LIGHT } from "./shading.ts";
import { hypot } from "../hypot.ts";

/** Distances at which the surface's surroundings darken a place, in cells. */
const SHADE_REACH = [2, 5, 9];

/** Cells lower than this count as cut, mm. */
const TOUCHED = 1e-4;

/** A board's paint: its colour, #rrggbb, and how thick it is, mm; none, and next to nothing, when not given. */
export interface Painted {
  paint?: string;
  coat?: number;
}

/** Cells lower than this show what lies under the paint, mm. */
export const bareBelow = ({ paint, coat = 0 }: Painted): number => -(paint ? coat : 0) - TOUCHED;

/**
 * The surface as seen from straight above under slanting light: RGBA, row 0 at the far edge, so that it reads as a
 * picture. Walls facing the light are bright, places lower than their surroundings dark; raw stock keeps its grain.
 */
export function litView(
  s: Surface,
  material: Material,
  thickness: number,
  painted: Painted = {},
  mat: [number, number, number] = [35, 66, 58],
): Uint8ClampedArray {
  const { width: W, height: H, z, cell } = s;
  const out = new Uint8ClampedArray(W * H * 4);
  const norm = hypot(LIGHT.x, LIGHT.y, LIGHT.z);
  const at = (i: number, j: number) => z[Math.max(0, Math.min(H - 1, j)) * W + Math.max(0, Math.min(W - 1, i))];
  const flatLight = LIGHT.z / norm;
  const skin = painted.paint ? parseHex(painted.paint) : null;
  const under = bareBelow(painted);
  for (let j = 0; j < H; j++)
    for (let i = 0; i < W; i++) {
      const here = z[j * W + i];
      const o = ((H - 1 - j) * W + i) * 4;
      out[o + 3] = 255;
      if (here <= -thickness + 1e-6) {
        // Cut through: the mat shows.
        out[o] = mat[0];
        out[o + 1] = mat[1];
        out[o + 2] = mat[2];
        continue;
      }
      const gx = (at(i + 1, j) - at(i - 1, j)) / (2 * cell);
      const gy = (at(i, j + 1) - at(i, j - 1)) / (2 * cell);
      const n = Math.sqrt(gx * gx + gy * gy + 1);
      const lambert = Math.max(0, (-gx * LIGHT.x - gy * LIGHT.y + LIGHT.z) / (n * norm));
      let hidden = 0;
      for (const d of SHADE_REACH) {
        const around = (at(i + d, j) + at(i - d, j) + at(i, j + d) + at(i, j - d)) / 4;
        hidden += Math.max(0, Math.min(1, (around - here) / (d * cell * 2)));
      }
      const light = (0.42 + 0.58 * (lambert / flatLight)) * (1 - 0.14 * hidden);
      const bare = here < under;
      const base = bare ? material.cut : (skin ?? material.face);
      const g = !bare && skin ? 1 : 1 + 0.055 * material.grain * grain(i * cell, j * cell);
      for (let k = 0; k < 3; k++) out[o + k] = base[k] * light * g;
    }
  return out;
}

/** Long wavy streaks, −1…1: enough to read as wood, made of sines so that it needs no table. */
function grain(x: number, y: number): number {
  const warp = 2.2 * Math.sin(x * 0.021 + y * 0.05) + 1.1 * Math.sin(x * 0.047 - y * 0.11);
  const rings = Math.sin((y + warp) * 0.9) * 0.6 + Math.sin((y + warp) * 2.3 + 1.3) * 0.3;
  return rings + 0.35 * Math.sin(y * 17 + Math.sin(x * 0.3) * 2);
}

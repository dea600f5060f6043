import type { Surface } from "./surface.ts";
import type { Material } from "../cutters/materials.ts";
import { parseHex } from "../colour.ts";

/** Slope of light from the left and behind, and how far above the surface it comes from. */
const LIGHT = { x: -0.55, y: 0.6, z: 0.58 };
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
  const norm = Math.hypot(LIGHT.x, LIGHT.y, LIGHT.z);
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

/**
 * How much light reaches a surface: shadow (0 in shade, 255 lit) and openness (how little stands round it) by turns.
 */
export interface Shading {
  width: number;
  height: number;
  data: Uint8Array;
}

/** Cells of the surface for each of the shading's, sideways. */
const SHADING_STEP = 2;
/** A wall of this height and more throws full shadow, mm; softer further off. */
const SHADOW_SOFTNESS = 0.12;
/** Distances at which surroundings are looked at for openness, mm, and how much they darken at most. */
const OPEN_NEAR = 0.9;
const OPEN_FAR = 2.4;
const OPEN_DARKENS = 0.64;

/**
 * Shadow and openness under the same slanting light as {@link litView}, at half the surface's resolution.
 * Shadow by carrying the height of the last sunbeam's edge from row to row away from the light: linear in cells.
 */
export function shadingOf(s: Surface): Shading {
  const W = Math.max(1, Math.floor(s.width / SHADING_STEP));
  const H = Math.max(1, Math.floor(s.height / SHADING_STEP));
  const cell = s.cell * SHADING_STEP;
  const z = new Float32Array(W * H);
  for (let j = 0; j < H; j++)
    for (let i = 0; i < W; i++) z[j * W + i] = s.z[j * SHADING_STEP * s.width + i * SHADING_STEP];
  const data = new Uint8Array(2 * W * H);
  // One row towards the light is one cell back and this many cells aside.
  const aside = LIGHT.x / LIGHT.y;
  const drop = (cell * Math.hypot(1, aside) * LIGHT.z) / Math.hypot(LIGHT.x, LIGHT.y);
  let edge = new Float32Array(W);
  let next = new Float32Array(W);
  for (let j = H - 1; j >= 0; j--) {
    for (let i = 0; i < W; i++) {
      const from = Math.max(0, Math.min(W - 1.001, i + aside));
      const k = Math.floor(from);
      const beam = (j === H - 1 ? 0 : edge[k] + (from - k) * (edge[Math.min(W - 1, k + 1)] - edge[k])) - drop;
      const here = z[j * W + i];
      data[2 * (j * W + i)] = 255 * (1 - Math.max(0, Math.min(1, (beam - here) / SHADOW_SOFTNESS)));
      next[i] = Math.max(here, beam);
    }
    [edge, next] = [next, edge];
  }
  const around: { dx: number; dy: number; r: number }[] = [];
  for (let k = 0; k < 8; k++) {
    const r = k % 2 === 0 ? OPEN_NEAR : OPEN_FAR;
    const a = (k * Math.PI) / 4 + 0.3;
    around.push({ dx: Math.round((r * Math.cos(a)) / cell), dy: Math.round((r * Math.sin(a)) / cell), r });
  }
  for (let j = 0; j < H; j++)
    for (let i = 0; i < W; i++) {
      const here = z[j * W + i];
      let hidden = 0;
      if (here < 0)
        for (const q of around) {
          const x = Math.max(0, Math.min(W - 1, i + q.dx));
          const y = Math.max(0, Math.min(H - 1, j + q.dy));
          const rise = (z[y * W + x] - here) / (1.6 * q.r);
          if (rise > 0) hidden += Math.min(1, rise);
        }
      data[2 * (j * W + i) + 1] = 255 * (1 - (OPEN_DARKENS * hidden) / around.length);
    }
  return { width: W, height: H, data };
}

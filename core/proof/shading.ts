import type { Surface } from "./surface.ts";
import { hypot } from "../hypot.ts";

/** Where light comes from: towards it, of any length; z up. */
export interface Light {
  x: number;
  y: number;
  z: number;
}

/** From the left and behind, about as high as it is far. */
export const USUAL_LIGHT: Light = { x: -0.55, y: 0.6, z: 0.58 };

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
/** Light that comes from so nearly straight above throws no shadow: how far aside it stands for its height. */
const ABOVE = 1e-3;

/** Heights on square cells, row 0 at the near edge. */
interface Cells {
  width: number;
  height: number;
  cell: number;
  z: Float32Array;
}

type Lit = Pick<Surface, "width" | "height" | "cell" | "z">;

/** A surface's cells, coarser. */
function coarser(s: Lit): Cells {
  const width = Math.max(1, Math.floor(s.width / SHADING_STEP));
  const height = Math.max(1, Math.floor(s.height / SHADING_STEP));
  const z = new Float32Array(width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) z[j * width + i] = s.z[j * SHADING_STEP * s.width + i * SHADING_STEP];
  return { width, height, cell: s.cell * SHADING_STEP, z };
}

/** Shadow and openness under the usual light, at half the surface's resolution. */
export function shadingOf(s: Lit): Shading {
  const cells = coarser(s);
  const { width, height } = cells;
  const data = new Uint8Array(2 * cells.z.length).fill(255);
  shadows(cells, USUAL_LIGHT, data);
  openness(cells, data);
  return { width, height, data };
}

/** The same under another light: its openness stays. */
export function relit(s: Lit, shading: Shading, light: Light): Shading {
  const data = shading.data.slice();
  for (let k = 0; k < data.length; k += 2) data[k] = 255;
  shadows(coarser(s), light, data);
  return { ...shading, data };
}

/**
 * Shadow by carrying the height of the last sunbeam's edge from line to line away from the light (rows, or columns
 * where it comes more from a side): linear in cells.
 */
function shadows({ width, height, cell, z }: Cells, light: Light, data: Uint8Array): void {
  const far = hypot(light.x, light.y);
  if (far < ABOVE * light.z) return;
  const byRows = Math.abs(light.y) >= Math.abs(light.x);
  const [towards, minor] = byRows ? [light.y, light.x] : [light.x, light.y];
  const [lines, across] = byRows ? [height, width] : [width, height];
  const [nextLine, nextAcross] = byRows ? [width, 1] : [1, width];
  // One line towards the light is one cell back and this many cells aside.
  const aside = minor / Math.abs(towards);
  const drop = (cell * hypot(1, aside) * light.z) / far;
  let edge = new Float32Array(across);
  let next = new Float32Array(across);
  for (let n = 0; n < lines; n++) {
    const line = towards > 0 ? lines - 1 - n : n;
    for (let i = 0; i < across; i++) {
      const from = Math.max(0, Math.min(across - 1.001, i + aside));
      const k = Math.floor(from);
      const beam = (n === 0 ? 0 : edge[k] + (from - k) * (edge[Math.min(across - 1, k + 1)] - edge[k])) - drop;
      const at = line * nextLine + i * nextAcross;
      data[2 * at] = 255 * (1 - Math.max(0, Math.min(1, (beam - z[at]) / SHADOW_SOFTNESS)));
      next[i] = Math.max(z[at], beam);
    }
    [edge, next] = [next, edge];
  }
}

/** How open each place is: less where its surroundings stand above it. */
function openness({ width, height, cell, z }: Cells, data: Uint8Array): void {
  const around: { dx: number; dy: number; r: number }[] = [];
  for (let k = 0; k < 8; k++) {
    const r = k % 2 === 0 ? OPEN_NEAR : OPEN_FAR;
    const a = (k * Math.PI) / 4 + 0.3;
    around.push({ dx: Math.round((r * Math.cos(a)) / cell), dy: Math.round((r * Math.sin(a)) / cell), r });
  }
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const here = z[j * width + i];
      let hidden = 0;
      if (here < 0)
        for (const q of around) {
          const x = Math.max(0, Math.min(width - 1, i + q.dx));
          const y = Math.max(0, Math.min(height - 1, j + q.dy));
          const rise = (z[y * width + x] - here) / (1.6 * q.r);
          if (rise > 0) hidden += Math.min(1, rise);
        }
      data[2 * (j * width + i) + 1] = 255 * (1 - (OPEN_DARKENS * hidden) / around.length);
    }
}

import { maskOf } from "../geometry/mask.ts";
import { ringCount } from "../geometry/rings.ts";
import type { Asked } from "./asked.ts";
import type { Surface } from "./surface.ts";

/** What the proof leaves standing above the surface a cut was asked for. */
export interface LostDetail {
  /** of the asked surface, mm² */
  area: number;
  /** on walls and in corners: detail the cutter cannot reach; mm² and how high at most, mm */
  lost: number;
  lostHeight: number;
  /** on flat floor, beyond the ridges asked for; mm² and how high at most, mm */
  uncut: number;
  uncutHeight: number;
  /** the highest place of each, mm */
  lostAt: { x: number; y: number };
  uncutAt: { x: number; y: number };
}

/** Heights kept in the map, one step for so many mm. */
export const LOST_STEP = 0.02;
/** Less than this above the asked surface is rounding of moves and cells, mm. */
const FINE = 0.06;

/**
 * Compares a proof with what a cut was asked for, cell by cell, and marks in `map` how high stock stands above it in
 * steps of {@link LOST_STEP} mm. Places that other cuts took deeper count as cut.
 */
export function lostDetail(s: Surface, asked: Asked, map: Uint8Array): LostDetail {
  const { width: W, height: H, cell, z } = s;
  const out: LostDetail = {
    area: 0,
    lost: 0,
    lostHeight: 0,
    uncut: 0,
    uncutHeight: 0,
    lostAt: { x: 0, y: 0 },
    uncutAt: { x: 0, y: 0 },
  };
  if (ringCount(asked.region) === 0) return out;
  const inside = maskOf(asked.region, W, H, cell);
  const wanted = asked.over(s);
  const isReached = asked.isReached?.(s);
  const isWall = asked.isWall?.(s);
  const one = cell * cell;
  for (let k = 0; k < inside.length; k++) {
    if (!inside[k]) continue;
    out.area += one;
    if (isReached?.(k, z[k], FINE)) continue;
    const w = wanted(k);
    // Walls without a flat level meet in corners that no round cutter reaches: detail lost, not floor forgotten.
    const isFloor = w === asked.flat;
    const high = z[k] - w;
    if (!(high > FINE + (isFloor ? asked.ridge * 1.05 : 0)) || isWall?.(k)) continue;
    map[k] = Math.max(map[k], Math.min(255, Math.round(high / LOST_STEP)));
    if (isFloor) out.uncut += one;
    else out.lost += one;
    const at = { x: ((k % W) + 0.5) * cell, y: (Math.floor(k / W) + 0.5) * cell };
    if (isFloor && high > out.uncutHeight) [out.uncutHeight, out.uncutAt] = [high, at];
    if (!isFloor && high > out.lostHeight) [out.lostHeight, out.lostAt] = [high, at];
  }
  return out;
}

import type { Ideal } from "../cuts/kind.ts";
import { maskOf } from "../geometry/mask.ts";
import { boundsOf, ringCount } from "../geometry/rings.ts";
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
/** Cells beside an upright wall are half wall: those this near to the edge are not judged, in cells. */
const BESIDE = 0.75;

/**
 * Compares a proof with what a cut was asked for, cell by cell, and marks in `map` how high stock stands above it in
 * steps of {@link LOST_STEP} mm. Places that other cuts took deeper count as cut.
 */
export function lostDetail(s: Surface, ideal: Ideal, map: Uint8Array): LostDetail {
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
  if (ringCount(ideal.region) === 0) return out;
  const inside = maskOf(ideal.region, W, H, cell);
  const upright = ideal.slope === Infinity;
  const band = upright ? BESIDE * cell : ideal.floor / ideal.slope + cell;
  const d = edgeDistance(s, ideal, band);
  const one = cell * cell;
  for (let k = 0; k < inside.length; k++) {
    if (!inside[k]) continue;
    out.area += one;
    const near = d[k] < band;
    if (upright && near) continue;
    const onFloor = upright || !near || d[k] * ideal.slope >= ideal.floor;
    const high = z[k] + (onFloor ? ideal.floor : d[k] * ideal.slope);
    if (high <= FINE + (onFloor ? ideal.ridge * 1.05 : 0)) continue;
    map[k] = Math.max(map[k], Math.min(255, Math.round(high / LOST_STEP)));
    // Upright walls meet in corners that no round cutter reaches: that is detail lost, not floor forgotten.
    const floor = onFloor && !upright;
    if (floor) out.uncut += one;
    else out.lost += one;
    const at = { x: ((k % W) + 0.5) * cell, y: (Math.floor(k / W) + 0.5) * cell };
    if (floor && high > out.uncutHeight) [out.uncutHeight, out.uncutAt] = [high, at];
    if (!floor && high > out.lostHeight) [out.lostHeight, out.lostAt] = [high, at];
  }
  return out;
}

/** Distance of every cell's middle to the region's edge where it is less than `band`, Infinity elsewhere; mm. */
function edgeDistance({ width: W, height: H, cell }: Surface, { region }: Ideal, band: number): Float32Array {
  const d2 = new Float32Array(W * H).fill(Infinity);
  const { xy, starts } = region;
  const most = band * band;
  for (let k = 0; k < ringCount(region); k++)
    for (let i = starts[k]; i < starts[k + 1]; i++) {
      const j = i + 1 < starts[k + 1] ? i + 1 : starts[k];
      const [x0, y0] = [xy[2 * i], xy[2 * i + 1]];
      const [dx, dy] = [xy[2 * j] - x0, xy[2 * j + 1] - y0];
      const len2 = dx * dx + dy * dy || 1e-12;
      const b = boundsOf(Float64Array.of(x0, y0, x0 + dx, y0 + dy));
      const u0 = Math.max(0, Math.floor((b.minX - band) / cell));
      const u1 = Math.min(W - 1, Math.ceil((b.maxX + band) / cell));
      const v0 = Math.max(0, Math.floor((b.minY - band) / cell));
      const v1 = Math.min(H - 1, Math.ceil((b.maxY + band) / cell));
      for (let v = v0; v <= v1; v++)
        for (let u = u0, at = v * W + u0; u <= u1; u++, at++) {
          const [px, py] = [(u + 0.5) * cell - x0, (v + 0.5) * cell - y0];
          const t = Math.max(0, Math.min(1, (px * dx + py * dy) / len2));
          const q = (px - t * dx) * (px - t * dx) + (py - t * dy) * (py - t * dy);
          if (q < most && q < d2[at]) d2[at] = q;
        }
    }
  for (let k = 0; k < d2.length; k++) if (d2[k] !== Infinity) d2[k] = Math.sqrt(d2[k]);
  return d2;
}

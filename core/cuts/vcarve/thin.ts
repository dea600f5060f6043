import type { Clearance } from "../../geometry/clearance/clearance.ts";

/** Along a stroke clearance changes slowly; towards a corner it falls faster than this for each mm. */
const STROKE_SLOPE = 0.35;

/**
 * Strokes with clearance under `d`: their area in mm² (length × width along the axis, corners left out) and the middle of
 * the longest piece of axis among them.
 */
export function thinParts(c: Clearance, d: number): { area: number; x: number; y: number } {
  const { axis, kept } = c;
  let area = 0;
  let longest = 0;
  let x = 0;
  let y = 0;
  for (let e = 0; e < axis.a.length; e++) {
    if (!kept[e]) continue;
    const i = axis.a[e];
    const j = axis.b[e];
    if (Math.max(axis.d[i], axis.d[j]) >= d) continue;
    const len = Math.hypot(axis.x[i] - axis.x[j], axis.y[i] - axis.y[j]);
    if (Math.abs(axis.d[i] - axis.d[j]) > STROKE_SLOPE * len) continue;
    area += len * (axis.d[i] + axis.d[j]);
    if (len > longest) {
      longest = len;
      x = (axis.x[i] + axis.x[j]) / 2;
      y = (axis.y[i] + axis.y[j]) / 2;
    }
  }
  return { area, x, y };
}

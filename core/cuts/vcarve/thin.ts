import type { Clearance } from "../../geometry/clearance/clearance.ts";
import { strokeLength } from "../../geometry/clearance/strokes.ts";

/** Strokes that are too narrow for something. */
export interface ThinParts {
  /** length × width along the axis, corners left out, mm² */
  area: number;
  /** the middle of the longest piece of axis among them, mm */
  x: number;
  y: number;
}

/** Strokes with clearance under `d`, mm. */
export function thinParts(c: Clearance, d: number): ThinParts {
  const { axis } = c;
  let area = 0;
  let longest = 0;
  let x = 0;
  let y = 0;
  for (let e = 0; e < axis.a.length; e++) {
    const i = axis.a[e];
    const j = axis.b[e];
    if (Math.max(axis.d[i], axis.d[j]) >= d) continue;
    const len = strokeLength(c, e);
    if (len === 0) continue;
    area += len * (axis.d[i] + axis.d[j]);
    if (len > longest) {
      longest = len;
      x = (axis.x[i] + axis.x[j]) / 2;
      y = (axis.y[i] + axis.y[j]) / 2;
    }
  }
  return { area, x, y };
}

import type { Clearance } from "./clearance.ts";
import { hypot } from "../../hypot.ts";

/** Along a stroke clearance changes more slowly than this for each mm; corners and ends fall faster. */
const STROKE_SLOPE = 0.35;

/**
 * Length of edge e of the axis where it runs along a stroke; 0 for edges left out and those into corners and ends. mm
 */
export function strokeLength({ axis, kept }: Clearance, e: number): number {
  if (!kept[e]) return 0;
  const i = axis.a[e];
  const j = axis.b[e];
  const len = hypot(axis.x[i] - axis.x[j], axis.y[i] - axis.y[j]);
  return len < 1e-9 || Math.abs(axis.d[i] - axis.d[j]) > STROKE_SLOPE * len ? 0 : len;
}

/** Widths of strokes along the axis, weighted by length, mm. */
export interface StrokeWidths {
  /** that 3 % lie under, the middle one, and that 90 % lie under */
  thinnest: number;
  typical: number;
  wide: number;
}

/** @returns null where nothing is a stroke */
export function strokeWidths(c: Clearance): StrokeWidths | null {
  const { axis } = c;
  const widths: { w: number; len: number }[] = [];
  let total = 0;
  for (let e = 0; e < axis.a.length; e++) {
    const len = strokeLength(c, e);
    if (len === 0) continue;
    const i = axis.a[e];
    const j = axis.b[e];
    widths.push({ w: axis.d[i] + axis.d[j], len });
    total += len;
  }
  if (widths.length === 0) return null;
  widths.sort((a, b) => a.w - b.w);
  const at = (share: number) => {
    let sum = 0;
    for (const x of widths) if ((sum += x.len) >= share * total) return x.w;
    return widths[widths.length - 1].w;
  };
  return { thinnest: at(0.03), typical: at(0.5), wide: at(0.9) };
}

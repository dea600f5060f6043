import { isCone, type Profile } from "../cutters/profile.ts";
import type { Box } from "../geometry/rings.ts";
import type { Surface } from "./surface.ts";
import { hypot } from "../hypot.ts";

/** A level arc about (cx, cy): every cell by its distance from the arc, exactly. */
export function sweepLevelArc(
  s: Surface,
  p: Profile,
  cut: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  cx: number,
  cy: number,
  angle: number,
  low: number,
): void {
  const R = hypot(x1 - cx, y1 - cy);
  const reach = p.r(-low);
  const { cell, width, height, z, by } = s;
  const box = arcBox(x0, y0, x1, y1, cx, cy, R, angle);
  const j0 = Math.max(0, Math.ceil((box.minY - reach) / cell - 0.5));
  const j1 = Math.min(height - 1, Math.floor((box.maxY + reach) / cell - 0.5));
  const left = Math.max(0, Math.ceil((box.minX - reach) / cell - 0.5));
  const right = Math.min(width - 1, Math.floor((box.maxX + reach) / cell - 0.5));
  const outer2 = (R + reach) * (R + reach);
  const inner = Math.max(0, R - reach);
  // Directions of both ends from the centre, begun at the clockwise one: a cell is abreast of the arc between them.
  const [ax, ay, bx, by1] = angle > 0 ? [x0 - cx, y0 - cy, x1 - cx, y1 - cy] : [x1 - cx, y1 - cy, x0 - cx, y0 - cy];
  const wide = Math.abs(angle) > Math.PI;
  const { coneSlope, flat } = p;
  const cone = isCone(p);
  for (let j = j0; j <= j1; j++) {
    const y = (j + 0.5) * cell - cy;
    const half = Math.sqrt(Math.max(0, outer2 - y * y));
    const i0 = Math.max(left, Math.ceil((cx - half) / cell - 0.5));
    const i1 = Math.min(right, Math.floor((cx + half) / cell - 0.5));
    const hollow = inner > Math.abs(y) ? Math.sqrt(inner * inner - y * y) : 0;
    const skipFrom = Math.ceil((cx - hollow) / cell - 0.5) + 1;
    const skipTo = Math.floor((cx + hollow) / cell - 0.5) - 1;
    for (let i = i0; i <= i1; i++) {
      if (i >= skipFrom && i < skipTo) i = skipTo;
      const at = j * width + i;
      if (z[at] <= low) continue;
      const x = (i + 0.5) * cell - cx;
      const afterA = ax * y - ay * x >= 0;
      const beforeB = bx * y - by1 * x <= 0;
      const abreast = wide ? afterA || beforeB : afterA && beforeB;
      const d = abreast
        ? Math.abs(Math.sqrt(x * x + y * y) - R)
        : Math.sqrt(Math.min((x - ax) * (x - ax) + (y - ay) * (y - ay), (x - bx) * (x - bx) + (y - by1) * (y - by1)));
      if (d > reach) continue;
      const v = cone ? (d > flat ? low + (d - flat) * coneSlope : low) : low + p.h(d);
      if (v < z[at]) {
        z[at] = v;
        by[at] = cut;
      }
    }
  }
}

/** Bounds of an arc: its ends, and the axis directions it passes. */
function arcBox(x0: number, y0: number, x1: number, y1: number, cx: number, cy: number, r: number, angle: number): Box {
  const box = { minX: Math.min(x0, x1), maxX: Math.max(x0, x1), minY: Math.min(y0, y1), maxY: Math.max(y0, y1) };
  const from = angle > 0 ? Math.atan2(y0 - cy, x0 - cx) : Math.atan2(y1 - cy, x1 - cx);
  for (let k = 0; k < 4; k++) {
    let past = (k * Math.PI) / 2 - from;
    while (past < 0) past += 2 * Math.PI;
    while (past >= 2 * Math.PI) past -= 2 * Math.PI;
    if (past > Math.abs(angle)) continue;
    if (k === 0) box.maxX = cx + r;
    else if (k === 1) box.maxY = cy + r;
    else if (k === 2) box.minX = cx - r;
    else box.minY = cy - r;
  }
  return box;
}

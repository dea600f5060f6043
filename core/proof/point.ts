import { isCone, isFlat, type Profile } from "../cutters/profile.ts";
import { clip, EDGE, span } from "./span.ts";
import type { Swath } from "./swath.ts";
import type { Surface } from "./surface.ts";

/**
 * The cutter standing at a point: every cell under it; or, at a bend between two swaths, only the cells that lie
 * abreast of neither, beyond the end of `from` and before the start of `to`.
 */
export function cutPoint(
  s: Surface,
  p: Profile,
  cut: number,
  x: number,
  y: number,
  low: number,
  from: Swath | null = null,
  to: Swath | null = null,
): void {
  if (low >= 0) return;
  const { cell, width, height, z, by } = s;
  const reach = p.r(-low);
  const { flat, coneSlope } = p;
  const level = isFlat(p);
  const cone = isCone(p);
  let [below, above] = [-reach, reach];
  if (from && to && from.ahead === 0 && to.ahead === 0) [below, above] = wedge(from, to, reach);
  const j0 = Math.max(0, Math.ceil((y + below) / cell - 0.5 - EDGE));
  const j1 = Math.min(height - 1, Math.floor((y + above) / cell - 0.5 + EDGE));
  for (let j = j0; j <= j1; j++) {
    const dy = (j + 0.5) * cell - y;
    span[1] = Math.sqrt(Math.max(0, reach * reach - dy * dy));
    span[0] = -span[1];
    if (from) beyond(from.ux, from.uy, from.ahead, dy);
    if (to) beyond(-to.ux, -to.uy, -to.ahead, dy);
    const i0 = Math.max(0, Math.ceil((x + span[0]) / cell - 0.5 - EDGE));
    const i1 = Math.min(width - 1, Math.floor((x + span[1]) / cell - 0.5 + EDGE));
    // Where a swath's own cells part a row in two, the stretch between is left out.
    let skipFrom = i1 + 1;
    let skipTo = i1;
    const gap =
      from && from.ahead > 0
        ? between(from.ux, from.uy, from.ahead, dy)
        : to && to.ahead < 0
          ? between(-to.ux, -to.uy, -to.ahead, dy)
          : false;
    if (gap) {
      skipFrom = Math.max(i0, Math.ceil((x + span[0]) / cell - 0.5 + EDGE));
      skipTo = Math.min(i1, Math.floor((x + span[1]) / cell - 0.5 - EDGE));
    }
    for (let i = i0, at = j * width + i0; i <= i1; i++, at++) {
      if (i === skipFrom && skipTo >= skipFrom) {
        at += skipTo - skipFrom;
        i = skipTo;
        continue;
      }
      if (z[at] <= low) continue;
      const dx = (i + 0.5) * cell - x;
      const r = Math.sqrt(dx * dx + dy * dy);
      const v = level ? low : cone ? (r > flat ? low + (r - flat) * coneSlope : low) : low + p.h(r);
      if (v < z[at]) {
        z[at] = v;
        by[at] = cut;
      }
    }
  }
}

/** How far below and above a bend between level swaths its wedge reaches, on the outer side. */
function wedge(from: Swath, to: Swath, reach: number): [number, number] {
  const left = from.ux * to.uy - from.uy * to.ux > 0;
  // From the first swath's outer normal to the second's, counter-clockwise.
  const [ax, ay, bx, by] = left ? [from.uy, -from.ux, to.uy, -to.ux] : [-to.uy, to.ux, -from.uy, from.ux];
  const top = ax >= 0 && bx <= 0 && (ax > bx || ay > 0 || by > 0);
  const bottom = ax <= 0 && bx >= 0 && (ax < bx || ay < 0 || by < 0);
  return [bottom ? -reach : reach * Math.min(0, ay, by), top ? reach : reach * Math.max(0, ay, by)];
}

/** Narrows the row at height y to where x·ux + y·uy + ahead·|across| ≥ 0, as far as that is one stretch. */
function beyond(ux: number, uy: number, ahead: number, y: number): void {
  if (ahead > 0) return;
  clip(ux - ahead * uy, y * (uy + ahead * ux), 0, Infinity);
  clip(ux + ahead * uy, y * (uy - ahead * ux), 0, Infinity);
}

/** For ahead > 0: the stretch of the row where the same is negative. @returns whether there is one */
function between(ux: number, uy: number, ahead: number, y: number): boolean {
  span[0] = -Infinity;
  span[1] = Infinity;
  clip(ux - ahead * uy, y * (uy + ahead * ux), -Infinity, 0);
  clip(ux + ahead * uy, y * (uy - ahead * ux), -Infinity, 0);
  return span[0] < span[1];
}

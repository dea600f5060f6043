import { isCone, isFlat, type Profile } from "../cutters/profile.ts";
import { cutCrescent } from "./crescent.ts";
import { clip, EDGE, span } from "./span.ts";
import { Straight } from "./straight.ts";
import type { Surface } from "./surface.ts";

/**
 * A straight move whose lowest pass over a cell has a closed form that needs no look at its ends: a level move of any
 * cutter, a sloping one of a flat, and of a sharp cone less steep than the cone's flank.
 *
 * Over a cell at (along, across) the cutter is lowest when its tip is at w = along + ahead·across of the move, and the
 * cell lies *abreast* while 0 ≤ w ≤ length. Height over the move is convex in w, so a cell beyond the end is lowest
 * over the end. (A sloping flat's w is where its rim leaves the cell last, or comes to it first.)
 */
export class Swath extends Straight {
  /** how far ahead of abreast the cutter is lowest, for each mm across: negative when it climbs */
  ahead = 0;
  /** rise of the groove's wall for each mm across */
  wall = 0;
  /** taken further at its start and end, so that the wedge of a slight bend is covered, mm */
  before = 0;
  after = 0;

  /** @returns whether the move is of this kind; what is kept is of no use otherwise */
  set(p: Profile, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): boolean {
    if (!this.place(x0, y0, z0, x1, y1, z1)) return false;
    const { slope } = this;
    const steep = Math.abs(slope);
    const low = Math.min(z0, z1);
    // Deeper than the cone is high its shank's wall would come into play.
    const flat = isFlat(p);
    if (
      slope !== 0 &&
      !flat &&
      !(isCone(p) && p.flat === 0 && steep < 0.98 * p.coneSlope && -low <= p.radius * p.coneSlope)
    )
      return false;
    this.wall = flat ? 0 : Math.sqrt(p.coneSlope * p.coneSlope - slope * slope);
    this.ahead = slope === 0 || flat ? 0 : -slope / this.wall;
    this.reach = p.r(-low) / Math.sqrt(1 + this.ahead * this.ahead);
    this.before = this.after = 0;
    return true;
  }
}

/** The cells abreast of a swath. */
export function cutAbreast(s: Surface, p: Profile, cut: number, k: Swath): void {
  if (k.slope === 0) return strip(s, p, cut, k);
  if (k.wall === 0) return cutCrescent(s, cut, k);
  side(s, cut, k, 1);
  side(s, cut, k, -1);
}

/** Rows that a swath's strip may touch, widened by `extra` mm along it. */
function rows(s: Surface, k: Swath, extra: number): [number, number] {
  const a = k.y0 - (k.before + extra) * k.uy;
  const b = k.y1 + (k.after + extra) * k.uy;
  const across = k.reach * Math.abs(k.ux);
  return [
    Math.max(0, Math.ceil((Math.min(a, b) - across) / s.cell - 0.5 - EDGE)),
    Math.min(s.height - 1, Math.floor((Math.max(a, b) + across) / s.cell - 0.5 + EDGE)),
  ];
}

/** A level swath: everything across −reach…reach. */
function strip(s: Surface, p: Profile, cut: number, k: Swath): void {
  const { cell, width, z, by } = s;
  const { ux, uy, reach, z0: low } = k;
  const { flat, coneSlope } = p;
  const level = isFlat(p);
  const cone = isCone(p);
  const [j0, j1] = rows(s, k, 0);
  // In each row the strip lies between two pairs of edges, its sides and its ends, all linear in y: counted in cells.
  const tilt = Math.abs(uy) > 1e-9 ? ux / uy : 0;
  const half = Math.abs(uy) > 1e-9 ? reach / Math.abs(uy) / cell : Infinity;
  const lean = Math.abs(ux) > 1e-9 ? -uy / ux : 0;
  const [start, end] =
    Math.abs(ux) > 1e-9 ? [-k.before / ux / cell, (k.length + k.after) / ux / cell] : [-Infinity, Infinity];
  const [first, last] = start < end ? [start, end] : [end, start];
  const origin = k.x0 / cell - 0.5;
  for (let j = j0; j <= j1; j++) {
    const y = (j + 0.5) * cell - k.y0;
    const row = y / cell;
    const middle = origin + row * tilt;
    const foot = origin + row * lean;
    const a = middle - half > foot + first ? middle - half : foot + first;
    const b = middle + half < foot + last ? middle + half : foot + last;
    const i0 = a > 0 ? Math.ceil(a - EDGE) : 0;
    const i1 = b < width - 1 ? Math.floor(b + EDGE) : width - 1;
    let at = j * width + i0;
    if (level) {
      for (let i = i0; i <= i1; i++, at++)
        if (z[at] > low) {
          z[at] = low;
          by[at] = cut;
        }
      continue;
    }
    let t = y * ux - ((i0 + 0.5) * cell - k.x0) * uy;
    const step = -cell * uy;
    for (let i = i0; i <= i1; i++, at++, t += step) {
      if (z[at] <= low) continue;
      const across = t < 0 ? -t : t;
      const v = cone ? (across > flat ? low + (across - flat) * coneSlope : low) : low + p.h(across);
      if (v < z[at]) {
        z[at] = v;
        by[at] = cut;
      }
    }
  }
}

/** One flank of a sloping cone's groove, a plane: left of the move (1) or right of it (−1). */
function side(s: Surface, cut: number, k: Swath, hand: 1 | -1): void {
  const { cell, width, z, by } = s;
  const { ux, uy, reach, ahead, slope, wall, length } = k;
  const [j0, j1] = rows(s, k, Math.abs(ahead) * reach);
  // across = hand·(y·ux − x·uy); w = x·ux + y·uy + ahead·across.
  const kx = ux - hand * ahead * uy;
  const ky = uy + hand * ahead * ux;
  const rise = cell * (slope * ux - hand * wall * uy);
  for (let j = j0; j <= j1; j++) {
    const y = (j + 0.5) * cell - k.y0;
    span[0] = -Infinity;
    span[1] = Infinity;
    clip(-hand * uy, hand * y * ux, 0, reach);
    clip(kx, y * ky, 0, length);
    const i0 = Math.max(0, Math.ceil((k.x0 + span[0]) / cell - 0.5 - EDGE));
    const i1 = Math.min(width - 1, Math.floor((k.x0 + span[1]) / cell - 0.5 + EDGE));
    if (i0 > i1) continue;
    const x = (i0 + 0.5) * cell - k.x0;
    let v = k.z0 + slope * (x * ux + y * uy) + hand * wall * (y * ux - x * uy);
    for (let i = i0, at = j * width + i0; i <= i1; i++, at++, v += rise)
      if (v < z[at]) {
        z[at] = v;
        by[at] = cut;
      }
  }
}

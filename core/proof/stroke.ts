import type { Profile } from "../cutters/profile.ts";
import type { Surface } from "./surface.ts";

/**
 * A straight move whose lowest pass over a cell has a closed form that needs no look at its ends: a level move of any cutter,
 * a sloping one of a flat, and of a sharp cone less steep than the cone's flank.
 *
 * Over a cell at (along, across) the cutter is lowest when its tip is at w = along + ahead·across of the move, and the cell
 * lies *abreast* while 0 ≤ w ≤ length. Height over the move is convex in w, so a cell beyond the end is lowest over the end.
 * (A sloping flat's w is where its rim leaves the cell last, or comes to it first.)
 */
export class Stroke {
  x0 = 0;
  y0 = 0;
  z0 = 0;
  x1 = 0;
  y1 = 0;
  z1 = 0;
  /** direction */
  ux = 0;
  uy = 0;
  length = 0;
  /** rise for each mm of way */
  slope = 0;
  /** how far ahead of abreast the cutter is lowest, for each mm across: negative when it climbs */
  ahead = 0;
  /** rise of the groove's wall for each mm across */
  wall = 0;
  /** farthest across that it can cut, mm */
  reach = 0;
  /** taken further at its start and end, so that the wedge of a slight bend is covered, mm */
  before = 0;
  after = 0;

  /** @returns whether the move is of this kind; what is kept is of no use otherwise */
  set(p: Profile, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): boolean {
    const dx = x1 - x0;
    const dy = y1 - y0;
    const length = Math.sqrt(dx * dx + dy * dy);
    if (length < 1e-9) return false;
    const slope = (z1 - z0) / length;
    const steep = Math.abs(slope);
    const low = Math.min(z0, z1);
    // Deeper than the cone is high its shank's wall would come into play.
    const flat = p.ball === 0 && p.coneSlope === 0;
    if (slope !== 0 && !flat && !(p.ball === 0 && p.flat === 0 && steep < 0.98 * p.coneSlope && -low <= p.radius * p.coneSlope)) return false;
    this.x0 = x0;
    this.y0 = y0;
    this.z0 = z0;
    this.x1 = x1;
    this.y1 = y1;
    this.z1 = z1;
    this.ux = dx / length;
    this.uy = dy / length;
    this.length = length;
    this.slope = slope;
    this.wall = flat ? 0 : Math.sqrt(p.coneSlope * p.coneSlope - slope * slope);
    this.ahead = slope === 0 || flat ? 0 : -slope / this.wall;
    this.reach = p.r(-low) / Math.sqrt(1 + this.ahead * this.ahead);
    this.before = this.after = 0;
    return true;
  }
}

/** Rounding that a cell's middle on an edge may have, in cells: it belongs to both sides. */
const EDGE = 1e-7;

// The stretch of a row at hand, from and to, mm. An array, because numbers in variables out here would be boxed at every write.
const span = new Float64Array(2);

/** Narrows the stretch to where least ≤ k·x + c ≤ most. */
function clip(k: number, c: number, least: number, most: number): void {
  if (k > 1e-12) {
    const a = (least - c) / k;
    const b = (most - c) / k;
    if (a > span[0]) span[0] = a;
    if (b < span[1]) span[1] = b;
  } else if (k < -1e-12) {
    const a = (most - c) / k;
    const b = (least - c) / k;
    if (a > span[0]) span[0] = a;
    if (b < span[1]) span[1] = b;
  } else if (c < least || c > most) span[1] = -Infinity;
}

/** The cells abreast of a stroke. */
export function cutAbreast(s: Surface, p: Profile, cut: number, k: Stroke): void {
  if (k.slope === 0) return strip(s, p, cut, k);
  if (k.wall === 0) return crescent(s, cut, k);
  side(s, cut, k, 1);
  side(s, cut, k, -1);
}

/** Rows that a stroke's strip may touch, widened by `extra` mm along it. */
function rows(s: Surface, k: Stroke, extra: number): [number, number] {
  const a = k.y0 - (k.before + extra) * k.uy;
  const b = k.y1 + (k.after + extra) * k.uy;
  const across = k.reach * Math.abs(k.ux);
  return [Math.max(0, Math.ceil((Math.min(a, b) - across) / s.cell - 0.5 - EDGE)), Math.min(s.height - 1, Math.floor((Math.max(a, b) + across) / s.cell - 0.5 + EDGE))];
}

/** A level stroke: everything across −reach…reach. */
function strip(s: Surface, p: Profile, cut: number, k: Stroke): void {
  const { cell, width, z, by } = s;
  const { ux, uy, reach, z0: low } = k;
  const { flat, coneSlope } = p;
  const level = p.ball === 0 && coneSlope === 0;
  const cone = p.ball === 0 && !level;
  const [j0, j1] = rows(s, k, 0);
  // In each row the strip lies between two pairs of edges, its sides and its ends, all linear in y: counted in cells.
  const tilt = Math.abs(uy) > 1e-9 ? ux / uy : 0;
  const half = Math.abs(uy) > 1e-9 ? reach / Math.abs(uy) / cell : Infinity;
  const lean = Math.abs(ux) > 1e-9 ? -uy / ux : 0;
  const [start, end] = Math.abs(ux) > 1e-9 ? [-k.before / ux / cell, (k.length + k.after) / ux / cell] : [-Infinity, Infinity];
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

/** A sloping flat: what it leaves behind on its way down from its upper end, all but the disc at its lower end. */
function crescent(s: Surface, cut: number, k: Stroke): void {
  const { cell, width, height, z, by } = s;
  const R = k.reach;
  const sinks = k.slope < 0;
  const [x0, y0, z0, x1, y1] = sinks ? [k.x0, k.y0, k.z0, k.x1, k.y1] : [k.x1, k.y1, k.z1, k.x0, k.y0];
  const ux = sinks ? k.ux : -k.ux;
  const uy = sinks ? k.uy : -k.uy;
  const fall = Math.abs(k.slope);
  const j0 = Math.max(0, Math.ceil((Math.min(y0, y1) - R) / cell - 0.5));
  const j1 = Math.min(height - 1, Math.floor((Math.max(y0, y1) + R) / cell - 0.5));
  for (let j = j0; j <= j1; j++) {
    const y = (j + 0.5) * cell - y0;
    // The move's whole row: both discs and the strip between them.
    span[0] = -Infinity;
    span[1] = Infinity;
    clip(-uy, y * ux, -R, R);
    clip(ux, y * uy, 0, k.length);
    if (span[0] > span[1]) {
      span[0] = Infinity;
      span[1] = -Infinity;
    }
    const start = R * R - y * y;
    if (start >= 0) {
      const half = Math.sqrt(start);
      span[0] = Math.min(span[0], -half);
      span[1] = Math.max(span[1], half);
    }
    const v1 = y + y0 - y1;
    const end = R * R - v1 * v1;
    const half = end >= 0 ? Math.sqrt(end) : -1;
    if (half >= 0) {
      span[0] = Math.min(span[0], x1 - x0 - half);
      span[1] = Math.max(span[1], x1 - x0 + half);
    }
    const i0 = Math.max(0, Math.ceil((x0 + span[0]) / cell - 0.5 - EDGE));
    const i1 = Math.min(width - 1, Math.floor((x0 + span[1]) / cell - 0.5 + EDGE));
    const skipFrom = half < 0 ? i1 + 1 : Math.max(i0, Math.ceil((x1 - half) / cell - 0.5 + EDGE));
    const skipTo = half < 0 ? i1 : Math.min(i1, Math.floor((x1 + half) / cell - 0.5 - EDGE));
    for (let i = i0, at = j * width + i0; i <= i1; i++, at++) {
      if (i === skipFrom && skipTo >= skipFrom) {
        at += skipTo - skipFrom;
        i = skipTo;
        continue;
      }
      const x = (i + 0.5) * cell - x0;
      const across = y * ux - x * uy;
      const rim = R * R - across * across;
      if (rim < 0) continue;
      const w = x * ux + y * uy + Math.sqrt(rim);
      const v = z0 - fall * (w < 0 ? 0 : w > k.length ? k.length : w);
      if (v < z[at]) {
        z[at] = v;
        by[at] = cut;
      }
    }
  }
}

/** One flank of a sloping cone's groove, a plane: left of the move (1) or right of it (−1). */
function side(s: Surface, cut: number, k: Stroke, hand: 1 | -1): void {
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

/**
 * The cutter standing at a point: every cell under it; or, at a bend between two strokes, only the cells that lie abreast of
 * neither, beyond the end of `from` and before the start of `to`.
 */
export function cutPoint(s: Surface, p: Profile, cut: number, x: number, y: number, low: number, from: Stroke | null = null, to: Stroke | null = null): void {
  if (low >= 0) return;
  const { cell, width, height, z, by } = s;
  const reach = p.r(-low);
  const { flat, coneSlope } = p;
  const level = p.ball === 0 && coneSlope === 0;
  const cone = p.ball === 0 && !level;
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
    // Where a stroke's own cells part a row in two, the stretch between is left out.
    let skipFrom = i1 + 1;
    let skipTo = i1;
    const gap = from && from.ahead > 0 ? between(from.ux, from.uy, from.ahead, dy) : to && to.ahead < 0 ? between(-to.ux, -to.uy, -to.ahead, dy) : false;
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

/** How far below and above a bend between level strokes its wedge reaches, on the outer side. */
function wedge(from: Stroke, to: Stroke, reach: number): [number, number] {
  const left = from.ux * to.uy - from.uy * to.ux > 0;
  // From the first stroke's outer normal to the second's, counter-clockwise.
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

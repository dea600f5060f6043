import type { Clearance } from "../geometry/clearance/clearance.ts";
import { strokeLength } from "../geometry/clearance/strokes.ts";
import { boundsOf, type Box, insideRing, ringArea, ringCount, type Rings } from "../geometry/rings.ts";
import { hypot } from "../hypot.ts";

/** One piece of ink, or one hole in the ink. Lengths in mm. */
export interface Piece {
  ring: number;
  hole: boolean;
  /** its own outline's area, holes not taken off, mm² */
  area: number;
  box: Box;
  /** a point on its outline */
  x: number;
  y: number;
  /** narrowest stroke of a piece of ink; 0 for holes */
  thinnest: number;
}

/** A stroke's width is the one that this share of its length lies under. */
const NARROW_SHARE = 0.03;

/** Every piece and hole, largest first. */
export function piecesOf(ink: Rings, c: Clearance): Piece[] {
  const widths = new Map<number, { w: number; len: number }[]>();
  const { axis, boundary } = c;
  // A clearance drops empty rings: its rings are told by a point each.
  const ringAt = boundaryRings(ink, c);
  const areas = Float64Array.from({ length: ringCount(ink) }, (_, k) =>
    ink.starts[k + 1] - ink.starts[k] < 3 ? 0 : ringArea(ink, k),
  );
  for (let e = 0; e < axis.a.length; e++) {
    const i = axis.a[e];
    const j = axis.b[e];
    const len = strokeLength(c, e);
    if (len === 0) continue;
    const ring = ringAt[boundary.ring[axis.left[e]]];
    const outer = areas[ring] < 0 ? ink.parent[ring] : ring;
    const list = widths.get(outer);
    const w = { w: axis.d[i] + axis.d[j], len };
    if (list) list.push(w);
    else widths.set(outer, [w]);
  }
  const out: Piece[] = [];
  for (let k = 0; k < ringCount(ink); k++) {
    const area = areas[k];
    if (area === 0) continue;
    const s = ink.starts[k];
    out.push({
      ring: k,
      hole: area < 0,
      area: Math.abs(area),
      box: boundsOf(ink.xy, s, ink.starts[k + 1]),
      x: ink.xy[2 * s],
      y: ink.xy[2 * s + 1],
      thinnest: area < 0 ? 0 : narrow(widths.get(k) ?? []),
    });
  }
  return out.sort((a, b) => b.area - a.area);
}

function boundaryRings(ink: Rings, c: Clearance): Int32Array {
  const out = new Int32Array(c.boundary.starts.length - 1);
  let k = 0;
  for (let q = 0; q < out.length; q++) {
    const i = c.boundary.starts[q];
    while (k < ringCount(ink) && !(ink.starts[k + 1] > ink.starts[k] && near(ink, k, c.boundary.x[i], c.boundary.y[i])))
      k++;
    out[q] = Math.min(k++, ringCount(ink) - 1);
  }
  return out;
}

const near = (r: Rings, k: number, x: number, y: number): boolean => {
  for (let i = r.starts[k]; i < Math.min(r.starts[k + 1], r.starts[k] + 4); i++)
    if (Math.abs(r.xy[2 * i] - x) + Math.abs(r.xy[2 * i + 1] - y) < 1e-4) return true;
  return false;
};

function narrow(widths: { w: number; len: number }[]): number {
  widths.sort((a, b) => a.w - b.w);
  let total = 0;
  for (const x of widths) total += x.len;
  let sum = 0;
  for (const x of widths) if ((sum += x.len) >= NARROW_SHARE * total) return x.w;
  return 0;
}

/** The smallest ring around a point, −1 where there is none. */
export function ringAround(r: Rings, x: number, y: number): number {
  let best = -1;
  let least = Infinity;
  for (let k = 0; k < ringCount(r); k++) {
    const area = Math.abs(ringArea(r, k));
    if (area < least && insideRing(r, k, x, y)) {
      least = area;
      best = k;
    }
  }
  return best;
}

/**
 * How far inside its outline a piece's place is looked for, mm: far first, for places are kept to a tenth of a pixel.
 */
const INSIDE = [0.4, 0.15, 0.05, 0.02];

/** A place whose smallest ring around is ring k: just inside the outline of a piece, or of a hole. */
export function placeIn(r: Rings, k: number): [number, number] {
  const side = ringArea(r, k) < 0 ? -1 : 1;
  const n = r.starts[k + 1] - r.starts[k];
  const tries = Math.min(n, 40);
  for (const by of INSIDE)
    for (let q = 0; q < tries; q++) {
      const i = r.starts[k] + Math.floor((q * n) / tries);
      const j = i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k];
      const [dx, dy] = [r.xy[2 * j] - r.xy[2 * i], r.xy[2 * j + 1] - r.xy[2 * i + 1]];
      const len = hypot(dx, dy);
      if (len === 0) continue;
      const x = (r.xy[2 * i] + r.xy[2 * j]) / 2 - (side * by * dy) / len;
      const y = (r.xy[2 * i + 1] + r.xy[2 * j + 1]) / 2 + (side * by * dx) / len;
      if (ringAround(r, x, y) === k) return [x, y];
    }
  const s = r.starts[k];
  return [r.xy[2 * s], r.xy[2 * s + 1]];
}

/** Which rings stay when only the ones around some points are wanted, with everything inside them. */
export function onlyRings(r: Rings, wanted: readonly (readonly [number, number])[]): boolean[] {
  return keepRings(r, wanted).map((kept) => !kept);
}

/** Which rings stay when the ones around some points are hidden: a hidden ring takes everything inside it along. */
export function keepRings(r: Rings, hidden: readonly (readonly [number, number])[]): boolean[] {
  const gone = new Set(hidden.map(([x, y]) => ringAround(r, x, y)));
  return Array.from({ length: ringCount(r) }, (_, k) => {
    for (let q = k; q >= 0; q = r.parent[q]) if (gone.has(q)) return false;
    return true;
  });
}

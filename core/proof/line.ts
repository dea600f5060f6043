import { balances } from "../cutters/form.ts";
import { isCone, isFlat, type Profile } from "../cutters/profile.ts";
import type { Surface } from "./surface.ts";
import { hypot } from "../hypot.ts";

/** A cell exactly at the rim is under the cutter, whichever way rounding goes. */
const RIM = 1 + 1e-12;

/** One sloping move of any cutter from (x0,y0,z0) to (x1,y1,z1), its ends included. */
export function cutSloping(
  s: Surface,
  p: Profile,
  cut: number,
  x0: number,
  y0: number,
  z0: number,
  x1: number,
  y1: number,
  z1: number,
): void {
  const low = Math.min(z0, z1);
  // No farther than where the cutter's surface comes out of the stock's top.
  const reach = p.r(-low);
  const { cell, width, height, z, by } = s;
  const i0 = Math.max(0, Math.ceil((Math.min(x0, x1) - reach) / cell - 0.5));
  const i1 = Math.min(width - 1, Math.floor((Math.max(x0, x1) + reach) / cell - 0.5));
  const j0 = Math.max(0, Math.ceil((Math.min(y0, y1) - reach) / cell - 0.5));
  const j1 = Math.min(height - 1, Math.floor((Math.max(y0, y1) + reach) / cell - 0.5));
  const len = hypot(x1 - x0, y1 - y0);
  const ux = (x1 - x0) / len;
  const uy = (y1 - y0) / len;
  const lowest = lowestAlong(p, len, z0, (z1 - z0) / len);
  for (let j = j0; j <= j1; j++) {
    const py = (j + 0.5) * cell - y0;
    // The part of this row within reach of the move's line: |v| ≤ reach, where v = px·(−uy) + py·ux.
    let a = i0;
    let b = i1;
    if (Math.abs(uy) > 1e-9) {
      const p1 = (py * ux - reach) / uy;
      const p2 = (py * ux + reach) / uy;
      a = Math.max(a, Math.ceil((x0 + Math.min(p1, p2)) / cell - 0.5));
      b = Math.min(b, Math.floor((x0 + Math.max(p1, p2)) / cell - 0.5));
    }
    for (let i = a, at = j * width + a; i <= b; i++, at++) {
      // Nothing of this move is lower than its lower end.
      if (z[at] <= low) continue;
      const px = (i + 0.5) * cell - x0;
      const v = lowest(px * ux + py * uy, Math.abs(py * ux - px * uy));
      if (v < z[at]) {
        z[at] = v;
        by[at] = cut;
      }
    }
  }
}

/**
 * min over w in 0…len of z0 + m·w + h(√(v² + (u − w)²)): the lowest a cutter moving along the u axis passes
 * over (u, v). Where h is convex so is the sum: its minimum lies where slope and cutter balance, else at the nearer
 * end. An edge given by points need not be: there each piece has its own balance, and the lowest of them counts.
 * Round tips on moves less steep than their flanks are told in round.ts.
 */
function lowestAlong(p: Profile, len: number, z0: number, m: number): (u: number, v: number) => number {
  const { coneSlope: c, flat, radius } = p;
  const at = (w: number, u: number, v: number) => {
    const r = Math.sqrt(v * v + (u - w) * (u - w));
    return r > radius * RIM ? Infinity : z0 + m * w + p.h(Math.min(radius, r));
  };
  const clamp = (w: number) => (w < 0 ? 0 : w > len ? len : w);
  const ascent = Math.abs(m);
  const dir = m < 0 ? 1 : -1;
  if (isFlat(p)) {
    // Flat: the lowest end of the stretch during which the disc covers the cell.
    const R2 = radius * radius;
    return (u, v) => {
      const half2 = R2 - v * v;
      if (half2 < 0) return Infinity;
      const half = Math.sqrt(half2);
      const w0 = Math.max(0, u - half);
      const w1 = Math.min(len, u + half);
      return w0 > w1 ? Infinity : z0 + m * (m < 0 ? w1 : w0);
    };
  }
  if (p.pieces) {
    const { pieces } = p;
    const found = new Float64Array(2 * pieces.length + 1);
    return (u, v) => {
      if (v > radius) return Infinity;
      const rim = Math.sqrt(radius * radius - v * v);
      // Over the stretch in which the cutter covers the cell: at its ends, or where edge and slope balance.
      const [from, to] = [Math.max(0, u - rim), Math.min(len, u + rim)];
      if (from > to) return Infinity;
      let lowest = Math.min(at(from, u, v), at(to, u, v));
      for (let k = balances(pieces, ascent, v, found) - 1; k >= 0; k--) {
        const w = u + dir * found[k];
        if (w > from && w < to) lowest = Math.min(lowest, at(w, u, v));
      }
      return lowest;
    };
  }
  if (isCone(p) && ascent < c) {
    // Cone, perhaps with a flat tip: balance where the cone's slope along the move equals m, i.e. at v·m/√(c² −
    // m²) from abreast; where that falls on the flat, its leading edge.
    const k = ascent / Math.sqrt(c * c - ascent * ascent);
    return (u, v) => {
      if (v > radius) return Infinity;
      let ahead = Math.min(v * k, Math.sqrt(radius * radius - v * v));
      if (flat > 0 && ahead * ahead + v * v < flat * flat) ahead = Math.sqrt(flat * flat - v * v);
      return at(clamp(u + dir * ahead), u, v);
    };
  }
  // Steeper than the cutter's own flank: always the lowest place from which the cutter still covers the cell.
  return (u, v) => {
    const half2 = radius * radius - v * v;
    if (half2 < 0) return Infinity;
    const half = Math.sqrt(half2);
    const w = m < 0 ? Math.min(len, u + half) : Math.max(0, u - half);
    return w < 0 || w > len ? Infinity : at(w, u, v);
  };
}

import type { Profile } from "../cutters/profile.ts";
import type { Surface } from "./surface.ts";

/** One straight move from (x0,y0,z0) to (x1,y1,z1). */
export function sweepLine(s: Surface, p: Profile, cut: number, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): void {
  const low = Math.min(z0, z1);
  if (low >= 0) return;
  // No farther than where the cutter's surface comes out of the stock's top.
  const reach = p.r(-low);
  const { cell, width, height, z, by } = s;
  const i0 = Math.max(0, Math.ceil((Math.min(x0, x1) - reach) / cell - 0.5));
  const i1 = Math.min(width - 1, Math.floor((Math.max(x0, x1) + reach) / cell - 0.5));
  const j0 = Math.max(0, Math.ceil((Math.min(y0, y1) - reach) / cell - 0.5));
  const j1 = Math.min(height - 1, Math.floor((Math.max(y0, y1) + reach) / cell - 0.5));
  if (i0 > i1 || j0 > j1) return;
  const dx = x1 - x0;
  const dy = y1 - y0;
  const len = Math.hypot(dx, dy);
  if (len < 1e-9) {
    for (let j = j0; j <= j1; j++) {
      const py = (j + 0.5) * cell - y0;
      for (let i = i0, at = j * width + i0; i <= i1; i++, at++) {
        const px = (i + 0.5) * cell - x0;
        const v = low + p.h(Math.sqrt(px * px + py * py));
        if (v < z[at]) {
          z[at] = v;
          by[at] = cut;
        }
      }
    }
    return;
  }
  const ux = dx / len;
  const uy = dy / len;
  const m = (z1 - z0) / len;
  if (m === 0 && p.ball === 0 && p.coneSlope === 0) return fillCapsule(s, cut, x0, y0, x1, y1, ux, uy, len, reach, low, j0, j1);
  const lowest = lowestAlong(p, len, z0, m);
  const { coneSlope, flat, radius } = p;
  const ascent = Math.abs(m);
  // The commonest case written out: a cone, perhaps with a flat tip, on a move less steep than its flank.
  const cone = p.ball === 0 && coneSlope > ascent;
  const ahead = cone ? (m < 0 ? 1 : -1) * (ascent / Math.sqrt(coneSlope * coneSlope - ascent * ascent)) : 0;
  const fade = cone ? Math.sqrt(coneSlope * coneSlope - ascent * ascent) : 0;
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
      let v: number;
      if (cone) {
        const across = Math.abs(py * ux - px * uy);
        // Beside the line at this distance nothing of the move reaches lower than this.
        if (z[at] <= low + (across - flat) * fade) continue;
        const along = px * ux + py * uy;
        let w = along + across * ahead;
        if (flat > 0 && m !== 0 && across * across * (1 + ahead * ahead) < flat * flat) w = along + Math.sign(ahead) * Math.sqrt(flat * flat - across * across);
        w = w < 0 ? 0 : w > len ? len : w;
        const r = Math.sqrt(across * across + (along - w) * (along - w));
        if (r > radius) continue;
        v = z0 + m * w + (r > flat ? (r - flat) * coneSlope : 0);
      } else v = lowest(px * ux + py * uy, Math.abs(py * ux - px * uy));
      if (v < z[at]) {
        z[at] = v;
        by[at] = cut;
      }
    }
  }
}

/** A level move of a flat cutter: in each row of cells one stretch, from the earliest to the latest of both ends' discs and the strip between. */
function fillCapsule(s: Surface, cut: number, x0: number, y0: number, x1: number, y1: number, ux: number, uy: number, len: number, R: number, low: number, j0: number, j1: number): void {
  const { cell, width, z, by } = s;
  for (let j = j0; j <= j1; j++) {
    const y = (j + 0.5) * cell;
    let from = Infinity;
    let to = -Infinity;
    const h0 = R * R - (y - y0) * (y - y0);
    if (h0 >= 0) {
      const half = Math.sqrt(h0);
      from = x0 - half;
      to = x0 + half;
    }
    const h1 = R * R - (y - y1) * (y - y1);
    if (h1 >= 0) {
      const half = Math.sqrt(h1);
      if (x1 - half < from) from = x1 - half;
      if (x1 + half > to) to = x1 + half;
    }
    // The strip: |across| ≤ R and 0 ≤ along ≤ len, both linear in x.
    let a = -Infinity;
    let b = Infinity;
    const py = y - y0;
    if (uy > 1e-12 || uy < -1e-12) {
      const p = (py * ux - R) / uy;
      const q = (py * ux + R) / uy;
      a = x0 + Math.min(p, q);
      b = x0 + Math.max(p, q);
    } else if (Math.abs(py) > R) b = -Infinity;
    if (ux > 1e-12 || ux < -1e-12) {
      const p = (-py * uy) / ux;
      const q = (len - py * uy) / ux;
      a = Math.max(a, x0 + Math.min(p, q));
      b = Math.min(b, x0 + Math.max(p, q));
    } else if (py * uy < 0 || py * uy > len) b = -Infinity;
    if (a <= b) {
      if (a < from) from = a;
      if (b > to) to = b;
    }
    const i1 = Math.min(width - 1, Math.floor(to / cell - 0.5));
    for (let i = Math.max(0, Math.ceil(from / cell - 0.5)), at = j * width + i; i <= i1; i++, at++)
      if (z[at] > low) {
        z[at] = low;
        by[at] = cut;
      }
  }
}

/**
 * min over w in 0…len of z0 + m·w + h(√(v² + (u − w)²)): the lowest a cutter moving along the u axis passes over (u, v).
 * h is convex and so is the sum; its minimum lies where slope and cutter balance, else at the nearer end.
 */
function lowestAlong(p: Profile, len: number, z0: number, m: number): (u: number, v: number) => number {
  const { coneSlope: c, coneFrom, ball, flat, radius } = p;
  const at = (w: number, u: number, v: number) => z0 + m * w + p.h(Math.sqrt(v * v + (u - w) * (u - w)));
  const clamp = (w: number) => (w < 0 ? 0 : w > len ? len : w);
  const ascent = Math.abs(m);
  const dir = m < 0 ? 1 : -1;
  if (ball === 0 && c === 0) {
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
  if (ball === 0 && ascent < c) {
    // Cone, perhaps with a flat tip: balance where the cone's slope along the move equals m, i.e. at v·m/√(c² − m²) from
    // abreast; where that falls on the flat, its leading edge.
    const k = ascent / Math.sqrt(c * c - ascent * ascent);
    return (u, v) => {
      let ahead = v * k;
      if (flat > 0 && ahead * ahead + v * v < flat * flat) ahead = Math.sqrt(flat * flat - v * v);
      return at(clamp(u + dir * ahead), u, v);
    };
  }
  if (ball > 0 && (c === 0 || ascent < c)) {
    // Ball: contact where the sphere's slope along the move is m; beyond its reach, the cone's.
    const onBall = ascent / Math.sqrt(1 + ascent * ascent);
    const k = c > 0 ? ascent / Math.sqrt(c * c - ascent * ascent) : 0;
    return (u, v) => {
      let ahead = v < ball ? onBall * Math.sqrt(ball * ball - v * v) : 0;
      if (c > 0 && ahead * ahead + v * v > coneFrom * coneFrom) ahead = Math.max(v * k, Math.sqrt(Math.max(0, coneFrom * coneFrom - v * v)));
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

import type { Profile } from "../cutters/profile.ts";
import { ARC_CCW, ARC_CW, RAPID, sweepOf, TORCH_OFF, TORCH_ON, type Toolpath } from "../toolpath/toolpath.ts";
import type { Box } from "../geometry/rings.ts";
import { arcSteps } from "../geometry/shape.ts";
import type { Surface } from "./surface.ts";

/** What went wrong, or might, while moves were swept: how often, and the first move of each. */
export interface SweepReport {
  /** rapids that went through stock */
  rapids: number;
  rapidAt: number;
  /** moves straight down into stock */
  plunges: number;
  plungeAt: number;
}

export const nothingSwept = (): SweepReport => ({ rapids: 0, rapidAt: -1, plunges: 0, plungeAt: -1 });

/** Less than this taken by a move, mm, is a cutter brushing along what it cut before. */
const BRUSH = 0.02;

/**
 * Sweeps the cutter of moves from…to−1 through the surface: every cell ends at the lowest the cutter's surface passes
 * over it. Straight moves, level or sloping, are swept as a whole: for each cell the lowest of z(t) + h(distance) along
 * the move is found in closed form for cones, balls and flats, so that no trail of stamps is left. Level arcs are exact
 * too; climbing ones, and a flat cutter's, are swept as chords within a twentieth of a cell.
 *
 * A beam cuts through the whole stock while it is lit, whatever its height, and else not at all.
 *
 * @param cut which number to leave in `surface.by`
 */
export function sweep(surface: Surface, t: Toolpath, p: Profile, cut: number, from = 0, to = t.kind.length, report = nothingSwept()): SweepReport {
  let lit = false;
  if (p.beam) for (let i = from - 1; i >= 0 && !lit && t.kind[i] !== TORCH_OFF; i--) lit = t.kind[i] === TORCH_ON;
  for (let i = Math.max(1, from); i < to; i++) {
    const x0 = t.x[i - 1];
    const y0 = t.y[i - 1];
    let z0 = t.z[i - 1];
    let z1 = t.z[i];
    if (p.beam) {
      if (t.kind[i] === TORCH_ON || t.kind[i] === TORCH_OFF) lit = t.kind[i] === TORCH_ON;
      if (!lit) continue;
      z0 = z1 = -surface.thickness - THROUGH;
    }
    if (z0 >= 0 && z1 >= 0) continue;
    const down = x0 === t.x[i] && y0 === t.y[i];
    if (down && z1 < z0 && tip(surface, x0, y0) > z1 + BRUSH) {
      report.plunges++;
      if (report.plungeAt < 0) report.plungeAt = i;
    }
    if (t.kind[i] === RAPID && !(down && z1 >= z0)) {
      if (takes(surface, p, cut, x0, y0, z0, t.x[i], t.y[i], z1)) {
        report.rapids++;
        if (report.rapidAt < 0) report.rapidAt = i;
      }
    } else if (t.kind[i] !== ARC_CW && t.kind[i] !== ARC_CCW) sweepLine(surface, p, cut, x0, y0, z0, t.x[i], t.y[i], z1);
    else if (z0 === z1 && !(p.ball === 0 && p.coneSlope === 0)) sweepLevelArc(surface, p, cut, x0, y0, t.x[i], t.y[i], t.cx[i], t.cy[i], sweepOf(t, i), z1);
    else {
      const sweepAngle = sweepOf(t, i);
      const r = Math.hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]);
      const steps = arcSteps(r, sweepAngle, surface.cell / 20);
      const a0 = Math.atan2(y0 - t.cy[i], x0 - t.cx[i]);
      let px = x0;
      let py = y0;
      for (let k = 1; k <= steps; k++) {
        const a = a0 + (sweepAngle * k) / steps;
        const qx = k === steps ? t.x[i] : t.cx[i] + r * Math.cos(a);
        const qy = k === steps ? t.y[i] : t.cy[i] + r * Math.sin(a);
        sweepLine(surface, p, cut, px, py, z0 + ((z1 - z0) * (k - 1)) / steps, qx, qy, z0 + ((z1 - z0) * k) / steps);
        px = qx;
        py = qy;
      }
    }
  }
  return report;
}

/** A torch's cut ends this far below the stock, mm: no skin is left by rounding. */
const THROUGH = 0.1;

/** The surface under a cutter's tip; the stock's bottom beside it. */
function tip(s: Surface, x: number, y: number): number {
  const i = Math.floor(x / s.cell);
  const j = Math.floor(y / s.cell);
  return i < 0 || j < 0 || i >= s.width || j >= s.height ? -Infinity : s.z[j * s.width + i];
}

/** Only what stands well inside the cutter counts: its rim brushes along walls that were cut by chords and arcs. */
const WELL_INSIDE = 0.8;

/** Sweeps one straight move and tells whether it took any stock to speak of. */
function takes(s: Surface, p: Profile, cut: number, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): boolean {
  const clamp = (v: number, most: number) => Math.max(0, Math.min(most, v));
  const [i0, i1] = [clamp(Math.floor((Math.min(x0, x1) - p.radius) / s.cell), s.width), clamp(Math.ceil((Math.max(x0, x1) + p.radius) / s.cell), s.width)];
  const [j0, j1] = [clamp(Math.floor((Math.min(y0, y1) - p.radius) / s.cell), s.height), clamp(Math.ceil((Math.max(y0, y1) + p.radius) / s.cell), s.height)];
  const before = Array.from({ length: j1 - j0 }, (_, j) => s.z.slice((j0 + j) * s.width + i0, (j0 + j) * s.width + i1));
  sweepLine(s, p, cut, x0, y0, z0, x1, y1, z1);
  const reach = (WELL_INSIDE * p.r(-Math.min(z0, z1))) ** 2;
  const [dx, dy] = [x1 - x0, y1 - y0];
  const len2 = dx * dx + dy * dy || 1;
  for (let j = j0; j < j1; j++)
    for (let i = i0; i < i1; i++) {
      if (s.z[j * s.width + i] >= before[j - j0][i - i0] - BRUSH) continue;
      const [px, py] = [(i + 0.5) * s.cell - x0, (j + 0.5) * s.cell - y0];
      const t = Math.max(0, Math.min(1, (px * dx + py * dy) / len2));
      if ((px - t * dx) ** 2 + (py - t * dy) ** 2 <= reach) return true;
    }
  return false;
}

/** A level arc about (cx, cy): every cell by its distance from the arc, exactly. */
function sweepLevelArc(s: Surface, p: Profile, cut: number, x0: number, y0: number, x1: number, y1: number, cx: number, cy: number, angle: number, low: number): void {
  const R = Math.hypot(x1 - cx, y1 - cy);
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
  const cone = p.ball === 0 && coneSlope > 0;
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
      const d = abreast ? Math.abs(Math.sqrt(x * x + y * y) - R) : Math.sqrt(Math.min((x - ax) * (x - ax) + (y - ay) * (y - ay), (x - bx) * (x - bx) + (y - by1) * (y - by1)));
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

import { isFlat, type Profile } from "../cutters/profile.ts";
import { ARC_CCW, ARC_CW, RAPID, sweepOf, TORCH_OFF, TORCH_ON, type Toolpath } from "../toolpath/toolpath.ts";
import { sweepLevelArc } from "./arc.ts";
import { Swaths, chordSteps, sweepLine } from "./swaths.ts";
import type { Surface } from "./surface.ts";
import { hypot } from "../hypot.ts";

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
 * Sweeps the cutter of moves from…to−1 through the surface: every cell ends at the lowest the cutter's surface
 * passes over it. Straight moves, level or sloping, are swept as a whole: for each cell the lowest of z(t) +
 * h(distance) along the move is found in closed form for cones, balls and flats, so that no trail of stamps is left.
 * Level arcs are exact too; climbing ones, and a flat cutter's, are swept as chords within a twentieth of a cell.
 *
 * A beam cuts through the whole stock while it is lit, whatever its height, and else not at all.
 *
 * @param cut which number to leave in `surface.by`
 */
export function sweep(
  surface: Surface,
  t: Toolpath,
  p: Profile,
  cut: number,
  from = 0,
  to = t.kind.length,
  report = nothingSwept(),
): SweepReport {
  let lit = false;
  if (p.beam) for (let i = from - 1; i >= 0 && !lit && t.kind[i] !== TORCH_OFF; i--) lit = t.kind[i] === TORCH_ON;
  const row = new Swaths(surface, p, cut);
  for (let i = Math.max(1, from); i < to; i++) {
    const x0 = t.x[i - 1];
    const y0 = t.y[i - 1];
    let z0 = t.z[i - 1];
    let z1 = t.z[i];
    if (p.beam) {
      if (t.kind[i] === TORCH_ON || t.kind[i] === TORCH_OFF) lit = t.kind[i] === TORCH_ON;
      if (!lit) {
        row.end();
        continue;
      }
      z0 = z1 = -surface.thickness - THROUGH;
    }
    const down = x0 === t.x[i] && y0 === t.y[i];
    if (t.kind[i] === RAPID || (z0 >= 0 && z1 >= 0)) row.end();
    if (z0 >= 0 && z1 >= 0) continue;
    // Where the tip is already, nothing stands higher.
    if (down && z1 < z0 && Math.min(z0, tip(surface, x0, y0)) > z1 + BRUSH) {
      report.plunges++;
      if (report.plungeAt < 0) report.plungeAt = i;
    }
    if (t.kind[i] === RAPID && !(down && z1 >= z0)) {
      if (takes(surface, p, cut, x0, y0, z0, t.x[i], t.y[i], z1)) {
        report.rapids++;
        if (report.rapidAt < 0) report.rapidAt = i;
      }
    } else if (t.kind[i] !== ARC_CW && t.kind[i] !== ARC_CCW) row.line(x0, y0, z0, t.x[i], t.y[i], z1);
    else if (z0 === z1 && !isFlat(p)) {
      row.withEnds();
      sweepLevelArc(surface, p, cut, x0, y0, t.x[i], t.y[i], t.cx[i], t.cy[i], sweepOf(t, i), z1);
    } else {
      const sweepAngle = sweepOf(t, i);
      const r = hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]);
      const steps = chordSteps(r, sweepAngle, p.radius, surface.cell);
      const a0 = Math.atan2(y0 - t.cy[i], x0 - t.cx[i]);
      let px = x0;
      let py = y0;
      for (let k = 1; k <= steps; k++) {
        const a = a0 + (sweepAngle * k) / steps;
        const qx = k === steps ? t.x[i] : t.cx[i] + r * Math.cos(a);
        const qy = k === steps ? t.y[i] : t.cy[i] + r * Math.sin(a);
        row.line(px, py, z0 + ((z1 - z0) * (k - 1)) / steps, qx, qy, z0 + ((z1 - z0) * k) / steps);
        px = qx;
        py = qy;
      }
    }
  }
  row.end();
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
function takes(
  s: Surface,
  p: Profile,
  cut: number,
  x0: number,
  y0: number,
  z0: number,
  x1: number,
  y1: number,
  z1: number,
): boolean {
  const clamp = (v: number, most: number) => Math.max(0, Math.min(most, v));
  const [i0, i1] = [
    clamp(Math.floor((Math.min(x0, x1) - p.radius) / s.cell), s.width),
    clamp(Math.ceil((Math.max(x0, x1) + p.radius) / s.cell), s.width),
  ];
  const [j0, j1] = [
    clamp(Math.floor((Math.min(y0, y1) - p.radius) / s.cell), s.height),
    clamp(Math.ceil((Math.max(y0, y1) + p.radius) / s.cell), s.height),
  ];
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

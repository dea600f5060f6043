import type { Profile } from "../cutters/profile.ts";
import { clip, EDGE, span } from "./span.ts";
import { Straight } from "./straight.ts";
import type { Surface } from "./surface.ts";

/**
 * A straight move, level or sloping, of a ball or a tapered ball that is less steep than its flank.
 *
 * Over a cell (u along the move, v beside it) the cutter is lowest when its tip has come to w = u + lead(v): there the
 * move's slope m and the cutter balance. On the ball that is ahead or behind by |m|·√(b² − v²)/√(1 + m²),
 * on the cone by |m|·v/√(c² − m²), never farther than its rim; its height is z₀ + m·u + rise(v) there. A cell
 * lies *abreast* of the move while 0 ≤ w ≤ length. Height over the move is convex in w, so that a cell beyond its
 * end is lowest over the end.
 */
export class RoundMove extends Straight {
  /** where it is lowest over what lies at the v last asked for, mm ahead of it, and how much that adds to its height */
  lead = 0;
  rise = 0;
  /** the farthest behind and ahead that may be, mm */
  leadFrom = 0;
  leadTo = 0;
  private p: Profile | null = null;
  /** 1 where it sinks, −1 where it climbs */
  private way = 1;
  /** the balance on the ball, for each mm of its half width there, and on the cone, for each mm beside the move */
  private onBall = 0;
  private onCone = 0;
  /** how the groove falls with the ball's half width, and rises beside the cone */
  private roundness = 1;
  private wall = 0;
  /** where the cone begins: its radius squared, Infinity where there is none; how high; where it would be at v = 0 */
  private cone2 = Infinity;
  private coneBegins = 0;
  private coneAt = 0;

  /** @returns whether the move is of this kind; what is kept is of no use otherwise */
  set(p: Profile, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): boolean {
    if (p.ball === 0 || !this.place(x0, y0, z0, x1, y1, z1)) return false;
    const ascent = Math.abs(this.slope);
    if (p.coneSlope > 0 && ascent >= p.coneSlope) return false;
    this.p = p;
    this.reach = p.r(-Math.min(z0, z1));
    this.way = this.slope < 0 ? 1 : -1;
    this.roundness = Math.sqrt(1 + ascent * ascent);
    this.onBall = ascent / this.roundness;
    const { coneSlope: c, coneFrom } = p;
    this.wall = c > 0 ? Math.sqrt(c * c - ascent * ascent) : 0;
    this.onCone = c > 0 ? ascent / this.wall : 0;
    this.cone2 = c > 0 ? coneFrom * coneFrom : Infinity;
    this.coneBegins = c > 0 ? p.h(coneFrom) : 0;
    this.coneAt = this.coneBegins - c * coneFrom;
    const most = Math.max(this.onBall * p.ball, this.onCone * this.reach);
    this.leadFrom = this.way < 0 ? -most : 0;
    this.leadTo = this.way > 0 ? most : 0;
    return true;
  }

  /** Finds `lead` and `rise` for what lies at v beside the move, |v| ≤ the cutter's radius. */
  beside(v: number): void {
    const { ball, radius } = this.p!;
    const v2 = v * v;
    const half = v2 < ball * ball ? Math.sqrt(ball * ball - v2) : 0;
    let ahead = this.onBall * half;
    if (v2 + ahead * ahead <= this.cone2) {
      this.lead = this.way * ahead;
      this.rise = ball - this.roundness * half;
      return;
    }
    const toCone = v2 < this.cone2 ? Math.sqrt(this.cone2 - v2) : 0;
    ahead = this.onCone * Math.abs(v);
    this.rise = this.coneAt + this.wall * Math.abs(v);
    if (ahead < toCone) {
      ahead = toCone;
      this.rise = this.coneBegins - Math.abs(this.slope) * ahead;
    }
    if (v2 + ahead * ahead > radius * radius) {
      ahead = Math.sqrt(Math.max(0, radius * radius - v2));
      this.rise = this.p!.h(radius) - Math.abs(this.slope) * ahead;
    }
    this.lead = this.way * ahead;
  }

  /** Whether all of a row lies equally far beside it. */
  get isAlongRows(): boolean {
    return Math.abs(this.uy) < 1e-9;
  }
}

/** The cells abreast of a move. */
export function cutAbreastRound(s: Surface, cut: number, k: RoundMove): void {
  const { cell, width, height, z, by } = s;
  const { x0, y0, z0, ux, uy, reach, length, slope } = k;
  const [back, on] = [Math.max(0, k.leadTo), length - Math.min(0, k.leadFrom)];
  const [from, to] = [Math.min(-back * uy, on * uy), Math.max(-back * uy, on * uy)];
  const across = reach * Math.abs(ux);
  const j0 = Math.max(0, Math.ceil((y0 + from - across) / cell - 0.5 - EDGE));
  const j1 = Math.min(height - 1, Math.floor((y0 + to + across) / cell - 0.5 + EDGE));
  const low = Math.min(z0, k.z1);
  const edge = EDGE * cell;
  const { isAlongRows } = k;
  for (let j = j0; j <= j1; j++) {
    const py = (j + 0.5) * cell - y0;
    span[0] = -Infinity;
    span[1] = Infinity;
    clip(-uy, py * ux, -reach, reach);
    if (span[1] < span[0]) continue;
    let [first, last] = [-back, on];
    if (isAlongRows) {
      k.beside(py * ux);
      [first, last] = [-k.lead, length - k.lead];
    }
    clip(ux, py * uy, first, last);
    const i0 = Math.max(0, Math.ceil((x0 + span[0]) / cell - 0.5 - EDGE));
    const i1 = Math.min(width - 1, Math.floor((x0 + span[1]) / cell - 0.5 + EDGE));
    for (let i = i0, at = j * width + i0; i <= i1; i++, at++) {
      // Nothing of this move is lower than its lower end.
      if (z[at] <= low) continue;
      const px = (i + 0.5) * cell - x0;
      const u = px * ux + py * uy;
      if (!isAlongRows) {
        k.beside(py * ux - px * uy);
        const w = u + k.lead;
        if (w < -edge || w > length + edge) continue;
      }
      const deep = z0 + slope * u + k.rise;
      if (deep < z[at]) {
        z[at] = deep;
        by[at] = cut;
      }
    }
  }
}

/**
 * The cutter standing at (x, y, low) between two moves: the cells under it that lie abreast of neither, beyond the end
 * of `from` and before the start of `to`.
 */
export function cutJoint(
  s: Surface,
  p: Profile,
  cut: number,
  x: number,
  y: number,
  low: number,
  from: RoundMove,
  to: RoundMove,
): void {
  if (low >= 0) return;
  const { cell, width, height, z, by } = s;
  const reach = p.r(-low);
  const j0 = Math.max(0, Math.ceil((y - reach) / cell - 0.5 - EDGE));
  const j1 = Math.min(height - 1, Math.floor((y + reach) / cell - 0.5 + EDGE));
  const edge = EDGE * cell;
  for (let j = j0; j <= j1; j++) {
    const dy = (j + 0.5) * cell - y;
    span[1] = Math.sqrt(Math.max(0, reach * reach - dy * dy));
    span[0] = -span[1];
    // From the joint, u + lead is more than nothing beyond the one move, and less before the other.
    clip(from.ux, dy * from.uy, -leadMost(from, dy, 1), Infinity);
    clip(to.ux, dy * to.uy, -Infinity, -leadMost(to, dy, -1));
    const i0 = Math.max(0, Math.ceil((x + span[0]) / cell - 0.5 - EDGE));
    const i1 = Math.min(width - 1, Math.floor((x + span[1]) / cell - 0.5 + EDGE));
    for (let i = i0, at = j * width + i0; i <= i1; i++, at++) {
      if (z[at] <= low) continue;
      const dx = (i + 0.5) * cell - x;
      if (!from.isAlongRows && leadTo(from, dx, dy) < -edge) continue;
      if (!to.isAlongRows && leadTo(to, dx, dy) > edge) continue;
      const deep = low + p.h(Math.sqrt(dx * dx + dy * dy));
      if (deep < z[at]) {
        z[at] = deep;
        by[at] = cut;
      }
    }
  }
}

/** The farthest a move may be lowest ahead of (1) or behind (−1) what lies in a row, mm; exact along rows. */
function leadMost(k: RoundMove, dy: number, way: 1 | -1): number {
  if (!k.isAlongRows) return way > 0 ? k.leadTo : k.leadFrom;
  k.beside(dy * k.ux);
  return k.lead;
}

/** How far past a point of a move the cutter is lowest over a cell at (dx, dy) from there, mm. */
function leadTo(k: RoundMove, dx: number, dy: number): number {
  k.beside(dy * k.ux - dx * k.uy);
  return dx * k.ux + dy * k.uy + k.lead;
}

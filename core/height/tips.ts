import type { Profile } from "../cutters/profile.ts";
import { touchAlong } from "../cutters/touch.ts";
import { between, type HeightField } from "./field.ts";
import { Hanging } from "./hanging.ts";
import { Holders } from "./holders.ts";
import { Patches } from "./patches.ts";
import { RIM } from "./squares.ts";
import { usedOf } from "./used.ts";
import { hypot } from "../hypot.ts";

/** Finer than any machine goes, mm. */
const UNKNOWN = 0.002;
/** Up to this much by what lies beside a sample, mm, a cutter bends so gently that a parabola tells. */
const GENTLE = 0.008;
/** Cells that the part of a cutter that counts goes past where the surface can meet it: its rim is none there. */
const PAST = 2;
/** Lines looked along on both sides of a sample, in cells. */
const LINES = [-1, -0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75, 1];

/**
 * The lowest tips of a cutter at any place over a surface, by the samples that hold it up there and by the surface
 * beside them. How much higher than a sample that holds the cutter depends on how much rounder than the surface it is
 * there: little at its tip, where a parabola tells; much at a ball's flank and a point's rim, where the surface between
 * samples is searched.
 */
export class Tips {
  /** the part of the cutter that the surface can meet */
  private readonly p: Profile;
  private readonly hanging: Hanging;
  private readonly holders: Holders;
  private readonly patches: Patches;
  /** a sample and the eight round it, in rows along the lines that are looked along, mm */
  private readonly round = new Float64Array(9);

  constructor(
    private readonly t: HeightField,
    cutter: Profile,
    /** a place is looked at between the samples too where these leave more than this unknown, mm */
    private readonly unknown = UNKNOWN,
  ) {
    const p = usedOf(cutter, t, PAST * t.cell);
    const hanging = new Hanging(p, t.cell, unknown < Infinity);
    this.p = p;
    this.hanging = hanging;
    this.patches = new Patches(t, p);
    this.holders = new Holders(t, hanging, unknown);
  }

  /** @returns the lowest tip at (x, y), mm */
  at(x: number, y: number): number {
    const { t, holders, unknown } = this;
    const u = (x - t.x0) / t.cell - 0.5;
    const v = (y - t.y0) / t.cell - 0.5;
    // No tip goes below the surface itself.
    holders.find(u, v, between(t, u, v));
    const { near, held } = holders;
    let { best } = holders;
    // The likeliest first: mostly no other can hold it higher then.
    for (let n = holders.likeliest(); n >= 0 && held[n] > best + unknown; n = holders.likeliest()) {
      held[n] = -Infinity;
      const i = near[n] % t.width;
      const j = (near[n] - i) / t.width;
      const beside = this.hanging.beside(Math.sqrt((i - u) ** 2 + (j - v) ** 2));
      let tip: number;
      if (beside <= GENTLE) tip = this.heldAround(near[n], u, v, beside);
      else if (beside < Infinity && !this.p.pieces) tip = this.patches.heldAbout(near[n], u, v, best);
      else tip = this.heldBeside(near[n], u, v, best);
      if (tip > best) best = tip;
    }
    if (!this.isHeldNear(u, v, best + unknown)) return best;
    const [a, b] = [Math.min(t.width - 1, Math.round(u)), Math.min(t.height - 1, Math.round(v))];
    return this.heldBeside(Math.max(0, b) * t.width + Math.max(0, a), u, v, best);
  }

  /**
   * Whether the surface between the four samples round its axis may hold a tip higher than known: in a pit narrower
   * than the cutter those over the samples are held by the pit's walls, and nothing tells of its floor.
   */
  private isHeldNear(u: number, v: number, known: number): boolean {
    const { t, p } = this;
    const [i, j] = [Math.floor(u), Math.floor(v)];
    if (i < 0 || j < 0 || i + 1 >= t.width || j + 1 >= t.height) return false;
    const near = j * t.width + i;
    const far = near + t.width;
    // Between samples the surface is nowhere higher than at the highest of them.
    if (Math.max(t.z[near], t.z[near + 1], t.z[far], t.z[far + 1]) <= known) return false;
    const floor = between(t, u, v);
    for (let b = j; b <= j + 1; b++)
      for (let a = i; a <= i + 1; a++) {
        const rise = t.z[b * t.width + a] - floor;
        const d = hypot(a - u, b - v) * t.cell;
        for (let share = 0.25; share <= 1; share += 0.25)
          if (floor + share * rise - p.h(Math.min(p.radius, share * d)) > known) return true;
      }
    return false;
  }

  /** The tip over (u, v), in cells, by one sample alone; −∞ beyond the cutter's rim or the surface. */
  private heldBy(i: number, j: number, u: number, v: number): number {
    const { t } = this;
    if (i < 0 || j < 0 || i >= t.width || j >= t.height) return -Infinity;
    return this.holders.heldBy(i, j, u, v);
  }

  /**
   * The same between a sample and its four neighbours, where the cutter bends gently: from sample to sample the
   * surface is straight and the cutter as good as a parabola, F(s) = F₀ + d·s + κ·s(1 − s)/2: its top is known.
   * @param bound κ/4, with the cell as unit of length
   */
  private heldAround(sample: number, u: number, v: number, bound: number): number {
    const { t } = this;
    const i = sample % t.width;
    const j = (sample - i) / t.width;
    const own = this.heldBy(i, j, u, v);
    const gain = (a: number, b: number): number => {
      const d = this.heldBy(a, b, u, v) - own;
      if (d >= 2 * bound) return d;
      return d <= -2 * bound ? 0 : (d + 2 * bound) ** 2 / (8 * bound);
    };
    return own + Math.max(gain(i - 1, j), gain(i + 1, j)) + Math.max(gain(i, j - 1), gain(i, j + 1));
  }

  /**
   * The tip over (u, v), in cells, held by the surface within a cell of a sample; no less than what is known.
   */
  private heldBeside(sample: number, u: number, v: number, known: number): number {
    const { t, p } = this;
    const i = sample % t.width;
    const j = (sample - i) / t.width;
    // Along lines that run more towards the cutter's axis than across: that way it is rounder.
    const isAlongX = Math.abs(i - u) >= Math.abs(j - v);
    const [middle, along, side, at] = isAlongX ? [i, u, j, v] : [j, v, i, u];
    const nearest = Math.max(middle - 1, Math.min(middle + 1, along)) - along;
    const { round } = this;
    this.roundAbout(i, j, isAlongX);
    let best = known;
    for (let k = 0; k < LINES.length; k++) {
      const step = LINES[k];
      const across = Math.abs(side + step - at);
      const r = Math.sqrt(nearest * nearest + across * across) * t.cell;
      if (r > p.radius * RIM) continue;
      const share = Math.abs(step);
      const beyond = step < 0 ? 0 : 6;
      const near = round[3] + share * (round[beyond] - round[3]);
      const here = round[4] + share * (round[beyond + 1] - round[4]);
      const far = round[5] + share * (round[beyond + 2] - round[5]);
      // Even its highest place, were it the nearest to the axis, would hold the cutter no higher.
      if (Math.max(near, here, far) - p.h(Math.min(p.radius, r)) <= best) continue;
      const from = middle - along;
      const own = this.above(from, across);
      if (here - own > best) best = here - own;
      // Over a convex cutter the tip is concave along each half: from the sample on it rises no faster than up to it.
      const isTold = own < Infinity && !p.pieces;
      if (!isTold || far - 2 * own + this.above(from - 1, across) > best)
        best = Math.max(best, this.heldAlong(across, from, here, far - here, 1));
      if (!isTold || near - 2 * own + this.above(from + 1, across) > best)
        best = Math.max(best, this.heldAlong(across, from, here, here - near, -1));
    }
    return best;
  }

  /** Takes a sample and the eight round it; beyond the outermost the surface is level. */
  private roundAbout(i: number, j: number, isAlongX: boolean): void {
    const { round } = this;
    const { z, width, height } = this.t;
    const left = i > 0 ? -1 : 0;
    const right = i < width - 1 ? 1 : 0;
    const before = j > 0 ? -width : 0;
    const after = j < height - 1 ? width : 0;
    const at = j * width + i;
    const [along0, along1] = isAlongX ? [left, right] : [before, after];
    const [side0, side1] = isAlongX ? [before, after] : [left, right];
    round[0] = z[at + side0 + along0];
    round[1] = z[at + side0];
    round[2] = z[at + side0 + along1];
    round[3] = z[at + along0];
    round[4] = z[at];
    round[5] = z[at + along1];
    round[6] = z[at + side1 + along0];
    round[7] = z[at + side1];
    round[8] = z[at + side1 + along1];
  }

  /** The cutter's height so far along and across from its axis, in cells; Infinity beyond its rim, mm. */
  private above(along: number, across: number): number {
    return this.hanging.height(Math.sqrt(along * along + across * across));
  }

  /**
   * The tip held by a line from a sample to its neighbour, where the surface is straight.
   * @param across how far from the axis the line passes, and `from` where along it the sample lies, in cells
   * @param slope of the surface along it, mm for each cell
   * @param way 1 to the neighbour ahead, −1 to the one behind
   */
  private heldAlong(across: number, from: number, z: number, slope: number, way: 1 | -1): number {
    const { t, p } = this;
    const radius = (p.radius * RIM) / t.cell;
    const half2 = radius * radius - across * across;
    if (half2 < 0) return -Infinity;
    const half = Math.sqrt(half2);
    const low = Math.max(Math.min(from, from + way), -half);
    const high = Math.min(Math.max(from, from + way), half);
    if (low > high) return -Infinity;
    const touch = touchAlong(p, Math.abs(slope) / t.cell, across * t.cell) / t.cell;
    const s = Math.max(low, Math.min(high, slope < 0 ? -touch : touch));
    const r = Math.sqrt(s * s + across * across) * t.cell;
    return z + slope * (s - from) - p.h(Math.min(p.radius, r));
  }
}

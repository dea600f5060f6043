import type { Profile } from "../cutters/profile.ts";
import { between, type HeightField } from "./field.ts";
import { Hanging } from "./hanging.ts";
import { Holders } from "./holders.ts";
import { Patches } from "./patches.ts";
import { usedOf } from "./used.ts";
import { hypot } from "../hypot.ts";

/** Finer than any machine goes, mm. */
const UNKNOWN = 0.002;
/** Up to this much by what lies beside a sample, mm, a cutter bends so gently that a parabola tells. */
const GENTLE = 0.008;
/** Cells that the part of a cutter that counts goes past where the surface can meet it: its rim is none there. */
const PAST = 2;

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
    this.patches = new Patches(t, p, hanging);
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
    this.patches.begin(u, v);
    // The likeliest first: mostly no other can hold it higher then.
    for (let n = holders.likeliest(); n >= 0 && held[n] > best + unknown; n = holders.likeliest()) {
      held[n] = -Infinity;
      const i = near[n] % t.width;
      const j = (near[n] - i) / t.width;
      const beside = this.hanging.beside(Math.sqrt((i - u) ** 2 + (j - v) ** 2));
      best =
        beside <= GENTLE
          ? Math.max(best, this.heldAround(near[n], u, v, beside))
          : this.patches.heldAbout(near[n], best);
    }
    if (!this.isHeldNear(u, v, best + unknown)) return best;
    const [a, b] = [Math.min(t.width - 1, Math.round(u)), Math.min(t.height - 1, Math.round(v))];
    return this.patches.heldAbout(Math.max(0, b) * t.width + Math.max(0, a), best);
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
}

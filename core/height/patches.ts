import type { Profile } from "../cutters/profile.ts";
import { touchAlong } from "../cutters/touch.ts";
import type { HeightField } from "./field.ts";
import type { Hanging } from "./hanging.ts";

/** Steps of the table of slopes for each cell. */
const STEPS = 16;
/** So often the highest line of a patch is looked for nearer. */
const TURNS = 3;
/** No nearer to a line that was looked along already, as a share of how far apart the outer ones are. */
const LEAST_APART = 0.02;
/** Slopes are told by what lies so many steps to either side; what they are off by comes to less than this, mm. */
const NEARLY = 1e-3;
const ROUNDING = 1e-6;

/**
 * How high the bilinear patches between four samples each hold a cutter up. Over a patch F = w − h, with h the height
 * of a cutter whose slope only grows from its axis outward. Where F rises everywhere towards one side, its highest
 * place lies there; along a side it is where the cutter touches a straight edge; inside a patch where both are equally
 * steep. By the rim, and where a cutter was given by points, its slope tells nothing. Distances in cells from the axis,
 * heights in mm.
 */
export class Patches {
  /** how steep the cutter is at least and at most, mm for each cell, by its steps from the axis */
  private readonly least: Float64Array;
  private readonly most: Float64Array;
  /** how high it is at each step, mm, and how steep, mm for each cell; NaN where that tells nothing */
  private readonly heights: Float64Array;
  private readonly slopes: Float64Array;
  /** the same over the patch at hand */
  private gentle = 0;
  private steep = 0;
  /** the place, in samples, and the patches that were looked at for it, by their first samples */
  private u = 0;
  private v = 0;
  private readonly seen: number[] = [];
  /** lines of a patch that are looked along first, from its first to its last, and how high they hold the cutter, mm */
  private readonly at = new Float64Array(5);
  private readonly high = new Float64Array(5);

  constructor(
    private readonly t: HeightField,
    private readonly p: Profile,
    private readonly hanging: Hanging,
  ) {
    const steps = Math.ceil(hanging.radius * STEPS) + 1;
    const height = (k: number) => p.h((k / STEPS) * t.cell);
    this.least = Float64Array.from({ length: steps + 1 }, (_, k) =>
      k === 0 ? 0 : (height(k) - height(k - 1)) * STEPS,
    );
    const slope = (k: number) => (height(k + 1) - height(k)) * STEPS;
    this.most = Float64Array.from({ length: steps + 1 }, (_, k) => (height(k + 1) < Infinity ? slope(k) : Infinity));
    this.heights = this.most.map((_, k) => height(k));
    // An edge given by points need not bend one way.
    const isTold = (k: number) => !p.pieces && height(k + 1) < Infinity;
    const slopeAt = (k: number) => ((height(k + NEARLY) - height(k - NEARLY)) * STEPS) / (2 * NEARLY);
    this.slopes = this.most.map((_, k) => (isTold(k) ? slopeAt(k) : NaN));
  }

  /** Begins with another place, (u, v) in samples. */
  begin(u: number, v: number): void {
    this.u = u;
    this.v = v;
    this.seen.length = 0;
  }

  /** The tip over the place, held by the four patches about a sample; no less than what is known, mm. */
  heldAbout(sample: number, known: number): number {
    const { width, height } = this.t;
    const { u, v, seen } = this;
    const i = sample % width;
    const j = (sample - i) / width;
    let best = known;
    for (let b = Math.max(0, j - 1); b <= Math.min(j, height - 2); b++)
      for (let a = Math.max(0, i - 1); a <= Math.min(i, width - 2); a++) {
        const patch = b * width + a;
        // Samples beside each other have two patches in common.
        if (seen.includes(patch)) continue;
        seen.push(patch);
        best = this.heldIn(a, b, a - u, b - v, best);
      }
    return best;
  }

  /** The same by one patch, whose first sample lies at (x, y). */
  private heldIn(i: number, j: number, x: number, y: number, known: number): number {
    const { z, width } = this.t;
    const at = j * width + i;
    const [z00, z10, z01, z11] = [z[at], z[at + 1], z[at + width], z[at + width + 1]];
    const [nearX, nearY] = [nearest(x), nearest(y)];
    const near = Math.sqrt(nearX * nearX + nearY * nearY);
    // Even its highest place, were it the nearest, would hold the cutter no higher.
    if (Math.max(z00, z10, z01, z11) - this.hanging.height(near) <= known) return known;
    if (this.upTo(x, y, z00, z10, z01, z11) <= known) return known;
    const [farX, farY] = [Math.max(-x, x + 1), Math.max(-y, y + 1)];
    const far = Math.sqrt(farX * farX + farY * farY);
    const twist = z11 - z10 - z01 + z00;
    const [riseX, riseY] = [z10 - z00, z01 - z00];
    this.gentle = this.least[Math.floor(near * STEPS)];
    // Beyond the rim nothing holds the cutter: it is as good as upright there.
    this.steep = far > this.hanging.radius || this.p.pieces ? Infinity : this.most[Math.ceil(far * STEPS)];
    const sideX = this.side(x, nearY, farY, riseX, twist);
    const sideY = this.side(y, nearX, farX, riseY, twist);
    if (sideX >= 0 && sideY >= 0) {
      const corner = z00 + sideX * riseX + sideY * (riseY + sideX * twist);
      return Math.max(known, corner - this.hanging.height(Math.sqrt((x + sideX) ** 2 + (y + sideY) ** 2)));
    }
    if (sideY >= 0) {
      const [start, rise] = sideY === 0 ? [z00, riseX] : [z01, riseX + twist];
      return Math.max(known, this.heldAlong(y + sideY, x, start, rise));
    }
    if (sideX >= 0) {
      const [start, rise] = sideX === 0 ? [z00, riseY] : [z10, riseY + twist];
      return Math.max(known, this.heldAlong(x + sideX, y, start, rise));
    }
    // Along lines that run more towards the axis than across: that way the cutter is rounder.
    return Math.abs(x + 0.5) >= Math.abs(y + 0.5)
      ? Math.max(known, this.heldAcross(y, x, z00, riseY, riseX, twist))
      : Math.max(known, this.heldAcross(x, y, z00, riseX, riseY, twist));
  }

  /**
   * How high a patch may hold it at most: a cutter that bends one way is nowhere below a plane that touches it over the
   * patch's middle, and above that plane a bilinear patch is highest at a corner. Infinity where that is not told.
   */
  private upTo(x: number, y: number, z00: number, z10: number, z01: number, z11: number): number {
    const [middleX, middleY] = [x + 0.5, y + 0.5];
    const r = Math.sqrt(middleX * middleX + middleY * middleY);
    const k = Math.round(r * STEPS);
    const slope = k < this.slopes.length ? this.slopes[k] : NaN;
    if (Number.isNaN(slope)) return Infinity;
    const [alongX, alongY] = r > 0 ? [(slope * middleX) / r, (slope * middleY) / r] : [slope, 0];
    const base = this.heights[k] - (slope * k) / STEPS + x * alongX + y * alongY;
    return Math.max(z00, z10 - alongX, z01 - alongY, z11 - alongX - alongY) - base + ROUNDING;
  }

  /**
   * By the highest of the straight lines that a patch is made of, one beside the other: parabolas through three of them
   * lead there.
   * @param across how far from the axis the first of them passes, and `from` where along them they begin
   * @param riseAcross of the surface from the first to the last of them where they begin
   * @param rise along the first of them
   */
  private heldAcross(across: number, from: number, z: number, riseAcross: number, rise: number, twist: number): number {
    const held = (q: number) => this.heldAlong(across + q, from, z + q * riseAcross, rise + q * twist);
    const { at, high } = this;
    const { radius } = this.hanging;
    // Only lines that the cutter is over.
    const beside = nearest(from);
    if (beside > radius) return -Infinity;
    const half = Math.sqrt(radius * radius - beside * beside);
    const start = Math.max(0, -half - across);
    const end = Math.min(1, half - across);
    // Where a line passes through the axis a pointed cutter has an edge, which no parabola tells.
    const middle = -across > start && -across < end ? -across : (start + end) / 2;
    at[0] = start;
    at[1] = (start + middle) / 2;
    at[2] = middle;
    at[3] = (middle + end) / 2;
    at[4] = end;
    let most = 0;
    for (let k = 0; k < at.length; k++) {
      high[k] = held(at[k]);
      if (high[k] > high[most]) most = k;
    }
    // The two sides across the lines too: where a tip's rim crosses them there is another edge.
    const sides = Math.max(
      this.heldAlong(from, across, z, riseAcross),
      this.heldAlong(from + 1, across, z + rise, riseAcross + twist),
    );
    let best = Math.max(sides, high[most]);
    const first = Math.max(0, Math.min(at.length - 3, most - 1));
    let [q0, q1, q2] = [at[first], at[first + 1], at[first + 2]];
    let [f0, f1, f2] = [high[first], high[first + 1], high[first + 2]];
    for (let turn = 0; turn < TURNS; turn++) {
      const q = vertex(q0, f0, q1, f1, q2, f2);
      const f = held(q);
      if (f > best) best = f;
      if (f >= f1) {
        if (q < q1) [q2, f2] = [q1, f1];
        else [q0, f0] = [q1, f1];
        [q1, f1] = [q, f];
      } else if (q < q1) [q0, f0] = [q, f];
      else [q2, f2] = [q, f];
    }
    return best;
  }

  /**
   * Towards which side of the patch at hand F rises all over it, along one of its ways: 0 its first, 1 its second,
   * −1 neither.
   * @param from where the patch begins that way
   * @param nearAcross how near to the axis it comes the other way, and how far from it
   * @param rise of the surface that way along its first side
   * @param twist how much more it rises along the other
   */
  private side(from: number, nearAcross: number, farAcross: number, rise: number, twist: number): -1 | 0 | 1 {
    const { gentle, steep } = this;
    if (steep === Infinity) return -1;
    const to = from + 1;
    // How the cutter rises that way: its slope by the share of it that points there.
    const most = to > 0 ? rising(to, nearAcross, steep) : rising(to, farAcross, gentle);
    const least = from < 0 ? rising(from, nearAcross, steep) : rising(from, farAcross, gentle);
    if (Math.max(rise, rise + twist) <= least) return 0;
    return Math.min(rise, rise + twist) >= most ? 1 : -1;
  }

  /**
   * By a straight line one cell long.
   * @param across how far from the axis it passes, and `from` where along it it begins
   * @param rise of the surface along it, mm
   */
  private heldAlong(across: number, from: number, z: number, rise: number): number {
    const { t, p } = this;
    const { radius } = this.hanging;
    const half2 = radius * radius - across * across;
    if (half2 < 0) return -Infinity;
    const half = Math.sqrt(half2);
    const low = Math.max(from, -half);
    const high = Math.min(from + 1, half);
    if (low > high) return -Infinity;
    const touch = touchAlong(p, Math.abs(rise) / t.cell, Math.abs(across) * t.cell) / t.cell;
    const s = Math.max(low, Math.min(high, rise < 0 ? -touch : touch));
    // At its rim rounding must not put the place beyond the cutter.
    const r = Math.min(radius, Math.sqrt(s * s + across * across));
    return z + rise * (s - from) - this.hanging.height(r);
  }
}

/** How near to the axis a cell comes along one way. */
const nearest = (from: number): number => Math.max(0, from, -from - 1);

/** How a cutter rises along a way that is so steep, over a place so far along that way and across it. */
const rising = (along: number, across: number, slope: number): number =>
  along === 0 ? 0 : (slope * along) / Math.sqrt(along * along + across * across);

/** Where a parabola through three places is highest between the outer ones; where it is not, halfway to the higher. */
function vertex(q0: number, f0: number, q1: number, f1: number, q2: number, f2: number): number {
  const [left, right] = [(f1 - f0) / (q1 - q0), (f2 - f1) / (q2 - q1)];
  const bend = right - left;
  const at = (q0 + q1) / 2 - (left * (q2 - q0)) / (2 * bend);
  if (bend < 0 && at > q0 && at < q2 && Math.abs(at - q1) > LEAST_APART * (q2 - q0)) return at;
  return f2 > f0 ? (q1 + q2) / 2 : (q0 + q1) / 2;
}

import type { Profile } from "../../cutters/profile.ts";
import { profileOf } from "../../cutters/profile.ts";
import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { type Rings, ringCount } from "../../geometry/rings.ts";
import type { Leeway } from "../../geometry/leeway.ts";
import { type Trail, trailLength, trails } from "../../geometry/trail.ts";
import { openRuns, type Skip } from "../../toolpath/stretches.ts";
import { type Reach, type Reached, reachedBy } from "../area/reached.ts";
import { type CutContext, settingsOf } from "../kind.ts";
import type { CarveInputs } from "./reads.ts";
import { CLEAR } from "./clearing.ts";
import { hypot } from "../../hypot.ts";

/** How far passes reach into ground a clearing cutter opened, more than both paths may stray, mm. */
const OVERLAP = 0.01;

/**
 * How far written passes over a floor may stray from the computed ones, mm: what they may stray, they lie nearer
 * together.
 */
export const FLOOR_TOLERANCE = 0.002;

/** Rings scraped with a point before it is clearly a mistake: more than any sign needs, few enough to compute. */
const MOST_RINGS = 2000;

/**
 * What a pointed cutter has to do on the floor beyond the feet of the walls: over whatever no clearing cutter reached,
 * in rings as far apart as the stated ridge allows, and along the middle where two rings are too far apart.
 * `scraped` is the length spent on open floor, mm.
 */
export function floorTrails(
  inputs: CarveInputs,
  c: Clearance,
  s: { ridge: number },
  p: Profile,
  floor: number,
  rho: number,
): { rest: Trail[]; scraped: number } {
  const rest: Trail[] = [];
  let scraped = 0;
  if (c.widest <= rho) return { rest, scraped };
  const { cleared, radius } = clearedBy(openersOf(inputs, rho), c, rho);
  const step = floorStep(s, p);
  const overlap = Math.min(step, OVERLAP);
  for (let k = 1; k < MOST_RINGS; k++) {
    const at = rho + k * step;
    if (at >= c.widest || at > rho + radius) break;
    scraped += addRings(rest, inset(c, at).rings, -floor, cleared && ((x, y) => cleared(x, y, at, overlap)));
    if ((k & 15) === 0) inputs.progress(0.4 + 0.4 * Math.min(1, k / 200));
  }
  const ridge = middles(c, rho, step, -floor, cleared && ((x, y, d) => cleared(x, y, d, overlap)));
  for (const t of ridge) {
    rest.push(t);
    scraped += trailLength(t);
  }
  return { rest, scraped };
}

/** How far passes over a floor lie apart, mm. */
export function floorStep(s: { ridge: number }, p: Profile): number {
  // Passes may each stray by their tolerance: that much nearer together they still keep the ridge.
  return Math.max(0.01, 2 * p.r(s.ridge) - 2 * FLOOR_TOLERANCE);
}

/** The clearing cutters of a carve whose floor begins at clearance rho, mm. */
export const openersOf = ({ helpers }: CutContext, rho: number): Reach[] =>
  helpers.flatMap((h) => {
    const clearing = settingsOf(CLEAR, h);
    const { radius } = profileOf(h.cutter);
    return clearing ? [{ radius, from: rho + radius + clearing.leave }] : [];
  });

/** What all clearing cutters together have opened of the floor, and how near to the walls the nearest of them came. */
export function clearedBy(
  openers: readonly Reach[],
  c: Clearance,
  rho: number,
): { cleared: Reached | null; radius: number } {
  const cleared = reachedBy(c, openers);
  return {
    cleared,
    radius: cleared ? Math.min(...openers.filter((q) => q.from < c.widest).map((q) => q.from - rho)) : Infinity,
  };
}

/** Adds rings as closed trails, or the stretches of them that are not skipped. @returns their length, mm */
function addRings(paths: Trail[], r: Rings, z: number, skip: Skip | null): number {
  let total = 0;
  for (let k = 0; k < ringCount(r); k++)
    for (const run of openRuns(r.xy, r.starts[k], r.starts[k + 1], skip)) {
      const t: Trail = { ...run, z: new Float64Array(run.x.length).fill(z) };
      total += trailLength(t);
      paths.push(t);
    }
  return total;
}

/** Rings turn so little where clearance rises this fast along the axis that no ridge stays between their corners. */
const BLUNT = 0.97;

/**
 * The axis where rings alone leave too high a ridge: at their corners, which lie step / slope apart, and in the middle
 * where it is more than half a step beyond the last ring.
 */
function middles(
  c: Clearance,
  rho: number,
  step: number,
  z: number,
  skip: ((x: number, y: number, d: number) => Leeway) | null,
): Trail[] {
  const { axis, kept } = c;
  const a: number[] = [];
  const b: number[] = [];
  const isSkipped = (n: number) => skip !== null && skip(axis.x[n], axis.y[n], axis.d[n]) > 0;
  const far = (d: number) => (d - rho) / step - Math.floor((d - rho) / step) > 0.5;
  for (let e = 0; e < axis.a.length; e++) {
    const i = axis.a[e];
    const j = axis.b[e];
    if (!kept[e] || Math.min(axis.d[i], axis.d[j]) <= rho) continue;
    const blunt = Math.abs(axis.d[i] - axis.d[j]) > BLUNT * hypot(axis.x[i] - axis.x[j], axis.y[i] - axis.y[j]);
    if (blunt && !(far(axis.d[i]) && far(axis.d[j]))) continue;
    if (isSkipped(i) && isSkipped(j)) continue;
    a.push(i);
    b.push(j);
  }
  return trails(axis.x, axis.y, new Float64Array(axis.x.length).fill(z), a, b);
}

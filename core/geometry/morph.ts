import { type Clearance, inset } from "./clearance/clearance.ts";
import { soundOf } from "./mend.ts";
import { nesting } from "./nesting.ts";
import { complement, emptyRings, ringArea, ringCount, type Rings } from "./rings.ts";
import { hypot } from "../hypot.ts";

/** How clearance is had: shared and cached by the caller. */
export type ClearanceOf = (region: Rings) => Clearance;

/** Rings from x, y by turns, outer ones and holes as the caller turned them, with their nesting. */
export function ringsOf(loops: readonly (readonly number[])[]): Rings {
  const starts = new Int32Array(loops.length + 1);
  loops.forEach((l, k) => (starts[k + 1] = starts[k] + l.length / 2));
  const xy = new Float64Array(2 * starts[loops.length]);
  loops.forEach((l, k) => xy.set(l, 2 * starts[k]));
  const r: Rings = { xy, starts, parent: new Int32Array(loops.length).fill(-1) };
  r.parent = nesting(r);
  return r;
}

/** Points nearer together than this are one, mm: an arc drawn back by its own radius is a knot of points. */
const KNOT = 0.006;

/** Loops without knots; ones that are nothing else vanish. */
function merged(loops: readonly number[][]): number[][] {
  return loops
    .map((l) => {
      const out: number[] = [];
      for (let i = 0; i < l.length; i += 2) {
        const n = out.length;
        if (n === 0 || hypot(l[i] - out[n - 2], l[i + 1] - out[n - 1]) > KNOT) out.push(l[i], l[i + 1]);
      }
      while (out.length > 2 && hypot(out[0] - out[out.length - 2], out[1] - out[out.length - 1]) <= KNOT)
        out.length -= 2;
      return out;
    })
    .filter((l) => l.length >= 6);
}

/** Everything within `by` mm of the region: the outside world drawn back from it. */
export function grown(region: Rings, by: number, clearance: ClearanceOf): Rings {
  const n = ringCount(region);
  if (n === 0 || by <= 0) return region;
  const { rings, follows } = inset(clearance(complement(region, 3 * by + 1)), by);
  const loops: number[][] = [];
  for (let k = 0; k < ringCount(rings); k++) {
    if (follows[k] >= n) continue;
    const loop: number[] = [];
    for (let i = rings.starts[k + 1] - 1; i >= rings.starts[k]; i--) loop.push(rings.xy[2 * i], rings.xy[2 * i + 1]);
    loops.push(loop);
  }
  return soundOf(ringsOf(merged(loops)));
}

/** Everything at least `by` mm inside the region. */
export function thinned(region: Rings, by: number, clearance: ClearanceOf): Rings {
  if (ringCount(region) === 0 || by <= 0) return region;
  const { rings } = inset(clearance(region), by);
  if (ringCount(rings) === 0) return emptyRings();
  const loops = Array.from({ length: ringCount(rings) }, (_, k) => [
    ...rings.xy.subarray(2 * rings.starts[k], 2 * rings.starts[k + 1]),
  ]);
  return soundOf(ringsOf(merged(loops)));
}

/** Gaps narrower than `width` closed: grown by half of it and thinned again (morphological closing). Steps, mm. */
export const closing = (width: number): number[] => [width / 2, -width / 2];

/**
 * Corners, outer and inner, rounded to `radius`: opening, then closing. Strokes narrower than twice the radius are
 * lost. Steps, mm.
 */
export const rounding = (radius: number): number[] => [-radius, radius, ...closing(2 * radius)];

/**
 * Grown by each step, or thinned where it is less than 0, one after another; mm. Neighbouring steps of one sign are
 * one: discs' sums are discs (G. Matheron, "Random Sets and Integral Geometry", 1975, on semigroups of convex bodies).
 */
export function stepped(region: Rings, steps: readonly number[], clearance: ClearanceOf): Rings {
  const runs: number[] = [];
  for (const by of steps.filter((step) => step !== 0)) {
    const last = runs.length - 1;
    if (runs.length > 0 && runs[last] > 0 === by > 0) runs[last] += by;
    else runs.push(by);
  }
  return runs.reduce((r, by) => (by > 0 ? grown(r, by, clearance) : thinned(r, -by, clearance)), region);
}

/** The same rings with no edge longer than `spacing`, so that a fit sees where lines are straight. */
export function resampled(r: Rings, spacing: number): Rings {
  const loops: number[][] = [];
  for (let k = 0; k < ringCount(r); k++) {
    const loop: number[] = [];
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const j = i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k];
      const [x0, y0, x1, y1] = [r.xy[2 * i], r.xy[2 * i + 1], r.xy[2 * j], r.xy[2 * j + 1]];
      const parts = Math.max(1, Math.ceil(hypot(x1 - x0, y1 - y0) / spacing));
      for (let q = 0; q < parts; q++) loop.push(x0 + ((x1 - x0) * q) / parts, y0 + ((y1 - y0) * q) / parts);
    }
    loops.push(loop);
  }
  const starts = new Int32Array(loops.length + 1);
  loops.forEach((l, k) => (starts[k + 1] = starts[k] + l.length / 2));
  return { xy: Float64Array.from(loops.flat()), starts, parent: r.parent };
}

/** Whether ring k bounds a hole. */
export const isHole = (r: Rings, k: number): boolean => ringArea(r, k) < 0;

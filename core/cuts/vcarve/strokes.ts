import { type Cutter, isCone, type Profile, profileOf } from "../../cutters/profile.ts";
import { type Clearance, inset, withLoss } from "../../geometry/clearance/clearance.ts";
import { ringCount, type Rings } from "../../geometry/rings.ts";
import type { Trail } from "../../geometry/trail.ts";
import { axisBelow } from "./axis.ts";
import type { CarveInputs } from "./reads.ts";
import { effectiveFloor } from "./floor.ts";
import { between } from "../../toolpath/stretches.ts";
import { joinedTrails, type Ways } from "./network.ts";

/**
 * A branch into a corner is carved where it changes the wall by more than this, and by more than half of what its edge
 * is known to, mm.
 */
const LEAST_LOSS = 0.01;

/** The strokes of a carve, and what they follow from. */
export interface Strokes {
  region: Rings;
  c: Clearance;
  /** how deep the carve goes, and the clearance at which it gets there, mm */
  floor: number;
  rho: number;
  ways: Ways;
  /** of a round cutter, how far it opens the stock's top at a height z, mm */
  opened?: (z: number) => number;
}

/** The strokes of a carve: what it cuts whatever cleared its floors before. Found once for all that asks for them. */
export function strokesOf(
  inputs: CarveInputs,
  s: { limited: boolean; floor: number; feed: number },
  region: Rings,
): Strokes {
  const floor = effectiveFloor(s, profileOf(inputs.cutter));
  const loss = Math.max(LEAST_LOSS, inputs.reads.art.held / 2);
  return inputs.kept.of("strokes", [region, loss, inputs.cutter, floor, s.feed], (r, within, cutter, depth, feed) =>
    strokes(r, withLoss(inputs.clearance(r), within), cutter, depth, feed),
  );
}

/** Along every stroke and round the foot of every wall, in as few trails as can be; kept. */
export const trailsOf = ({ kept }: CarveInputs, strokes: Strokes): Trail[] =>
  kept.of("stroke-trails", [strokes], ({ ways }) => joinedTrails(ways));

function strokes(region: Rings, c: Clearance, cutter: Cutter, floor: number, feed: number): Strokes {
  const profile = profileOf(cutter);
  const rho = profile.r(floor);
  const opened = isCone(profile) ? undefined : (z: number) => profile.r(-z);
  const axis = axisBelow(
    c,
    rho,
    (d) => -Math.min(floor, Math.max(0, profile.h(Math.min(d, profile.radius)))),
    profile.flat,
    opened,
  );
  return { region, c, floor, rho, ways: { axis, feet: feetOf(c, rho, floor), floor, feed }, opened };
}

/** Closed trails along the foot of every wall. */
function feetOf(c: Clearance, rho: number, floor: number): Trail[] {
  if (c.widest <= rho) return [];
  const { rings } = inset(c, rho);
  return Array.from({ length: ringCount(rings) }, (_, k) => {
    const n = rings.starts[k + 1] - rings.starts[k];
    // The first point again at the end: a foot is closed.
    const at = (i: number) => 2 * (rings.starts[k] + (i % n));
    return {
      x: Float64Array.from({ length: n + 1 }, (_, i) => rings.xy[at(i)]),
      y: Float64Array.from({ length: n + 1 }, (_, i) => rings.xy[at(i) + 1]),
      z: new Float64Array(n + 1).fill(-floor),
    };
  });
}

/** One of the passes in which a carve goes down: what lies below `top`, no deeper than `low`; heights, mm. */
export interface Pass {
  top: number;
  low: number;
}

/** The passes in which a carve goes down to its deepest. */
export function passesOf(c: Clearance, { stepdown }: { stepdown: number }, floor: number, p: Profile): Pass[] {
  const deepest = Math.min(floor, p.height, p.h(Math.min(c.widest, p.radius)));
  const count = Math.max(1, Math.ceil(deepest / stepdown - 1e-6));
  return Array.from({ length: count }, (_, k) => ({
    top: k === 0 ? Infinity : -k * stepdown,
    low: k === count - 1 ? -floor : -(k + 1) * stepdown,
  }));
}

/** What one of the passes runs of trails. */
export const partsIn = (trails: readonly Trail[], { top, low }: Pass, passes: readonly Pass[]): readonly Trail[] =>
  passes.length === 1 ? trails : trails.flatMap((t) => between(t, top, low));

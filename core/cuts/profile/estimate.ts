import { regionArea, ringCount } from "../../geometry/rings.ts";
import { unroll } from "../../toolpath/loops.ts";
import { leftIn } from "../area/left.ts";
import { alongSeconds } from "../area/seconds.ts";
import { liftSeconds } from "../area/survey.ts";
import { contourLoops } from "../contour/loops.ts";
import type { ArtInputs, Left } from "../kind.ts";
import { depthOf, type ProfileSettings } from "./fields.ts";
import { hypot } from "../../hypot.ts";

/** Thinner cutters than this break in what is thicker than they are wide, mm. */
export const LEAST_THROUGH = 3;

/**
 * How long it would take, without planning it, s; Infinity where its flutes end above the bottom or it is too thin to
 * go through.
 */
export function profileSeconds(inputs: ArtInputs, s: ProfileSettings): number {
  const { ink } = inputs.reads.art;
  if (ringCount(ink) === 0) return 0;
  const { diameter, fluteLength } = inputs.cutter;
  const depth = depthOf(inputs, s);
  const isThin = s.through && diameter < LEAST_THROUGH && inputs.stock.thickness > diameter;
  if (isThin || fluteLength < depth) return Infinity;
  const { loops } = contourLoops(inputs, s, diameter / 2 + s.leave);
  const passes = Math.ceil(depth / s.stepdown - 1e-6) + (s.lastPass > 0 ? 1 : 0);
  const round = alongSeconds(
    inputs,
    s,
    loops.map((l) => unroll(l.xy, l.start, l.end, 0, false)),
  );
  const { width, height } = inputs.stock;
  const enter = liftSeconds(inputs.machine, depth, (TRAVEL * hypot(width, height)) / Math.sqrt(loops.length));
  return passes * round + loops.length * (s.lead > 0 ? passes : 1) * enter;
}

/** From one contour to the next, as a share of the stock's size over the square root of how many there are. */
const TRAVEL = 0.5;
/**
 * As much of the waste as nobody would take a finer cutter for, as a share of the pieces: on a figure of 80 cm² the
 * inside corners of a 6 mm cutter, eight of them.
 */
const SPARE = 0.002;

/** What of the waste it does not reach, and which pieces and holes it does not cut free. */
export function profileLeft(inputs: ArtInputs, s: ProfileSettings): Left {
  const { ink } = inputs.reads.art;
  const spare = SPARE * regionArea(ink);
  const radius = inputs.cutter.diameter / 2;
  const { waste, clearance, missed, joined } = contourLoops(inputs, s, radius + s.leave);
  if (!clearance) return { area: 0, missing: 0, spare };
  // The frame round the waste has corners that no cutter goes into.
  const corners = s.side === "outside" ? (4 - Math.PI) * radius * radius : 0;
  const area = Math.max(0, leftIn(inputs, waste, radius) - corners);
  return { area, missing: missed.length + joined.length, spare };
}

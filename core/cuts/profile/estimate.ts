import { regionArea, ringCount } from "../../geometry/rings.ts";
import { parsePlaces } from "../../settings/places.ts";
import { type Loop, unroll } from "../../toolpath/loops.ts";
import { moveSeconds } from "../../toolpath/time.ts";
import { RAPID, ToolpathWriter } from "../../toolpath/toolpath.ts";
import { leftIn } from "../area/left.ts";
import { alongSeconds } from "../area/seconds.ts";
import { liftSeconds } from "../area/survey.ts";
import { contourLoops } from "../contour/loops.ts";
import { mostTabs } from "../contour/tabs.ts";
import { slopeOf } from "../fields.ts";
import type { ArtInputs, Left } from "../kind.ts";
import { depthOf, type ProfileSettings } from "./fields.ts";
import { hypot } from "../../hypot.ts";
import { shapeOf } from "./pass.ts";

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
  const levels = Math.max(1, Math.ceil(depth / s.stepdown - 1e-6));
  const passes = levels + (s.lastPass > 0 ? 1 : 0);
  const paths = loops.map((l) => unroll(l.xy, l.start, l.end, 0, false));
  const round = alongSeconds(inputs, s, paths);
  const { width, height } = inputs.stock;
  const enter = liftSeconds(inputs.machine, depth, (TRAVEL * hypot(width, height)) / Math.sqrt(loops.length));
  // Down to the bottom along each contour, whatever the passes.
  const around = paths.reduce((sum, l) => sum + lengthOf(l), 0);
  const ramps = around > 0 ? (loops.length * depth * round) / (slopeOf(s) * around) : 0;
  const { top, half, tabSlope } = shapeOf(inputs, s);
  const fit = (total: number) => mostTabs(total, 2 * (half + s.tabHeight));
  const each = loops.map((l, k) => (l.frees && s.through ? Math.min(s.tabs, fit(lengthOf(paths[k]))) : 0));
  const tabs = s.tabsAt === "" ? each.reduce((sum, n) => sum + n, 0) : parsePlaces(s.tabsAt, "Tabs").length;
  let over = 0;
  for (let k = 1; k <= levels; k++) over += overSeconds(inputs, s, top + (depth * k) / levels, tabSlope);
  return passes * round + ramps + tabs * over + loops.length * (s.lead > 0 ? passes : 1) * enter;
}

const lengthOf = ({ s }: Loop): number => s[s.length - 1];

/** Level before and behind a tab, so that a cutter runs at its feed there, mm. */
const RUN_UP = 20;

/** How much longer the way over a tab takes that stands so high above a pass than straight on, s. */
function overSeconds({ machine }: ArtInputs, s: ProfileSettings, rise: number, slope: number): number {
  if (rise <= 0) return 0;
  const wide = s.tabWidth + rise / slope;
  const way = (heights: readonly [x: number, z: number][]) => {
    const w = new ToolpathWriter(s.feed, s.plunge, machine.rapid);
    w.above(0, 0, 0);
    for (const [x, z] of heights) w.to(x, 0, z);
    const path = w.take();
    return moveSeconds(path, machine).reduce((sum, t, i) => (path.kind[i] === RAPID ? sum : sum + t), 0);
  };
  const end = 2 * RUN_UP + wide + rise / slope;
  const up: [number, number][] = [
    [RUN_UP, 0],
    [RUN_UP + rise / slope, rise],
    [RUN_UP + wide, rise],
    [end - RUN_UP, 0],
    [end, 0],
  ];
  return way(up) - way([[end, 0]]);
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

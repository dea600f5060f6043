import { regionArea, ringCount } from "../../geometry/rings.ts";
import { parsePlaces } from "../../settings/places.ts";
import { type Loop, rampDown, unroll } from "../../toolpath/loops.ts";
import { cuttingSeconds } from "../../toolpath/sampled.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
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
  if (loops.length === 0) return 0;
  const levels = Math.max(1, Math.ceil(depth / s.stepdown - 1e-6));
  const passes = levels + (s.lastPass > 0 ? 1 : 0);
  const paths = loops.map((l) => unroll(l.xy, l.start, l.end, 0, false));
  const tabbed = paths.filter((_, k) => loops[k].frees && s.through);
  return (
    passes * alongSeconds(inputs, s, paths) +
    rampSeconds(inputs, s, paths, depth) +
    tabSeconds(inputs, s, tabbed, { depth, levels }) +
    waySeconds(inputs, loops.length, s.lead > 0 ? passes : 1, depth)
  );
}

/** From contour to contour, lifted once for each, or for each pass where it comes in by a lead; s. */
function waySeconds({ machine, stock }: ArtInputs, contours: number, lifts: number, depth: number): number {
  // The way to the first is the program's own.
  const travel = (TRAVEL * hypot(stock.width, stock.height) * (contours - 1)) / Math.sqrt(contours);
  const count = contours * lifts;
  return count * liftSeconds(machine, depth, travel / count);
}

/** Contours whose ramps are looked at, and how much of each, mm. */
const RAMPS = { count: 10, length: 80 };

/** Down to the bottom along each contour, whatever the passes, by its own bends; s. */
function rampSeconds({ machine }: ArtInputs, s: ProfileSettings, paths: readonly Loop[], depth: number): number {
  const slope = slopeOf(s);
  const down = depth / slope;
  // Evenly from the shortest to the longest: a ramp is as long along each of them.
  const sorted = paths.filter((l) => lengthOf(l) > 0).sort((a, b) => lengthOf(a) - lengthOf(b));
  const count = Math.min(RAMPS.count, sorted.length);
  let seconds = 0;
  for (let k = 0; k < count; k++) {
    const loop = sorted[Math.floor(((k + 0.5) * sorted.length) / count)];
    const length = Math.min(RAMPS.length, down);
    const w = new ToolpathWriter(s.feed, s.plunge, machine.rapid);
    w.above(loop.x[0], loop.y[0], 0);
    rampDown(w, loop, 0, -length * slope, slope);
    seconds += (cuttingSeconds(w.take(), machine) * down) / length;
  }
  return count > 0 ? (seconds * sorted.length) / count : 0;
}

const lengthOf = ({ s }: Loop): number => s[s.length - 1];

/** What the ways over the tabs of pieces take beyond straight on, at every level; s. */
function tabSeconds(
  inputs: ArtInputs,
  s: ProfileSettings,
  paths: readonly Loop[],
  { depth, levels }: { depth: number; levels: number },
): number {
  const { top, half, tabSlope } = shapeOf(inputs, s);
  const fitting = (l: Loop) => Math.min(s.tabs, mostTabs(lengthOf(l), 2 * (half + s.tabHeight)));
  const tabs = s.tabsAt === "" ? paths.reduce((sum, l) => sum + fitting(l), 0) : parsePlaces(s.tabsAt, "Tabs").length;
  let over = 0;
  for (let k = 1; k <= levels; k++) over += overSeconds(inputs, s, top + (depth * k) / levels, tabSlope);
  return tabs * over;
}

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
    return cuttingSeconds(w.take(), machine);
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

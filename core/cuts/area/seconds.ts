import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { ringCount, ringIndices, ringLength, type Rings } from "../../geometry/rings.ts";
import type { Trail } from "../../geometry/trail.ts";
import { cutAlong, type Loop, unroll } from "../../toolpath/loops.ts";
import { type Ends, nearestOrder } from "../../toolpath/order.ts";
import { sampledSeconds } from "../../toolpath/sampled.ts";
import { NEAR, ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { CutInputs, Rates } from "../kind.ts";
import type { AreaPlan, Level } from "./level.ts";
import { SLIVER } from "./reached.ts";
import { LONGEST_OPEN_WAY, LONGEST_WAY } from "./ground.ts";
import { pipsOf } from "./pips.ts";
import { restsOf } from "./rests.ts";
import { leastRamp, wayLength } from "./sink.ts";
import { liftSeconds, type Survey, surveyIn } from "./survey.ts";
import { hypot } from "../../hypot.ts";

/** What telling the time of an area looks at. */
type Inputs = Pick<CutInputs, "kept" | "clearance" | "machine" | "stock">;
type Speeds = Pick<Rates, "feed" | "plunge">;

/** An area to clear: its region, and how. */
export interface AreaWork {
  region: Rings;
  area: AreaPlan;
  levels: Level[];
  /** cleared level by level all over, not part by part: by lines, or with an even load */
  isByLevels?: boolean;
}

/** A helix as wide as most are, with the level turn at its end, as a share of the cutter's radius. */
const HELIX = 0.8;
/** Travel between two groups of rings, as a share of the stock's size: to the nearest next one. */
const TRAVEL = 0.05;
/** Ways from ring to ring, as a share of the rings' own length. */
const LINKS = 1.05;
/** To this share of the stretches of a corner that are farther than a short way off it lifts; to the others it goes. */
const LIFTS_WITHIN = 0.75;
/** Rests are run round bends and begin and end at rest: so much longer than straight on, at least. */
const ROUND = 1.2;
/** A short stretch begins and ends at rest: it costs so much more, s. */
const START = 0.12;
/** Speeds that are kept, numbers: the second of two cutters runs the same rings whatever the first is. */
const SPEEDS_KEPT = 100;

/**
 * How long clearing would take: the length of its rings at the speed that the outermost ones can be run at, and a way
 * in for each group of rings; of what earlier cutters leave, the stretches that are left and a lift for each corner.
 */
export function areaSeconds(inputs: Inputs, s: Rates, { region, area, levels, isByLevels }: AreaWork): number {
  const { c, radius, stepover } = area;
  const { machine } = inputs;
  const lowest = levels[levels.length - 1];
  if (!(lowest.from < c.widest)) return 0;
  const rate = ringSpeed(inputs, s, c, lowest.from);
  if (area.done) return restSeconds(inputs, s, area, levels, rate);
  if (levels.some(({ from }) => hasNoWayIn(area, from))) return Infinity;
  const survey = surveyIn(inputs, region);
  const parts = survey.curves(lowest.from);
  const laidFrom = (from: number) => {
    let length = 0;
    for (let d = from; d < c.widest; d += stepover) length += survey.length(d);
    return { from, length, groups: survey.groups(from, stepover), pips: pipsOf(area, { ...lowest, from }) };
  };
  let laid = laidFrom(levels[0].from);
  let seconds = 0;
  for (const [k, { from, z0, z1 }] of levels.entries()) {
    // Levels between upright walls are alike.
    if (laid.from !== from) laid = laidFrom(from);
    const { length, groups, pips } = laid;
    const helix = rampLength(area, z0 - z1) + 2 * Math.PI * HELIX * radius;
    // From level to level of a part nothing is lifted.
    const lifted = k > 0 && !isByLevels ? Math.max(0, groups - parts) : groups;
    const lift = (way: number) => liftSeconds(machine, -z1, way) + sinkSeconds(s, { z0, z1 });
    seconds += pipSeconds(pips, LONGEST_WAY * radius, rate, lift);
    seconds += (LINKS * length + groups * helix) / rate + lifted * liftSeconds(machine, -z1, groupTravel(inputs));
  }
  return seconds;
}

/** How long it takes to cut what earlier cutters leave, s. */
function restSeconds(inputs: Inputs, s: Rates, area: AreaPlan, levels: readonly Level[], rate: number): number {
  const lowest = levels[levels.length - 1];
  const corners = restsOf(area, lowest, inputs.kept);
  const runs = corners.flat();
  const along = runs.reduce((sum, run) => sum + wayLength(run.x, run.y) / rate + START, 0);
  const lift = (way: number) => liftSeconds(inputs.machine, -lowest.z1, way) + sinkSeconds(s, lowest);
  const go = (way: number) => {
    if (way <= LONGEST_WAY * area.radius) return way / rate;
    const share = way <= LONGEST_OPEN_WAY ? LIFTS_WITHIN : 1;
    return share * lift(way) + ((1 - share) * way) / rate;
  };
  // Where no cutter was before, each level is ramped into.
  const ramps = levels.reduce((sum, { z0, z1 }) => sum + rampLength(area, z0 - z1), 0) / rate;
  const first = lift(groupTravel(inputs));
  const ways = corners.reduce((sum, [{ x, y, d, closed, way }, ...others]) => {
    const isSolid = !(area.done!(x[0], y[0], d, lowest) > 0);
    const each = others.reduce((of, run) => of + go(run.way), 0);
    const again = isSolid && closed ? lift(way) : go(way);
    return sum + first + levels.length * each + (levels.length - 1) * again + (isSolid ? ramps : 0);
  }, 0);
  return levels.length * along + ways;
}

/**
 * How long it takes at least to cut what earlier cutters leave, s: where its centre has something left to cut,
 * a stepover apart at full feed, and a lift to every corner that it goes farther into. What a cutter has done for a
 * narrower one is where its own centre went and what they differ by about that (J. Steiner, "Über parallele Flächen",
 * 1840).
 */
export function restAtLeast(inputs: Inputs, s: Rates, { region, area, levels }: AreaWork): number {
  const survey = surveyIn(inputs, region);
  const lowest = levels[levels.length - 1];
  const dones = (area.before ?? []).map(({ radius, from }) => {
    const by = radius - area.radius;
    return survey.area(from) + by * survey.length(from) + Math.PI * by * by * survey.pieces(from);
  });
  const left = Math.max(0, survey.area(lowest.from) - Math.max(0, ...dones));
  const along = (60 * ROUND * left) / (area.stepover * s.feed);
  return levels.length * along + cornersLeft(survey, area) * liftSeconds(inputs.machine, -lowest.z1, 0);
}

/** Corners that a cutter goes farther into than those before it. */
function cornersLeft(survey: Survey, { before = [], radius }: AreaPlan): number {
  const [nearest] = [...before].sort((p, q) => p.from - q.from);
  // Where the clearance falls by f along the axis the centre goes farther by (1 / f − 1) of what it is narrower.
  return nearest ? survey.corners(nearest.from, 1 / (1 + SLIVER / (nearest.radius - radius))) : 0;
}

/** Way from one group of rings to the next, mm. */
const groupTravel = ({ stock }: Inputs): number => TRAVEL * hypot(stock.width, stock.height);
/** Length of a ramp or helix that goes down so far, mm. */
export const rampLength = ({ slope }: AreaPlan, down: number): number => down / Math.sin(Math.atan(slope));
/** Straight down through a level that is open, s. */
const sinkSeconds = ({ plunge }: Rates, { z0, z1 }: Pick<Level, "z0" | "z1">): number =>
  (60 * (z0 - z1 + NEAR)) / plunge;

/** Along pips in turn, the nearest next: over short ways at depth, over others lifted; s. */
function pipSeconds(pips: readonly Trail[], short: number, rate: number, lift: (way: number) => number): number {
  const ends = pips.map(({ x, y }): Ends => ({ x0: x[0], y0: y[0], x1: x[x.length - 1], y1: y[y.length - 1] }));
  let seconds = 0;
  let here: [number, number] | null = null;
  for (const { index, reverse } of nearestOrder(ends)) {
    const { x0, y0, x1, y1 } = ends[index];
    const [begin, end]: [number, number][] = reverse
      ? [
          [x1, y1],
          [x0, y0],
        ]
      : [
          [x0, y0],
          [x1, y1],
        ];
    const way: number = here ? hypot(begin[0] - here[0], begin[1] - here[1]) : 0;
    seconds += wayLength(pips[index].x, pips[index].y) / rate + (way <= short ? way / rate : lift(way));
    here = end;
  }
  return seconds;
}

/** Whether there are places hardly wider than the cutter, which one that does not cut at its centre leaves out. */
function hasNoWayIn(area: AreaPlan, from: number): boolean {
  if (area.centre) return false;
  const { rings } = inset(area.c, from);
  return Array.from({ length: ringCount(rings) }, (_, k) => ringLength(rings, k)).some((l) => l < leastRamp(area));
}

/** How fast the rings so far inside a region are run, corners and all, mm/s; kept. */
export function ringSpeed({ kept, machine }: Pick<Inputs, "kept" | "machine">, s: Speeds, c: Clearance, from: number) {
  return kept.of(
    "ring-speed",
    [c, from, { feed: s.feed, plunge: s.plunge }, machine],
    (within, at, rates, m) => speedOf({ machine: m }, rates, inset(within, at).rings),
    SPEEDS_KEPT,
  );
}

/** How fast rings are run, corners and all, mm/s. @param which of them; all where it is not said */
export function speedOf(
  inputs: Pick<Inputs, "machine">,
  s: Speeds,
  rings: Rings,
  which: readonly number[] = ringIndices(rings),
): number {
  const loops = which.map((k) => unroll(rings.xy, rings.starts[k], rings.starts[k + 1], 0, false));
  return which.reduce((sum, k) => sum + ringLength(rings, k), 0) / alongSeconds(inputs, s, loops);
}

/** How long the rounds along closed paths take, without the ways from one to the next, s. */
export function alongSeconds({ machine }: Pick<Inputs, "machine">, s: Speeds, loops: readonly Loop[]): number {
  const cut = (k: number, from: number, to: number) => {
    const w = new ToolpathWriter(s.feed, s.plunge, machine.rapid);
    const { x, y } = loops[k];
    w.above(x[from], y[from], 0);
    cutAlong(w, x, y, from, to, 0);
    return w.take();
  };
  return sampledSeconds(loops, cut, machine, s.feed);
}

import { profileOf } from "../../cutters/profile.ts";
import type { Machine } from "../../cutters/machine.ts";
import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { unreached } from "../../geometry/clearance/unreached.ts";
import { ringCount, ringsLength } from "../../geometry/rings.ts";
import type { Trail } from "../../geometry/trail.ts";
import { sampledSeconds } from "../../toolpath/sampled.ts";
import { trapezoid } from "../../toolpath/time.ts";
import { NEAR, ToolpathWriter } from "../../toolpath/toolpath.ts";
import type { Reach } from "../area/reached.ts";
import { ringSpeed } from "../area/seconds.ts";
import { liftSeconds, surveyIn } from "../area/survey.ts";
import type { CarveInputs } from "./reads.ts";
import { floorStep, openersOf } from "./rest.ts";
import { partsIn, type Pass, passesOf, type Strokes, trailsOf } from "./strokes.ts";
import { carveAlone } from "./trails.ts";
import type { VcarveSettings } from "./vcarve.ts";

/** How far cutters keep from walls is told so exactly, mm: what is within that is found once for all of them. */
const EXACTLY = 1e-6;
/** Of so many clearing cutters it is kept what they leave: a rack has about as many. */
const BESIDE = 16;
/** Way from the end of one stroke to the beginning of the next, in floors' depths: the order travels little. */
const TRAVEL = 3;

/** How long a carve would take: its strokes as they are, and the stretches of rings that are left of the floor. */
export function carveSeconds(inputs: CarveInputs, s: VcarveSettings, strokes: Strokes): number {
  const { c, floor, rho } = strokes;
  const passes = passesOf(c, s, floor, profileOf(inputs.cutter));
  const along = inputs.kept.of(
    "stroke-seconds",
    [trailsOf(inputs, strokes), floor, passes, s.feed, s.plunge, inputs.machine],
    strokeSeconds,
  );
  if (c.widest <= rho) return along;
  const { length, runs, bends } = floorLeft(inputs, s, strokes);
  if (runs === 0) return along;
  // Stretches begin and end at rest, and so do the ways from each to the next one, a step farther in.
  const speed = floorSpeed(inputs, s, c, rho);
  const fromRest = (way: number) => trapezoid(way, 0, 0, speed, inputs.machine.acceleration);
  const each = length / runs;
  const stretches = (runs - bends) * fromRest(each) + bends * 2 * fromRest(each / 2);
  const ways = runs * fromRest(floorStep(s, profileOf(inputs.cutter)));
  return along + passes.length * (stretches + ways);
}

/** How fast rings over the floor are run between their ends, corners and all, as those at its edge are; mm/s. */
function floorSpeed(inputs: CarveInputs, s: VcarveSettings, c: Clearance, rho: number): number {
  const { rings } = inset(c, rho);
  const length = ringsLength(rings);
  // Those begin and end at rest.
  const starts = (ringCount(rings) * s.feed) / 60 / inputs.machine.acceleration;
  return length / Math.max((60 * length) / s.feed, length / ringSpeed(inputs, s, c, rho) - starts);
}

/** Along every stroke as it will be run, pass by pass, with a lift for each, s. */
function strokeSeconds(
  trails: readonly Trail[],
  floor: number,
  passes: readonly Pass[],
  feed: number,
  plunge: number,
  machine: Machine,
): number {
  const parts = passes.flatMap((pass) => partsIn(trails, pass, passes));
  const cut = (k: number, from: number, to: number) => {
    const w = new ToolpathWriter(feed, plunge, machine.rapid);
    const { x, y, z } = parts[k];
    const stretch = [x, y, z].map((all) => all.subarray(from, to + 1));
    carveAlone(w, { x: stretch[0], y: stretch[1], z: stretch[2] });
    return w.take();
  };
  const down = parts.reduce((sum, { z }) => sum + NEAR - z[0], 0);
  // The order is not known yet: ways from stroke to stroke are a usual lift each.
  return (
    sampledSeconds(parts, cut, machine, feed) +
    (60 * down) / plunge +
    parts.length * liftSeconds(machine, floor / 2, TRAVEL * floor)
  );
}

/** Rings over a floor, or stretches of them: length, mm, how many, and how many of them turn round a corner. */
interface Stretches {
  length: number;
  runs: number;
  bends: number;
}

/** What the pointed cutter has to do on the floor beyond the feet of its walls. */
function floorLeft(inputs: CarveInputs, s: VcarveSettings, { region, c, rho }: Strokes): Stretches {
  const step = floorStep(s, profileOf(inputs.cutter));
  const survey = surveyIn(inputs, region);
  /** Whole rings from the feet of the walls to this distance from them. */
  const rings = (to: number): Stretches => {
    const out = { length: 0, runs: 0, bends: 0 };
    for (let d = rho + step; d < Math.min(rho + to, c.widest); d += step) {
      out.length += survey.length(d);
      out.runs += survey.curves(d);
    }
    return out;
  };
  const openers = openersOf(inputs, rho).filter((q) => q.from < c.widest);
  if (openers.length === 0) return rings(Infinity);
  // The finest reaches wherever the others do.
  const finest = openers.reduce((p, q) => (q.from < p.from ? q : p));
  const { length, runs, bends } = inputs.kept.of("floor-left", [c, rho, step, finest], leftBeside, BESIDE);
  const beside = rings(finest.from - finest.radius - rho);
  return { length: length + beside.length, runs: runs + beside.runs, bends };
}

/** What is left of the floor in corners and narrows where a clearing cutter did not come: stretches of rings. */
function leftBeside(c: Clearance, rho: number, step: number, { radius, from }: Reach): Stretches {
  // How far from the walls it keeps, and how many rings lie there; whatever its radius it is the same number.
  const off = Math.max(0, Math.round((from - radius - rho) / EXACTLY) * EXACTLY);
  const before = Math.ceil(off / step);
  // Each ring stands for half a step on either side.
  const foot = (Math.max(1, before) - 0.5) * step - off;
  const { area, corners, necks } = unreached(c, radius, { inside: rho + off, foot: Math.max(0, foot) });
  const ringsUpTo = (h: number) => Math.max(0, Math.ceil((off + h) / step) - Math.max(1, before));
  const count = (heights: Float64Array) => heights.reduce((sum, h) => sum + ringsUpTo(h), 0);
  const bends = count(corners);
  return { length: area / step, runs: bends + count(necks), bends };
}

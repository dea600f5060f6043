import { type Cutter, profileOf } from "../../cutters/profile.ts";
import type { Tips } from "../../height/tips.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { slopeOf } from "../fields.ts";
import { WaysIn } from "../area/sink.ts";
import { type CutContext, type CutInputs, type HEIGHT_ART, type Planned } from "../kind.ts";
import { lowestOf, regionOf } from "../surface/asked.ts";
import { coarseSeconds, coarsely } from "../surface/coarse.ts";
import {
  backToBeginning,
  type Course,
  type Enter,
  follow,
  type Following,
  rampEnd,
  rampInto,
  wayInFarther,
} from "../surface/follow.ts";
import { stockNotes } from "../surface/notes.ts";
import { cutting, finding } from "../surface/passes.ts";
import { inOrder, runsOf } from "../surface/runs.ts";
import { groundFor } from "../surface/ground.ts";
import { tipsOverLeft } from "../surface/standing.ts";
import { type Row, rowsOver, tipsAlong } from "../surface/rows.ts";
import { type RoughSettings, rough } from "./rough.ts";

/** How long it would take, planned coarsely, s; Infinity where its flutes end above the surface's lowest. */
export function estimate(inputs: CutInputs<typeof HEIGHT_ART>, s: RoughSettings): number {
  const deepest = -lowestOf(inputs) - s.leave;
  return inputs.cutter.fluteLength < deepest ? Infinity : coarseSeconds(plan(coarsely(inputs, s.stepover), s), inputs);
}

/** Rows farther apart than this many radii leave stock between them. */
const MOST_STEPOVER = 1.8;
/** Less than this above what is wanted is not worth a pass, mm. */
const WORTH = 0.05;
/** How far above the wanted tips roughing paths may lie, mm: nobody sees them. */
const TOLERANCE = 0.03;
/** Rows whose ends lie farther apart than this many stepovers are lifted between. */
const JOINED = 3;
/** Drops no deeper than this need no ramp, mm: what rounding leaves of ground that is open. */
const SHALLOW = 0.05;
/** A cutter whose axis lies so many radii beside the board is in the open. */
const BESIDE = 0.9;

export function plan(inputs: CutInputs<typeof HEIGHT_ART>, s: RoughSettings): Planned {
  const { art } = inputs.reads;
  const p = profileOf(inputs.cutter);
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const ground = groundFor(inputs, art, inputs.cutter, null, true);
  const { tips } = ground;
  const rows = rowsOver(ground, apartOf(inputs.cutter, s), s.angle, finding(inputs));
  const standing = standingBefore(inputs);
  const before = rows.map((row) => standing && tipsAlong(standing.likely, row, row.lowest.length));
  const ways = new WaysIn(p.radius, inputs.cutter.centreCutting, slopeOf(s));
  const depth = -lowestOver(rows) - s.leave;
  const levels = depth > 0 ? Math.ceil(depth / s.stepdown - 1e-6) : 0;
  for (let level = 1; level <= levels; level++) {
    const [z0, z1] = [-(level - 1) * s.stepdown, Math.max(-depth, -level * s.stepdown)];
    const wanted = (low: number) => Math.max(z1, low + s.leave);
    const runs = rows.map((row, k) =>
      runsOf(
        row,
        (i) => {
          const low = row.lowest[i];
          // The tip that would touch what stands now.
          const stands = Math.min(before[k]?.[i] ?? Infinity, Math.max(z0, low + s.leave));
          return stands - wanted(low) > WORTH;
        },
        s.stepover,
      ),
    );
    const following: Following = { tips, tolerance: TOLERANCE, over: wanted };
    // Where the level above was cut stock begins at it; elsewhere where cutters before this one surely left it.
    const stockAt = (x: number, y: number): number => {
      if (!standing || standing.likely.at(x, y) - Math.max(z0, tips.at(x, y) + s.leave) > WORTH) return z0;
      return Math.max(z0, Math.min(0, standing.surely.at(x, y)));
    };
    const enter = entryFrom(inputs, w, ways, stockAt, slopeOf(s), following);
    let isOpen = false;
    for (const run of inOrder(runs, JOINED * s.stepover, false))
      // A run that would join one without a way in has to be entered by itself.
      isOpen = follow(w, { ...run, joined: run.joined && isOpen }, following, enter);
    cutting(inputs)(level / levels);
  }
  return {
    toolpath: w.take(),
    notes: [...stockNotes("Rough", inputs), ...ways.notes("Rough")],
    facts: { levels },
    within: regionOf(art.field, inputs.stock),
  };
}

/** The lowest of all rows, mm. */
function lowestOver(rows: readonly Row[]): number {
  let low = 0;
  for (const row of rows) for (const z of row.lowest) if (z < low) low = z;
  return low;
}

/** What roughing cutters before this one left standing; null where the stock is whole. */
function standingBefore(inputs: CutInputs<typeof HEIGHT_ART>): { likely: Tips; surely: Tips } | null {
  const earlier = inputs.earlier.filter((e) => e.kind === rough.kind);
  if (earlier.length === 0) return null;
  const been = earlier.map(({ cutter, settings }) => {
    const own = settings as RoughSettings;
    return { cutter, leave: own.leave, rows: { apart: apartOf(cutter, own), angle: own.angle } };
  });
  return { likely: tipsOverLeft(inputs, been), surely: tipsOverLeft(inputs, been, true) };
}

/** How far apart rows are, mm. */
const apartOf = (cutter: Cutter, s: { stepover: number }): number =>
  Math.min(s.stepover, MOST_STEPOVER * profileOf(cutter).radius);

/**
 * Brings a roughing cutter to a course through the stock there: from beside the board or along a ramp, farther along
 * the course where its beginning has no room for one, or straight down where there is room nowhere and the cutter may.
 */
function entryFrom(
  { stock, cutter }: CutContext,
  w: ToolpathWriter,
  ways: WaysIn,
  stockAt: (x: number, y: number) => number,
  slope: number,
  f: Following,
): Enter {
  const { centreCutting, diameter } = cutter;
  const shallow = centreCutting ? SHALLOW : 0;
  const isBeside = (x: number, y: number) =>
    Math.max(-x, -y, x - stock.width, y - stock.height) > (BESIDE * diameter) / 2;
  /** How the cutter comes in at the beginning of a course; null where it is solid there without room for a ramp. */
  const wayAt = (c: Course): WayIn | null => {
    const [x, y, z] = [c.x[0], c.y[0], c.z[0]];
    const z0 = stockAt(x, y);
    if (isBeside(x, y) || z0 - z <= shallow) return { isOpen: true };
    const end = rampEnd(c, z0 - z, slope);
    return ways.hasRoom(c.s[end], z0 - z) ? { isOpen: false, z0, end } : null;
  };
  const goIn = (c: Course, way: WayIn): void => {
    if (!way.isOpen) return rampInto(w, c, f, way.z0, slope, way.end);
    w.above(c.x[0], c.y[0]);
    w.plunge(c.z[0]);
  };
  return (course, x, y, z) => {
    const here = wayAt(course);
    if (here) {
      goIn(course, here);
      return true;
    }
    if (ways.isLeftOut(x, y)) return false;
    const farther = wayInFarther(course, wayAt);
    if (!farther) return ways.straight(w, x, y, stockAt(x, y), z);
    goIn(farther.rest, farther.way);
    backToBeginning(w, course, farther.from, f);
    return true;
  };
}

/** Down where it is open, or through stock that begins at z0 along a ramp over the course's places up to `end`. */
type WayIn = { isOpen: true } | { isOpen: false; z0: number; end: number };

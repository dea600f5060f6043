import { upright } from "../../proof/asked.ts";
import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { regionArea, ringCount, ringIndices } from "../../geometry/rings.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { clearEven } from "../area/even.ts";
import { Ground } from "../area/ground.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { type AreaPlan, type Level, levels } from "../area/level.ts";
import { Parts } from "../area/parts.ts";
import { leftIn } from "../area/left.ts";
import { clearLines } from "../area/lines.ts";
import { clearRings, cutRound } from "../area/rings.ts";
import { areaSeconds, rampLength, ringSpeed, speedOf } from "../area/seconds.ts";
import { liftSeconds, surveyIn } from "../area/survey.ts";
import { safeStepover, slopeOf } from "../fields.ts";
import type { ArtInputs, Left, Note, Planned } from "../kind.ts";
import type { PocketSettings } from "./pocket.ts";

/** How a pocket is cleared, the finishing pass left on its walls. */
function areaOf(inputs: ArtInputs, s: PocketSettings, notes: Note[]): AreaPlan {
  return {
    c: inputs.clearance(inputs.reads.art.ink),
    radius: inputs.cutter.diameter / 2,
    stepover: safeStepover(inputs, s, notes, "Pocket"),
    slope: slopeOf(s),
    entry: s.entry,
    centre: inputs.cutter.centreCutting,
    conventional: s.direction === "conventional",
  };
}

/** So many times as long as rings: the middle of eleven pictures, lines from 0.9 to 1.8, even load from 1.9 to 4.8. */
const WAY_SECONDS = { rings: 1, lines: 1.1, even: 2.4 };

/** How long it would take, without planning it, s; Infinity where its flutes end above the floor or it fits nowhere. */
export function estimate(inputs: ArtInputs, s: PocketSettings): number {
  const region = inputs.reads.art.ink;
  if (ringCount(region) === 0) return 0;
  const area = areaOf(inputs, s, []);
  const wall = area.radius + s.leave;
  if (inputs.cutter.fluteLength < s.depth || area.c.widest <= wall) return Infinity;
  const all = levels(s.depth, s.stepdown, () => wall + s.finish);
  const work = { region, area, levels: all, isByLevels: s.way !== "rings" };
  const seconds = WAY_SECONDS[s.way] * areaSeconds(inputs, s, work);
  if (s.finish === 0) return seconds;
  return seconds + wallSeconds(inputs, s, area, all);
}

/** So much of the walls, as a share of their length. */
const BESIDE = 0.9;

/** How long the passes along the walls take, s. */
function wallSeconds(inputs: ArtInputs, s: PocketSettings, area: AreaPlan, all: readonly Level[]): number {
  const wall = area.radius + s.leave;
  const inner = wall + s.finish;
  const survey = surveyIn(inputs, inputs.reads.art.ink);
  const lift = liftSeconds(inputs.machine, s.depth / 2, 2 * area.radius);
  // Where rings lie beside nearly all of it, a wall is run as fast as those, whose speed is asked for anyway.
  const isBeside = survey.length(inner) > BESIDE * survey.length(wall);
  const round = survey.length(wall) / ringSpeed(inputs, s, area.c, isBeside ? inner : wall);
  const parts = survey.curves(wall);
  const islands = parts - survey.pieces(wall);
  if (s.way !== "rings") return all.length * (round + (parts + islands) * lift);
  // From the outermost of its rings the cutter goes on to a part's wall, and from level to level; round islands it is
  // lifted. Where nothing is cleared before, the pass is ramped into.
  const along = all.length * (round + islands * lift);
  const alone = survey.ends(wall, inner) > 0 ? ringsAlone(area.c, wall, inner) : [];
  if (alone.length === 0) return along;
  const ramp = all.reduce((sum, { z0, z1 }) => sum + rampLength(area, z0 - z1), 0);
  return along + alone.length * (lift + ramp / speedOf(inputs, s, inset(area.c, wall).rings, alone));
}

/** The rings at the wall that no ring farther in lies in. */
function ringsAlone(c: Clearance, wall: number, inner: number): number[] {
  const { rings } = inset(c, wall);
  const parts = new Parts(rings);
  const within = inset(c, inner).rings;
  const reached = new Set(ringIndices(within).map((k) => parts.ofRing(within, k)));
  return ringIndices(rings).filter((k) => !reached.has(parts.ofRing(rings, k)));
}

/** As much of a pocket as nobody would take a finer cutter for, as a share of its area. */
const SPARE = 0.01;

export function left(inputs: ArtInputs, _s: PocketSettings): Left {
  const region = inputs.reads.art.ink;
  const finest = Math.min(inputs.cutter.diameter, ...inputs.helpers.map((h) => h.cutter.diameter)) / 2;
  const area = leftIn(inputs, region, finest);
  return { area, missing: 0, spare: SPARE * regionArea(region) };
}

export function plan(inputs: ArtInputs, s: PocketSettings): Planned {
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes: Note[] = [];
  const region = inputs.reads.art.ink;
  if (ringCount(region) === 0) return { toolpath: w.take(), notes, facts: {} };
  const radius = inputs.cutter.diameter / 2;
  const c = inputs.clearance(region);
  inputs.progress(0.3);
  const wall = radius + s.leave;
  const finish = s.finish;
  const area = areaOf(inputs, s, notes);
  const facts = { widest: c.widest, deepest: s.depth, area: regionArea(region) };
  const out = (): Planned => ({
    toolpath: w.take(),
    notes,
    facts,
    within: region,
    asked: upright(region, s.depth),
  });
  if (c.widest <= wall) {
    notes.push({
      code: "cutter-too-wide",
      severity: "stop",
      message:
        `The ${formatLength(inputs.cutter.diameter)} mm cutter fits nowhere in the pocket: its widest place is ` +
        `${formatLength(2 * c.widest)} mm. Use a smaller cutter.`,
      hangsOnCutter: true,
    });
    return out();
  }
  // Where the finishing allowance leaves no way in, the wall pass alone does it.
  const all = levels(s.depth, s.stepdown, () => wall + finish);
  const ground = new Ground(w, area, new SegmentGrid(region));
  const progress = (share: number) => inputs.progress(0.3 + 0.7 * share);
  const passes = finish > 0 ? { from: wall, comeFirst: s.first === "walls" } : null;
  let crowded = 0;
  if (s.way === "rings") clearRings(ground, all, passes, progress);
  else
    all.forEach((level, k) => {
      if (passes?.comeFirst) walls(ground, { ...level, from: wall }, true);
      if (s.way === "lines") clearLines(ground, level, (s.angle * Math.PI) / 180);
      else crowded = Math.max(crowded, clearEven(ground, level) || 0);
      if (passes && !passes.comeFirst) walls(ground, { ...level, from: wall }, false);
      progress((k + 1) / all.length);
    });
  notes.push(...ground.notes("Pocket"));
  if (crowded > 0.5)
    notes.push({
      code: "load-in-narrows",
      severity: "note",
      message:
        `Over ${formatLength(crowded, "mm", 1)} mm, in corners and narrows, the pocket is hardly wider than the ` +
        "cutter: there it is loaded to both sides whatever is done. A smaller cutter helps.",
    });
  return out();
}

/** Once round every wall, before the floor between them is cleared or after. */
function walls(g: Ground, level: Level, first: boolean): void {
  if (first) g.begin(level);
  else g.comesNearer(level);
  const { rings } = inset(g.p.c, level.from);
  for (let k = 0; k < ringCount(rings); k++) cutRound(g, rings, k, level);
}

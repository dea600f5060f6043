import { pocket } from "../pocket/pocket.ts";
import { profileOf } from "../../cutters/profile.ts";
import { ringCount } from "../../geometry/rings.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { Ground } from "../area/ground.ts";
import { type AreaPlan, levels } from "../area/level.ts";
import { isDone, reachedBy } from "../area/reached.ts";
import { clearRests } from "../area/rests.ts";
import { clearRings } from "../area/rings.ts";
import { areaSeconds, restAtLeast } from "../area/seconds.ts";
import { safeStepover, slopeOf } from "../fields.ts";
import { type ArtInputs, type Note, type Peer, type Planned, settingsOf } from "../kind.ts";
import { type RestSettings, depthOf } from "./rest.ts";

/** How far a cutter that kept `leave` off the walls has reached. */
const reachOf = (p: Peer, leave: number) => {
  const { radius } = profileOf(p.cutter);
  return { radius, from: radius + leave };
};

/** What is left to it, and how it takes that. */
function workOf(inputs: ArtInputs, s: RestSettings, target: Peer, cleared: { leave: number }, notes: Note[]) {
  const { cutter } = inputs;
  const c = inputs.clearance(inputs.reads.art.ink);
  const radius = cutter.diameter / 2;
  const from = radius + s.leave;
  const others = inputs.earlier.flatMap((e) => {
    const own = settingsOf<RestSettings>({ kind: "rest" }, e);
    return own ? [reachOf(e, own.leave)] : [];
  });
  const before = [reachOf(target, cleared.leave), ...others];
  const reached = reachedBy(c, before);
  const area: AreaPlan = {
    c,
    radius,
    stepover: safeStepover(inputs, s, notes, "Rest"),
    slope: slopeOf(s),
    entry: s.entry,
    centre: cutter.centreCutting,
    conventional: s.direction === "conventional",
    before,
    // Nothing to do where the whole cutter lies in open ground.
    done: reached ? (x, y, d) => isDone(reached, radius, x, y, d) : undefined,
  };
  return { area, from, before, all: levels(depthOf(inputs), s.stepdown, () => from) };
}

/** How long it would take, without planning it, s; Infinity where its flutes end above the floor or it fits nowhere. */
export function estimate(inputs: ArtInputs, s: RestSettings): number {
  const region = inputs.reads.art.ink;
  const cleared = settingsOf(pocket, inputs.target);
  if (!inputs.target || !cleared || ringCount(region) === 0) return 0;
  const { area, from, all } = workOf(inputs, s, inputs.target, cleared, []);
  if (inputs.cutter.fluteLength < depthOf(inputs) || from >= area.c.widest) return Infinity;
  return areaSeconds(inputs, s, { region, area, levels: all });
}

/** How long it would take at least, s. */
export function atLeast(inputs: ArtInputs, s: RestSettings): number {
  const region = inputs.reads.art.ink;
  const cleared = settingsOf(pocket, inputs.target);
  if (!inputs.target || !cleared || ringCount(region) === 0) return 0;
  const { area, all } = workOf(inputs, s, inputs.target, cleared, []);
  return restAtLeast(inputs, s, { region, area, levels: all });
}

export function plan(inputs: ArtInputs, s: RestSettings): Planned {
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes: Note[] = [];
  const { target, cutter } = inputs;
  const region = inputs.reads.art.ink;
  const cleared = settingsOf(pocket, target);
  if (!target || !cleared)
    return {
      toolpath: w.take(),
      notes: [
        {
          code: "rest-without-pocket",
          severity: "warning",
          message: "This cut takes the rest of a pocket, but its pocket is gone. Remove it, or add a pocket.",
        },
      ],
      facts: {},
    };
  if (ringCount(region) === 0) return { toolpath: w.take(), notes, facts: {} };
  const { area, from, before, all } = workOf(inputs, s, target, cleared, notes);
  const { c, radius } = area;
  const smallest = Math.min(...before.map((b) => b.radius));
  if (radius >= smallest)
    notes.push({
      code: "rest-not-smaller",
      severity: "warning",
      message:
        `A ${formatLength(cutter.diameter)} mm cutter reaches no more than the ${formatLength(2 * smallest)} mm ` +
        "one before it. Use a smaller one.",
    });
  if (from >= c.widest)
    notes.push({
      code: "cutter-too-wide",
      severity: "warning",
      message: `The ${formatLength(cutter.diameter)} mm cutter fits nowhere in the pocket. Use a smaller one.`,
    });
  const ground = new Ground(w, area, new SegmentGrid(region));
  if (area.done) clearRests(ground, all, inputs.kept);
  else clearRings(ground, all);
  notes.push(...ground.notes("Rest"));
  if (w.count === 0 && notes.length === 0)
    notes.push({
      code: "nothing-left",
      severity: "note",
      message: "The cutters before this one leave nothing for it to take.",
    });
  return { toolpath: w.take(), notes, facts: {}, within: region };
}

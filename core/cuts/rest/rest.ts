import { feedsFor } from "../../cutters/feeds.ts";
import { profileOf } from "../../cutters/profile.ts";
import { ringCount } from "../../geometry/rings.ts";
import type { Settings } from "../../settings/fields.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { Ground } from "../area/ground.ts";
import { levels } from "../area/level.ts";
import { reachedBy } from "../area/reached.ts";
import { clearRings } from "../area/rings.ts";
import {
  directionField,
  entryField,
  entryOf,
  leaveField,
  rampField,
  rateFields,
  safeStepover,
  slopeOf,
  stepdownField,
  stepoverField,
} from "../fields.ts";
import type { CutContext, CutInputs, CutKind, Note, Planned } from "../kind.ts";

const depthOf = (c: CutContext): number => (c.target?.settings.depth as number) ?? 0;
const feedsAt = (c: CutContext, s: Settings) =>
  feedsFor(c.cutter, c.material, c.machine, Math.min(s.stepdown as number, depthOf(c) || 1), s.stepover as number);
/** Along a wall both cutters cut the same line: less than this left beside it, mm, is nothing left. */
const SLIVER = 0.01;

/** Takes what a pocket's larger cutter, and the rest cuts before this one, could not reach. */
export const rest: CutKind = {
  kind: "rest",
  title: "Rest of a pocket",
  cutters: ["flat"],
  summary: (_s, c) => `flat ${formatLength(c.diameter)} mm · corners and narrows`,
  fields: [
    stepoverField,
    stepdownField(depthOf),
    leaveField,
    directionField,
    entryField,
    rampField,
    ...rateFields(feedsAt),
  ],
  plan,
};

function plan(inputs: CutInputs, s: Settings): Planned {
  const w = new ToolpathWriter(s.feed as number, s.plunge as number, inputs.machine.rapid);
  const notes: Note[] = [];
  const { target, cutter } = inputs;
  const region = inputs.ink;
  if (!target || target.kind !== "pocket")
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
  const c = inputs.clearance(region);
  const radius = cutter.diameter / 2;
  const from = radius + (s.leave as number);
  const before = [target, ...inputs.earlier.filter((e) => e.kind === "rest")].map((q) => ({
    radius: profileOf(q.cutter).radius,
    from: profileOf(q.cutter).radius + (q.settings.leave as number),
  }));
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
  const reached = reachedBy(c, before);
  const area = {
    c,
    radius,
    stepover: safeStepover(inputs, s, notes, "Rest"),
    slope: slopeOf(s),
    entry: entryOf(s),
    centre: cutter.centreCutting,
    conventional: s.direction === "conventional",
    // Nothing to do where the whole cutter lies in open ground.
    done: reached ? (x: number, y: number, d: number) => reached(x, y, d) < -radius + SLIVER : undefined,
  };
  const ground = new Ground(w, area, new SegmentGrid(region));
  for (const level of levels(depthOf(inputs), s.stepdown as number, () => from)) clearRings(ground, level);
  notes.push(...ground.notes("Rest"));
  if (w.count === 0 && notes.length === 0)
    notes.push({
      code: "nothing-left",
      severity: "note",
      message: "The cutters before this one leave nothing for it to take.",
    });
  return { toolpath: w.take(), notes, facts: {}, within: region };
}

import { profileOf } from "../../cutters/profile.ts";
import { ringCount } from "../../geometry/rings.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { formatLength } from "../../units.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { Ground } from "../area/ground.ts";
import { type AreaPlan, levels } from "../area/level.ts";
import { isDone, type Reached, reachedBy } from "../area/reached.ts";
import { clearRests } from "../area/rests.ts";
import { clearRings } from "../area/rings.ts";
import { areaSeconds, type AreaWork } from "../area/seconds.ts";
import {
  directionField,
  entryField,
  rampField,
  rateFields,
  safeStepover,
  slopeOf,
  stepdownField,
  stepoverField,
} from "../fields.ts";
import { type CutContext, defineCut, settingsOf, type Note, type Planned } from "../kind.ts";
import { CARVE_READS, type CarveInputs, carveRegion } from "../vcarve/border.ts";
import { CLEAR } from "../vcarve/clearing.ts";
import { effectiveFloor } from "../vcarve/floor.ts";
import { vcarve } from "../vcarve/vcarve.ts";

/** The carve that this prepares: its settings, its cutter's profile, how deep it goes. */
function carvedBy({ target }: CutContext) {
  const settings = settingsOf(vcarve, target);
  if (!target || !settings) return null;
  const profile = profileOf(target.cutter);
  return { settings, profile, floor: effectiveFloor(settings, profile) };
}

const targetFloor = (c: CutContext): number => carvedBy(c)?.floor ?? 0;
const biteOf = (c: CutContext, s: { stepdown: number; stepover: number }) => ({
  depth: Math.min(s.stepdown, targetFloor(c) || 1),
  width: s.stepover,
});
/**
 * Share of what a V cutter opens beside its pass, at the ridge asked for, that a clearing cutter may leave it; and the
 * most, mm.
 */
const LEAVE_SHARE = 0.85;
const MOST_LEAVE = 0.1;
function usualLeave({ target }: CutContext): number {
  const ridge = settingsOf(vcarve, target)?.ridge ?? 0;
  const opens = target ? profileOf(target.cutter).r(ridge) : 0;
  return Math.min(MOST_LEAVE, Math.floor(100 * LEAVE_SHARE * opens) / 100);
}

const fields = fieldsFor<CutContext>()
  .with(stepoverField)
  .with(stepdownField(targetFloor))
  .length("leave", "Leave on walls", {
    help: "Kept off the sloping wall for the V cutter to finish.",
    min: 0,
    max: 10,
    step: 0.05,
    more: true,
    auto: (c) => ({
      value: usualLeave(c),
      reason: "what the V cutter takes anyway on its way along the wall's foot",
    }),
  })
  .with(directionField)
  .with(entryField)
  .with(rampField)
  .with(rateFields(biteOf));
export type ClearSettings = SettingsOf<typeof fields>;

/**
 * Takes the wide floors of a carve with a flat cutter before the V cutter comes; a later, smaller one takes what it
 * left.
 */
export const clear = defineCut({
  kind: CLEAR.kind,
  title: "Clear",
  about: "the wide areas before a carve",
  cutters: ["flat"],
  summary: (s, c) => `flat ${formatLength(c.diameter)} mm · ${formatLength(s.stepdown)} mm a pass`,
  fields,
  reads: CARVE_READS,
  helps: {
    kind: "vcarve",
    comes: "before",
    label: "Clear wide floors with",
    wrongSide: (own, helped) =>
      `${own} clears for ${helped} but comes after it, when the V cutter has scraped the floor already. ` +
      "Move it before.",
  },
  handles: { entry: "entry" },
  intent: (_s, c) => ({ depth: targetFloor(c), through: false }),
  sample: { cutter: "flat:3", helps: { kind: "vcarve", cutter: "v:60:12" } },
  estimate,
  plan,
});

/** The ground that it clears: the carve's region. @returns null where there is none */
function toClear(
  inputs: CarveInputs,
  s: ClearSettings,
  { settings, profile: carve, floor }: NonNullable<ReturnType<typeof carvedBy>>,
  notes: Note[],
): AreaWork | null {
  const region = carveRegion(inputs, settings);
  if (!region || ringCount(region) === 0) return null;
  const c = inputs.clearance(region);
  const { radius } = profileOf(inputs.cutter);
  const before = inputs.earlier.flatMap((e) => {
    const own = settingsOf(CLEAR, e);
    return own ? [{ radius: profileOf(e.cutter).radius, stepdown: own.stepdown, leave: own.leave }] : [];
  });
  // The wall slopes, so that each depth has its own reach.
  const openedAt = (depth: number) =>
    reachedBy(
      c,
      before.map((q) => ({
        radius: q.radius,
        from: carve.r(levelBelow(floor, q.stepdown, depth)) + q.radius + q.leave,
      })),
    );
  const opened = new Map<number, Reached | null>();
  const reachedAt = (depth: number): Reached | null => {
    if (!opened.has(depth)) opened.set(depth, openedAt(depth));
    return opened.get(depth)!;
  };
  const isLater = reachedAt(floor) !== null;
  const area: AreaPlan = {
    c,
    radius,
    stepover: safeStepover(inputs, s, notes, "Clear"),
    slope: slopeOf(s),
    entry: s.entry,
    centre: inputs.cutter.centreCutting,
    conventional: s.direction === "conventional",
    ...(isLater && {
      done(x, y, d, level) {
        const reached = reachedAt(-level.z1);
        return reached !== null && isDone(reached, radius, x, y, d);
      },
    }),
  };
  // The first cutter goes farther out where it is shallower. What later ones did there the V cutter would do again on
  // its way along the wall: they keep to the floor that is left.
  const from = (depth: number) => carve.r(isLater ? floor : depth) + radius + s.leave;
  return { region, area, levels: levels(floor, s.stepdown, from) };
}

/** How long it would take, without planning it, s. */
function estimate(inputs: CarveInputs, s: ClearSettings): number {
  const carved = carvedBy(inputs);
  // Its flutes end above the floor: the shank would rub.
  if (carved && inputs.cutter.fluteLength < carved.floor) return Infinity;
  const ground = carved && toClear(inputs, s, carved, []);
  return ground ? areaSeconds(inputs, s, ground) : 0;
}

function plan(inputs: CarveInputs, s: ClearSettings): Planned {
  const w = new ToolpathWriter(s.feed, s.plunge, inputs.machine.rapid);
  const notes: Note[] = [];
  const carved = carvedBy(inputs);
  if (!carved)
    return {
      toolpath: w.take(),
      notes: [
        {
          code: "clear-without-carve",
          severity: "warning",
          message: "This clearing cut has no carve to clear for. Add a carve or remove it.",
        },
      ],
      facts: {},
    };
  const to = toClear(inputs, s, carved, notes);
  if (!to) return { toolpath: w.take(), notes, facts: {} };
  inputs.progress(0.4);
  const { region, area } = to;
  const ground = new Ground(w, area, new SegmentGrid(region));
  let any = false;
  if (area.done) any = clearRests(ground, to.levels);
  else
    to.levels.forEach((level, k) => {
      if (level.from < area.c.widest && clearRings(ground, level)) any = true;
      inputs.progress(0.4 + (0.6 * (k + 1)) / to.levels.length);
    });
  notes.push(...ground.notes("Clear"));
  if (!any)
    notes.push({
      code: "nothing-to-clear",
      severity: "note",
      message:
        `No floor is wide enough for the ${formatLength(inputs.cutter.diameter)} mm clearing cutter; the V ` +
        "cutter takes it all. A smaller clearing cutter might help.",
    });
  return { toolpath: w.take(), notes, facts: {}, within: region };
}

/** The level at or below a depth that a cutter with its own stepdown works at. */
function levelBelow(floor: number, stepdown: number, depth: number): number {
  const n = Math.max(1, Math.ceil(floor / stepdown - 1e-6));
  return (floor * Math.min(n, Math.ceil((depth * n) / floor - 1e-6))) / n;
}

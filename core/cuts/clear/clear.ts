import { profileOf } from "../../cutters/profile.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { directionField, entryField, rampField, rateFields, stepdownField, stepoverField } from "../fields.ts";
import { type CutContext, defineCut, settingsOf } from "../kind.ts";
import { CARVE_READS } from "../vcarve/reads.ts";
import { CLEAR } from "../vcarve/clearing.ts";
import { effectiveFloor } from "../vcarve/floor.ts";
import { vcarve } from "../vcarve/vcarve.ts";
import { later } from "../../later.ts";

/** The carve that this prepares: its settings, its cutter's profile, how deep it goes. */
export function carvedBy({ target }: CutContext) {
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

const work = later(() => import("./plan.ts"));

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
  estimate: work("estimate"),
  atLeast: work("atLeast"),
  plan: work("plan"),
});

import { usualStepdown } from "../../cutters/feeds.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { rampField, rateFields, stepoverField } from "../fields.ts";
import { type CutContext, defineCut, HEIGHT_ART } from "../kind.ts";
import { helpersAngle } from "../surface/fields.ts";
import { later } from "../../later.ts";

/** Stock that is left for finishing, mm. */
const USUAL_LEAVE = 0.3;

const fields = fieldsFor<CutContext>()
  .length("leave", "Leave for finishing", {
    help: "Stock kept above the surface for the finishing cutter.",
    min: 0,
    max: 20,
    step: 0.05,
    auto: () => ({ value: USUAL_LEAVE, reason: "enough for a clean finish, little to cut" }),
  })
  .length("stepdown", "Stepdown", {
    help: "Depth of each level.",
    min: 0.05,
    max: 100,
    step: 0.1,
    auto: (c) => usualStepdown(c),
  })
  .with(stepoverField)
  .with(helpersAngle)
  .with(rampField)
  .with(
    rateFields<{ stepdown: number; stepover: number }>((c, s) => ({
      depth: s.stepdown,
      width: Math.min(c.cutter.diameter, s.stepover),
    })),
  );
export type RoughSettings = SettingsOf<typeof fields>;

const work = later(() => import("./plan.ts"));

/** Takes the stock above a surface away level by level, down to what is left for finishing. */
export const rough = defineCut({
  kind: "rough",
  title: "Rough",
  about: "down to a surface in steps",
  cutters: ["flat", "ball", "taper"],
  summary: (s) => `levels of ${formatLength(s.stepdown)} mm, leaves ${formatLength(s.leave)} mm`,
  fields,
  reads: HEIGHT_ART,
  helps: {
    kind: "finish",
    comes: "before",
    label: "Roughed first with",
    wrongSide: (own, helped) =>
      `${own} comes after ${helped}, which it is to prepare: ${helped} would run into solid stock. Move it before.`,
  },
  handles: {},
  intent: () => ({ depth: null, through: false }),
  isGrainy: true,
  sample: { cutter: "flat:6", helps: { kind: "finish", cutter: "ball:3" } },
  estimate: work("estimate"),
  plan: work("plan"),
});

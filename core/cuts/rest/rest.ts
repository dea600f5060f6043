import { pocket } from "../pocket/pocket.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import {
  directionField,
  entryField,
  leaveField,
  rampField,
  rateFields,
  stepdownField,
  stepoverField,
} from "../fields.ts";
import { ART, type CutContext, defineCut, settingsOf } from "../kind.ts";
import { later } from "../../later.ts";

export const depthOf = (c: CutContext): number => settingsOf(pocket, c.target)?.depth ?? 0;
const biteOf = (c: CutContext, s: { stepdown: number; stepover: number }) => ({
  depth: Math.min(s.stepdown, depthOf(c) || 1),
  width: s.stepover,
});

const fields = fieldsFor<CutContext>()
  .with(stepoverField)
  .with(stepdownField(depthOf))
  .with(leaveField)
  .with(directionField)
  .with(entryField)
  .with(rampField)
  .with(rateFields(biteOf));
export type RestSettings = SettingsOf<typeof fields>;

const work = later(() => import("./plan.ts"));

/** Takes what a pocket's larger cutter, and the rest cuts before this one, could not reach. */
export const rest = defineCut({
  kind: "rest",
  title: "Rest of a pocket",
  about: "where a pocket's cutter did not reach",
  cutters: ["flat"],
  summary: (_s, c) => `flat ${formatLength(c.diameter)} mm · corners and narrows`,
  fields,
  reads: ART,
  helps: {
    kind: "pocket",
    comes: "after",
    label: "Take the rest with",
    wrongSide: (own, helped) =>
      `${own} takes the rest of ${helped} but comes before it: it would cut into solid stock. Move it after.`,
  },
  handles: { entry: "entry" },
  intent: (_s, c) => ({ depth: depthOf(c), through: false }),
  sample: { cutter: "flat:1", helps: { kind: "pocket", cutter: "flat:3" } },
  estimate: work("estimate"),
  atLeast: work("atLeast"),
  plan: work("plan"),
});

import { rateFields } from "../fields.ts";
import { CARVE_READS } from "./reads.ts";
import { describeCutter, profileOf } from "../../cutters/profile.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { type CutContext, defineCut } from "../kind.ts";
import { borderFields, floorFields, usualPass } from "./floor.ts";
import { later } from "../../later.ts";

const biteOf = (c: CutContext, s: { floor: number }) => ({
  depth: Math.min(s.floor, c.material.stepdown * c.cutter.diameter),
  width: c.cutter.diameter,
});

const fields = fieldsFor<CutContext>()
  .with(borderFields)
  .with(floorFields)
  .length("ridge", "Ridge on the floor", {
    help: "Height of the lines a pointed cutter leaves between its passes over a floor. Lower is smoother and slower.",
    min: 0.005,
    max: 2,
    step: 0.01,
    when: (s) => s.limited === true,
    auto: () => ({ value: 0.1, reason: "a minute of sanding takes it away" }),
    consequence: (v, c) => `passes ${formatLength(2 * profileOf(c.cutter).r(v), "mm", 3)} mm apart`,
  })
  .length("stepdown", "Deepest pass", {
    help: "Deeper strokes are carved in several passes, each this much deeper than the last.",
    min: 0.05,
    max: 100,
    step: 0.1,
    more: true,
    auto: (c) => usualPass(c),
  })
  .with(rateFields(biteOf));
export type VcarveSettings = SettingsOf<typeof fields>;

const work = later(() => import("./plan.ts"));

/**
 * Carves with a pointed cutter so that the stock's top keeps the outline exactly and walls slope at the cutter's angle.
 */
export const vcarve = defineCut({
  kind: "vcarve",
  title: "Carve",
  about: "pointed cutter, sloping walls",
  cutters: ["v", "taper", "ball", "form"],
  summary: (s, c) => {
    const floor = s.limited ? `floor ${formatLength(s.floor)} mm` : "no floor";
    return `${c.kind === "v" ? `V ${c.angle}°` : describeCutter(c)} · ${floor}`;
  },
  fields,
  reads: CARVE_READS,
  handles: {
    depth: "floor",
    unlimited: { field: "limited", value: false },
    border: { field: "border", width: "borderWidth" },
  },
  intent: (s) => ({ depth: s.limited ? s.floor : null, through: false }),
  seesStrokes: (own) => own.side !== "stands",
  sample: { cutter: "v:60:12" },
  estimate: work("estimate"),
  left: work("left"),
  plan: work("plan"),
});

import { placesField } from "../../settings/places.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { rateFields } from "../fields.ts";
import { ART, type CutContext, defineCut } from "../kind.ts";
import { later } from "../../later.ts";

const biteOf = (c: CutContext) => ({ depth: 1, width: c.cutter.diameter });
/** How far a drill's point reaches beyond where it is full width, mm. */
const pointOf = (c: CutContext["cutter"]): number =>
  c.kind === "drill" ? c.diameter / 2 / Math.tan(((c.angle ?? 118) * Math.PI) / 360) : 0;
export const depthOf = (c: CutContext, s: { through: boolean; past: number; depth: number }): number =>
  s.through ? c.stock.thickness + s.past + pointOf(c.cutter) : s.depth;

const fields = fieldsFor<CutContext>()
  .switch("through", "Through the stock", {
    auto: (c) => ({ value: c.cutter.kind === "drill", reason: "a hole to hang or screw by" }),
  })
  .length("depth", "Depth", {
    min: 0.05,
    max: 200,
    step: 0.5,
    when: (s) => s.through === false,
    auto: (c) => ({
      value: Math.round(Math.min(10, c.stock.thickness / 2) * 10) / 10,
      reason: "half the stock, at most 10",
    }),
    consequence: (v, c) =>
      `leaves ${formatLength(Math.max(0, c.stock.thickness - v))} of ` + `${formatLength(c.stock.thickness)} mm`,
  })
  .length("past", "Past the underside", {
    help: "The full width goes this far beyond the stock; the point farther still.",
    min: 0,
    max: 10,
    step: 0.1,
    more: true,
    when: (s) => s.through === true,
    auto: () => ({ value: 0.5, reason: "a clean exit; needs a spoil board" }),
    consequence: (v, c) => `the point reaches ${formatLength(v + pointOf(c.cutter))} mm into the board below`,
  })
  .length("peck", "Peck", {
    help: "The drill comes out after this much to clear its chips. 0: in one go.",
    min: 0,
    max: 100,
    step: 0.5,
    auto: (c) => ({
      value: Math.round(2 * c.cutter.diameter * 10) / 10,
      reason: "two diameters at once keep the flutes free",
    }),
  })
  .switch("circles", "Circles of the art", {
    help: "A hole at the centre of every round piece of ink and every round hole in it.",
    auto: () => ({ value: true, reason: "drawn circles are holes" }),
  })
  .length("most", "Circles up to", {
    help: "Larger circles are no drill holes.",
    min: 0.1,
    max: 500,
    step: 0.5,
    when: (s) => s.circles === true,
    auto: (c) => ({ value: Math.max(3, Math.round(4 * c.cutter.diameter)), reason: "four times the drill" }),
  })
  .with(placesField("at", "Holes by hand", "More holes at these places on the stock, mm.", "drill"))
  .with(rateFields(biteOf));
export type DrillSettings = SettingsOf<typeof fields>;

const work = later(() => import("./plan.ts"));

/** Drills at the centres of circles, and at places marked by hand, in pecks. */
export const drill = defineCut({
  kind: "drill",
  title: "Drill",
  about: "holes at circles or marks",
  cutters: ["drill", "flat", "v"],
  summary: (s, c) =>
    `${c.kind} ${formatLength(c.diameter)} mm · ` + `${s.through ? "through" : `${formatLength(s.depth)} mm deep`}`,
  fields,
  reads: ART,
  handles: { depth: "depth", unlimited: { field: "through", value: true }, marks: { drill: "at" } },
  intent: (s, c) => ({ depth: depthOf(c, s), through: s.through }),
  sample: { cutter: "drill:4", settings: { at: "50 50" } },
  plan: work("plan"),
});

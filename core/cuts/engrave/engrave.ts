import { rateFields } from "../fields.ts";
import { usualStepdown } from "../../cutters/feeds.ts";
import { profileOf } from "../../cutters/profile.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { ART, type CutContext, defineCut } from "../kind.ts";
import { later } from "../../later.ts";

const biteOf = (c: CutContext, s: { depth: number; stepdown: number }) => ({
  depth: Math.min(s.stepdown, s.depth),
  width: 2 * profileOf(c.cutter).r(s.depth),
});

const fields = fieldsFor<CutContext>()
  .choice("by", "Depth from", {
    options: [
      { value: "depth", label: "depth" },
      { value: "width", label: "stroke width" },
    ],
    help:
      "Depth: the same everywhere. Stroke width: a pointed or round cutter goes as deep as it must to cut as " +
      "wide as the stroke was drawn; needs a centre line.",
    auto: () => ({ value: "depth", reason: "an even line" }),
  })
  .length("depth", "Depth", {
    help: "How deep the line is; with stroke width, the deepest it may go.",
    min: 0.005,
    max: 50,
    step: 0.05,
    slider: true,
    auto: (c) => ({
      value: c.material.family === "soft metal" ? 0.2 : 0.5,
      reason: c.material.family === "soft metal" ? "a clear line in metal" : "a clear line",
    }),
    consequence: (v, c) =>
      `${formatLength(2 * profileOf(c.cutter).r(v))} mm wide at the top · leaves ` +
      `${formatLength(Math.max(0, c.stock.thickness - v))} of ${formatLength(c.stock.thickness)} ` +
      "mm",
  })
  .length("stepdown", "Stepdown", {
    help: "Depth of each pass.",
    min: 0.005,
    max: 50,
    step: 0.05,
    more: true,
    auto: (c) => usualStepdown(c),
  })
  .with(rateFields(biteOf));
export type EngraveSettings = SettingsOf<typeof fields>;

const work = later(() => import("./plan.ts"));

/**
 * Follows lines, centre lines where they were traced and otherwise the outline, to a depth or as wide as the stroke
 * was.
 */
export const engrave = defineCut({
  kind: "engrave",
  title: "Engrave",
  about: "one line along the strokes",
  cutters: ["v", "ball", "taper", "flat", "form"],
  summary: (s) => (s.by === "width" ? "as wide as the strokes" : `${formatLength(s.depth)} mm deep along the lines`),
  fields,
  reads: ART,
  handles: { depth: "depth" },
  intent: (s) => ({ depth: s.depth, through: false }),
  sample: { cutter: "v:60:12", followsLines: true },
  plan: work("plan"),
});

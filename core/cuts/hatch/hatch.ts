import { profileOf } from "../../cutters/profile.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { rateFields, stepdownField } from "../fields.ts";
import { ART, type CutContext, defineCut } from "../kind.ts";
import { later } from "../../later.ts";

const biteOf = (c: CutContext, s: { depth: number; stepdown: number }) => ({
  depth: Math.min(s.stepdown, s.depth),
  width: 2 * profileOf(c.cutter).r(s.depth),
});

const fields = fieldsFor<CutContext>()
  .choice("way", "Fill with", {
    options: [
      { value: "lines", label: "lines" },
      { value: "rings", label: "rings" },
    ],
    auto: () => ({ value: "lines", reason: "the usual hatching" }),
  })
  .length("depth", "Depth", {
    min: 0.005,
    max: 50,
    step: 0.05,
    slider: true,
    auto: (c) => ({
      value: c.material.family === "soft metal" ? 0.15 : 0.4,
      reason: c.material.family === "soft metal" ? "a clear line in metal" : "a clear line",
    }),
    consequence: (v, c) => `each line ${formatLength(2 * profileOf(c.cutter).r(v))} mm wide`,
  })
  .length("spacing", "Spacing", {
    help: "From the middle of one line to the middle of the next.",
    min: 0.02,
    max: 100,
    step: 0.1,
    slider: true,
    auto: (c, s) => ({
      value: Math.max(0.1, Math.round(4 * profileOf(c.cutter).r(s.depth) * 100) / 100),
      reason: "as much left between as is cut",
    }),
    consequence: (v, c, s) => {
      const width = 2 * profileOf(c.cutter).r(s.depth);
      return width >= v ? "lines run into each other" : `cuts ${Math.round((100 * width) / v)} % of the area`;
    },
  })
  .angle("angle", "Angle", {
    min: -180,
    max: 180,
    step: 5,
    when: (s) => s.way === "lines",
    auto: () => ({ value: 45, reason: "slanting lines catch light from any side" }),
  })
  .switch("crossed", "Crossed", {
    help: "A second set of lines over the first.",
    when: (s) => s.way === "lines",
    auto: () => ({ value: false, reason: "one set of lines" }),
    consequence: (v) => (v ? "cuts as much again the other way" : ""),
  })
  .angle("second", "Second angle", {
    min: -180,
    max: 180,
    step: 5,
    when: (s) => s.way === "lines" && s.crossed === true,
    auto: (_c, s) => ({
      value: s.angle > 90 ? s.angle - 90 : s.angle + 90,
      reason: "square to the first",
    }),
  })
  .switch("edge", "Along the edge", {
    help: "Cuts once round the filled area too, for a clean edge.",
    auto: () => ({ value: true, reason: "a clean edge" }),
  })
  .with(stepdownField((_c: CutContext, s: { depth: number }) => s.depth))
  .with(rateFields(biteOf));
export type HatchSettings = SettingsOf<typeof fields>;

const work = later(() => import("./plan.ts"));

/** Fills the shapes with parallel lines, crossed where wanted, or with rings, engraved at one depth. */
export const hatch = defineCut({
  kind: "hatch",
  title: "Hatch",
  about: "filled with fine lines",
  cutters: ["v", "ball", "taper", "flat", "form"],
  summary: (s) => {
    const apart = `${formatLength(s.spacing)} mm apart`;
    if (s.way === "rings") return `rings ${apart}`;
    return `lines at ${s.angle}°${s.crossed ? ` and ${s.second}°` : ""}, ${apart}`;
  },
  fields,
  reads: ART,
  handles: { depth: "depth", crossed: { field: "crossed", value: "on" } },
  intent: (s) => ({ depth: s.depth, through: false }),
  sample: { cutter: "v:60:12" },
  plan: work("plan"),
});

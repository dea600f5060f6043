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
import { ART, type CutContext, defineCut } from "../kind.ts";
import { later } from "../../later.ts";

const depthOf = (_c: CutContext, s: { depth: number }): number => s.depth;
const biteOf = (_: CutContext, s: { depth: number; stepdown: number; stepover: number }) => ({
  depth: Math.min(s.stepdown, s.depth),
  width: s.stepover,
});

const fields = fieldsFor<CutContext>()
  .length("depth", "Depth", {
    min: 0.01,
    max: 200,
    step: 0.1,
    slider: true,
    auto: (c) => ({
      value: Math.round(Math.min(3, c.stock.thickness / 3) * 10) / 10 || 0.1,
      reason: c.stock.thickness < 9 ? "a third of the stock" : "deep enough to be seen and filled",
    }),
    consequence: (v, c) =>
      `leaves ${formatLength(Math.max(0, c.stock.thickness - v))} of ` + `${formatLength(c.stock.thickness)} mm`,
  })
  .choice("way", "Clearing", {
    options: [
      { value: "rings", label: "rings" },
      { value: "lines", label: "lines" },
      { value: "even", label: "even load" },
    ],
    help:
      "Rings follow the edge. Lines run to and fro. Even load takes arcs that never engage the cutter more " +
      "than a straight cut as wide as the stepover: slower on paper, but deeper passes and no screaming " +
      "corners.",
    auto: () => ({ value: "rings", reason: "follows the shape" }),
  })
  .angle("angle", "Line angle", {
    min: -180,
    max: 180,
    step: 5,
    when: (s) => s.way === "lines",
    auto: () => ({ value: 0, reason: "along X" }),
  })
  .with(stepoverField)
  .with(stepdownField(depthOf))
  .length("finish", "Finishing pass", {
    help: "Left on the walls while clearing, then taken in one pass round them. 0 for none.",
    min: 0,
    max: 5,
    step: 0.05,
    auto: (c) => ({
      value: Math.round(Math.min(0.3, c.cutter.diameter / 12) * 100) / 100,
      reason: "a thin last cut leaves a clean wall",
    }),
  })
  .choice("first", "First", {
    options: [
      { value: "floor", label: "floor" },
      { value: "walls", label: "walls" },
    ],
    help:
      "Whether each pass clears the floor and then finishes the walls, or cuts the walls first, so that the " +
      "edge is free before the middle goes.",
    more: true,
    when: (s) => s.finish > 0,
    auto: () => ({ value: "floor", reason: "walls last come out cleanest" }),
  })
  .with(leaveField)
  .with(directionField)
  .with(entryField)
  .with(rampField)
  .with(rateFields(biteOf));
export type PocketSettings = SettingsOf<typeof fields>;

const work = later(() => import("./plan.ts"));

/** Takes everything inside the shapes down to a floor, islands left standing. */
export const pocket = defineCut({
  kind: "pocket",
  title: "Pocket",
  about: "flat floor, upright walls",
  cutters: ["flat", "ball"],
  summary: (s, c) => `${c.kind} ${formatLength(c.diameter)} mm · ${formatLength(s.depth)} mm deep`,
  fields,
  reads: ART,
  handles: { depth: "depth", entry: "entry" },
  intent: (s) => ({ depth: s.depth, through: false }),
  sample: { cutter: "flat:3" },
  estimate: work("estimate"),
  left: work("left"),
  plan: work("plan"),
});

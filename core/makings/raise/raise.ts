import { curvePoints } from "../../height/curve.ts";
import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { depthField, topField } from "../height/fields.ts";
import { type BoardSize, defineMaking } from "../kind.ts";
import { later } from "../../later.ts";

interface RaiseContext {
  board: BoardSize;
  /** the farthest that any place lies inside the shapes, mm */
  widest: number;
}

const fields = fieldsFor<RaiseContext>()
  .choice("form", "Body", {
    options: [
      { value: "round", label: "round" },
      { value: "slope", label: "sloping" },
      { value: "hollow", label: "hollow" },
      { value: "drawn", label: "drawn" },
    ],
    help:
      "How the shapes rise from their edges: as a quarter circle, evenly, as a quarter circle turned over, or along " +
      "a curve of your own.",
    auto: () => ({ value: "round", reason: "soft edges, as if modelled by hand" }),
  })
  .length("radius", "Radius", {
    help: "Of the quarter circle, or how far inward the curve runs; farther inside than this the body is level.",
    min: 0.05,
    max: 500,
    step: 0.5,
    slider: true,
    when: (s) => s.form !== "slope",
    auto: (c) => ({
      value: Math.max(0.05, Math.round(c.widest * 100) / 100),
      reason: "half of the widest stroke: nothing is level",
    }),
  })
  .text("curve", "Curve", {
    help:
      "From the edge (left) inward to the height, up to the whole depth. Drag its points; a click in the square adds " +
      "one, Delete takes one out.",
    drawn: "curve",
    across: "inward",
    example: "0,0 0.3,0.8 1,1",
    check: (t) => void curvePoints(t),
    when: (s) => s.form === "drawn",
    auto: () => ({ value: "0,0 0.35,0.8 1,1", reason: "steep at the edge, then flatter" }),
  })
  .angle("angle", "Slope", {
    help: "How steeply it rises from its edge.",
    min: 1,
    max: 89,
    step: 1,
    slider: true,
    when: (s) => s.form === "slope",
    auto: () => ({ value: 45, reason: "as far up as inward" }),
  })
  .with(depthField("How far the ground round the shapes lies below the highest that they may reach."))
  .choice("tall", "What stands higher", {
    options: [
      { value: "level", label: "is cut level" },
      { value: "pressed", label: "presses all of it lower" },
    ],
    help: "Where the body would rise above the depth: level there, or all of it as much lower as the highest needs.",
    auto: () => ({ value: "pressed", reason: "the whole of the form is kept" }),
  })
  .with(topField("How far the highest that the body may reach lies below the stock's top.", "it may touch the top"))
  .length("margin", "Ground round it", {
    help: "How far the ground goes beyond the shapes; the stock's top stays beyond that.",
    min: 0,
    max: 2000,
    step: 1,
    auto: () => ({ value: 5, reason: "room for a cutter beside the shapes" }),
  });
export type RaiseSettings = SettingsOf<typeof fields>;

export const reads = { from: { gives: "shapes", label: "Shapes" } } as const;

const work = later(() => import("./make.ts"));

/** Flat shapes with a body: as high as a place lies inside them. */
export const raise = defineMaking({
  kind: "raise",
  title: "Raised body",
  about: "gives these shapes a round, sloping, hollow or drawn body",
  reads,
  gives: "heights",
  fields,
  handles: { depth: "depth" },
  context: ({ reads: { from }, board }, tools): RaiseContext => ({
    board,
    widest: tools.clearance(from.ink).widest,
  }),
  make: work("make"),
});

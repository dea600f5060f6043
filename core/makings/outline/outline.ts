import { defineMaking } from "../kind.ts";
import { outlineFields } from "./fields.ts";
import { later } from "../../later.ts";

export const reads = { from: { gives: "grey", label: "Tone" } } as const;

const work = later(() => import("./make.ts"));

/** The outline of the ink, of chosen colours, or the middle of every stroke. */
export const outline = defineMaking({
  kind: "outline",
  title: "Outline",
  about: "finds the shapes in the picture",
  reads,
  gives: "shapes",
  fields: outlineFields,
  handles: {},
  context: work("context"),
  make: work("make"),
  finds: work("finds"),
  rough: work("rough"),
});

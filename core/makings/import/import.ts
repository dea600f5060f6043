import { fieldsFor, type SettingsOf } from "../../settings/list.ts";
import { defineMaking } from "../kind.ts";
import { type Lying, placeFields, widthField } from "../placing.ts";
import { later } from "../../later.ts";

/** No drawing is made narrower, mm. */
const LEAST_WIDTH = 0.1;

const fields = fieldsFor<Lying>()
  .with(widthField("all that the drawing holds", "drawn", LEAST_WIDTH))
  .with(placeFields)
  .choice("overlap", "Shape on a shape", {
    options: [
      { value: "hole", label: "is a hole in it" },
      { value: "adds", label: "adds to it" },
    ],
    help: "Whether a shape that was drawn on another is cut out of it, or both are one area.",
    auto: () => ({ value: "hole", reason: "as white on black is drawn" }),
  });
export type ImportSettings = SettingsOf<typeof fields>;

const work = later(() => import("./make.ts"));

/** The closed shapes of a drawing (SVG), exactly as they were drawn. */
export const imported = defineMaking({
  kind: "import",
  title: "Drawing",
  about: "the shapes of a drawing, exactly",
  reads: {},
  gives: "shapes",
  file: "drawing",
  fields,
  handles: { width: "width" },
  context: work("context"),
  make: work("make"),
});

import { placed } from "../../geometry/curve.ts";
import { nestedShape, regionOf } from "../../geometry/region.ts";
import { asRead } from "../../geometry/shape.ts";
import { Problem } from "../../problem.ts";
import { fieldsFor } from "../../settings/list.ts";
import { defineMaking, type Given, type Tools } from "../kind.ts";
import { type Lying, placeFields, widthField } from "../placing.ts";
import type { ShapesProduct } from "../product.ts";
import { type Drawing, readSvg } from "./svg.ts";

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
  context({ board, ...given }, tools): Lying {
    const { width, height } = drawingOf(given, tools);
    return { board, over: { width, height } };
  },
  make(given, s, _, tools): ShapesProduct {
    const drawing = drawingOf(given, tools);
    const scale = s.width / drawing.width;
    const curves = placed(drawing.curves, scale, s.x, s.y);
    const region = regionOf(curves, s.overlap === "hole" ? "even-odd" : "positive");
    const shape = nestedShape(region.curves);
    const own = drawing.mendedAt.map(({ x, y }) => ({ x: scale * x + s.x, y: scale * y + s.y }));
    const mendedAt = [...own, ...region.mendedAt];
    return {
      is: "shapes",
      shape,
      ink: asRead(shape),
      lines: null,
      held: 0,
      mendedAt,
      leftOut: drawing.leftOut,
      traced: null,
    };
  },
});

function drawingOf({ asset }: Pick<Given, "asset">, tools: Tools): Drawing {
  if (!asset) throw new Problem("no-drawing", "This drawing's file is not here. Add the drawing again.");
  return tools.kept.of("drawing", [asset.sha], (sha) => readSvg(tools.drawing(sha)), 4);
}

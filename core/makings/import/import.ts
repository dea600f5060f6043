import { asRead } from "../../geometry/shape.ts";
import { Problem } from "../../problem.ts";
import { fieldsFor } from "../../settings/list.ts";
import { formatLength } from "../../units.ts";
import { type BoardSize, defineMaking, type Given, type Tools } from "../kind.ts";
import type { ShapesProduct } from "../product.ts";
import { placed } from "./curves.ts";
import { nestedShape, regionOf } from "./region.ts";
import { type Drawing, readSvg } from "./svg.ts";

interface ImportContext {
  board: BoardSize;
  /** of all that it holds, as drawn, mm */
  width: number;
  height: number;
}

const even = (v: number): number => Math.round(v * 100) / 100;
const heightFor = (c: ImportContext, width: number): number => (width * c.height) / c.width;

const fields = fieldsFor<ImportContext>()
  .length("width", "Width", {
    help: "Width on the stock of all that the drawing holds; its height follows.",
    min: 0.1,
    max: 5000,
    step: 1,
    slider: true,
    auto: (c) => {
      const room = { x: c.board.width - 2 * c.board.margin, y: c.board.height - 2 * c.board.margin };
      if (c.width <= room.x && c.height <= room.y) return { value: even(c.width), reason: "as it was drawn" };
      const width = Math.max(0.1, Math.min(room.x, (room.y * c.width) / c.height));
      return { value: even(width), reason: `drawn ${formatLength(c.width)} mm wide; made to fit the stock` };
    },
    consequence: (v, c) => `${even(heightFor(c, v))} mm high`,
  })
  .length("x", "From the left", {
    help: "Its left edge from the stock's left edge.",
    min: -5000,
    max: 5000,
    step: 0.5,
    auto: (c, s) => ({ value: even((c.board.width - s.width) / 2), reason: "centred" }),
  })
  .length("y", "From the front", {
    help: "Its near edge from the stock's near edge.",
    min: -5000,
    max: 5000,
    step: 0.5,
    auto: (c, s) => ({ value: even((c.board.height - heightFor(c, s.width)) / 2), reason: "centred" }),
  })
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
  reads: {},
  gives: "shapes",
  file: "drawing",
  fields,
  handles: { width: "width" },
  context({ board, ...given }, tools): ImportContext {
    const { width, height } = drawingOf(given, tools);
    return { board, width, height };
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

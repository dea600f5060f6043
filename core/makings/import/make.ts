import { placed } from "../../geometry/curve.ts";
import { nestedShape, regionOf } from "../../geometry/region.ts";
import { asRead } from "../../geometry/shape.ts";
import { Problem } from "../../problem.ts";
import type { Given, Tools, Asking, IsSet } from "../kind.ts";
import type { Lying } from "../placing.ts";
import type { ShapesProduct } from "../product.ts";
import { type Drawing, readSvg } from "./svg.ts";
import type { ImportSettings } from "./import.ts";

function drawingOf({ asset }: Pick<Given, "asset">, tools: Tools): Drawing {
  if (!asset) throw new Problem("no-drawing", "This drawing's file is not here. Add the drawing again.");
  return tools.kept.of("drawing", [asset.sha], (sha) => readSvg(tools.drawing(sha)), 4);
}

export function context({ board, ...given }: Asking, tools: Tools): Lying {
  const { width, height } = drawingOf(given, tools);
  return { board, over: { width, height } };
}

export function make(given: Given, s: ImportSettings, _: IsSet, tools: Tools): ShapesProduct {
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
}

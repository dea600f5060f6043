import { depthInside } from "../../geometry/nearedge.ts";
import { boundsOf } from "../../geometry/rings.ts";
import { type Body, bodyAt } from "../../height/body.ts";
import { curveThrough } from "../../height/curve.ts";
import { LEAST_CELL } from "../../height/field.ts";
import type { Given, IsSet, Tools } from "../kind.ts";
import type { HeightsProduct, ShapesProduct } from "../product.ts";
import { type RaiseSettings, type reads } from "./raise.ts";

/** Samples along the longer side of the ground. */
const SAMPLES = 1000;

function raised({ ink }: ShapesProduct, s: RaiseSettings, widest: number): HeightsProduct {
  const b = boundsOf(ink.xy);
  const [wide, high] = [b.maxX - b.minX + 2 * s.margin, b.maxY - b.minY + 2 * s.margin];
  const cell = Math.max(LEAST_CELL, Math.max(wide, high) / SAMPLES);
  const [x0, y0] = [b.minX - s.margin, b.minY - s.margin];
  const cells = { x0, y0, cell, width: Math.ceil(wide / cell), height: Math.ceil(high / cell) };
  const share = s.form === "drawn" ? curveThrough(s.curve) : () => 0;
  const body: Body = {
    form: s.form,
    radius: s.radius,
    rise: Math.tan((s.angle * Math.PI) / 180),
    curve: (inward) => s.depth * share(inward),
  };
  const highest = bodyAt(body, widest);
  const pressed = s.tall === "pressed" && highest > s.depth ? s.depth / highest : 1;
  const z = depthInside(ink, cells).map((d) => Math.min(s.depth, pressed * bodyAt(body, d)) - s.depth - s.top);
  return { is: "heights", field: { ...cells, z }, picture: null, litho: null };
}

export function make(
  { reads: { from } }: Given<typeof reads>,
  s: RaiseSettings,
  _: IsSet,
  tools: Tools,
): HeightsProduct {
  return raised(from, s, tools.clearance(from.ink).widest);
}

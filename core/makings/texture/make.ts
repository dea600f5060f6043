import { depthInside } from "../../geometry/nearedge.ts";
import { softInside } from "../../height/soft.ts";
import { tiled } from "../../height/tiled.ts";
import { MOST_SAMPLES } from "../height/levels.ts";
import type { Given } from "../kind.ts";
import type { HeightsProduct } from "../product.ts";
import { type reads, type TextureSettings } from "./texture.ts";

export function make({ reads: { from, over } }: Given<typeof reads>, s: TextureSettings): HeightsProduct {
  const area = { x0: s.x, y0: s.y, wide: s.wide, high: s.high };
  const field = tiled(from.field, area, s.tile, s.seams, MOST_SAMPLES);
  if (over) {
    const deep = depthInside(over.ink, field);
    for (let k = 0; k < deep.length; k++) field.z[k] *= softInside(deep[k], s.soft);
  }
  return { is: "heights", field, picture: null, litho: null };
}

import { depthInside } from "../../geometry/nearedge.ts";
import { blended, spanOf } from "../../height/blend.ts";
import { softInside } from "../../height/soft.ts";
import { MOST_SAMPLES } from "../height/levels.ts";
import type { Given } from "../kind.ts";
import type { HeightsProduct } from "../product.ts";
import { type reads, type BlendSettings } from "./blend.ts";

export function make({ reads: { first, second, inside } }: Given<typeof reads>, s: BlendSettings): HeightsProduct {
  if (!second) return first;
  const cells = spanOf(first.field, second.field, MOST_SAMPLES);
  const deep = inside && depthInside(inside.ink, cells);
  const share = (k: number) => (deep ? softInside(deep[k], s.soft) : 1);
  const other = s.gain === 1 ? second.field : { ...second.field, z: second.field.z.map((v) => v * s.gain) };
  // What glowed does so no more once something else is cut into it: its law told thickness from light.
  return {
    is: "heights",
    field: blended(first.field, other, s.how, cells, share),
    picture: first.picture,
    litho: null,
  };
}

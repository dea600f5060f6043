import { bordered } from "../../height/border.ts";
import type { HeightField } from "../../height/field.ts";
import { balanced, broadForm, type Levels } from "../../height/levels.ts";
import { limitSlope } from "../../height/slope.ts";
import type { Asking, Given } from "../kind.ts";
import { curveThrough } from "../../height/curve.ts";
import type { GreyProduct, HeightsProduct } from "../product.ts";
import { type FROM_TONE, laidOut, levelsOf, radiusIn, toneContext } from "./levels.ts";
import { type HeightContext, type HeightSettings, STEEPEST } from "./height.ts";
import { greysOf } from "./spread.ts";

export const heightContext = (asking: Asking<typeof FROM_TONE>): HeightContext => ({
  ...toneContext(asking),
  greys: greysOf(asking.reads.from.bins),
});

function heightOf(from: GreyProduct, s: HeightSettings): HeightField {
  const { place } = from.picture;
  const read = levelsOf(from);
  const radius = (mm: number) => radiusIn(read, place, mm);
  const smoothed: Levels = { ...read, v: broadForm(read, radius(s.smooth)) };
  const { v, ...size } = balanced(smoothed, radius(s.scale), s.broad, s.detail);
  const curve = curveThrough(s.curve);
  const w = v.map((g) => -s.top - s.depth * (1 - curve(s.high === "light" ? g : 1 - g)));
  const field = laidOut({ ...size, v: w }, place);
  const limited = s.slope >= STEEPEST ? field : limitSlope(field, Math.tan((s.slope * Math.PI) / 180));
  return bordered(limited, s.border, s.borderWidth);
}

export function make({ reads: { from } }: Given<typeof FROM_TONE>, s: HeightSettings): HeightsProduct {
  const field = heightOf(from, s);
  return { is: "heights", field, picture: from.picture, litho: null };
}

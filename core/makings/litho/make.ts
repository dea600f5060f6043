import { bordered } from "../../height/border.ts";
import { lightOf } from "../../colour.ts";
import { broadForm, type Levels } from "../../height/levels.ts";
import { type FROM_TONE, laidOut, levelsOf, radiusIn } from "../height/levels.ts";
import type { Given } from "../kind.ts";
import type { HeightsProduct } from "../product.ts";
import type { LithoSettings } from "./litho.ts";
export { toneContext } from "../height/levels.ts";

/**
 * How thick a sheet must be for a grey, 0 black to 1 white: with light T = exp(−t/λ) and white at the thinnest
 * place, t = thin + λ·ln(1/Y) for the light Y that the grey stands for, at most `thick`.
 */
export function thicknessFor(grey: number, s: Pick<LithoSettings, "thin" | "thick" | "lambda" | "law">): number {
  if (s.law === "straight") return s.thick + (s.thin - s.thick) * grey;
  const light = lightOf(grey);
  return light <= 0 ? s.thick : Math.min(s.thick, s.thin - s.lambda * Math.log(light));
}

function mirrored({ width, height, v }: Levels): Levels {
  const out = new Float32Array(v.length);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) out[y * width + x] = v[y * width + width - 1 - x];
  return { width, height, v: out };
}

export function make({ reads: { from } }: Given<typeof FROM_TONE>, s: LithoSettings): HeightsProduct {
  const { place } = from.picture;
  const read = levelsOf(from);
  const levels: Levels = { ...read, v: broadForm(read, radiusIn(read, place, s.smooth)) };
  const w = levels.v.map((g) => Math.min(0, thicknessFor(g, s) - s.sheet));
  const field = laidOut(s.mirror ? mirrored({ ...levels, v: w }) : { ...levels, v: w }, place);
  const law = { law: s.law, lambda: s.lambda, thin: s.thin, thick: s.thick, mirrored: s.mirror };
  return {
    is: "heights",
    field: bordered(field, s.rim > 0 ? "rim" : "none", s.rim),
    picture: from.picture,
    litho: law,
  };
}

import type { Cutter } from "../../cutters/profile.ts";
import { profileOf } from "../../cutters/profile.ts";
import { between, type HeightField } from "../../height/field.ts";
import { leftBy, tipSurface } from "../../height/surface.ts";
import { Tips } from "../../height/tips.ts";
import type { CutInputs, HEIGHT_ART } from "../kind.ts";
import { groundFor } from "./ground.ts";

/** A cutter that has been over a surface, and how far above it its tips kept, mm. */
export interface Been {
  cutter: Cutter;
  leave: number;
}

/** The lowest tips of a cut's cutter over what others left standing of a surface. */
export function tipsOverLeft(inputs: CutInputs<typeof HEIGHT_ART>, been: readonly Been[]): Tips {
  const { art } = inputs.reads;
  const { surface } = groundFor(inputs, art, inputs.cutter);
  const z = new Float32Array(surface.z.length);
  for (const { cutter, leave } of been) {
    const { over } = groundFor(inputs, art, cutter);
    const left = leftBy({ ...over, z: over.z.map((low) => Math.min(0, low + leave)) }, profileOf(cutter));
    const [u0, v0] = [(surface.x0 - left.x0) / left.cell - 0.5, (surface.y0 - left.y0) / left.cell - 0.5];
    const scale = surface.cell / left.cell;
    for (let k = 0; k < z.length; k++) {
      const i = k % surface.width;
      const j = (k - i) / surface.width;
      z[k] = Math.min(z[k], between(left, u0 + (i + 0.5) * scale, v0 + (j + 0.5) * scale));
    }
  }
  const standing: HeightField = { ...surface, z };
  const p = profileOf(inputs.cutter);
  return new Tips(standing, tipSurface(standing, p), p);
}

import type { Cutter } from "../../cutters/profile.ts";
import { profileOf } from "../../cutters/profile.ts";
import { between, type HeightField } from "../../height/field.ts";
import { highestRound } from "../../height/peaks.ts";
import { leftBy } from "../../height/surface.ts";
import { Tips } from "../../height/tips.ts";
import type { CutInputs, HEIGHT_ART } from "../kind.ts";
import { type Ground, groundFor } from "./ground.ts";
import { onRows } from "./rows.ts";

/** A cutter that has been over a surface, and how far above it its tips kept, mm. */
export interface Been {
  cutter: Cutter;
  leave: number;
  /** the rows that it kept to; everywhere where not given */
  rows?: { apart: number; angle: number };
}

/**
 * The lowest tips of a cut's cutter over what others left standing of a surface.
 * @param isSure no less than may stand, so that rapids may come down to it; else what is most likely
 */
export function tipsOverLeft(inputs: CutInputs<typeof HEIGHT_ART>, been: readonly Been[], isSure = false): Tips {
  const { art } = inputs.reads;
  const isRough = been.every((b) => b.rows !== undefined);
  const { surface } = groundFor(inputs, art, inputs.cutter, null, isRough);
  const z = new Float32Array(surface.z.length);
  for (const b of been) {
    const left = leftOf(groundFor(inputs, art, b.cutter, null, b.rows !== undefined), b, isSure);
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
  // A first look needs no look between samples.
  return new Tips(standing, p, inputs.grain === null ? undefined : Infinity);
}

/** What a cutter leaves standing; beside its rows it has not been. */
function leftOf(ground: Ground, { cutter, leave, rows }: Been, isSure: boolean): HeightField {
  const { over } = ground;
  const tips = over.z.map((low) => Math.min(0, low + leave));
  const isOn = rows ? onRows(ground, rows.apart, rows.angle) : () => true;
  const { width, cell } = over;
  const z = (isSure ? highestRound({ ...over, z: tips }) : tips).map((tip, k) => {
    const [i, j] = [k % width, Math.floor(k / width)];
    return isOn(over.x0 + (i + 0.5) * cell, over.y0 + (j + 0.5) * cell) ? tip : 0;
  });
  // A row passes up to half a sample beside the samples that stand for it.
  const isThinner = isSure && cutter.kind !== "taper";
  const diameter = isThinner ? Math.max(cutter.diameter / 2, cutter.diameter - cell) : cutter.diameter;
  return leftBy({ ...over, z }, profileOf({ ...cutter, diameter }));
}

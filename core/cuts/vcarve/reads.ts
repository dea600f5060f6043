import { type CutInputs, SHAPES } from "../kind.ts";

/** A carve reads its art, and where that is left standing inside another shape, the shape. */
export const CARVE_READS = {
  art: SHAPES,
  border: { gives: "shapes", label: "Border", optional: true },
} as const;
export type CarveInputs = CutInputs<typeof CARVE_READS>;

import type { Cutter } from "../../cutters/profile.ts";
import { shoulderOf } from "../../cutters/profile.ts";
import { MM_PER_INCH } from "../../units.ts";

/**
 * What a new workshop is likely to have, in the order in which it is offered; and what else is common, of which it has
 * none yet: nothing of that is chosen by itself. Flute and cutting lengths are those usual for such cutters.
 */
const HAS = { owned: 1, centreCutting: true } as const;
const KNOWN = { owned: 0, centreCutting: true } as const;

const v = (id: string, name: string, angle: number, diameter: number, tip: number, flutes: number): Cutter => ({
  id,
  name,
  kind: "v",
  angle,
  diameter,
  tip,
  flutes,
  fluteLength: Math.round(10 * shoulderOf({ diameter, tip, angle })) / 10,
  centreCutting: true,
});
const flat = (id: string, name: string, diameter: number, fluteLength: number, flutes = 2): Cutter => ({
  id,
  name,
  kind: "flat",
  diameter,
  flutes,
  fluteLength,
  centreCutting: true,
});
const ball = (diameter: number, fluteLength: number): Cutter => ({
  id: `ball${diameter}`,
  name: `Ball ${diameter} mm`,
  kind: "ball",
  diameter,
  flutes: 2,
  fluteLength,
  centreCutting: true,
});
const taper = (id: string, tipRadius: number, fluteLength: number): Cutter => ({
  id,
  name: `Tapered ball R${tipRadius}`,
  kind: "taper",
  tipRadius,
  halfAngle: 5,
  diameter: 6,
  flutes: 2,
  fluteLength,
  centreCutting: true,
});
const drill = (diameter: number, fluteLength: number): Cutter => ({
  id: `drill${diameter}`,
  name: `Drill ${diameter} mm`,
  kind: "drill",
  diameter,
  angle: 118,
  flutes: 2,
  fluteLength,
  centreCutting: true,
});
const torch = (id: string, amperes: number, kerf: number, sheet: number): Cutter => ({
  id,
  name: `Torch, ${amperes} A`,
  kind: "torch",
  diameter: kerf,
  flutes: 1,
  fluteLength: sheet,
  centreCutting: true,
});
const inch = (id: string, name: string, inches: number, lengthInches: number): Cutter =>
  flat(id, name, Math.round(inches * MM_PER_INCH * 1000) / 1000, Math.round(lengthInches * MM_PER_INCH * 10) / 10);

/** The cutters that a new workshop starts with; a job keeps a copy of each one it uses. */
export const CUTTERS: readonly Cutter[] = [
  { ...v("v60", "V 60° sign cutter", 60, 12, 0, 2), ...HAS },
  { ...v("v90", "V 90° chamfer cutter", 90, 16, 0, 2), ...HAS },
  { ...v("v30", "V 30° fine cutter", 30, 6, 0.2, 1), ...HAS },
  { ...flat("flat2", "Flat 2 mm", 2, 8), ...HAS },
  { ...flat("flat3", "Flat 3 mm", 3, 12), ...HAS },
  { ...flat("flat6", "Flat 6 mm", 6, 22), ...HAS },
  { ...ball(3, 12), ...HAS },
  { ...taper("taper05", 0.5, 28), ...HAS },
  { ...flat("flat10", "Flat 10 mm", 10, 30), ...HAS, centreCutting: false },
  { ...v("point20", "Engraving point 20°", 20, 3, 0.1, 1), ...HAS },
  { ...drill(3, 33), ...HAS },
  { ...drill(5, 52), ...HAS },
  { ...torch("torch15", 45, 1.5, 25), ...HAS },
  { ...flat("flat1", "Flat 1 mm", 1, 4), ...KNOWN },
  { ...flat("flat15", "Flat 1.5 mm", 1.5, 6), ...KNOWN },
  { ...flat("flat4", "Flat 4 mm", 4, 15), ...KNOWN },
  { ...flat("flat5", "Flat 5 mm", 5, 18), ...KNOWN },
  { ...flat("flat8", "Flat 8 mm", 8, 25), ...KNOWN },
  { ...flat("flat12", "Flat 12 mm", 12, 35), ...KNOWN },
  { ...inch("flat-1-16", "Flat 1/16 in", 1 / 16, 0.25), ...KNOWN },
  { ...inch("flat-1-8", "Flat 1/8 in", 1 / 8, 0.5), ...KNOWN },
  { ...inch("flat-1-4", "Flat 1/4 in", 1 / 4, 0.875), ...KNOWN },
  { ...inch("flat-1-2", "Flat 1/2 in", 1 / 2, 1.25), ...KNOWN },
  { ...flat("surface25", "Surfacing cutter 25 mm", 25, 8, 3), ...KNOWN, centreCutting: false },
  { ...ball(1, 4), ...KNOWN },
  { ...ball(2, 8), ...KNOWN },
  { ...ball(6, 22), ...KNOWN },
  { ...taper("taper025", 0.25, 30), ...KNOWN },
  { ...taper("taper1", 1, 22), ...KNOWN },
  { ...v("v15", "V 15° fine cutter", 15, 6, 0.2, 1), ...KNOWN },
  { ...v("v45", "V 45° cutter", 45, 10, 0, 2), ...KNOWN },
  { ...v("v120", "V 120° cutter", 120, 20, 0, 2), ...KNOWN },
  { ...v("point10", "Engraving point 10°", 10, 3, 0.1, 1), ...KNOWN },
  ...[1, 2, 4, 6, 8].map((d) => ({ ...drill(d, 10 * d + 3), ...KNOWN })),
  { ...torch("torch12", 30, 1.2, 10), ...KNOWN },
  { ...torch("torch18", 65, 1.8, 32), ...KNOWN },
  { ...torch("torch21", 85, 2.1, 38), ...KNOWN },
];

import { Problem } from "../problem.ts";

/**
 * Stock materials. Chip load at diameter D is `chipPerDiameter`·D clamped to `chipMost`; the figures are round values
 * inside the ranges that cutter makers and handbooks publish for each family (Machinery's Handbook, "Speeds and
 * feeds"). Specific cutting energy in J/mm³ follows the same handbook's unit-power tables, wood by density.
 */
export interface Material {
  id: string;
  name: string;
  family: "softwood" | "hardwood" | "sheet" | "plastic" | "soft metal" | "steel";
  /** mm of chip a tooth for each mm of cutter diameter */
  chipPerDiameter: number;
  chipMost: number;
  /** deepest pass as a share of cutter diameter */
  stepdown: number;
  /** largest sideways step as a share of cutter diameter */
  stepover: number;
  /** cutting speed at the cutter's edge, m/min */
  surfaceSpeed: number;
  /** J/mm³ */
  specificEnergy: number;
  /** colours of the raw and the cut face, for the proof */
  face: [number, number, number];
  cut: [number, number, number];
  grain: number;
  /** of sheet metal: how fast a torch goes against mild steel */
  plasma?: number;
}

export const MATERIALS: readonly Material[] = [
  {
    id: "ash",
    name: "Ash",
    family: "hardwood",
    chipPerDiameter: 0.0125,
    chipMost: 0.12,
    stepdown: 0.5,
    stepover: 0.4,
    surfaceSpeed: 400,
    specificEnergy: 0.05,
    face: [214, 186, 141],
    cut: [196, 162, 112],
    grain: 0.9,
  },
  {
    id: "oak",
    name: "Oak",
    family: "hardwood",
    chipPerDiameter: 0.0115,
    chipMost: 0.11,
    stepdown: 0.5,
    stepover: 0.4,
    surfaceSpeed: 380,
    specificEnergy: 0.055,
    face: [196, 160, 112],
    cut: [176, 136, 88],
    grain: 1,
  },
  {
    id: "maple",
    name: "Maple",
    family: "hardwood",
    chipPerDiameter: 0.0115,
    chipMost: 0.11,
    stepdown: 0.5,
    stepover: 0.4,
    surfaceSpeed: 380,
    specificEnergy: 0.055,
    face: [226, 204, 168],
    cut: [212, 182, 138],
    grain: 0.5,
  },
  {
    id: "walnut",
    name: "Walnut",
    family: "hardwood",
    chipPerDiameter: 0.0125,
    chipMost: 0.12,
    stepdown: 0.5,
    stepover: 0.4,
    surfaceSpeed: 400,
    specificEnergy: 0.045,
    face: [126, 88, 62],
    cut: [104, 70, 46],
    grain: 0.8,
  },
  {
    id: "lime",
    name: "Lime wood",
    family: "hardwood",
    chipPerDiameter: 0.014,
    chipMost: 0.13,
    stepdown: 0.6,
    stepover: 0.45,
    surfaceSpeed: 420,
    specificEnergy: 0.035,
    face: [224, 204, 166],
    cut: [208, 182, 136],
    grain: 0.3,
  },
  {
    id: "pine",
    name: "Pine",
    family: "softwood",
    chipPerDiameter: 0.016,
    chipMost: 0.15,
    stepdown: 0.75,
    stepover: 0.45,
    surfaceSpeed: 450,
    specificEnergy: 0.03,
    face: [226, 192, 138],
    cut: [210, 168, 108],
    grain: 1,
  },
  {
    id: "mdf",
    name: "MDF",
    family: "sheet",
    chipPerDiameter: 0.016,
    chipMost: 0.15,
    stepdown: 0.6,
    stepover: 0.45,
    surfaceSpeed: 420,
    specificEnergy: 0.04,
    face: [186, 154, 116],
    cut: [170, 136, 98],
    grain: 0,
  },
  {
    id: "plywood",
    name: "Birch plywood",
    family: "sheet",
    chipPerDiameter: 0.0135,
    chipMost: 0.13,
    stepdown: 0.5,
    stepover: 0.4,
    surfaceSpeed: 400,
    specificEnergy: 0.045,
    face: [222, 194, 150],
    cut: [200, 164, 112],
    grain: 0.5,
  },
  {
    id: "acrylic",
    name: "Acrylic",
    family: "plastic",
    chipPerDiameter: 0.014,
    chipMost: 0.12,
    stepdown: 0.35,
    stepover: 0.4,
    surfaceSpeed: 250,
    specificEnergy: 0.06,
    face: [232, 238, 238],
    cut: [206, 220, 222],
    grain: 0,
  },
  {
    id: "brass",
    name: "Brass",
    family: "soft metal",
    chipPerDiameter: 0.006,
    chipMost: 0.04,
    stepdown: 0.12,
    stepover: 0.3,
    surfaceSpeed: 120,
    specificEnergy: 1.9,
    face: [208, 178, 106],
    cut: [224, 200, 138],
    grain: 0,
  },
  {
    id: "steel",
    name: "Mild steel",
    family: "steel",
    chipPerDiameter: 0.004,
    chipMost: 0.03,
    stepdown: 0.05,
    stepover: 0.2,
    surfaceSpeed: 60,
    specificEnergy: 3.2,
    face: [154, 160, 166],
    cut: [120, 124, 130],
    grain: 0,
    plasma: 1,
  },
  {
    id: "stainless",
    name: "Stainless steel",
    family: "steel",
    chipPerDiameter: 0.003,
    chipMost: 0.025,
    stepdown: 0.04,
    stepover: 0.15,
    surfaceSpeed: 40,
    specificEnergy: 4,
    face: [184, 188, 190],
    cut: [150, 154, 158],
    grain: 0,
    plasma: 0.85,
  },
  {
    id: "aluminium",
    name: "Aluminium",
    family: "soft metal",
    chipPerDiameter: 0.007,
    chipMost: 0.05,
    stepdown: 0.15,
    stepover: 0.3,
    surfaceSpeed: 180,
    specificEnergy: 0.9,
    face: [196, 200, 204],
    cut: [214, 218, 222],
    grain: 0,
    plasma: 1.2,
  },
];

/** @throws Problem `unknown-material` */
export function materialById(id: string): Material {
  const found = MATERIALS.find((m) => m.id === id);
  if (!found)
    throw new Problem("unknown-material", `No material "${id}". Known: ${MATERIALS.map((m) => m.id).join(", ")}.`);
  return found;
}

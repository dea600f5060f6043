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
  /** of a sheet that glows: the thickness in which light falls to 1/e of itself, mm */
  lambda?: number;
  /** of sheet metal: how fast a torch goes against mild steel */
  plasma?: number;
  /**
   * of sheet metal, what a torch does by thickness, rising: thickness mm, feed mm/min, kerf mm, pierce height mm,
   * pierce delay s, cut height mm, current A
   */
  sheets?: number[][];
  /** where its figures come from */
  source?: string;
  /** what the workshop wants to remember of it */
  note?: string;
}

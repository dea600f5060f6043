import type { Cutter } from "./profile.ts";
import { profileOf } from "./profile.ts";
import type { Material } from "./materials.ts";

/** Young's modulus of tungsten carbide, N/mm² (Machinery's Handbook, properties of cemented carbides). */
const CARBIDE = 600_000;
/** What the flutes leave of a cutter, as a share of its diameter: usual practice for two flutes. */
const CORE = 0.8;
/** A cutter that bends more than this chatters and leaves walls leaning: a thousandth of an inch, usual practice. */
export const MOST_BEND = 0.025;

/**
 * How far a cutter's tip is pushed aside for each newton, mm/N: a round bar held at one end, L³/3EI with
 * I = π·d⁴/64.
 * A tapered or a form cutter counts as the bar that it is halfway up; a drill is pushed along its axis: it does not
 * bend.
 */
export function bendPerNewton(cutter: Cutter): number {
  if (cutter.kind === "drill") return 0;
  const length = Math.max(cutter.reach ?? 0, cutter.fluteLength);
  const isThin = cutter.kind === "taper" || cutter.kind === "form";
  const thick = isThin ? 2 * profileOf(cutter).r(cutter.fluteLength / 2) : cutter.diameter;
  const inertia = (Math.PI * (CORE * thick) ** 4) / 64;
  return length ** 3 / (3 * CARBIDE * inertia);
}

/**
 * Force on one tooth, N: specific cutting energy × chip × depth (1 J/mm³ is 1,000 N/mm²).
 * @param chip thickness, mm
 * @param depth along the tooth, mm
 */
export const toothForce = (material: Material, chip: number, depth: number): number =>
  1000 * material.specificEnergy * chip * depth;

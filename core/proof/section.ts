import type { Profile } from "../cutters/profile.ts";
import { between } from "../height/field.ts";
import type { Surface } from "./surface.ts";
import { hypot } from "../hypot.ts";

/** A line across the board, mm. */
export interface SectionLine {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

export const lengthOf = ({ x0, y0, x1, y1 }: SectionLine): number => hypot(x1 - x0, y1 - y0);

/** A surface cut open along a line: its z at places evenly from one end to the other, mm; NaN off the board. */
export function sectionOf(
  s: Pick<Surface, "width" | "height" | "cell" | "z">,
  { x0, y0, x1, y1 }: SectionLine,
  places: number,
): Float32Array {
  return Float32Array.from({ length: places }, (_, k) => {
    const t = k / (places - 1);
    const [u, v] = [(x0 + t * (x1 - x0)) / s.cell, (y0 + t * (y1 - y0)) / s.cell];
    return u < 0 || v < 0 || u > s.width || v > s.height ? NaN : between(s, u - 0.5, v - 0.5);
  });
}

/**
 * The lowest tip of a cutter at a place of a section, held by what the section shows alone.
 * @param each mm between two places
 */
export function restingTip(section: Float32Array, each: number, at: number, p: Profile): number {
  const reach = Math.floor(p.radius / each);
  let tip = -Infinity;
  for (let k = Math.max(0, at - reach); k <= Math.min(section.length - 1, at + reach); k++)
    if (!Number.isNaN(section[k])) tip = Math.max(tip, section[k] - p.h(Math.abs(k - at) * each));
  return tip === -Infinity ? 0 : tip;
}

/** Factors by which heights may be stretched. */
const STRETCHES = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50];

/** The largest factor at which so much depth, mm, fits a height, when a mm is so many pixels wide. */
export const stretchFor = (depth: number, perMm: number, height: number): number =>
  STRETCHES.findLast((k) => depth * perMm * k <= height) ?? STRETCHES[0];

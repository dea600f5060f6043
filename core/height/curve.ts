import { monotone } from "../picture/tone.ts";
import { Problem } from "../problem.ts";
import { numbersOf } from "../units.ts";

/** A curve has two points at least, and at most so many. */
export const MOST_POINTS = 8;

/** Points of a curve, in order. @throws Problem `bad-curve` */
export function curvePoints(text: string): { x: number[]; y: number[] } {
  const n = numbersOf(text, "Curve");
  const x = n.filter((_, i) => i % 2 === 0);
  const y = n.filter((_, i) => i % 2 === 1);
  const isOrdered = x.every((v, i) => i === 0 || v > x[i - 1]);
  const isInside = n.every((v) => v >= 0 && v <= 1);
  if (n.length % 2 !== 0 || x.length < 2 || x.length > MOST_POINTS || !isOrdered || !isInside)
    throw new Problem(
      "bad-curve",
      `Curve: write two to ${MOST_POINTS} points as grey,height from 0 to 1 in rising order, such as 0,0 0.5,0.7 1,1.`,
    );
  return { x, y };
}

/** The curve from grey, or from how far inward a place lies, to height; all 0…1. */
export function curveThrough(text: string): (share: number) => number {
  const { x, y } = curvePoints(text);
  const curve = monotone(x, y);
  return (g) => Math.max(0, Math.min(1, curve(Math.max(x[0], Math.min(x[x.length - 1], g)))));
}

import { curvePoints } from "../../height/curve.ts";
import { greyRange } from "../../picture/tone.ts";

/** From which grey to which a picture's greys lie, 0…1. */
export interface GreyRange {
  dark: number;
  light: number;
}

/** This share of a picture's pixels, specks and glints, may be darker than its lowest place or lighter than its top. */
const RARE = 0.001;
/** Greys that lie nearer together are not spread over the whole depth: their noise would be as high as they. */
const NEAREST = 0.2;
/** Greys that are told of a curve, to so many parts of black to white. */
const PARTS = 100;

/** The greys that a surface's depth is spread over: the picture's own. */
export function greysOf(bins: Uint32Array): GreyRange {
  const { dark, light } = greyRange(bins, RARE);
  const more = Math.max(0, NEAREST - (light - dark)) / 2;
  // Widened towards both sides, and no farther than black and white.
  const low = Math.max(0, Math.min(1 - NEAREST, dark - more));
  const high = Math.min(1, Math.max(NEAREST, light + more));
  return { dark: Math.floor(low * PARTS + ROUNDING) / PARTS, light: Math.ceil(high * PARTS - ROUNDING) / PARTS };
}
const ROUNDING = 1e-9;

/**
 * A curve from black to white drawn from the darkest of some greys to the lightest instead.
 * @param isTurned the curve goes by how dark a grey is
 * @returns its points, and whether they are others
 */
export function spreadOver(points: string, { dark, light }: GreyRange, isTurned: boolean) {
  if (dark === 0 && light === 1) return { value: points, isSpread: false };
  const [from, to] = isTurned ? [1 - light, 1 - dark] : [dark, light];
  const { x, y } = curvePoints(points);
  const told = (g: number) => Number((from + g * (to - from)).toFixed(3));
  return { value: x.map((g, i) => `${told(g)},${y[i]}`).join(" "), isSpread: true };
}

import { hypot } from "../hypot.ts";
import { ringCount, type Rings } from "./rings.ts";

/**
 * A ring is a circle when no point of it is farther from its mean circle than this share of the radius, or this many
 * mm.
 */
export const ROUND_SHARE = 0.06;
const ROUND_LEAST = 0.1;

/** Centre and radius, mm. */
export interface Circle {
  x: number;
  y: number;
  r: number;
}

/** Rings that are circles, with centre and radius: every point within a share of the radius of the mean circle. */
export function circlesOf(r: Rings): Circle[] {
  const out: Circle[] = [];
  for (let k = 0; k < ringCount(r); k++) {
    const [s, e] = [r.starts[k], r.starts[k + 1]];
    if (e - s < 8) continue;
    // Centre of the outline, weighted by length, so that uneven points do not pull it.
    let [x, y, total] = [0, 0, 0];
    for (let i = s; i < e; i++) {
      const j = i + 1 < e ? i + 1 : s;
      const len = hypot(r.xy[2 * j] - r.xy[2 * i], r.xy[2 * j + 1] - r.xy[2 * i + 1]);
      x += (len * (r.xy[2 * i] + r.xy[2 * j])) / 2;
      y += (len * (r.xy[2 * i + 1] + r.xy[2 * j + 1])) / 2;
      total += len;
    }
    x /= total;
    y /= total;
    const radius = total / (2 * Math.PI);
    let worst = 0;
    for (let i = s; i < e; i++) worst = Math.max(worst, Math.abs(hypot(r.xy[2 * i] - x, r.xy[2 * i + 1] - y) - radius));
    if (worst <= Math.max(ROUND_LEAST, ROUND_SHARE * radius)) out.push({ x, y, r: radius });
  }
  return out;
}

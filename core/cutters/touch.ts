import { balances, type Piece } from "./form.ts";
import type { Profile } from "./profile.ts";

/**
 * Where a cutter touches a straight edge that passes beside its axis: how far along the edge from the point nearest
 * to the axis, towards where the edge rises. There slope·s − h(√(s² + across²)) is greatest; infinite where the
 * edge is steeper than the cutter, so that only the rim touches it.
 * @param slope how the edge rises along itself, mm per mm, not negative
 * @param across how far the edge passes from the axis, mm, not negative
 */
export function touchAlong(p: Profile, slope: number, across: number): number {
  if (slope === 0) return 0;
  if (p.pieces) return touchOnPieces(p, p.pieces, slope, across);
  // h' = s/√(b² − r²) = slope on the round tip, with r² = s² + across².
  if (p.ball > across) {
    const s = (slope * Math.sqrt(p.ball * p.ball - across * across)) / Math.sqrt(1 + slope * slope);
    if (p.coneSlope === 0 || s * s + across * across <= p.coneFrom * p.coneFrom) return s;
  }
  if (slope >= p.coneSlope) return Infinity;
  // h' = coneSlope·s/r = slope on the cone; where that lies before the cone begins, it begins there.
  const s = (slope * across) / Math.sqrt(p.coneSlope * p.coneSlope - slope * slope);
  const begins = p.coneFrom * p.coneFrom - across * across;
  return begins > s * s ? Math.sqrt(begins) : s;
}

/** The same where the edge was given by points: the best of where each piece balances, and of where pieces meet. */
function touchOnPieces(p: Profile, pieces: readonly Piece[], slope: number, across: number): number {
  const found = new Float64Array(2 * pieces.length + 1);
  let [best, most] = [0, -Infinity];
  for (let k = balances(pieces, slope, across, found) - 1; k >= 0; k--) {
    const s = found[k];
    const above = slope * s - p.h(Math.min(p.radius, Math.sqrt(s * s + across * across)));
    if (above > most) [best, most] = [s, above];
  }
  return best;
}

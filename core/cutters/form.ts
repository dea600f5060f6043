/** A straight piece of a cutter's edge, from the axis outwards: radii and heights above the tip, mm. */
export interface Piece {
  r0: number;
  h0: number;
  r1: number;
  h1: number;
  /** h for each mm of r */
  slope: number;
}

/** Radius and height of points along half of a cutter's edge, from its tip to its rim, mm. */
export type EdgePoints = readonly (readonly number[])[];

/** What is wrong with the points of an edge, as the end of a sentence; null where nothing is. */
export function edgeFault(points: EdgePoints | undefined, diameter: number): string | null {
  if (!points || points.length < 2) return "its edge needs at least two points, each a radius and a height.";
  if (!points.flat().every((v) => Number.isFinite(v) && v >= 0))
    return "radii and heights of its edge must be 0 or more.";
  const wrong = points.findIndex((p, k) => k > 0 && (p[0] <= points[k - 1][0] || p[1] < points[k - 1][1]));
  if (wrong > 0) return `point ${wrong + 1} of its edge folds back: radii must rise, and heights may not fall.`;
  if (points[0][1] !== 0) return "the first point of its edge is its tip, at height 0.";
  if (points[points.length - 1][1] === 0) return "its edge never rises: that is a flat cutter.";
  const [rim] = points[points.length - 1];
  if (Math.abs(2 * rim - diameter) > SAME) return "its outermost point must lie at half its diameter.";
  return null;
}
const SAME = 0.01;

/** The straight pieces between points; a tip that does not come to a point is level up to the first. */
export function piecesOf(points: EdgePoints): Piece[] {
  const all = points[0][0] > 0 ? [[0, 0], ...points] : points;
  return all.slice(1).map(([r1, h1], k) => {
    const [r0, h0] = all[k];
    return { r0, h0, r1, h1, slope: (h1 - h0) / (r1 - r0) };
  });
}

/** Height of the edge above the tip at a radius within it, mm. */
export function heightAt(pieces: readonly Piece[], r: number): number {
  for (const p of pieces) if (r <= p.r1) return p.h0 + (r - p.r0) * p.slope;
  return Infinity;
}

/** The largest radius at which the edge is no higher than h, mm. */
export function radiusAt(pieces: readonly Piece[], h: number): number {
  for (const p of pieces) if (h < p.h1) return p.r0 + Math.max(0, h - p.h0) / p.slope;
  return pieces[pieces.length - 1].r1;
}

/**
 * Distances ahead of a cutter's axis where its height less a straight slope may be least, over a line that passes
 * beside the axis: where a piece is as steep along the line as the slope, and where pieces meet.
 * @param slope of the line along itself, mm per mm, not negative
 * @param across how far the line passes from the axis, mm
 * @param found filled; how many is returned
 */
export function balances(pieces: readonly Piece[], slope: number, across: number, found: Float64Array): number {
  let n = 0;
  found[n++] = 0;
  for (const p of pieces) {
    if (p.r1 <= across) continue;
    found[n++] = Math.sqrt(p.r1 * p.r1 - across * across);
    if (p.slope <= slope) continue;
    const ahead = (slope * across) / Math.sqrt(p.slope * p.slope - slope * slope);
    const r = Math.sqrt(ahead * ahead + across * across);
    if (r > p.r0 && r < p.r1) found[n++] = ahead;
  }
  return n;
}

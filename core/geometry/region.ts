import { mended, type Winding } from "./mend.ts";
import { nesting } from "./nesting.ts";
import { ringArea, ringCount, type Rings } from "./rings.ts";
import { asRead, LINE, type Shape } from "./shape.ts";
import { unsoundPlaces } from "./sound.ts";
import { type Curve, reversed, shapeOf } from "./curve.ts";

/** The curves that bound what others enclose, with where those were not sound and had to be mended. */
export interface Region {
  /** outer ones counter-clockwise, holes clockwise, each after what holds it */
  curves: Curve[];
  mendedAt: { x: number; y: number }[];
}

const IS_INSIDE: Record<Winding, (winding: number, around: number) => boolean> = {
  "non-zero": (winding) => winding !== 0,
  positive: (winding) => winding > 0,
  "even-odd": (_winding, around) => around % 2 === 1,
};

/**
 * The curves that part inside from outside by a rule; those with the same on both sides go. Where curves cross or touch
 * they become lines, mended by the library.
 */
export function regionOf(curves: readonly Curve[], rule: Winding): Region {
  const rings = asRead(shapeOf(curves));
  const places = unsoundPlaces(rings);
  if (places.length > 0) return { curves: ofRings(mended(rings, rule)), mendedAt: places };
  const parent = nesting(rings);
  const area = Array.from({ length: ringCount(rings) }, (_, k) => ringArea(rings, k));
  /** how often what lies in ring k is wound round, and by how many rings */
  const inside = (k: number): { winding: number; around: number } => {
    const outer = parent[k] < 0 ? { winding: 0, around: 0 } : inside(parent[k]);
    return { winding: outer.winding + Math.sign(area[k]), around: outer.around + 1 };
  };
  const order = area.map((_, k) => k).filter((k) => area[k] !== 0);
  order.sort((a, b) => Math.abs(area[b]) - Math.abs(area[a]));
  const out: Curve[] = [];
  for (const k of order) {
    const within = inside(k);
    const without = { winding: within.winding - Math.sign(area[k]), around: within.around - 1 };
    const isFilled = IS_INSIDE[rule](within.winding, within.around);
    if (isFilled === IS_INSIDE[rule](without.winding, without.around)) continue;
    out.push(area[k] > 0 === isFilled ? curves[k] : reversed(curves[k]));
  }
  return { curves: out, mendedAt: [] };
}

/** The curves of a region as a shape, each with what holds it. */
export function nestedShape(curves: readonly Curve[]): Shape {
  const parent = nesting(asRead(shapeOf(curves)));
  return shapeOf(curves, (k) => parent[k]);
}

function ofRings(r: Rings): Curve[] {
  return Array.from({ length: ringCount(r) }, (_, k): Curve => {
    const [from, to] = [r.starts[k], r.starts[k + 1]];
    const at = (i: number) => [r.xy[2 * i], r.xy[2 * i + 1]];
    const ends = Array.from({ length: to - from }, (_, i) => at(i + 1 < to - from ? from + i + 1 : from));
    const [x, y] = at(from);
    return { x, y, segments: ends.map(([ex, ey]) => ({ kind: LINE, n: [0, 0, 0, 0, ex, ey] })) };
  });
}

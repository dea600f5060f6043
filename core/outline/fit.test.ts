import { describe, expect, it } from "vitest";
import { ringsFrom, type Rings } from "../geometry/rings.ts";
import { isSound } from "../geometry/sound.ts";
import { SegmentGrid } from "../geometry/segmentgrid.ts";
import { flatten } from "../geometry/shape.ts";
import { seeded } from "../testing/random.ts";
import { findCorners } from "./corners.ts";
import { FitWriter, fitContour } from "./fit.ts";

type Loop = [number, number][];
const random = seeded(41);

/** A closed contour as a picture gives it: a point every 0.7 px or so along a wavy round, with noise across it. */
function noisy(radius: number, waves: number, noise: number): Loop {
  const n = Math.round((2 * Math.PI * radius) / 0.7);
  return Array.from({ length: n }, (_, i): [number, number] => {
    const a = (2 * Math.PI * i) / n;
    const r = radius * (1 + 0.2 * Math.sin(waves * a)) + noise * (random() - 0.5) * 2;
    return [400 + r * Math.cos(a), 400 + r * Math.sin(a)];
  });
}
const boxy = (): Loop => {
  const out: Loop = [];
  const corners: Loop = [
    [0, 0],
    [60, 4],
    [64, 50],
    [30, 44],
    [6, 61],
  ];
  corners.forEach(([x, y], i) => {
    const [u, v] = corners[(i + 1) % corners.length];
    const steps = Math.round(Math.hypot(u - x, v - y) / 0.7);
    for (let k = 0; k < steps; k++)
      out.push([
        x + ((u - x) * k) / steps + 0.1 * (random() - 0.5),
        y + ((v - y) * k) / steps + 0.1 * (random() - 0.5),
      ]);
  });
  return out;
};

function fitted(loop: Loop, hold: number): { curve: Rings; nodes: number; error: number } {
  const xy = Float64Array.from(loop.flat());
  const out = new FitWriter();
  fitContour({ raw: xy, smooth: xy }, loop.length, findCorners(xy, loop.length, 4, 0.7), hold, out);
  const { shape } = out.take();
  return { curve: flatten(shape, 0.01), nodes: shape.kinds.length, error: out.worst };
}

/** The largest distance of a closed line's points from another, `between` them too. */
function farthest(from: Rings, to: Rings, between: boolean): number {
  const grid = new SegmentGrid(to);
  const n = from.xy.length / 2;
  let worst = 0;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const [x, y, u, v] = [from.xy[2 * i], from.xy[2 * i + 1], from.xy[2 * j], from.xy[2 * j + 1]];
    const parts = between ? Math.max(1, Math.ceil(Math.hypot(u - x, v - y))) : 1;
    for (let k = 0; k < parts; k++)
      worst = Math.max(worst, grid.distance(x + ((u - x) * k) / parts, y + ((v - y) * k) / parts, 500));
  }
  return worst;
}

/**
 * Name, contour, hold, and how far the curves may be from the points: the hold, but between points that noise throws
 * far apart.
 */
const cases: [string, Loop, number, number][] = [
  ["smooth", noisy(150, 5, 0), 0.23, 0.23],
  ["smooth, loosely", noisy(150, 5, 0), 2, 2],
  ["noise below the hold", noisy(150, 3, 0.15), 0.23, 0.3],
  ["noise about the hold", noisy(150, 3, 0.3), 0.23, 0.4],
  ["noise far above the hold, points up to 2.4 apart", noisy(120, 7, 1.2), 0.23, 0.6],
  ["noise far above a hair's hold, points up to 1.2 apart", noisy(60, 4, 0.5), 0.02, 0.3],
  ["tiny", noisy(3, 2, 0.2), 0.23, 0.3],
  ["corners and straights", boxy(), 0.23, 0.23],
];

describe("a fitted contour", () => {
  for (const [name, loop, hold, bow] of cases)
    it(`${name}: every point lies within the hold of the curves, and every part of the curves near the points`, () => {
      const { curve, error } = fitted(loop, hold);
      const points = ringsFrom([loop]);
      expect(error).toBeLessThanOrEqual(hold + 1e-9);
      // Flattened within a hundredth.
      expect(farthest(points, curve, false)).toBeLessThanOrEqual(hold + 0.011);
      expect(farthest(curve, points, true)).toBeLessThanOrEqual(bow + 0.011);
    });
  it("on noise no curve swings out so that the contour crosses itself, but where noise folds it", () => {
    for (let round = 0; round < 12; round++)
      expect(isSound(fitted(noisy(80 + 10 * round, 3, 0.35), 0.25).curve)).toBe(true);
  });
  it("where there is no noise, waves need a few nodes each, straights one", () => {
    expect(fitted(noisy(150, 5, 0), 0.23).nodes).toBeLessThanOrEqual(24);
    expect(fitted(boxy(), 0.23).nodes).toBeLessThanOrEqual(8);
  });
});

import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import { seeded } from "../../testing/random.ts";
import { cutterOf } from "../../testing/shop.ts";
import {
  bareWidth,
  deepestFor,
  depthFor,
  leastWidth,
  shareOfBoth,
  shareOfDots,
  shareOfEach,
  widthOfDots,
} from "./grooves.ts";
import { dots, isInside, parallels, rings, spiral, type Way } from "./ways.ts";

const BOX = { x0: 3, y0: 2, x1: 33, y1: 22 };
const SAMPLING = { spacing: 1.5, step: 0.3 };

/** How far a place is from the nearest of some ways, mm. */
function distance(ways: readonly Way[], x: number, y: number): number {
  let best = Infinity;
  for (const w of ways)
    for (let i = 1; i < w.x.length; i++) {
      const [dx, dy] = [w.x[i] - w.x[i - 1], w.y[i] - w.y[i - 1]];
      const t = ((x - w.x[i - 1]) * dx + (y - w.y[i - 1]) * dy) / (dx * dx + dy * dy || 1);
      const s = Math.max(0, Math.min(1, t));
      best = Math.min(best, Math.hypot(w.x[i - 1] + s * dx - x, w.y[i - 1] + s * dy - y));
    }
  return best;
}

describe("ways of lines over a picture", () => {
  const wave = { swing: 1.2, length: 15 };
  for (const [name, ways] of [
    ["lines at 0°", parallels(BOX, 0, SAMPLING)],
    ["lines at 30°", parallels(BOX, 30, SAMPLING)],
    ["waves", parallels(BOX, 30, SAMPLING, wave)],
    ["rings", rings(BOX, SAMPLING)],
    ["a spiral", spiral(BOX, SAMPLING)],
  ] as const)
    it(`${name}: no place is farther from a line than half the spacing, and samples are dense`, () => {
      const random = seeded(3);
      for (let k = 0; k < 300; k++) {
        const x = BOX.x0 + 1 + (BOX.x1 - BOX.x0 - 2) * random();
        const y = BOX.y0 + 1 + (BOX.y1 - BOX.y0 - 2) * random();
        // The last line may lie a spacing from the side at most: places near it are left out above.
        expect(distance(ways, x, y), `${x}, ${y}`).toBeLessThan(SAMPLING.spacing / 2 + 0.12);
      }
      for (const w of ways)
        for (let i = 1; i < w.x.length; i++)
          expect(Math.hypot(w.x[i] - w.x[i - 1], w.y[i] - w.y[i - 1])).toBeLessThan(2 * SAMPLING.step);
    });

  it("waves say how near their neighbours lie, square to themselves", () => {
    const ways = parallels(BOX, 0, SAMPLING, wave);
    const middle = Math.floor(ways.length / 2);
    const way = ways[middle];
    for (let i = 20; i < way.x.length - 20; i += 7) {
      const next = distance([ways[middle + 1]], way.x[i], way.y[i]);
      expect(Math.abs(way.apart[i] - next)).toBeLessThan(0.12);
    }
  });

  it("dots have six neighbours, all as far, and lie in the box", () => {
    const all = dots(BOX, 10, 2);
    for (const { x, y } of all) expect(isInside(BOX, x, y)).toBe(true);
    const inner = all.filter((d) => isInside({ x0: 7, y0: 6, x1: 29, y1: 18 }, d.x, d.y));
    for (const d of inner) {
      const near = all.map((o) => Math.hypot(o.x - d.x, o.y - d.y)).sort((a, b) => a - b);
      for (const r of near.slice(1, 7)) expect(r).toBeCloseTo(2, 6);
      expect(near[7]).toBeGreaterThan(3);
    }
    // Each has s²·√3/2 for itself.
    expect((30 * 20) / all.length / (4 * (Math.sqrt(3) / 2))).toBeCloseTo(1, 1);
  });
});

describe("grooves", () => {
  for (const spec of ["v:60:6", "v:90:8:0.2", "ball:3", "taper:0.25:7:6"])
    it(`${spec}: a depth bares the width that it was found for`, () => {
      const profile = profileOf(cutterOf(spec));
      const groove = { profile, coat: 0.15, deepest: Math.min(profile.height, 2) };
      const [least, most] = [leastWidth(groove), bareWidth(groove, groove.deepest)];
      for (let share = 0; share <= 1; share += 0.1) {
        const width = least + (most - least) * share;
        expect(bareWidth(groove, depthFor(groove, width))).toBeCloseTo(width, 3);
      }
      expect(bareWidth(groove, 0.15)).toBe(0);
      expect(bareWidth(groove, 0.1)).toBe(0);
      expect(depthFor(groove, 100)).toBeLessThanOrEqual(groove.deepest);
      // At the deepest that leaves a strip, the groove's top is the spacing less that strip.
      const deepest = deepestFor(profile, 1.5, 0.25);
      expect(2 * profile.r(deepest)).toBeCloseTo(1.25, 3);
    });

  it("shares of crossed lines and of dots are each other's inverses", () => {
    for (let share = 0; share <= 1; share += 0.05) {
      expect(shareOfBoth(shareOfEach(share))).toBeCloseTo(share, 9);
      expect(shareOfDots(widthOfDots(share, 1.7), 1.7)).toBeCloseTo(share, 9);
    }
  });
});

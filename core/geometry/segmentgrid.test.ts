import { describe, expect, it } from "vitest";
import { distanceToRings, seeded, star } from "../testing/random.ts";
import { ringsFrom } from "./rings.ts";
import { SegmentGrid } from "./segmentgrid.ts";

describe("distance to edges by their index", () => {
  const random = seeded(12);
  const rings = ringsFrom([star(random, 40, 20, 45, 50, 50), star(random, 12, 4, 12, 48, 52).reverse()]);
  const grid = new SegmentGrid(rings);
  const point = () => [100 * random(), 100 * random()] as const;

  it("equals what trying every edge finds, and stops at the most that is asked for", () => {
    for (let n = 0; n < 300; n++) {
      const [x, y] = point();
      const d = distanceToRings(rings, x, y);
      expect(grid.distance(x, y, 200)).toBeCloseTo(d, 9);
      expect(grid.distance(x, y, 5)).toBeCloseTo(Math.min(5, d), 9);
    }
  });

  it("of a way is the least along it, and nothing where it crosses an edge", () => {
    let crossed = 0;
    for (let n = 0; n < 300; n++) {
      const [x0, y0] = point();
      const [x1, y1] = n % 2 ? point() : [x0 + 4 * random() - 2, y0 + 4 * random() - 2];
      const d = grid.distanceOfWay(x0, y0, x1, y1, 30);
      let least = Infinity;
      const steps = 400;
      for (let q = 0; q <= steps; q++) least = Math.min(least, distanceToRings(rings, x0 + ((x1 - x0) * q) / steps, y0 + ((y1 - y0) * q) / steps));
      const between = Math.hypot(x1 - x0, y1 - y0) / steps / 2;
      expect(d).toBeLessThanOrEqual(Math.min(30, least) + 1e-9);
      expect(d).toBeGreaterThan(Math.min(30, least) - between - 1e-9);
      if (d === 0) crossed++;
    }
    expect(crossed).toBeGreaterThan(40);
  });

  it("of no edges at all is the most that is asked for", () => {
    const none = new SegmentGrid(ringsFrom([]));
    expect(none.distance(1, 2, 7)).toBe(7);
    expect(none.distanceOfWay(1, 2, 3, 4, 7)).toBe(7);
  });
});

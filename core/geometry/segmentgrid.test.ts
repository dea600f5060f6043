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
      // Where any distance below 3 will do, it tells rightly whether there is one.
      expect(grid.distance(x, y, 3, 3) < 3).toBe(d < 3);
    }
  });

  it("and so from far outside, of edges a thousand times as long as others, and of a single point", () => {
    const long = ringsFrom([
      [
        [0, 0],
        [900, 3],
        [900.5, 3.2],
        [900.4, 400],
        [0.2, 399],
      ],
    ]);
    const edges = new SegmentGrid(long);
    const one = new SegmentGrid(ringsFrom([[[7, 8]]]));
    for (let n = 0; n < 300; n++) {
      const [x, y] = [3000 * random() - 1000, 2000 * random() - 800];
      expect(edges.distance(x, y, 1e4)).toBeCloseTo(distanceToRings(long, x, y), 8);
      expect(one.distance(x, y, 1e4)).toBeCloseTo(Math.hypot(x - 7, y - 8), 8);
    }
  });

  it("a way is clear where no place along it is nearer to an edge, and never where it crosses one", () => {
    const counts = { clear: 0, not: 0 };
    for (let n = 0; n < 400; n++) {
      const [x0, y0] = point();
      const [x1, y1] = n % 2 ? point() : [x0 + 4 * random() - 2, y0 + 4 * random() - 2];
      const least = 6 * random();
      let near = Infinity;
      const steps = 400;
      for (let q = 0; q <= steps; q++)
        near = Math.min(near, distanceToRings(rings, x0 + ((x1 - x0) * q) / steps, y0 + ((y1 - y0) * q) / steps));
      const between = Math.hypot(x1 - x0, y1 - y0) / steps / 2;
      const clear = grid.isClear(x0, y0, x1, y1, least);
      counts[clear ? "clear" : "not"]++;
      if (near < least) expect(clear).toBe(false);
      if (near > least + between) expect(clear).toBe(true);
    }
    expect(Math.min(counts.clear, counts.not)).toBeGreaterThan(60);
  });

  it("of no edges at all is the most that is asked for", () => {
    const none = new SegmentGrid(ringsFrom([]));
    expect(none.distance(1, 2, 7)).toBe(7);
    expect(none.isClear(1, 2, 3, 4, 7)).toBe(true);
  });
});

import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { PointGrid } from "./pointgrid.ts";

describe("the cheapest point left", () => {
  for (const [name, spread] of [
    ["scattered", [100, 60]],
    ["on a line", [100, 0]],
    ["in one place", [0, 0]],
    ["in two clumps", [100, 60, 1]],
  ] as const)
    it(`is what looking at every point finds: ${name}`, () => {
      const random = seeded(spread.length + spread[0]);
      const n = 400;
      const clump = spread.length > 2;
      const x = Float64Array.from({ length: n }, (_, i) => (clump ? (i % 2) * 90 + random() : spread[0] * random()));
      const y = Float64Array.from({ length: n }, () => (clump ? random() : spread[1] * random()));
      const extra = Float64Array.from({ length: n }, () => (random() < 0.5 ? 0 : 20 * random()));
      const grid = new PointGrid(x, y);
      const left = new Set(Array.from({ length: n }, (_, i) => i));
      // From places inside and well outside the points.
      while (left.size > 0) {
        const [px, py] = [140 * random() - 20, 100 * random() - 20];
        const price = (i: number) => Math.hypot(x[i] - px, y[i] - py) + extra[i];
        const i = grid.cheapest(px, py, (k, way) => way + extra[k]);
        let least = Infinity;
        for (const k of left) least = Math.min(least, price(k));
        expect(left.has(i)).toBe(true);
        expect(price(i)).toBeCloseTo(least, 9);
        grid.remove(i);
        left.delete(i);
      }
      expect(grid.cheapest(0, 0, (_, way) => way)).toBe(-1);
    });
  it("of none is none", () => {
    expect(new PointGrid([], []).cheapest(0, 0, (_, way) => way)).toBe(-1);
  });
});

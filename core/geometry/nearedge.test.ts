import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { depthInside } from "./nearedge.ts";
import { insideRegion, type Rings, ringsFrom } from "./rings.ts";
import { squaredDistance } from "./segmentcells.ts";

/** A star with as many corners as asked, wild ones next to gentle ones, and a hole in its middle. */
function star(random: () => number, corners: number): Rings {
  const ring = (middle: number, radius: (k: number) => number, way: number) =>
    Array.from({ length: corners }, (_, k) => {
      const a = (way * 2 * Math.PI * k) / corners;
      const r = radius(k);
      return [middle + r * Math.cos(a), middle + r * Math.sin(a)] as const;
    });
  const outer = ring(10, () => 4 + 5 * random(), 1);
  const hole = ring(10, () => 1 + 2 * random(), -1);
  return ringsFrom([outer, hole]);
}

describe("how deep inside a region a cell lies", () => {
  it("is its distance to the nearest edge, whatever the region", () => {
    for (let seed = 1; seed <= 12; seed++) {
      const random = seeded(seed);
      const region = star(random, 5 + 12 * seed);
      const cells = { x0: -0.4, y0: 0.3, cell: 0.17, width: 120, height: 118 };
      const found = depthInside(region, cells);
      for (let k = 0; k < found.length; k += 37) {
        const x = cells.x0 + ((k % cells.width) + 0.5) * cells.cell;
        const y = cells.y0 + (Math.floor(k / cells.width) + 0.5) * cells.cell;
        let wanted = Infinity;
        const { xy, starts } = region;
        for (let r = 0; r < 2; r++)
          for (let i = starts[r]; i < starts[r + 1]; i++) {
            const j = i + 1 < starts[r + 1] ? i + 1 : starts[r];
            const d2 = squaredDistance(x, y, xy[2 * i], xy[2 * i + 1], xy[2 * j], xy[2 * j + 1]);
            wanted = Math.min(wanted, d2);
          }
        const deep = insideRegion(region, x, y) ? Math.sqrt(wanted) : 0;
        expect(Math.abs(found[k] - deep), `seed ${seed}, ${x}, ${y}`).toBeLessThan(0.002);
      }
    }
  });

  it("is 0 everywhere of a region that lies elsewhere", () => {
    const far = ringsFrom([
      [
        [50, 50],
        [60, 50],
        [60, 60],
      ],
    ]);
    expect(Math.max(...depthInside(far, { cell: 1, width: 20, height: 20 }))).toBe(0);
  });
});

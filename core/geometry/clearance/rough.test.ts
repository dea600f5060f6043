import { expect, it } from "vitest";
import { seeded } from "../../testing/random.ts";
import { mended } from "../mend.ts";
import { insideRegion, ringsFrom } from "../rings.ts";
import { SegmentGrid } from "../segmentgrid.ts";
import { clearanceOf, inset } from "./clearance.ts";

/** Chords of arcs and rounding, mm. */
const TOLERANCE = 0.006;

it("insets of outlines as rough as noise makes them come nowhere nearer to the edge than their distance", () => {
  let points = 0;
  let largest = 0;
  for (let seed = 1; seed <= 60; seed++) {
    const random = seeded(seed);
    const spacing = 0.02 * 12 ** random();
    const noise = 0.3 * random() ** 2;
    const loops = Array.from({ length: 3 }, (_, k) => {
      const [cx, cy, r] = [6 * k, 3 * random(), 1 + 2 * random()];
      const n = Math.round((2 * Math.PI * r) / spacing);
      return Array.from({ length: n }, (_, i): [number, number] => {
        const a = (2 * Math.PI * i) / n;
        const at = r * (1 + 0.3 * Math.sin(3 * a)) + noise * (random() - 0.5) * 2;
        return [cx + at * Math.cos(a), cy + at * Math.sin(a)];
      });
    });
    const region = mended(ringsFrom(loops));
    const grid = new SegmentGrid(region);
    const c = clearanceOf(region);
    for (const rho of [0.03, 0.1, 0.2, 0.35, 0.7]) {
      const { rings } = inset(c, rho);
      for (let i = 0; i < rings.xy.length; i += 2) {
        const [x, y] = [rings.xy[2 * (i / 2)], rings.xy[i + 1]];
        const d = grid.distance(x, y, rho + 1);
        points++;
        largest = Math.max(largest, rho - d);
        if (rho - d > TOLERANCE || !insideRegion(region, x, y))
          expect(`seed ${seed}, ${rho} mm: ${x}, ${y} lies ${d} from the edge`).toBe("");
      }
    }
  }
  expect(points).toBeGreaterThan(20_000);
  expect(largest).toBeLessThan(TOLERANCE);
});

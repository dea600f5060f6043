import { expect, it } from "vitest";
import { seeded } from "../../testing/random.ts";
import { mended } from "../mend.ts";
import { insideRegion, ringsFrom } from "../rings.ts";
import { SegmentGrid } from "../segmentgrid.ts";
import { isSound } from "../sound.ts";
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

it("of two holes that all but touch, nothing is found inside either", () => {
  let tried = 0;
  for (let seed = 1; seed <= 60; seed++) {
    const random = seeded(500 + seed);
    const gap = 10 ** (-2 - 3.5 * random());
    // Two ellipses, one above the other, drawn with points that do not face each other.
    const hole = (above: boolean): [number, number][] => {
      const [rx, ry, n] = [6 + 14 * random(), 2 + 8 * random(), 30 + Math.floor(120 * random())];
      const turn = (2 * Math.PI * random()) / n;
      const raw = Array.from({ length: n }, (_, i): [number, number] => {
        const a = turn - (2 * Math.PI * i) / n;
        return [50 + random() * 1e-3 + rx * Math.cos(a), ry * Math.sin(a)];
      });
      const side = above ? Math.min(...raw.map((p) => p[1])) : Math.max(...raw.map((p) => p[1]));
      const at = above ? 50 + gap : 50;
      return raw.map(([x, y]) => [x, y - side + at]);
    };
    const region = ringsFrom([
      [
        [0, 0],
        [100, 0],
        [100, 100],
        [0, 100],
      ],
      hole(true),
      hole(false),
    ]);
    if (!isSound(region)) continue;
    tried++;
    const { axis } = clearanceOf(region);
    const grid = new SegmentGrid(region);
    for (let i = 0; i < axis.x.length; i++) {
      const d = grid.distance(axis.x[i], axis.y[i], 100);
      if (d < 1e-6) continue;
      const what = `seed ${seed}, ${gap} mm apart: ${axis.x[i]}, ${axis.y[i]}`;
      if (!insideRegion(region, axis.x[i], axis.y[i]) && d > 1e-3) expect(what).toBe("inside");
      if (Math.abs(d - axis.d[i]) > 0.001) expect(axis.d[i], what).toBe(d);
    }
  }
  expect(tried).toBeGreaterThan(30);
});

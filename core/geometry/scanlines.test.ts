import { describe, expect, it } from "vitest";
import { circle, seeded, star } from "../testing/random.ts";
import { insideRegion, regionArea, ringsFrom } from "./rings.ts";
import { alongRing, spans, turnedSpan } from "./scanlines.ts";

describe("parallel lines through a region", () => {
  it("lie inside it, end on its edge, and sum up to its area", () => {
    for (let seed = 1; seed <= 12; seed++) {
      const r = ringsFrom([star(seeded(seed), 7 + seed, 8, 30, 40, 40), circle(40, 40, 4, 40, true)]);
      const angle = seed * 0.37;
      const all = spans(r, angle, 0.05);
      let area = 0;
      for (const s of all) {
        const len = Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
        area += 0.05 * len;
        if (len > 0.01) expect(insideRegion(r, (s.x0 + s.x1) / 2, (s.y0 + s.y1) / 2), `seed ${seed}`).toBe(true);
        expect(Math.abs(Math.sin(Math.atan2(s.y1 - s.y0, s.x1 - s.x0) - angle))).toBeLessThan(1e-6);
      }
      expect(Math.abs(area / regionArea(r) - 1), `seed ${seed}`).toBeLessThan(0.004);
    }
  });
  it("pass level edges that lie where a row does, whatever rounding makes of it", () => {
    // Stairs whose treads are rows, worked out as the rows are: dividing back may find the row before or after.
    for (let seed = 1; seed <= 400; seed++) {
      const random = seeded(seed);
      const [spacing, through, steps] = [0.05 + 3 * random(), 200 * (random() - 0.5), 2 + Math.floor(6 * random())];
      const first = through + Math.ceil(5 / spacing) * spacing;
      const stairs: [number, number][] = [[0, first - spacing / 3]];
      for (let k = 0; k < steps; k++) stairs.push([10 - k, first + (k - 1) * spacing], [10 - k, first + k * spacing]);
      stairs.push([0, first + (steps - 1) * spacing]);
      for (const q of spans(ringsFrom([stairs]), 0, spacing, through)) {
        for (const v of [q.x0, q.y0, q.x1, q.y1, q.at0, q.at1]) expect(v, `seed ${seed}`).not.toBeNaN();
        expect(Math.min(q.x0, q.x1), `seed ${seed}`).toBeGreaterThan(-1e-6);
        expect(Math.max(q.x0, q.x1), `seed ${seed}`).toBeLessThan(10 + 1e-6);
      }
    }
  });
  it("know where on the ring they end, and the shorter way from one end to the next", () => {
    const square = ringsFrom([
      [
        [0, 0],
        [10, 0],
        [10, 10],
        [0, 10],
      ],
    ]);
    const [a, b] = spans(square, 0, 5);
    expect([a.y0, b.y0]).toEqual([2.5, 7.5]);
    const back = turnedSpan(b);
    const way = alongRing(square, a.ring1, a.at1, back.at0, 20)!;
    expect(way.length).toBeCloseTo(5, 9);
    expect([way.x[0], way.y[0], way.x[way.x.length - 1], way.y[way.y.length - 1]]).toEqual([10, 2.5, 10, 7.5]);
    // Round the corner, the short way.
    expect(alongRing(square, 0, 3.9, 0.1, 20)!.length).toBeCloseTo(2, 9);
    expect(alongRing(square, 0, 0.1, 3.9, 20)!.length).toBeCloseTo(2, 9);
    expect(alongRing(square, 0, 0.1, 3.9, 2.001)).not.toBeNull();
    expect(alongRing(square, 0, 0.1, 3.9, 1.999)).toBeNull();
  });
  it("are none without a region or a spacing", () => {
    expect(spans(ringsFrom([]), 0, 1)).toEqual([]);
    expect(spans(ringsFrom([circle(0, 0, 5, 20)]), 0, 0)).toEqual([]);
  });
});

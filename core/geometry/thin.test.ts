import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { thin } from "./thin.ts";

const random = seeded(12);

/** Distance of point p from the segment a–b in space. */
function away(p: number[], a: number[], b: number[]): number {
  const d = b.map((v, k) => v - a[k]);
  const len2 = d.reduce((s, v) => s + v * v, 0);
  const t = len2 > 0 ? Math.max(0, Math.min(1, p.reduce((s, v, k) => s + (v - a[k]) * d[k], 0) / len2)) : 0;
  return Math.hypot(...p.map((v, k) => v - a[k] - t * d[k]));
}

describe("thinning", () => {
  it("keeps both ends, and every point left out within the tolerance of the line that stays", () => {
    for (let round = 0; round < 60; round++) {
      const n = 2 + Math.floor(80 * random());
      const walk = () => {
        let v = 0;
        return Float64Array.from({ length: n }, () => (v += random() - 0.5));
      };
      const [x, y, z] = [walk(), walk(), walk()];
      const tolerance = 0.02 + random();
      const [from, to] = [Math.floor(random() * (n - 1)), n - 1];
      const keep = thin(x, y, z, from, to, tolerance);
      expect(keep[0]).toBe(from);
      expect(keep[keep.length - 1]).toBe(to);
      for (let k = 1; k < keep.length; k++) {
        expect(keep[k]).toBeGreaterThan(keep[k - 1]);
        const [a, b] = [keep[k - 1], keep[k]].map((i) => [x[i], y[i], z[i]]);
        for (let i = keep[k - 1] + 1; i < keep[k]; i++)
          expect(away([x[i], y[i], z[i]], a, b)).toBeLessThanOrEqual(tolerance + 1e-12);
      }
    }
  });
  it("a straight line is its two ends, however many points it has; one that turns back keeps its turn", () => {
    const x = Float64Array.from({ length: 1000 }, (_, i) => i);
    expect(thin(x, x, null, 0, 999, 1e-6)).toEqual([0, 999]);
    expect(thin([0, 5, 10, 5, 2], [0, 0, 0, 0, 0], null, 0, 4, 0.01)).toEqual([0, 2, 4]);
  });
  it("height counts: a dip on a straight way stays", () =>
    expect(thin([0, 1, 2, 3, 4], [0, 0, 0, 0, 0], [0, 0, -1, 0, 0], 0, 4, 0.1)).toContain(2));
  it("does not run out of stack on a long spiral", () => {
    const n = 200_000;
    const x = Float64Array.from({ length: n }, (_, i) => i * Math.cos(i / 50));
    const y = Float64Array.from({ length: n }, (_, i) => i * Math.sin(i / 50));
    expect(thin(x, y, null, 0, n - 1, 0.5).length).toBeGreaterThan(1000);
  });
});

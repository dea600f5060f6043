import { describe, expect, it } from "vitest";
import { ringsFrom, type Rings } from "../geometry/rings.ts";
import { blob, circle, seeded, star } from "../testing/random.ts";
import { crossingContours, crossingPlaces, crossingPolylines } from "./crossing.ts";

/** Whether two segments share a point, by their parameters: exact enough for shapes that cross well. */
function cross(a: number[], b: number[], c: number[], d: number[]): boolean {
  const det = (b[0] - a[0]) * (d[1] - c[1]) - (b[1] - a[1]) * (d[0] - c[0]);
  if (Math.abs(det) < 1e-12) return false;
  const s = ((c[0] - a[0]) * (d[1] - c[1]) - (c[1] - a[1]) * (d[0] - c[0])) / det;
  const t = ((c[0] - a[0]) * (b[1] - a[1]) - (c[1] - a[1]) * (b[0] - a[0])) / det;
  return s >= 0 && s <= 1 && t >= 0 && t <= 1;
}

/** Contours with a crossing, by trying every pair of edges. */
function byPairs(r: Rings): number[] {
  const edges: { run: number; k: number; n: number; a: number[]; b: number[] }[] = [];
  for (let q = 0; q + 1 < r.starts.length; q++) {
    const n = r.starts[q + 1] - r.starts[q];
    for (let k = 0; k < n; k++) {
      const [i, j] = [r.starts[q] + k, r.starts[q] + ((k + 1) % n)];
      edges.push({ run: q, k, n, a: [r.xy[2 * i], r.xy[2 * i + 1]], b: [r.xy[2 * j], r.xy[2 * j + 1]] });
    }
  }
  const out = new Set<number>();
  edges.forEach((e, x) =>
    edges.slice(x + 1).forEach((f) => {
      const beside = e.run === f.run && (Math.abs(e.k - f.k) === 1 || Math.abs(e.k - f.k) === e.n - 1);
      if (!beside && cross(e.a, e.b, f.a, f.b)) out.add(e.run).add(f.run);
    }),
  );
  return [...out].sort((p, q) => p - q);
}

describe("crossings", () => {
  it("are the ones that trying every pair of edges finds", () => {
    const random = seeded(31);
    let some = 0;
    for (let n = 0; n < 40; n++) {
      const loops = Array.from({ length: 5 }, (_, i) => {
        const at = [20 + 50 * random(), 20 + 50 * random()] as const;
        const loop = i % 2 ? star(random, 9 + i, 3, 14, ...at) : blob(random, 30 + 9 * i, 9, ...at, 0.3);
        // Now and then a contour that crosses itself.
        if (random() < 0.2) [loop[3], loop[7]] = [loop[7], loop[3]];
        return loop;
      });
      const r = ringsFrom(loops);
      const want = byPairs(r);
      expect(crossingContours(r)).toEqual(want);
      some += want.length;
    }
    expect(some).toBeGreaterThan(40);
  });

  it("lie where they are said to", () => {
    const r = ringsFrom([circle(0, 0, 10, 200), circle(12, 0, 10, 200)]);
    const places = crossingPlaces(r);
    for (const p of places) {
      expect(Math.abs(p.x - 6)).toBeLessThan(0.4);
      expect(Math.abs(Math.abs(p.y) - 8)).toBeLessThan(0.4);
    }
    expect(new Set(places.map((p) => p.run))).toEqual(new Set([0, 1]));
  });

  it("open runs may share their ends, and closed ones their first point, but nothing else", () => {
    const xy = Float64Array.from([10, 0, 20, 0, 20, 10, 0, 10, 10, 5, 15, -5]);
    const runs: Rings = { xy, starts: Int32Array.from([0, 2, 4, 6]), parent: Int32Array.from([-1, -1, -1]) };
    // Two that meet end to end, and a third across the first.
    expect(crossingPolylines(runs, Float64Array.from([0, 0, 20, 0, 12, 8]), Uint8Array.from([0, 0, 0]))).toEqual([0, 2]);
  });

  it("of nothing are none", () => {
    expect(crossingPlaces(ringsFrom([]))).toEqual([]);
  });
});

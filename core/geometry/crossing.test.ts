import { describe, expect, it } from "vitest";
import { ringsFrom, type Rings } from "../geometry/rings.ts";
import { blob, circle, seeded, star } from "../testing/random.ts";
import { crossingEdges } from "./crossing.ts";
import { closedEdges, isSound, unsoundPlaces } from "./sound.ts";

const crossingRings = (r: Rings): number[] => [...new Set(unsoundPlaces(r).map((p) => p.ring))].sort((a, b) => a - b);

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
      expect(crossingRings(r)).toEqual(want);
      // Asked only about what has changed, it finds every pair that has a changed ring in it.
      const { edges } = closedEdges(r);
      const key = (pairs: Int32Array, keep: (a: number, b: number) => boolean): string[] =>
        Array.from({ length: pairs.length / 2 }, (_, q) => [pairs[2 * q], pairs[2 * q + 1]].sort((a, b) => a - b))
          .filter(([a, b]) => keep(edges.run[a], edges.run[b]))
          .map(String)
          .sort();
      const changed = Uint8Array.from(loops, () => (random() < 0.4 ? 1 : 0));
      expect(key(crossingEdges(edges, changed), () => true)).toEqual(
        key(crossingEdges(edges), (a, b) => changed[a] + changed[b] > 0),
      );
      some += want.length;
    }
    expect(some).toBeGreaterThan(40);
  });

  it("lie where they are said to", () => {
    const r = ringsFrom([circle(0, 0, 10, 200), circle(12, 0, 10, 200)]);
    const places = unsoundPlaces(r);
    for (const p of places) {
      expect(Math.abs(p.x - 6)).toBeLessThan(0.4);
      expect(Math.abs(Math.abs(p.y) - 8)).toBeLessThan(0.4);
    }
    expect(new Set(places.map((p) => p.ring))).toEqual(new Set([0, 1]));
  });

  it("open runs may share the places they end at, and nothing else", () => {
    // Two that meet end to end, a third across the first, and a loop that comes back to where it began.
    const xy = Float64Array.from([0, 0, 10, 0, 20, 0, 20, 0, 20, 10, 12, 8, 15, -5, 20, 0, 30, 5, 30, -5, 20, 0]);
    const next = Int32Array.from([1, 2, -1, 4, -1, 6, -1, 8, 9, 10, -1]);
    const run = Int32Array.from([0, 0, 0, 1, 1, 2, 2, 3, 3, 3, 3]);
    const ends = Uint8Array.from([1, 0, 1, 1, 1, 1, 1, 1, 0, 0, 1]);
    expect([...crossingEdges({ xy, next, run, ends })]).toEqual([1, 5]);
    // Back along the run it meets, though they share only an end.
    xy.set([14, 0], 8);
    expect(crossingEdges({ xy, next, run, ends }).length).toBeGreaterThan(2);
  });
});

describe("rings are not sound", () => {
  const square: [number, number][] = [
    [0, 0],
    [4, 0],
    [4, 4],
    [0, 4],
  ];
  const cases: [string, Rings][] = [
    [
      "where one touches another in a point",
      ringsFrom([
        square,
        [
          [4, 4],
          [6, 4],
          [6, 6],
          [4, 6],
        ],
      ]),
    ],
    [
      "where a corner lies on another's side",
      ringsFrom([
        square,
        [
          [4, 2],
          [6, 1],
          [6, 3],
        ],
      ]),
    ],
    ["where one lies on another", ringsFrom([square, square])],
    [
      "where a side lies along another's",
      ringsFrom([
        square,
        [
          [4, 1],
          [6, 1],
          [6, 3],
          [4, 3],
        ],
      ]),
    ],
    [
      "where one touches itself in a point",
      ringsFrom([
        [
          [0, 0],
          [4, 0],
          [2, 2],
          [4, 4],
          [0, 4],
          [2, 2],
        ],
      ]),
    ],
    [
      "where one turns back onto itself",
      ringsFrom([
        [
          [0, 0],
          [4, 0],
          [4, 4],
          [4, 6],
          [4, 4],
          [0, 4],
        ],
      ]),
    ],
    [
      "where one has no more than two places",
      ringsFrom([
        [
          [0, 0],
          [4, 0],
          [4, 0],
          [0, 0],
        ],
      ]),
    ],
    [
      "where one encloses nothing",
      ringsFrom([
        [
          [0, 0],
          [4, 0],
          [8, 0],
        ],
      ]),
    ],
  ];
  for (const [name, r] of cases) it(name, () => expect(isSound(r)).toBe(false));
  it("but where none of that is so", () => {
    expect(
      isSound(
        ringsFrom([
          square,
          [
            [4.000001, 4],
            [6, 4],
            [6, 6],
            [4.000001, 6],
          ],
        ]),
      ),
    ).toBe(true);
    expect(isSound(ringsFrom([[...square, [0, 0]], []]))).toBe(true);
    expect(isSound(ringsFrom([]))).toBe(true);
  });
});

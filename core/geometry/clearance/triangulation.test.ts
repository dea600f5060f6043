import Delaunator from "delaunator";
import { describe, expect, it } from "vitest";
import { seeded } from "../../testing/random.ts";
import { FRAME, Triangulation } from "./triangulation.ts";

const points = (random: () => number, n: number) => Float64Array.from({ length: 2 * n }, () => 100 * random());
/** Triangles as sorted triples without the frame's. */
const triples = (corner: ArrayLike<number>, n: number, off: number) =>
  Array.from({ length: n }, (_, t) =>
    [corner[3 * t] - off, corner[3 * t + 1] - off, corner[3 * t + 2] - off].sort((a, b) => a - b),
  )
    .filter((t) => t[0] >= 0)
    .map((t) => t.join());

describe("a triangulation that grows", () => {
  it("holds the same triangles as one built in one go", () => {
    for (let seed = 1; seed <= 10; seed++) {
      const random = seeded(seed);
      const all = points(random, 300);
      const t = new Triangulation(all.slice(0, 200));
      for (let i = 100; i < 300; i++) t.insert(all[2 * i], all[2 * i + 1], FRAME + Math.floor(random() * 50));
      const frame = t.xy.slice(0, 2 * FRAME);
      const whole = new Float64Array(2 * FRAME + 600);
      whole.set(frame);
      whole.set(all, 2 * FRAME);
      const d = new Delaunator(whole);
      expect(new Set(triples(t.corner, t.triangles, FRAME))).toEqual(
        new Set(triples(d.triangles, d.triangles.length / 3, FRAME)),
      );
    }
  });

  it("stays whole when points fall on edges and in line", () => {
    const t = new Triangulation(Float64Array.of(0, 0, 8, 0, 8, 8, 0, 8));
    for (const x of [4, 2, 6, 1, 3, 5, 7]) t.insert(x, 0, FRAME);
    for (const [x, y] of [
      [4, 4],
      [4, 8],
      [0, 4],
      [8, 4],
      [2, 2],
    ])
      t.insert(x, y, FRAME + 1);
    for (let e = 0; e < 3 * t.triangles; e++) {
      const o = t.twin[e];
      if (o < 0) continue;
      expect(t.twin[o]).toBe(e);
      expect(t.corner[o]).toBe(t.corner[e % 3 === 2 ? e - 2 : e + 1]);
    }
    for (const [i, j] of [
      [0, 1],
      [1, 2],
    ])
      expect(t.edge(FRAME + i, FRAME + j)).toBe(-1);
    expect(t.edge(FRAME, FRAME + 7)).toBeGreaterThanOrEqual(0);
    for (let v = 0; v < t.count; v++) expect(t.corner[t.leaving[v]]).toBe(v);
  });
});

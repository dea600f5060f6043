import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { type Graph, retraced } from "./retrace.ts";
import { trails } from "./trail.ts";

/** A stem along x with teeth up from it, each tooth's tip at the top (z 0), the stem deep. */
function comb(teeth: number, tooth: number): Graph {
  const g = { x: [] as number[], y: [] as number[], z: [] as number[], a: [] as number[], b: [] as number[] };
  for (let i = 0; i < teeth; i++) {
    g.x.push(i, i);
    g.y.push(0, tooth);
    g.z.push(-2, 0);
    g.a.push(2 * i);
    g.b.push(2 * i + 1);
    if (i > 0) {
      g.a.push(2 * i - 2);
      g.b.push(2 * i);
    }
  }
  return g;
}
const twice = (g: Graph, again: readonly number[]): Graph => ({
  ...g,
  a: [...Array.from(g.a), ...again.map((e) => g.a[e])],
  b: [...Array.from(g.b), ...again.map((e) => g.b[e])],
});
const cover = (g: Graph) => trails(g.x, g.y, g.z, g.a, g.b, true);

describe("ways run twice", () => {
  it("make one trail of a comb, begun at a tip", () => {
    const g = comb(12, 1.5);
    expect(cover(g).length).toBeGreaterThan(4);
    const all = cover(twice(g, retraced(g, 5)));
    expect(all.length).toBe(1);
    expect(all[0].z[0]).toBe(0);
  });
  it("only where they are short", () => {
    const g = comb(12, 50);
    for (const e of retraced(g, 5))
      expect(
        Math.hypot(Number(g.x[g.a[e]]) - Number(g.x[g.b[e]]), Number(g.y[g.a[e]]) - Number(g.y[g.b[e]])),
      ).toBeLessThan(5);
  });
  it("of random graphs leave every piece with two odd nodes at most, and every edge is run", () => {
    const random = seeded(9);
    for (let round = 0; round < 60; round++) {
      const n = 4 + Math.floor(30 * random());
      const at = () => Array.from({ length: n }, () => 10 * random());
      const m = n + Math.floor(n * random());
      const g: Graph = {
        x: at(),
        y: at(),
        z: at(),
        a: Array.from({ length: m }, () => Math.floor(n * random())),
        b: Array.from({ length: m }, () => Math.floor(n * random())),
      };
      const all = twice(g, retraced(g, Infinity));
      const degree = new Int32Array(n);
      const root = Array.from({ length: n }, (_, i) => i);
      const find = (i: number): number => (root[i] === i ? i : find(root[i]));
      for (let e = 0; e < all.a.length; e++) {
        degree[all.a[e]]++;
        degree[all.b[e]]++;
        root[find(all.a[e])] = find(all.b[e]);
      }
      const odd = new Map<number, number>();
      degree.forEach((d, i) => d % 2 && odd.set(find(i), (odd.get(find(i)) ?? 0) + 1));
      expect(Math.max(0, ...odd.values()), `round ${round}`).toBeLessThanOrEqual(2);
      const covered = cover(all).reduce((s, t) => s + t.x.length - 1, 0);
      expect(covered).toBe(all.a.length);
      const pieces = new Set(
        Array.from({ length: n }, (_, i) => i)
          .filter((i) => degree[i] > 0)
          .map(find),
      ).size;
      expect(cover(all).length).toBe(pieces);
    }
  });
});

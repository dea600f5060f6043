import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import { clearanceOf, inset } from "../../geometry/clearance/clearance.ts";
import { insideRegion, ringCount, ringIndices, type Rings, ringsFrom } from "../../geometry/rings.ts";
import { newSurface } from "../../proof/surface.ts";
import { sweep } from "../../proof/sweep.ts";
import { planOn } from "../../testing/cutting.ts";
import { circle, distanceToRings, seeded, star } from "../../testing/random.ts";
import { againstPocket } from "../../testing/reach.ts";
import { cutterOf } from "../../testing/shop.ts";
import { isTravel, RAPID } from "../../toolpath/toolpath.ts";
import { Parts } from "./parts.ts";

/** Stars at random, one in each square of a board, some of them with an island, and one ring round a small disc. */
function crowd(seed: number): Rings {
  const random = seeded(seed);
  const loops: [number, number][][] = [];
  for (const [cx, cy] of [
    [20, 20],
    [60, 22],
    [22, 60],
  ] as const) {
    loops.push(star(random, 5 + Math.floor(6 * random()), 5, 16, cx, cy));
    if (random() < 0.5) loops.push(circle(cx, cy, 2, 30, true));
  }
  loops.push(circle(62, 62, 16, 60), circle(62, 62, 10, 60, true), circle(62, 62, 4, 30));
  return ringsFrom(loops);
}

describe("parts of an area", () => {
  it("are what hangs together of the places far enough inside: flooded over a raster, ten crowds", () => {
    const cell = 0.4;
    const side = 212;
    for (let seed = 1; seed <= 10; seed++) {
      const region = crowd(seed);
      const from = 0.5 + (seed % 4) * 0.7;
      const parts = new Parts(inset(clearanceOf(region), from).rings);
      const d = new Float64Array(side * side);
      for (let k = 0; k < d.length; k++) {
        const [x, y] = [((k % side) + 0.5) * cell, (Math.floor(k / side) + 0.5) * cell];
        d[k] = (insideRegion(region, x, y) ? 1 : -1) * distanceToRings(region, x, y);
      }
      // Cells well inside hang together only where the places do; places in one part may still fall apart in cells.
      const flood = new Int32Array(d.length).fill(-1);
      let strangers = 0;
      for (let start = 0; start < d.length; start++) {
        if (d[start] < from + cell || flood[start] >= 0) continue;
        const own = parts.at(((start % side) + 0.5) * cell, (Math.floor(start / side) + 0.5) * cell);
        expect(own, `seed ${seed}`).toBeGreaterThanOrEqual(0);
        const open = [start];
        flood[start] = start;
        while (open.length > 0) {
          const k = open.pop()!;
          if (parts.at(((k % side) + 0.5) * cell, (Math.floor(k / side) + 0.5) * cell) !== own) strangers++;
          for (const q of [k - 1, k + 1, k - side, k + side])
            if (d[q] >= from + cell && flood[q] < 0) {
              flood[q] = start;
              open.push(q);
            }
        }
      }
      expect(strangers, `seed ${seed}`).toBe(0);
      // The disc stands free in its ring, and both are parts of their own.
      if (from < 3) expect(parts.at(62, 62)).not.toBe(parts.at(62, 75));
    }
  });

  it("hold every ring farther in, and those that bound them", () => {
    const region = crowd(3);
    const c = clearanceOf(region);
    const parts = new Parts(inset(c, 1).rings);
    for (const d of [1, 1.001, 1.5, 2.6]) {
      const { rings } = inset(c, d);
      for (let k = 0; k < ringCount(rings); k++) expect(parts.ofRing(rings, k), `at ${d}`).toBeGreaterThanOrEqual(0);
    }
    // Both sides of the ring round the disc are one part.
    const { rings } = inset(c, 1);
    const at = (x: number, y: number) =>
      ringIndices(rings).find((k) =>
        rings.xy
          .subarray(2 * rings.starts[k], 2 * rings.starts[k + 1])
          .some((_, i, all) => i % 2 === 0 && Math.hypot(all[i] - x, all[i + 1] - y) < 0.5),
      )!;
    expect(parts.ofRing(rings, at(77, 62))).toBe(parts.ofRing(rings, at(73, 62)));
    expect(parts.ofRing(rings, at(77, 62))).not.toBe(parts.ofRing(rings, at(65, 62)));
  });
});

describe("a pocket of several parts", () => {
  // How often it may lift for each part and level: to each wall and place that no open ground leads to.
  for (const [seed, lifts, settings] of [
    [1, 2.2, { finish: 0.2, first: "floor" }],
    [2, 3.1, { finish: 0.2, first: "walls" }],
    [3, 0.6, { finish: 0 }],
    [4, 1.9, { finish: 0.2, first: "floor", entry: "ramp" }],
    [5, 3.8, { finish: 0.2, first: "floor", entry: "plunge" }],
  ] as const)
    it(`${JSON.stringify(settings)}: each is cut to its floor before the next, with few lifts`, () => {
      const region = crowd(seed);
      const plan = planOn("pocket", region, "flat:2", { ...settings, depth: 3, stepdown: 1, stepover: 0.8 });
      const s = newSurface(85, 85, 0.3);
      const report = sweep(s, plan.toolpath, profileOf(cutterOf("flat:2")), 1);
      const r = againstPocket(s, region, 1, 3, 0.4);
      expect(r.reachable).toBeGreaterThan(5000);
      expect({ outside: r.outside, deeper: r.deeper, left: r.left }).toEqual({ outside: 0, deeper: 0, left: 0 });
      expect(report.rapids, `rapid at move ${report.rapidAt}`).toBe(0);
      const parts = new Parts(inset(clearanceOf(region), 1 - 1e-4).rings);
      const t = plan.toolpath;
      const visited: number[] = [];
      let [reached, levels, lifted] = [0, 0, 0];
      for (let i = 1; i < t.kind.length; i++) {
        if (isTravel(t, i)) lifted++;
        if (t.kind[i] === RAPID || t.z[i] >= 0) continue;
        const level = Math.ceil(-t.z[i] - 1e-9);
        const part = parts.at(t.x[i], t.y[i]);
        if (part >= 0 && part !== visited[visited.length - 1]) {
          visited.push(part);
          reached = level;
        } else if (level > reached) {
          reached = level;
          levels++;
        }
      }
      expect(visited.length).toBeGreaterThan(3);
      expect(new Set(visited).size, "a part that was left is not gone back to").toBe(visited.length);
      // Each part has two levels below its first.
      expect(levels).toBe(2 * visited.length);
      expect(lifted / (3 * visited.length)).toBeLessThan(lifts);
    });
});

import { describe, expect, it } from "vitest";
import { blob, circle, distanceToRings, seeded, star } from "../../testing/random.ts";
import { insideRegion, regionArea, ringArea, ringCount, ringsFrom, type Rings } from "../rings.ts";
import { SegmentGrid } from "../segmentgrid.ts";
import { clearanceOf, inset } from "./clearance.ts";

const square = ringsFrom([
  [
    [0, 0],
    [20, 0],
    [20, 20],
    [0, 20],
  ],
]);
const ring = ringsFrom([circle(0, 0, 20, 720), circle(0, 0, 12, 720, true)]);

function checkAxis(region: Rings) {
  const c = clearanceOf(region);
  let worst = 0;
  for (let i = 0; i < c.axis.x.length; i++) {
    const d = distanceToRings(region, c.axis.x[i], c.axis.y[i]);
    worst = Math.max(worst, Math.abs(d - c.axis.d[i]));
    if (c.axis.d[i] > 0.01) expect(insideRegion(region, c.axis.x[i], c.axis.y[i])).toBe(true);
  }
  return { c, worst };
}

describe("clearance", () => {
  it("of a square: both diagonals, widest in the middle", () => {
    const { c, worst } = checkAxis(square);
    expect(worst).toBeLessThan(1e-6);
    expect(c.widest).toBeCloseTo(10, 6);
    let length = 0;
    for (let e = 0; e < c.axis.a.length; e++)
      if (c.kept[e])
        length += Math.hypot(
          c.axis.x[c.axis.a[e]] - c.axis.x[c.axis.b[e]],
          c.axis.y[c.axis.a[e]] - c.axis.y[c.axis.b[e]],
        );
    expect(length).toBeCloseTo(2 * Math.hypot(20, 20), 3);
  });

  it("of a ring: a circle midway, with no branches", () => {
    const { c, worst } = checkAxis(ring);
    expect(worst).toBeLessThan(1e-4);
    for (let e = 0; e < c.axis.a.length; e++)
      if (c.kept[e]) expect(Math.hypot(c.axis.x[c.axis.a[e]], c.axis.y[c.axis.a[e]])).toBeCloseTo(16, 2);
  });

  it("of random stars: every node's clearance is the true distance", () => {
    for (let seed = 1; seed <= 25; seed++) {
      const region = ringsFrom([star(seeded(seed), 9 + (seed % 20), 6, 30)]);
      expect(checkAxis(region).worst, `seed ${seed}`).toBeLessThan(2e-3);
    }
  });
});

describe("inset", () => {
  it("of a square is the smaller square", () => {
    const { rings } = inset(clearanceOf(square), 4);
    expect(ringCount(rings)).toBe(1);
    expect(regionArea(rings)).toBeCloseTo(144, 3);
  });

  it("of a ring keeps both boundaries", () => {
    const { rings } = inset(clearanceOf(ring), 2.5);
    expect(ringCount(rings)).toBe(2);
    expect(regionArea(rings)).toBeCloseTo(Math.PI * (17.5 ** 2 - 14.5 ** 2), 0);
  });

  it("has rounded inner corners round reflex vertices", () => {
    // An L: inset by 2 has an arc of radius 2 round the inner corner, so the area falls short of the mitred one by (1
    // − π/4)·4.
    const L = ringsFrom([
      [
        [0, 0],
        [20, 0],
        [20, 10],
        [10, 10],
        [10, 20],
        [0, 20],
      ],
    ]);
    const { rings } = inset(clearanceOf(L), 2);
    expect(regionArea(rings)).toBeCloseTo(16 * 6 + 6 * 10 + (1 - Math.PI / 4) * 4, 1);
  });

  it("of random stars lies at exactly that distance, everywhere that far inside", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = seeded(seed * 7);
      const region = ringsFrom([star(random, 8 + (seed % 24), 8, 30), circle(0, 0, 3, 12, true)]);
      const c = clearanceOf(region);
      for (const rho of [0.3, 1, 2.2, 4]) {
        const { rings } = inset(c, rho);
        for (let i = 0; i < rings.xy.length / 2; i++) {
          const d = distanceToRings(region, rings.xy[2 * i], rings.xy[2 * i + 1]);
          expect(Math.abs(d - rho), `seed ${seed} at ${rho}`).toBeLessThan(0.004);
        }
        // Area by counting on a grid: the set {d ≥ ρ} and the rings must be the same region.
        let want = 0;
        let got = 0;
        const step = 0.8;
        for (let x = -30; x < 30; x += step)
          for (let y = -30; y < 30; y += step) {
            const inside = insideRegion(region, x, y);
            const d = distanceToRings(region, x, y);
            if (Math.abs(d - rho) < 0.01) continue;
            if (inside && d > rho) want++;
            if (insideRegion(rings, x, y)) got++;
          }
        expect(got, `seed ${seed} at ${rho}`).toBe(want);
        for (let k = 0; k < ringCount(rings); k++) expect(Math.abs(ringArea(rings, k))).toBeGreaterThan(0);
      }
    }
  });

  it(
    "of finely flattened curves in several pieces: every point and every chord keeps its distance, no ring " +
      "strays into another",
    () => {
      for (let seed = 1; seed <= 2; seed++) {
        const random = seeded(seed * 31);
        const loops: [number, number][][] = [];
        for (let q = 0; q < 4; q++) {
          const [x, y] = [60 * (q % 2), 60 * (q >> 1)];
          loops.push(blob(random, 700 + 200 * q, 24, x, y, 0.16), circle(140 + 12 * q, 0, 4, 360));
          for (let h = 0; h < 3; h++) {
            // A narrow slit, rounded at its ends, pointing outwards.
            const a = 0.7 + 2.1 * h + 0.3 * random();
            const slit = circle(0, 0, 1, 48, true).map(([u, v]) => {
              const [lx, ly] = [11 + 5 * u, 0.7 * v];
              return [x + lx * Math.cos(a) - ly * Math.sin(a), y + lx * Math.sin(a) + ly * Math.cos(a)] as [
                number,
                number,
              ];
            });
            loops.push(slit);
          }
        }
        const region = ringsFrom(loops);
        const c = clearanceOf(region);
        const grid = new SegmentGrid(region);
        for (let rho = 0.15; rho < c.widest; rho += 0.273) {
          const { rings } = inset(c, rho);
          let worst = 0;
          for (let k = 0; k < ringCount(rings); k++)
            for (let i = rings.starts[k]; i < rings.starts[k + 1]; i++) {
              const j = i + 1 < rings.starts[k + 1] ? i + 1 : rings.starts[k];
              const [x, y, u, v] = [rings.xy[2 * i], rings.xy[2 * i + 1], rings.xy[2 * j], rings.xy[2 * j + 1]];
              for (const [px, py] of [
                [x, y],
                [(x + u) / 2, (y + v) / 2],
              ])
                worst = Math.max(worst, Math.abs(grid.distance(px, py, rho + 3) - rho));
            }
          expect(worst, `seed ${seed} at ${rho}`).toBeLessThan(0.01);
        }
      }
    },
  );
});

import { describe, expect, it } from "vitest";
import { insideRegion, ringsFrom } from "../geometry/rings.ts";
import { circle, distanceToRings, seeded, star } from "../testing/random.ts";
import { planOn } from "../testing/cutting.ts";
import { profileOf } from "../cutters/profile.ts";
import { sloping } from "./asked.ts";
import { withoutFallen } from "./fallen.ts";
import { lostDetail } from "./lost.ts";
import { newSurface } from "./surface.ts";
import { sweep } from "./sweep.ts";
import { cutterOf } from "../testing/shop.ts";
import { Span } from "../testing/span.ts";

describe("lost detail", () => {
  const square = ringsFrom([
    [
      [20, 20],
      [80, 20],
      [80, 80],
      [20, 80],
    ],
  ]);
  it("of a pocket: the four corners that a round cutter cannot reach, R²(1 − π/4) each", () => {
    const plan = planOn("pocket", square, "flat:12", { depth: 3, finish: 0 });
    const s = newSurface(100, 100, 0.1, 20);
    sweep(s, plan.toolpath, profileOf(cutterOf("flat:12")), 1);
    const map = new Uint8Array(s.z.length);
    const l = lostDetail(s, plan.asked!, map);
    expect(l.area).toBeCloseTo(3600, 0);
    expect(l.uncut).toBe(0);
    // Cells beside the walls are not judged, which trims the thin ends of each corner.
    expect(l.lost).toBeGreaterThan(0.85 * 4 * 36 * (1 - Math.PI / 4));
    expect(l.lost).toBeLessThan(1.02 * 4 * 36 * (1 - Math.PI / 4));
    expect(l.lostHeight).toBeCloseTo(3, 5);
    expect(Math.min(Math.abs(l.lostAt.x - 20), Math.abs(l.lostAt.x - 80))).toBeLessThan(3);
    expect(map.filter((v) => v > 0).length * 0.01).toBeCloseTo(l.lost, 6);
  });
  it("of a carve with a sharp cutter: nothing; without its floor passes: the floor", () => {
    const plan = planOn("vcarve", square, "v:60:12", { floor: 2, ridge: 0.1 });
    const s = newSurface(100, 100, 0.2, 20);
    sweep(s, plan.toolpath, profileOf(cutterOf("v:60:12")), 1);
    const l = lostDetail(s, plan.asked!, new Uint8Array(s.z.length));
    expect([l.lost, l.uncut]).toEqual([0, 0]);
    const bare = newSurface(100, 100, 0.2, 20);
    const n = lostDetail(bare, plan.asked!, new Uint8Array(bare.z.length));
    expect(n.lost + n.uncut).toBeGreaterThan(0.98 * n.area);
    expect(n.uncutHeight).toBeCloseTo(2, 6);
  });
});

describe("what falls out", () => {
  it("is waste with nothing to hold it, and nothing else", () => {
    const ring = ringsFrom([circle(50, 50, 30, 180), circle(50, 50, 15, 120, true)]);
    const plan = planOn("profile", ring, "flat:4", { tabs: 0 });
    const s = newSurface(100, 100, 0.5, 20);
    sweep(s, plan.toolpath, profileOf(cutterOf("flat:4")), 1);
    const look = withoutFallen(s, [plan.within!]);
    const z = (x: number, y: number) => look.z[Math.floor(y / 0.5) * look.width + Math.floor(x / 0.5)];
    expect(z(50, 50)).toBeLessThan(-20);
    expect(z(50, 72)).toBe(0);
    expect(z(3, 3)).toBe(0);
    expect(s.z[100 * s.width + 100]).toBe(0);
    // Tabs hold the slug.
    const held = planOn("profile", ring, "flat:4", { tabs: 4, side: "inside" });
    const t = newSurface(100, 100, 0.5, 20);
    sweep(t, held.toolpath, profileOf(cutterOf("flat:4")), 1);
    expect(withoutFallen(t, [held.within!]).z[Math.floor(72 / 0.5) * t.width + 100]).toBe(0);
  });
});

describe("a sloping surface that is asked for", () => {
  it("is as deep as its place lies inside, and counts as reached only where nothing stands above it", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const random = seeded(seed);
      const region = ringsFrom([star(random, 9, 14, 18, 20, 20), circle(20, 20, 2 + 3 * random(), 24, true)]);
      const [floor, slope] = [0.5 + 4 * random(), 0.4 + 2 * random()];
      const grid = { width: 80, height: 80, cell: 0.5 };
      const asked = sloping(region, floor, slope, 0.1);
      const [wanted, isReached] = [asked.over(grid), asked.isReached!(grid)];
      let reached = 0;
      const off = new Span();
      const wrong: string[] = [];
      for (let k = 0; k < 80 * 80; k++) {
        const [x, y] = [((k % 80) + 0.5) * 0.5, (Math.floor(k / 80) + 0.5) * 0.5];
        if (!insideRegion(region, x, y)) continue;
        const truth = -Math.min(floor, slope * distanceToRings(region, x, y));
        off.take(Math.abs(wanted(k) - truth), () => `${x}, ${y}`);
        // Just under what may stand there, and just over.
        const within = 0.05 * random();
        const isRight = isReached(k, truth + within - 1e-6, within) && !isReached(k, truth + within + 1e-6, within);
        if (!isRight) wrong.push(`${x}, ${y}`);
        reached++;
      }
      expect(off.most, `seed ${seed}: ${off.mostAt}`).toBeLessThan(1e-9);
      expect(wrong, `seed ${seed}`).toEqual([]);
      expect(reached).toBeGreaterThan(100);
    }
  });
});

describe("what sweeping reports", () => {
  const at = (z: number[], kind: number[]) => ({
    kind: Uint8Array.from(kind),
    x: Float64Array.from([10, 10, 10, 30, 30]),
    y: Float64Array.from([10, 10, 10, 10, 10]),
    z: Float64Array.from(z),
    cx: new Float64Array(5),
    cy: new Float64Array(5),
    feed: new Float64Array(5).fill(500),
  });
  it("rapids through stock and plunges into it, and neither where the ground is open", () => {
    const p = profileOf(cutterOf("flat:4"));
    const s = newSurface(50, 20, 0.25, 10);
    // Down at rapid speed, then across at rapid speed.
    expect(sweep(s, at([5, 0.5, -2, -2, 5], [0, 0, 0, 0, 0]), p, 1)).toMatchObject({ rapids: 2, rapidAt: 2 });
    expect(sweep(s, at([5, 0.5, -2, -2, 5], [0, 0, 0, 0, 0]), p, 1)).toMatchObject({ rapids: 0 });
    expect(sweep(s, at([5, 0.5, -4, -4, 5], [0, 0, 4, 1, 0]), p, 1)).toMatchObject({
      rapids: 0,
      plunges: 1,
      plungeAt: 2,
    });
    expect(sweep(s, at([5, 0.5, -4, -4, 5], [0, 0, 4, 1, 0]), p, 1)).toMatchObject({ plunges: 0 });
  });
});

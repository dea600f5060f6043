import { describe, expect, it } from "vitest";
import { ringsFrom, insideRegion } from "../../geometry/rings.ts";
import { planOn, proofOf } from "../../testing/cutting.ts";
import { circle, distanceToRings, roundsAndSquare, seeded, star } from "../../testing/random.ts";

describe("hatch", () => {
  it("covers the share of the area that width over spacing says, at any angle, and stays inside", () => {
    for (const [way, angle] of [
      ["lines", 0],
      ["lines", 37],
      ["rings", 0],
    ] as const) {
      const region = ringsFrom([star(seeded(4), 9, 25, 40, 50, 50), circle(50, 50, 8, 60, true)]);
      const plan = planOn("hatch", region, "flat:0.8", { way, angle, spacing: 2.4, depth: 0.3, edge: false });
      const s = proofOf([{ ...plan, cutter: "flat:0.8" }], 0.1);
      let [cut, inside, outside] = [0, 0, 0];
      for (let j = 0; j < s.height; j++)
        for (let i = 0; i < s.width; i++) {
          const [x, y] = [(i + 0.5) * 0.1, (j + 0.5) * 0.1];
          const within = insideRegion(region, x, y);
          if (within) inside++;
          const z = s.z[j * s.width + i];
          if (z < 0) {
            cut++;
            if (!within && distanceToRings(region, x, y) > 0.01) outside++;
          }
        }
      expect(outside).toBe(0);
      expect(cut / inside, `${way} ${angle}`).toBeGreaterThan(0.29);
      expect(cut / inside, `${way} ${angle}`).toBeLessThan(0.36);
    }
  });

  it("crosses, and says when the cutter is too wide", () => {
    const region = ringsFrom([
      [
        [20, 20],
        [80, 20],
        [80, 80],
        [20, 80],
      ],
    ]);
    const one = planOn("hatch", region, "v:60:6", { spacing: 4, edge: false });
    const two = planOn("hatch", region, "v:60:6", { spacing: 4, edge: false, crossed: true });
    expect(two.facts.lines).toBeGreaterThan(1.9 * one.facts.lines);
    expect(planOn("hatch", ringsFrom([circle(50, 50, 0.3, 20)]), "flat:2", {}).notes[0]).toMatchObject({
      code: "cutter-too-wide",
    });
  });
});

describe("drill", () => {
  const art = ringsFrom(roundsAndSquare());

  it("goes through the stock with its full width, in pecks no deeper than asked, out of the hole between them", () => {
    const { toolpath: t, values } = planOn("drill", art, "drill:4", { peck: 5, most: 6, at: "90 90" });
    const bottoms = [...t.z].filter((_, i) => t.kind[i] === 4).sort((a, b) => a - b);
    // Stock 20 mm, 0.5 past it, and the point of 118°: 2 / tan 59°.
    expect(bottoms[0]).toBeCloseTo(-20 - (values.past as number) - 2 / Math.tan((59 * Math.PI) / 180), 9);
    expect(bottoms.filter((z) => z === bottoms[0]).length).toBe(4);
    let deepest = 0;
    for (let i = 1; i < t.kind.length; i++) {
      if (t.kind[i] === 0 && t.z[i] === 5) deepest = 0;
      if (t.kind[i] === 4) {
        expect(t.z[i]).toBeGreaterThanOrEqual(deepest - 5 - 1e-9);
        deepest = t.z[i];
      }
    }
    const s = proofOf([{ toolpath: t, cutter: "drill:4" }], 0.25);
    expect(s.z[Math.floor(20 / 0.25) * s.width + Math.floor(21.5 / 0.25)]).toBeLessThan(-20);
    expect(s.z[Math.floor(20 / 0.25) * s.width + Math.floor(22.5 / 0.25)]).toBe(0);
  });

  it("says when there is nothing to drill, and when circles are smaller than the drill", () => {
    expect(planOn("drill", art, "drill:4", { circles: false }).notes[0].code).toBe("nothing-to-drill");
    expect(planOn("drill", art, "drill:5", { most: 4.5 }).notes[0].code).toBe("drill-too-wide");
  });
});

import { describe, expect, it } from "vitest";
import { ringsFrom } from "../../geometry/rings.ts";
import { planOn, proofOf } from "../../testing/cutting.ts";
import type { Lines } from "../../outline/centre.ts";
import { figures } from "../../toolpath/toolpath.ts";

const square = ringsFrom([
  [
    [30, 30],
    [70, 30],
    [70, 70],
    [30, 70],
  ],
]);
/** A stroke that widens from 1 to 4 mm. */
const stroke: Lines = {
  xy: Float64Array.of(20, 50, 80, 50),
  width: Float64Array.of(1, 4),
  starts: Int32Array.of(0, 2),
  closed: Uint8Array.of(0),
};

describe("engraving against its definition", () => {
  it("follows the outline at the depth asked, in steps", () => {
    const plan = planOn("engrave", square, "v:60:10", { depth: 1.2, stepdown: 0.5 });
    const f = figures(plan.toolpath);
    expect(f.minZ).toBeCloseTo(-1.2, 9);
    const s = proofOf([{ ...plan, cutter: "v:60:10" }], 0.1);
    const at = (x: number, y: number) => s.z[Math.floor(y / s.cell) * s.width + Math.floor(x / s.cell)];
    expect(at(50, 30.05)).toBeLessThan(-1.05);
    expect(at(50, 50)).toBe(0);
    expect(at(50, 31)).toBe(0);
  });

  it("cuts as wide as the stroke was drawn, all along it", () => {
    const plan = planOn("engrave", square, "v:60:10", { by: "width", depth: 5, stepdown: 10 }, {}, stroke);
    const s = proofOf([{ ...plan, cutter: "v:60:10" }], 0.05);
    for (const x of [25, 40, 55, 75]) {
      const want = 1 + (3 * (x - 20)) / 60;
      let wide = 0;
      for (let y = 45; y < 55; y += s.cell)
        if (s.z[Math.floor(y / s.cell) * s.width + Math.floor(x / s.cell)] < -0.001) wide += s.cell;
      expect(Math.abs(wide - want), `at ${x}`).toBeLessThan(0.12);
    }
  });

  it("goes no deeper than the limit, and says what it needs where there is no centre line", () => {
    expect(
      figures(planOn("engrave", square, "v:60:10", { by: "width", depth: 1 }, {}, stroke).toolpath).minZ,
    ).toBeCloseTo(-1, 9);
    expect(planOn("engrave", square, "v:60:10", { by: "width", depth: 1 }).notes[0].message).toMatch(/centre line/);
    expect(planOn("engrave", square, "flat:2", { by: "width", depth: 1 }, {}, stroke).notes[0].message).toMatch(
      /flat cutter/i,
    );
  });
});

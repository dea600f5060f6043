import { describe, expect, it } from "vitest";
import { profileOf } from "../cutters/profile.ts";
import { ringsFrom } from "../geometry/rings.ts";
import type { Clamp } from "../job/document.ts";
import { newSurface } from "../proof/surface.ts";
import { sweep } from "../proof/sweep.ts";
import { planOn } from "../testing/cutting.ts";
import { seeded, star } from "../testing/random.ts";
import { cutterOf } from "../testing/shop.ts";
import { raised, travelHeight } from "./over.ts";
import { eachPiece } from "./pieces.ts";
import { CLEAR, RAPID } from "./toolpath.ts";

const clamp = (tall: number): Clamp => ({ x: 0, y: 0, width: 10, height: 10, tall });

describe("rapids over what stands on the stock", () => {
  it("are higher than the tallest clamp, and as usual where none stands higher", () => {
    expect(travelHeight()).toBe(CLEAR);
    expect(travelHeight([clamp(1)])).toBe(CLEAR);
    for (const tall of [4, 12, 30]) expect(travelHeight([clamp(1), clamp(tall)])).toBeGreaterThan(tall);
  });
  it("cut the same as before, and no sideways rapid is lower", () => {
    for (let seed = 1; seed <= 3; seed++) {
      const region = ringsFrom([star(seeded(seed), 9, 14, 40, 50, 50)]);
      const { toolpath } = planOn("pocket", region, "flat:4", { depth: 3 });
      const high = raised(toolpath, 20);
      const [a, b] = [newSurface(100, 100, 0.5), newSurface(100, 100, 0.5)];
      sweep(a, toolpath, profileOf(cutterOf("flat:4")), 1);
      sweep(b, high, profileOf(cutterOf("flat:4")), 1);
      expect(b.z).toEqual(a.z);
      for (let i = 1; i < high.kind.length; i++)
        if (high.kind[i] === RAPID && Math.hypot(high.x[i] - high.x[i - 1], high.y[i] - high.y[i - 1]) > 1e-9)
          expect(high.z[i]).toBe(20);
    }
  });
});

describe("moves as straight pieces", () => {
  it("go on from each other, end where the moves do, and keep near arcs", () => {
    const region = ringsFrom([star(seeded(4), 12, 10, 40, 50, 50)]);
    const { toolpath: t } = planOn("profile", region, "flat:4", { tabs: 2 });
    let last: [number, number, number] | null = null;
    let length = 0;
    eachPiece(t, (x0, y0, z0, x1, y1, z1) => {
      if (last) expect([x0, y0, z0]).toEqual(last);
      last = [x1, y1, z1];
      length += Math.hypot(x1 - x0, y1 - y0);
    });
    const n = t.kind.length - 1;
    expect(last).toEqual([t.x[n], t.y[n], t.z[n]]);
    expect(length).toBeGreaterThan(200);
  });
});

import { describe, expect, it } from "vitest";
import { clearanceOf } from "../../geometry/clearance/clearance.ts";
import { strokeWidths } from "../../geometry/clearance/strokes.ts";
import { ringsOf } from "../../geometry/morph.ts";
import { resolve } from "../../settings/fields.ts";
import { seeded } from "../../testing/random.ts";
import { begun, cutterOf, materialNamed, ROUTER } from "../../testing/shop.ts";
import { built } from "../../testing/building.ts";
import type { CutContext } from "../kind.ts";
import { vcarve } from "./vcarve.ts";

const context = (width: number | null, thickness: number, cutter = "v:60:12"): CutContext => ({
  cutter: cutterOf(cutter),
  stock: { width: 300, height: 200, thickness, margin: 5, coat: 0, travel: 5 },
  material: materialNamed("ash"),
  machine: ROUTER,
  helpers: [],
  earlier: [],
  ...(width !== null && { strokes: { thinnest: width, typical: width, wide: width } }),
});
const floorOf = (c: CutContext, own = {}) => resolve(vcarve.fields, own, c).resolved.floor;

describe("the depth of a carve by itself", () => {
  it("is where strokes come to a point, a little deeper than usual", () => {
    // A stroke 4 mm wide comes to a point at 2 mm ÷ tan 30°.
    const { value, reason } = floorOf(context(4, 18));
    expect(value).toBe(3.5);
    expect(reason).toMatch(/come to a point/);
  });

  it("of wide strokes is a fifth of their width, so that it reads at its size", () => {
    expect(floorOf(context(22, 30))).toMatchObject({ value: 4.4, reason: "a fifth of the usual stroke, 22 mm wide" });
  });

  it("is as deep as one pass goes, where a fifth of wide strokes is little deeper, and all of it where much", () => {
    const pass = (c: CutContext) => Number(resolve(vcarve.fields, {}, c).resolved.stepdown.value);
    // An 8 mm cutter goes 3 mm deep at once in ash, a 12 mm one 4.5 mm.
    for (const [cutter, width] of [
      ["v:60:12", 28],
      ["v:60:8", 20],
    ] as const) {
      const c = context(width, 30, cutter);
      expect(width / 5).toBeGreaterThan(pass(c));
      expect(floorOf(c)).toMatchObject({ value: pass(c), reason: expect.stringMatching(/one pass/) as string });
    }
    expect(floorOf(context(29, 30, "v:60:8")).value).toBe(5.8);
    expect(floorOf(context(22, 30, "v:60:6")).value).toBe(4.4);
  });

  it("is the usual one for thin strokes, for what is left standing, and before anything is known", () => {
    for (const floor of [
      floorOf(context(1.5, 18)),
      floorOf(context(4, 18), { side: "stands" }),
      floorOf(context(null, 18)),
    ])
      expect(floor).toMatchObject({ value: 3, reason: "deep enough for clear shadows" });
  });

  it("never goes past what is safe, whatever the strokes, the stock and the cutter", () => {
    const random = seeded(11);
    for (let k = 0; k < 400; k++) {
      const thickness = 0.5 + 60 * random() ** 2;
      const cutter = ["v:15:6", "v:60:12", "v:90:25", "ball:3", "taper:0.5:7:4"][Math.floor(5 * random())];
      const { value } = floorOf(context(0.1 + 80 * random() ** 2, thickness, cutter));
      expect(value).toBeGreaterThan(0);
      expect(value).toBeLessThanOrEqual(Math.max(0.2, Math.min(6, 0.4 * thickness)) + 0.05);
    }
  });

  it("follows the size of the picture through the job", () => {
    // A bar of 10 × 120 pixels.
    const [width, height] = [160, 40];
    const data = new Uint8Array(4 * width * height).fill(255);
    for (let y = 15; y < 25; y++)
      for (let x = 20; x < 140; x++) data.fill(0, 4 * (y * width + x), 4 * (y * width + x) + 3);
    const asset = { sha: "0".repeat(64), name: "bar.png", width, height };
    const floorAt = (wide: number) => {
      const job = begun("sign", asset, { width: 400, height: 200, thickness: 18 });
      Object.assign(job.makings[0].settings, { width: wide, measured: "picture" });
      return built(job, { width, height, data }, { cells: 10_000 }).cuts.find((c) => c.id === "carve")!.values.floor;
    };
    // 4 mm wide, but for what hard pixels leave open.
    expect(Math.abs(Number(floorAt(64)) - 3.5)).toBeLessThan(0.2);
    expect(floorAt(32)).toBe(3);
  });

  it("knows the width that nine tenths of the strokes lie under", () => {
    // Nine tenths of a length are 4 mm wide, the rest 12.
    const region = ringsOf([
      [0, 0, 400, 0, 400, 4, 0, 4],
      [0, 50, 30, 50, 30, 62, 0, 62],
    ]);
    const { typical, wide } = strokeWidths(clearanceOf(region))!;
    expect(typical).toBeCloseTo(4, 1);
    expect(wide).toBeCloseTo(4, 1);
  });
});

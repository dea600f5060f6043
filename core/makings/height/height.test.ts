import { describe, expect, it } from "vitest";
import { buildJob, type BuildResult } from "../../job/build.ts";
import { addMaking, addUsualHelper } from "../../job/edit.ts";
import { mainHeights } from "../../job/drawings.ts";
import { backlit } from "../../output/backlit.ts";
import { litView } from "../../proof/light.ts";
import { pieceSeen } from "../../job/seen.ts";
import { outputsOf } from "../../job/outputs.ts";
import { inspect } from "../../inspect/inspect.ts";
import type { BoardJob } from "../../job/document.ts";
import { onePicture } from "../../job/tools.ts";
import { Kept } from "../../kept.ts";
import type { Raster } from "../../picture/raster.ts";
import { begun, cutterOf, SHOP } from "../../testing/shop.ts";
import { productIn } from "../../testing/building.ts";
import { encoded, lightOf } from "../../colour.ts";
import { thicknessFor } from "../litho/make.ts";
import { curvePoints, curveThrough } from "../../height/curve.ts";
import { rangeOf } from "../../height/field.ts";
import { greysOf } from "./spread.ts";

/** A picture of so many bits whose grey rises evenly from left to right. */
function ramp(width: number, height: number, wide: boolean): Raster {
  const most = wide ? 65535 : 255;
  const data = wide ? new Uint16Array(4 * width * height) : new Uint8Array(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const v = Math.round((most * x) / (width - 1));
      data.set([v, v, v, most], 4 * (y * width + x));
    }
  return { width, height, data };
}

/** As many pixels of every grey from one to another. */
const binsOf = (from: number, to: number) =>
  Uint32Array.from({ length: 256 }, (_, g) => (g >= from && g <= to ? 50 : 0));

const STOCK = { width: 60, height: 40, thickness: 10, margin: 0 };
function job(outcome: string, raster: Raster, edit: (j: BoardJob) => void = () => {}): BoardJob {
  const { width, height } = raster;
  const j = begun(outcome, { sha: "f".repeat(64), name: "ramp.png", width, height }, STOCK, {
    main: [cutterOf("ball:2")],
    rough: [cutterOf("flat:4")],
  });
  Object.assign(j.makings[2].settings, { smooth: 0 });
  edit(j);
  return j;
}
const build = (j: BoardJob, raster: Raster, quick = true): BuildResult =>
  buildJob(j, { files: onePicture(raster), cells: 20_000, quick }, new Kept());
const set = (settings: object) => (j: BoardJob) => void Object.assign(j.makings[2].settings, settings);

describe("a height from greys", () => {
  it("keeps the depth of a 16-bit picture: a ramp has no step above one part in 65,536", () => {
    const raster = ramp(3000, 16, true);
    const { field } = productIn(build(job("relief", raster, set({ depth: 4 })), raster), "heights");
    let step = 0;
    for (let i = 1; i < field.width; i++) step = Math.max(step, Math.abs(field.z[i] - field.z[i - 1]));
    expect(step).toBeLessThan(4 / 2999 + 4 / 65536);
    expect(new Set(field.z.subarray(0, field.width)).size).toBeGreaterThan(2990);
  });
  it("light high or dark high, top and depth: w = −top − depth·(1 − g)", () => {
    const raster = ramp(120, 80, false);
    for (const high of ["light", "dark"]) {
      const { field } = productIn(build(job("relief", raster, set({ depth: 3, top: 0.5, high })), raster), "heights");
      for (let i = 0; i < field.width; i += 13) {
        const g = Math.round((255 * i) / 119) / 255;
        expect(field.z[i]).toBeCloseTo(-0.5 - 3 * (high === "light" ? 1 - g : g), 4);
      }
    }
  });
  it("lies from the stock's top to its depth, whichever greys the picture has; specks count for nothing", () => {
    for (const [dark, light] of [
      [60, 140],
      [0, 190],
      [110, 255],
    ])
      for (const high of ["light", "dark"]) {
        const raster = ramp(200, 100, false);
        raster.data.forEach(
          (v, k) => (raster.data[k] = k % 4 === 3 ? v : Math.round(dark + (v * (light - dark)) / 255)),
        );
        // A dead pixel and a glint.
        raster.data.set([0, 0, 0, 255, 255, 255, 255, 255], 4 * 5050);
        const { field } = productIn(build(job("relief", raster, set({ depth: 4, high })), raster), "heights");
        const { low, high: top } = rangeOf(field);
        expect(top).toBeGreaterThan(-0.08);
        expect(low).toBeCloseTo(-4, 1);
        expect(low).toBeGreaterThanOrEqual(-4);
        // As even a slope as the ramp's greys, from one side to the other.
        const row = Array.from(
          { length: 4 },
          (_, q) => field.z[10 * field.width + Math.round((q + 1) * 0.2 * field.width)],
        );
        const steps = row.slice(1).map((z, q) => z - row[q]);
        for (const step of steps) expect(step).toBeCloseTo(high === "light" ? 0.8 : -0.8, 1);
      }
  });
  it("does not spread greys that lie so near together that their noise would be as high", () => {
    const flat = { dark: 0.4, light: 0.6 };
    expect(greysOf(binsOf(127, 128))).toEqual(flat);
    expect(greysOf(binsOf(0, 3))).toEqual({ dark: 0, light: 0.2 });
    expect(greysOf(binsOf(250, 255))).toEqual({ dark: 0.8, light: 1 });
    expect(greysOf(binsOf(0, 255))).toEqual({ dark: 0, light: 1 });
  });
  it("follows its curve, which is monotone through its points", () => {
    const curve = curveThrough("0.1,0 0.4,0.7 0.5,0.72 1,1");
    let last = 0;
    for (let g = 0; g <= 1; g += 0.002) {
      const v = curve(g);
      expect(v).toBeGreaterThanOrEqual(last - 1e-9);
      last = v;
    }
    expect([curve(0.1), curve(0.4), curve(1)].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 0.7, 1]);
    expect(curvePoints("0,0 1,1")).toEqual({ x: [0, 1], y: [0, 1] });
  });
  for (const text of [
    "",
    "0,0",
    "0,0 0,1",
    "1,0 0,1",
    "0,0 2,1",
    "0,0 1",
    "a,b 1,1",
    "0,0 .1,.1 .2,.2 .3,.3 .4,.4 .5,.5 .6,.6 .7,.7 1,1",
  ])
    it(`a curve of "${text}" is refused in a sentence`, () => expect(() => curvePoints(text)).toThrow(/^Curve/));
});

describe("a relief, from a picture to its files", () => {
  const raster = ramp(120, 80, false);
  const b = build(job("relief", raster, set({ depth: 3 })), raster, false);
  it("is roughed, then finished, and comes out as the surface says", () => {
    expect(b.problem).toBeNull();
    expect(b.cuts.map((c) => c.cut.kind)).toEqual(["rough", "finish"]);
    expect(inspect({ build: b }).filter((f) => f.severity === "stop")).toEqual([]);
    const { field } = mainHeights(b)!;
    const { z, width, cell } = b.proof;
    const row = Math.floor(b.proof.height / 2) * width;
    for (let i = 20; i < width - 20; i += 11) {
      const wanted = -3 * (1 - ((i + 0.5) * cell) / 60);
      expect(z[row + i]).toBeGreaterThan(wanted - 0.03);
      expect(z[row + i]).toBeLessThan(wanted + 0.12);
    }
    expect(field.width * field.cell).toBeCloseTo(60, 3);
  });
  it("writes the wanted surface beside the proof: 65535 at the stock's top", () => {
    const { files } = outputsOf(b, "test");
    const names = files.map((f) => f.name);
    expect(names).toContain("height.png");
    expect(names).not.toContain("backlit.png");
    const map = files.find((f) => f.name === "height.png")!.content as { width: number; data: Uint16Array };
    expect(map.data[map.width - 1]).toBe(65535);
    expect(map.data[0] / 65535).toBeCloseTo(1 - 3 / 10, 3);
  });
  it("stops where the surface goes through the stock, and warns where it leaves next to nothing", () => {
    const codes = (depth: number) =>
      inspect({ build: build(job("relief", raster, set({ depth })), raster) }).map((f) => f.code);
    expect(codes(11)).toContain("surface-through-stock");
    expect(codes(9.9)).toContain("surface-leaves-little");
    expect(codes(3)).not.toContain("surface-leaves-little");
  });
  it("warns of a finishing cutter sent deep into stock that nothing roughed", () => {
    const bare = job("relief", raster, (j) => {
      set({ depth: 6 })(j);
      j.cuts = j.cuts.filter((c) => c.kind === "finish");
    });
    const found = inspect({ build: build(bare, raster) }).find((f) => f.code === "finish-into-solid")!;
    expect(found.cure).toEqual({ id: "finish", helper: "rough", label: "Rough it first" });
    addUsualHelper(
      bare,
      bare.cuts.find((c) => c.id === "finish")!,
      found.cure!.helper!,
      SHOP,
    );
    const cured = build(bare, raster);
    expect(cured.cuts.map((c) => [c.cut.kind, c.cut.cutter.diameter])).toEqual([
      ["rough", 6],
      ["finish", 2],
    ]);
    expect(inspect({ build: cured }).map((f) => f.code)).not.toContain("finish-into-solid");
  });
});

describe("a lithophane", () => {
  it("lets through the light that each grey stands for, from white at the thinnest to black at the thickest", () => {
    for (const lambda of [0.5, 1.2, 3]) {
      const s = { thin: 0.6, thick: 8, lambda, law: "light" as const };
      for (const g of [1, 0.9, 0.7, 0.5, 0.3]) {
        const t = thicknessFor(g, s);
        if (t < s.thick) expect(Math.exp((s.thin - t) / lambda)).toBeCloseTo(lightOf(g), 6);
      }
      expect([thicknessFor(1, s), thicknessFor(0, s)]).toEqual([0.6, 8]);
    }
    expect(thicknessFor(0.25, { thin: 1, thick: 3, lambda: 1, law: "straight" })).toBeCloseTo(2.5, 9);
  });
  it("is mirrored where it is seen from its back, and shows through a lamp in its files", () => {
    const raster = ramp(120, 80, false);
    const one = productIn(build(job("lithophane", raster, set({ rim: 0 })), raster), "heights").field;
    const b = build(job("lithophane", raster, set({ mirror: true })), raster);
    const other = productIn(b, "heights").field;
    for (let i = 0; i < 120; i += 7) expect(other.z[i]).toBeCloseTo(one.z[119 - i], 5);
    expect(outputsOf(b, "test").files.map((f) => f.name)).toContain("backlit.png");
  });

  it("is shown with its lamp on, a relief as it lies on a table", () => {
    const raster = ramp(60, 40, false);
    const [glowing, lying] = ["lithophane", "relief"].map((o) => build(job(o, raster), raster));
    const litho = productIn(glowing, "heights").litho!;
    expect(pieceSeen(glowing).data).toEqual(backlit(glowing.proof, 10, litho));
    const { material } = lying.job.stock;
    expect(pieceSeen(lying).data).toEqual(litView(lying.proof, material, 10, lying.job.stock));
  });

  it("takes its light law from a step wedge that was cut and looked at, and refuses what is no step", () => {
    const raster = ramp(60, 40, false);
    const grey = (t: number) => 100 * encoded(Math.exp(-(t - 0.6) / 0.9));
    const measured = [0.6, 1.2, 2, 2.8].map((t) => `${t} ${grey(t).toFixed(2)}`).join(", ");
    const b = build(job("lithophane", raster, set({ measured })), raster);
    const litho = [...b.makings.values()].find((m) => m.making.kind === "litho")!;
    expect(litho.values.lambda).toBeCloseTo(0.9, 2);
    expect(litho.resolved.lambda.reason).toMatch(/fitted to your wedge/);
    for (const bad of ["0.6 100", "0.6 100 1.2", "0.6 100, 1.2 140", "0.6 100, 0.6 90", "-1 100, 2 50"]) {
      const { problem } = build(job("lithophane", raster, set({ measured: bad })), raster);
      expect(problem?.code, bad).toBe("bad-wedge");
    }
  });

  it("says where it will not glow, will not hold or stays pale; a usual one has nothing to say", () => {
    const raster = ramp(60, 40, false);
    const codes = (settings: object) =>
      inspect({ build: build(job("lithophane", raster, set(settings)), raster) }).map((f) => f.code);
    const glowing = ["too-thick-to-glow", "too-thin-sheet", "pale-lithophane"];
    expect(codes({ thin: 3, thick: 9 })).toContain("too-thick-to-glow");
    expect(codes({ thin: 0.3 })).toContain("too-thin-sheet");
    expect(codes({ thin: 0.6, thick: 1.2 })).toContain("pale-lithophane");
    expect(codes({ thick: 5 }).filter((c) => glowing.includes(c))).toEqual([]);
  });

  it("its step wedge has steps as thin and as thick, evenly, and glows by the same law", () => {
    const raster = ramp(60, 40, false);
    const b = build(
      job("lithophane", raster, (j) => void addMaking(j, "wedge", j.makings[2].id)),
      raster,
    );
    const litho = productIn(b, "heights", "litho").litho!;
    const steps = productIn(b, "heights", "wedge");
    expect(steps.litho).toEqual(litho);
    const { z, width } = steps.field;
    const levels = [...new Set(z.subarray(0, width))];
    expect(levels.length).toBe(8);
    levels.forEach((v, i) => expect(10 + v).toBeCloseTo(litho.thin + ((litho.thick - litho.thin) * i) / 7, 5));
  });
});

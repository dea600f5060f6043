import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { blockiness, type Cure, type Fit, fitnessOf, judge, unevenness } from "./fitness.ts";
import type { Grey, Raster } from "./raster.ts";
import { contrast, findInkLevel, histogram, toGrey } from "./tone.ts";

const random = seeded(77);

function painted(
  width: number,
  height: number,
  colour: (x: number, y: number) => [number, number, number, number?],
  wide = false,
): Raster {
  const data = wide ? new Uint16Array(4 * width * height) : new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [r, g, b, a = 255] = colour(x, y);
      for (const [k, v] of [r, g, b, a].entries()) data[4 * (y * width + x) + k] = wide ? 257 * v : v;
    }
  return { width, height, data } as Raster;
}
const grey = (width: number, height: number, value: (x: number, y: number) => number): Grey => ({
  width,
  height,
  max: 255,
  data: Uint8Array.from({ length: width * height }, (_, i) =>
    Math.max(0, Math.min(255, Math.round(value(i % width, Math.floor(i / width))))),
  ),
});
const looked = (r: Raster) => {
  const bins = histogram(toGrey(r, {}));
  return fitnessOf(r, bins, contrast(bins), findInkLevel(bins));
};

describe("what a picture is", () => {
  it("counts its flat colours, in either depth, and no shade that hardly occurs", () => {
    const stripes = (x: number): [number, number, number] =>
      x < 40 ? [200, 30, 30] : x < 80 ? [30, 30, 200] : x < 99 ? [250, 250, 250] : [0, 120, 0];
    for (const wide of [false, true]) {
      // 600 pixels wide stripes of three colours, and one of a third of a percent.
      const f = looked(painted(300, 40, (x) => stripes(x === 299 ? 99 : (x * 99) / 300), wide));
      expect(f.flatColours).toBe(3);
      expect(f.flatShare).toBeCloseTo(299 / 300, 6);
    }
  });
  it("takes what is transparent as white", () => {
    const f = looked(painted(60, 60, (x) => (x < 30 ? [0, 0, 0, 0] : [255, 255, 255, 255])));
    expect(f.flatColours).toBe(1);
    expect(f.contrast).toBe(0);
  });
  it("knows a drawing from a photo by its greys between dark and light", () => {
    expect(looked(painted(90, 60, (x) => (x % 9 < 3 ? [10, 10, 10] : [245, 245, 245]))).greyShare).toBe(0);
    expect(looked(painted(256, 30, (x) => [x, x, x])).greyShare).toBeCloseTo(1 / 3, 1);
  });
});

it("a drawing whose light was evened out is still one: its ground is at the middle then, and no soft grey", () => {
  const uneven = painted(480, 320, (x, y) => {
    const v = (Math.hypot(x - 240, y - 160) % 60 < 12 ? 30 : 250) * (1 - (0.35 * x) / 480) + 6 * (random() - 0.5);
    return [v, v, v];
  });
  const evened = toGrey(uneven, { even: 60 });
  const bins = histogram(evened);
  expect(fitnessOf(uneven, bins, contrast(bins), findInkLevel(bins)).greyShare).toBeLessThan(0.1);
});

describe("light and blocks", () => {
  it("uneven light is the share by which the ground is darker, ink or no ink", () => {
    for (const share of [0, 0.15, 0.4]) {
      const ground = (x: number) => 240 * (1 - (share * x) / 599);
      const drawn = grey(600, 400, (x, y) => (Math.hypot(x - 300, y - 200) < 60 || x % 50 < 8 ? 20 : ground(x)));
      // The outermost tiles tell of their middles' ground: five sixths of the whole fall, and a little more for their
      // light parts.
      expect(unevenness(drawn)).toBeGreaterThan(0.75 * share - 0.001);
      expect(unevenness(drawn)).toBeLessThan(share + 0.01);
    }
  });
  it("a figure on white that fills whole tiles is no uneven light, at whichever side it stands", () => {
    for (const [x0, y0] of [
      [150, 100],
      [0, 180],
      [280, 0],
    ]) {
      const shade = (x: number, y: number) => (x >= x0 && x < x0 + 320 && y >= y0 && y < y0 + 220 ? 140 : 255);
      expect(unevenness(grey(600, 400, shade))).toBe(0);
    }
  });
  it("a picture of much else and hardly any ground says nothing of the light", () =>
    expect(unevenness(grey(600, 400, (x) => (x < 120 ? 250 - 0.2 * x : 120)))).toBe(0));
  it("a dark ground says nothing of the light", () =>
    expect(unevenness(grey(120, 120, (x, y) => (Math.hypot(x - 60, y - 60) < 20 ? 250 : 40)))).toBe(0));
  it("noise alone has no blocks; steps at every eighth pixel are some", () => {
    expect(blockiness(grey(400, 300, () => 128 + 6 * (random() - 0.5)))).toBeCloseTo(1, 1);
    const levels = Array.from({ length: 50 * 40 }, () => 120 + 10 * random());
    expect(
      blockiness(grey(400, 300, (x, y) => levels[(y >> 3) * 50 + (x >> 3)] + 2 * (random() - 0.5))),
    ).toBeGreaterThan(2);
    expect(blockiness(grey(64, 64, () => 200))).toBe(1);
  });
  it("strong edges at every eighth pixel are the drawing's own", () =>
    expect(blockiness(grey(400, 300, (x) => ((x >> 3) % 2 ? 240 : 20) + 4 * (random() - 0.5)))).toBeLessThan(1.35));
});

/** A picture that suits everything, at 200 mm. */
const fine: Fit = {
  flatColours: 2,
  flatShare: 1,
  greyShare: 0.02,
  contrast: 0.9,
  pixelsPerMm: 10,
  width: 200,
  noise: 0.001,
  blocks: 1,
  thinnest: 1.2,
  typical: 3,
  contours: 40,
  circles: 4,
  uneven: 0.01,
  art: null,
};

/** What a cure leads to, as the steps it changes would have it. */
function cured(f: Fit, c: Cure): Fit {
  const by = c.width ? c.width / f.width : 1;
  return {
    ...f,
    width: f.width * by,
    pixelsPerMm: f.pixelsPerMm / by,
    thinnest: f.thinnest === null ? null : f.thinnest * by + 2 * (c.grow ?? 0),
    typical: f.typical === null ? null : f.typical * by + 2 * (c.grow ?? 0),
    ...(c.smooth && { noise: 0, blocks: 1, contours: 100 }),
    ...(c.even && { uneven: 0, art: null }),
  };
}

describe("the judgement", () => {
  it("has nothing against a good picture, and speaks of every side of it", () => {
    const all = judge(fine);
    expect(all.filter((j) => !j.good)).toEqual([]);
    expect(all.length).toBeGreaterThanOrEqual(4);
  });
  const faults: [string, Partial<Fit>, RegExp][] = [
    ["too few pixels", { pixelsPerMm: 2 }, /edges will wobble/],
    ["far too few pixels", { pixelsPerMm: 0.05 }, /edges will wobble/],
    ["noise", { noise: 0.06 }, /noisy/],
    ["JPEG blocks", { blocks: 1.8 }, /JPEG blocks/],
    ["uneven light", { uneven: 0.3, art: null }, /30 % darker/],
    ["strokes to be enlarged", { thinnest: 0.2, typical: 0.5 }, /0\.17 mm deep/],
    ["strokes to be thickened", { thinnest: 0.02, typical: 0.5 }, /thicken lines/],
    [
      "strokes too thin for the pixels there are",
      { thinnest: 0.2, typical: 0.4, pixelsPerMm: 4.5 },
      /at their thinnest/,
    ],
    ["thousands of outlines", { contours: 9000 }, /9,000 separate outlines/],
  ];
  for (const [name, fault, says] of faults)
    it(`${name}: says so with figures, and its cure cures it`, () => {
      const f = { ...fine, ...fault };
      const bad = judge(f).filter((j) => !j.good);
      expect(bad.map((j) => j.text).join("\n")).toMatch(says);
      expect(bad).toHaveLength(1);
      expect(bad[0].cure).toBeDefined();
      const after = judge(cured(f, bad[0].cure!)).filter((j) => !j.good);
      // A much smaller piece has thinner strokes: that is another matter.
      expect(after.map((j) => j.text).join("\n")).not.toMatch(says);
    });
  for (const [name, fault, says] of [
    ["little contrast", { contrast: 0.1 }, /freckles/],
    ["soft greys", { greyShare: 0.6 }, /60 % soft greys/],
  ] as const)
    it(`${name}: says so`, () =>
      expect(
        judge({ ...fine, ...fault })
          .filter((j) => !j.good)
          .map((j) => j.text)
          .join(),
      ).toMatch(says));
  it("what was not measured is not judged", () =>
    expect(
      judge({ ...fine, thinnest: null, typical: null, contours: null }).some((j) => /Strokes|outlines/.test(j.text)),
    ).toBe(false));
  it("never makes a picture larger than its pixels allow in order to widen its strokes", () => {
    for (let round = 0; round < 200; round++) {
      const f = {
        ...fine,
        pixelsPerMm: 4 + 12 * random(),
        width: 20 + 400 * random(),
        thinnest: 0.4 * random(),
        typical: 1,
      };
      const cure = judge(f).find((j) => !j.good)?.cure;
      if (cure?.width) expect((f.width * f.pixelsPerMm) / cure.width).toBeGreaterThanOrEqual(4);
    }
  });
});

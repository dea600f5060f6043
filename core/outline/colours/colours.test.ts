import { describe, expect, it } from "vitest";
import { contourCount, flatten, type Shape } from "../../geometry/shape.ts";
import { insideRegion, ringArea, ringCount } from "../../geometry/rings.ts";
import type { Raster } from "../../picture/raster.ts";
import { seeded } from "../../testing/random.ts";
import { traceArcs } from "./arcs.ts";
import { joinCorners, labelPixels, type Labels, mergeSpecks } from "./labels.ts";
import { findColours, type Swatch } from "./palette.ts";
import { colourShape, fitArcs } from "./shapes.ts";

/**
 * Each pixel the mean of 4 × 4 looks at a drawing in flat colours: edges are blends, as scanners and renderers make
 * them.
 */
function rendered(width: number, height: number, at: (x: number, y: number) => readonly number[]): Raster {
  const data = new Uint8Array(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const sum = [0, 0, 0];
      for (let q = 0; q < 16; q++)
        at(x + ((q % 4) + 0.5) / 4, y + ((q >> 2) + 0.5) / 4).forEach((v, k) => (sum[k] += v / 16));
      data.set([...sum.map(Math.round), 255], 4 * (y * width + x));
    }
  return { width, height, data };
}
const area = (s: Shape) => {
  const r = flatten(s, 0.005);
  let sum = 0;
  for (let k = 0; k < ringCount(r); k++) sum += ringArea(r, k);
  return sum;
};
const place = (height: number) => ({ scale: 1, x0: 0, y1: height });
function shapesOf(r: Raster, swatches: readonly Swatch[], labels: Labels, hold = 0.3) {
  const f = fitArcs(traceArcs(labels, r, swatches), place(r.height), hold, 0.7);
  const one = (keep: (l: number) => boolean) =>
    colourShape(
      f,
      swatches.map((_, l) => keep(l)),
    );
  return { each: swatches.map((_, l) => one((q) => q === l)), one };
}

const PAPER = [244, 239, 226];
const GREEN = [31, 107, 87];
const RED = [200, 64, 31];
const GREY = [120, 112, 104];

describe("colours", () => {
  const draw = (x: number, y: number) =>
    Math.hypot(x - 100, y - 80) < 50 ? (x < 100 ? GREEN : RED) : x < 20 ? GREY : PAPER;
  const r = rendered(200, 160, draw);
  const { swatches, table } = findColours(r, 4);
  const labels = labelPixels(r, swatches, table);
  mergeSpecks(labels, 6);
  joinCorners(labels);
  const { each, one } = shapesOf(r, swatches, labels);
  const label = (c: readonly number[]) => swatches.findIndex((s) => s.rgb.every((v, i) => Math.abs(v - c[i]) < 6));

  it("are found as they were drawn", () => {
    for (const c of [PAPER, GREEN, RED, GREY]) expect(label(c), c.join()).toBeGreaterThanOrEqual(0);
  });

  it("bound their shapes to parts of a pixel, with no sliver of a third colour along an edge", () => {
    // Half discs: an edge that is off by a twentieth of a pixel all the way round.
    const off = 0.05 * (50 * Math.PI + 100);
    for (const c of [GREEN, RED]) expect(Math.abs(area(each[label(c)]) - (Math.PI * 2500) / 2)).toBeLessThan(off);
    for (const c of [GREEN, RED, GREY]) expect(contourCount(each[label(c)])).toBe(1);
  });

  it("fill the picture without gap or overlap", () => {
    const whole = area(one(() => true));
    expect(Math.abs(each.reduce((s, x) => s + area(x), 0) - whole) / whole).toBeLessThan(1e-9);
  });

  it("lose the border between two that are kept together", () => {
    const both = one((l) => l === label(GREEN) || l === label(RED));
    expect(contourCount(both)).toBe(1);
    expect(Math.abs(area(both) - Math.PI * 2500)).toBeLessThan(0.05 * 100 * Math.PI);
  });

  it("tile exactly whatever the map: random patches, specks and corners that touch", () => {
    const colours = [PAPER, GREEN, RED, GREY, [40, 60, 160]];
    for (let seed = 1; seed <= 12; seed++) {
      const random = seeded(seed);
      const sites = Array.from({ length: 14 }, () => [60 * random(), 44 * random(), Math.floor(5 * random())]);
      const p = rendered(
        60,
        44,
        (x, y) =>
          colours[
            sites.reduce((a, b) => ((a[0] - x) ** 2 + (a[1] - y) ** 2 < (b[0] - x) ** 2 + (b[1] - y) ** 2 ? a : b))[2]
          ],
      );
      const found = findColours(p, 5);
      const l = labelPixels(p, found.swatches, found.table);
      for (let k = 0; k < 40; k++)
        l.data[Math.floor(random() * l.data.length)] = Math.floor(random() * found.swatches.length);
      joinCorners(l);
      const s = shapesOf(p, found.swatches, l, 0.2);
      const whole = area(s.one(() => true));
      expect(Math.abs(s.each.reduce((t, x) => t + area(x), 0) - whole) / whole, `seed ${seed}`).toBeLessThan(1e-9);
      expect(whole).toBeCloseTo(60 * 44, -1);
      // Every place belongs to exactly one colour.
      const rings = s.each.map((x) => flatten(x, 0.01));
      for (let k = 0; k < 60; k++) {
        const [x, y] = [1 + 58 * random(), 1 + 42 * random()];
        expect(rings.filter((q) => insideRegion(q, x, y)).length, `seed ${seed} at ${x} ${y}`).toBe(1);
      }
    }
  });

  it("drop specks into what is around them", () => {
    const l: Labels = { width: 20, height: 20, data: new Uint8Array(400) };
    for (const i of [105, 106, 250, 399]) l.data[i] = 1;
    expect(mergeSpecks(l, 3)).toBe(3);
    expect(Math.max(...l.data)).toBe(0);
  });
});

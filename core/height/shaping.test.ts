import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { bordered } from "./border.ts";
import { heightAt, type HeightField, rangeOf } from "./field.ts";
import { balanced, broadForm, type Levels } from "./levels.ts";
import { lightOf } from "../colour.ts";
import { limitSlope } from "./slope.ts";

function field(width: number, height: number, cell: number, z: (i: number, j: number) => number): HeightField {
  const samples = new Float32Array(width * height);
  for (let j = 0; j < height; j++) for (let i = 0; i < width; i++) samples[j * width + i] = z(i, j);
  return { x0: 2, y0: 3, cell, width, height, z: samples };
}
const noise = (seed: number, width = 40, height = 30, cell = 0.25) => {
  const random = seeded(seed);
  return field(width, height, cell, () => -4 * random());
};

describe("a height field", () => {
  it("is bilinear between its samples, level beyond the outermost of them, and nothing outside", () => {
    const f = field(10, 8, 0.5, (i, j) => -0.1 * i - 0.2 * j);
    expect(heightAt(f, 2.25, 3.25)).toBeCloseTo(0, 6);
    // A plane comes back exactly between its samples.
    expect(heightAt(f, 2.25 + 0.5 * 3.3, 3.25 + 0.5 * 2.7)).toBeCloseTo(-0.33 - 0.54, 5);
    expect(heightAt(f, 2.01, 3.01)).toBe(heightAt(f, 2.25, 3.25));
    for (const [x, y] of [
      [1.99, 4],
      [7.01, 4],
      [4, 2.99],
      [4, 7.01],
    ])
      expect(heightAt(f, x, y)).toBe(0);
    expect(rangeOf(f).low).toBeCloseTo(-0.9 - 1.4, 5);
    expect(Math.abs(rangeOf(f).high)).toBe(0);
  });
});

describe("the limit of slope", () => {
  for (const slope of [0.3, 1, 2.5])
    it(`lies nowhere above the surface, is nowhere steeper than ${slope}, and changes nothing that is not`, () => {
      for (let seed = 1; seed <= 4; seed++) {
        const f = noise(seed);
        const limited = limitSlope(f, slope);
        const { width, height, cell, z: w } = limited;
        for (let j = 0; j < height; j++)
          for (let i = 0; i < width; i++) {
            const at = j * width + i;
            expect(w[at]).toBeLessThanOrEqual(f.z[at]);
            for (const [a, b] of [
              [i + 1, j],
              [i, j + 1],
              [i + 1, j + 1],
              [i + 3, j + 2],
            ]) {
              if (a >= width || b >= height) continue;
              const run = Math.hypot(a - i, b - j) * cell;
              expect(Math.abs(w[b * width + a] - w[at])).toBeLessThanOrEqual(slope * run + 1e-4);
            }
          }
        // It is the highest such surface, to within the detour of its steps.
        const brute = (at: number) => {
          let least = Infinity;
          for (let k = 0; k < f.z.length; k++) {
            const run = Math.hypot((k % width) - (at % width), Math.floor(k / width) - Math.floor(at / width)) * cell;
            least = Math.min(least, f.z[k] + (slope * run) / 1.06);
          }
          return least;
        };
        for (let k = 0; k < w.length; k += 131) expect(w[k]).toBeGreaterThanOrEqual(brute(k) - 1e-4);
      }
      const gentle = field(20, 20, 0.5, (i) => -0.1 * i * slope * 0.5);
      expect(limitSlope(gentle, slope).z).toEqual(gentle.z);
    });
});

describe("a border", () => {
  const f = field(60, 40, 0.5, () => -3);
  const at = (g: HeightField, d: number) => heightAt(g, 2 + d, 13);
  it("rim: flat at the stock's top, as wide as asked; the rest as it was", () => {
    const rim = bordered(f, "rim", 4);
    expect([at(rim, 0.5), at(rim, 3.2), at(rim, 4.8), at(rim, 15)]).toEqual([0, 0, -3, -3]);
  });
  it("bevel: an even fall from the top to the lowest, never above a surface that is higher", () => {
    const bevel = bordered(f, "bevel", 6);
    expect(at(bevel, 3)).toBeCloseTo(-1.5, 1);
    expect(at(bevel, 8)).toBe(-3);
    const high = field(60, 40, 0.5, (i) => (i < 20 ? -0.2 : -3));
    for (let k = 0; k < high.z.length; k++)
      expect(bordered(high, "bevel", 6).z[k]).toBeGreaterThanOrEqual(high.z[k] - 1e-6);
  });
  it("fade: rises to the stock's top with level ends", () => {
    const fade = bordered(f, "fade", 6);
    expect(at(fade, 0.3)).toBeGreaterThan(-0.1);
    expect(at(fade, 3)).toBeCloseTo(-1.5, 1);
    expect(at(fade, 5.7)).toBeLessThan(-2.9);
  });
  it("none, or none wide, changes nothing", () => {
    expect(bordered(f, "none", 5)).toBe(f);
    expect(bordered(f, "rim", 0)).toBe(f);
  });
});

describe("broad form and detail", () => {
  const random = seeded(8);
  const levels: Levels = { width: 80, height: 60, v: new Float32Array(4800) };
  for (let k = 0; k < 4800; k++) {
    const x = k % 80;
    levels.v[k] = (x < 40 ? 0.2 : 0.8) + 0.04 * (random() - 0.5);
  }
  it("the broad form loses the noise and keeps the edge, with no halo beside it", () => {
    const form = broadForm(levels, 5);
    const spread = (v: Float32Array, from: number, to: number) => {
      const row = [...v.subarray(30 * 80 + from, 30 * 80 + to)];
      return Math.max(...row) - Math.min(...row);
    };
    expect(spread(form, 5, 30)).toBeLessThan(0.4 * spread(levels.v, 5, 30));
    expect(form[30 * 80 + 36]).toBeLessThan(0.27);
    expect(form[30 * 80 + 43]).toBeGreaterThan(0.73);
    expect(Math.min(...form)).toBeGreaterThan(0.15);
    expect(Math.max(...form)).toBeLessThan(0.85);
  });
  it("gains of one change nothing; more detail makes more of the noise, less of the broad form flattens it", () => {
    expect(balanced(levels, 5, 1, 1)).toBe(levels);
    const noisy = balanced(levels, 5, 1, 3).v;
    const flat = balanced(levels, 5, 0.5, 1).v;
    const step = (v: Float32Array) => v[30 * 80 + 60] - v[30 * 80 + 20];
    expect(step(flat)).toBeLessThan(0.7 * step(levels.v));
    const rough = (v: Float32Array) => {
      let sum = 0;
      for (let x = 50; x < 70; x++) sum += Math.abs(v[30 * 80 + x + 1] - v[30 * 80 + x]);
      return sum;
    };
    expect(rough(noisy)).toBeGreaterThan(1.8 * rough(levels.v));
    for (const v of noisy) expect(v >= 0 && v <= 1).toBe(true);
  });
  it("encoded greys are light by sRGB's own curve", () => {
    expect([lightOf(0), lightOf(1)]).toEqual([0, 1]);
    expect(lightOf(0.5)).toBeCloseTo(0.214, 3);
    expect(lightOf(0.04)).toBeCloseTo(0.04 / 12.92, 6);
  });
});

import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { unevenness } from "./fitness.ts";
import type { Raster } from "./raster.ts";
import { findInkLevel, histogram, monotone, noiseOf, toGrey } from "./tone.ts";

const raster = (width: number, height: number, at: (x: number, y: number) => [number, number, number]): Raster => {
  const data = new Uint8Array(4 * width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data.set([...at(x, y), 255], 4 * (y * width + x));
  return { width, height, data };
};
const plain = (v: number): [number, number, number] => [v, v, v];

describe("uneven light", () => {
  it("is told from the ground, whatever ink stands on it", () => {
    const lit = (dark: number) => {
      const data = new Uint8Array(300 * 200);
      for (let y = 0; y < 200; y++)
        for (let x = 0; x < 300; x++)
          data[y * 300 + x] = (x - 60) ** 2 + (y - 100) ** 2 < 2500 ? 20 : 240 * (1 - (dark * (x + y)) / 500);
      return unevenness({ width: 300, height: 200, data, max: 255 });
    };
    expect(lit(0)).toBeLessThan(0.02);
    expect(lit(0.3)).toBeGreaterThan(0.18);
    expect(lit(0.3)).toBeLessThan(0.32);
  });
});

describe("tone", () => {
  it("weighs the channels by their proportion, and keeps white white", () => {
    const r = raster(20, 20, (x) => (x < 10 ? [255, 255, 255] : [30, 120, 240]));
    for (const [red, green, blue, want] of [
      [1, 0, 0, 30],
      [0, 1, 0, 120],
      [0, 0, 2, 240],
      [1, 1, 0, 75],
    ] as const) {
      const g = toGrey(r, { red, green, blue });
      expect(g.data[0]).toBe(255);
      expect(Math.abs(g.data[15] - want)).toBeLessThanOrEqual(1);
    }
    // Less than nothing of blue darkens a sky.
    expect(toGrey(r, { red: 0.9, green: 0.4, blue: -0.3 }).data[15]).toBeLessThan(10);
  });

  it("maps black and white point, curve and inversion", () => {
    const r = raster(256, 16, (x) => plain(x));
    const g = toGrey(r, { black: 0.2, white: 0.8 });
    expect([g.data[40], g.data[51], g.data[128], g.data[204], g.data[220]]).toEqual([0, 0, 128, 255, 255]);
    expect(toGrey(r, { middle: 0.7 }).data[128]).toBeCloseTo(179, -0.5);
    expect(toGrey(r, { invert: true }).data[10]).toBe(245);
  });

  it("has a curve that never overshoots its points", () => {
    const random = seeded(5);
    for (let k = 0; k < 200; k++) {
      const y = [0, random(), random(), random(), 1];
      const f = monotone([0, 0.25, 0.5, 0.75, 1], y);
      for (let i = 0; i < 4; i++)
        for (let t = 0; t <= 1; t += 0.1) {
          const v = f(0.25 * (i + t));
          expect(v).toBeGreaterThanOrEqual(Math.min(y[i], y[i + 1]) - 1e-9);
          expect(v).toBeLessThanOrEqual(Math.max(y[i], y[i + 1]) + 1e-9);
        }
    }
  });

  it("smooths noise and keeps edges where they are", () => {
    const random = seeded(11);
    const r = raster(120, 80, (x) => plain(Math.max(0, Math.min(255, (x < 60 ? 60 : 190) + 14 * (random() - 0.5)))));
    const before = toGrey(r, {});
    const after = toGrey(r, { smooth: 4 });
    expect(noiseOf(after)).toBeLessThan(0.4 * noiseOf(before));
    for (let y = 10; y < 70; y++) {
      expect(after.data[y * 120 + 57]).toBeLessThan(100);
      expect(after.data[y * 120 + 62]).toBeGreaterThan(150);
    }
  });

  it("evens out light so that one level finds ink that no level found before", () => {
    const ink = (x: number, y: number) => y % 40 < 8 && x % 60 > 12 && y > 20 && y < 180;
    const r = raster(300, 200, (x, y) => plain(Math.round((200 - 110 * (x / 300)) * (ink(x, y) ? 0.86 : 1))));
    const even = toGrey(r, { even: 20 });
    const level = findInkLevel(histogram(even)) * 255;
    let [hit, wrong, all] = [0, 0, 0];
    for (let y = 0; y < 200; y++)
      for (let x = 0; x < 300; x++) {
        const is = even.data[y * 300 + x] < level;
        if (ink(x, y)) {
          all++;
          if (is) hit++;
        } else if (is) wrong++;
      }
    expect(hit / all).toBeGreaterThan(0.93);
    expect(wrong / all).toBeLessThan(0.08);
  });

  it("keeps 16 bits through every step", () => {
    const data = new Uint16Array(4 * 400).map((_, i) => (i % 4 === 3 ? 65535 : 20000 + Math.floor(i / 4)));
    const g = toGrey({ width: 20, height: 20, data }, { smooth: 1, sharpen: 0.2, black: 0.1 });
    expect(g.data).toBeInstanceOf(Uint16Array);
    expect(new Set(g.data).size).toBeGreaterThan(300);
  });
});

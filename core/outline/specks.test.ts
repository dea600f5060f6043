import { describe, expect, it } from "vitest";
import type { Grey } from "../picture/raster.ts";
import { seeded } from "../testing/random.ts";
import { contoursAt } from "./contours.ts";
import { drawnContours } from "./specks.ts";

const [W, H] = [200, 120];
const LEVEL = 0.5;

/** Discs and bars on paper, their edges soft, as a scanner with few pixels gives them. */
function page(
  dots: readonly [number, number, number][],
  bars: readonly [number, number, number, number][],
  ink = 30,
  paper = 235,
): Grey {
  const data = new Uint8Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      let d = -9;
      for (const [cx, cy, r] of dots) d = Math.max(d, r - Math.hypot(x + 0.5 - cx, y + 0.5 - cy));
      for (const [x0, y0, x1, y1] of bars)
        d = Math.max(d, Math.min(x + 0.5 - x0, x1 - x - 0.5, y + 0.5 - y0, y1 - y - 0.5));
      data[y * W + x] = Math.round(paper - (paper - ink) * Math.max(0, Math.min(1, 0.5 + d)));
    }
  return { width: W, height: H, data, max: 255 };
}
const kept = (g: Grey): number => {
  const c = contoursAt(g, LEVEL);
  return drawnContours(c, g, LEVEL, 9, 9).filter((v, k) => v === 1 && c.hole[k] === 0).length;
};
/** Stems of ten letters i, two pixels wide, and their dots. */
const stems = Array.from({ length: 10 }, (_, i): [number, number, number, number] => [
  20.3 + 12 * i,
  40.2,
  22.3 + 12 * i,
  47.4,
]);
const dots = stems.map(([x]): [number, number, number] => [x + 1, 37.1, 1.15]);

describe("small pieces", () => {
  it("the dots of an i stay, though they are under the limit", () => {
    expect(kept(page([], stems))).toBe(10);
    expect(kept(page(dots, stems))).toBe(20);
  });
  it("a dotted line stays", () => {
    const row = Array.from({ length: 12 }, (_, i): [number, number, number] => [30 + 5 * i, 90, 1.3]);
    expect(kept(page(row, stems))).toBe(22);
  });
  it("a lone speck goes, as dark as it may be", () => {
    expect(kept(page([[150, 100, 1.2]], stems))).toBe(10);
  });
  it("pale specks beside lettering go", () => {
    const g = page([], stems);
    const random = seeded(4);
    for (let k = 0; k < 60; k++) {
      const [x, y] = [20 + Math.floor(120 * random()), 30 + Math.floor(25 * random())];
      for (const q of [0, 1, W, W + 1]) g.data[y * W + x + q] = Math.min(g.data[y * W + x + q], 112);
    }
    expect(kept(g)).toBeLessThanOrEqual(12);
  });
  it("grain all over a picture of broad greys does not come back", () => {
    const random = seeded(6);
    const data = Uint8Array.from({ length: W * H }, (_, i) => {
      const wave = 128 + 70 * Math.sin((i % W) / 17) * Math.cos(Math.floor(i / W) / 13);
      return Math.max(0, Math.min(255, wave + 60 * (random() + random() + random() - 1.5)));
    });
    const g: Grey = { width: W, height: H, data, max: 255 };
    const c = contoursAt(g, LEVEL);
    const drawn = drawnContours(c, g, LEVEL, 9, 9);
    const small = drawnContours(c, g, LEVEL, 0, 0).length;
    const large = drawn.filter((v) => v === 1).length;
    expect(small).toBeGreaterThan(80);
    expect(large).toBeLessThan(0.35 * small);
  });
  it("the eye of a small e stays open; a pinhole of noise closes", () => {
    const e = page([], [[20, 20, 30, 32]]);
    const hole = (x: number, y: number, grey: number): void => {
      for (const q of [0, 1, W, W + 1]) e.data[y * W + x + q] = grey;
    };
    hole(24, 24, 225);
    hole(24, 28, 150);
    const c = contoursAt(e, LEVEL);
    const drawn = drawnContours(c, e, LEVEL, 9, 9);
    expect([...drawn].filter((v, k) => v === 1 && c.hole[k] === 1).length).toBe(1);
  });
});

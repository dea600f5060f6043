import { describe, expect, it } from "vitest";
import { ringsFrom } from "../geometry/rings.ts";
import { circle } from "../testing/random.ts";
import { withoutFallen } from "./fallen.ts";
import { litView } from "./light.ts";
import { relit, shadingOf, USUAL_LIGHT } from "./shading.ts";
import { newSurface, type Surface, usualCell } from "./surface.ts";
import { materialNamed } from "../testing/shop.ts";

const THICK = 6;
/** Stock of 40 × 30 mm in half millimetres, its height given at every cell's middle. */
function shaped(height: (x: number, y: number) => number): Surface {
  const s = newSurface(40, 30, 0.5, THICK);
  for (let k = 0; k < s.z.length; k++)
    s.z[k] = height(((k % s.width) + 0.5) * s.cell, (Math.floor(k / s.width) + 0.5) * s.cell);
  return s;
}
const at = (s: Surface, x: number, y: number) => s.z[Math.floor(y / s.cell) * s.width + Math.floor(x / s.cell)];
const ring = (x: number, y: number, inner: number) => {
  const r = Math.hypot(x - 20, y - 15);
  return r > inner && r < inner + 2 ? -THICK : 0;
};

describe("what falls out", () => {
  const waste = ringsFrom([circle(20, 15, 9, 90)]);
  it("waste cut free on all sides is gone, and nothing else", () => {
    const s = shaped((x, y) => ring(x, y, 6));
    const seen = withoutFallen(s, [waste]);
    expect(at(seen, 20, 15)).toBeLessThan(-THICK);
    expect(at(seen, 2, 2)).toBe(0);
    // The proof itself is as it was swept.
    expect(at(s, 20, 15)).toBe(0);
  });
  it("held by one tab it stays", () => {
    const s = shaped((x, y) => (Math.abs(y - 15) < 1 && x > 20 ? Math.max(-2, ring(x, y, 6)) : ring(x, y, 6)));
    expect(at(withoutFallen(s, [waste]), 20, 15)).toBe(0);
  });
  it("a part that is cut free is no waste and stays", () =>
    expect(
      at(
        withoutFallen(
          shaped((x, y) => ring(x, y, 6)),
          [ringsFrom([circle(8, 8, 3, 40)])],
        ),
        20,
        15,
      ),
    ).toBe(0));
  it("what reaches the stock's edge is never taken for fallen", () => {
    const s = shaped((x) => (x > 12 && x < 14 ? -THICK : 0));
    const all = ringsFrom([
      [
        [0, 0],
        [13, 0],
        [13, 30],
        [0, 30],
      ],
    ]);
    expect(at(withoutFallen(s, [all]), 5, 15)).toBe(0);
  });
  it("without a cut through the stock nothing is looked at", () => {
    const s = shaped((x, y) => Math.max(-4, ring(x, y, 6)));
    expect(withoutFallen(s, [waste])).toBe(s);
  });
});

describe("light", () => {
  const brass = materialNamed("brass");
  const pixel = (s: Surface, view: Uint8ClampedArray, x: number, y: number) => {
    const o = 4 * ((s.height - 1 - Math.floor(y / s.cell)) * s.width + Math.floor(x / s.cell));
    return [...view.slice(o, o + 3)];
  };
  const sum = (c: number[]) => c[0] + c[1] + c[2];
  it("a wall facing the light is brighter than the flat, one turned away darker; the far edge comes first", () => {
    // A ridge along y: its left flank looks left, where the light is.
    const s = shaped((x) => -Math.min(5, Math.abs(x - 20)) / 2);
    const view = litView(s, brass, THICK);
    const [left, flat, right] = [pixel(s, view, 18, 15), pixel(s, view, 5, 15), pixel(s, view, 22, 15)].map(sum);
    expect(left).toBeGreaterThan(flat);
    expect(right).toBeLessThan(flat);
    const far = shaped((_, y) => (y > 15 ? 0 : -2));
    const seen = litView(far, brass, THICK, { paint: "#d02020" });
    expect(pixel(far, seen, 20, 25)[0]).toBeGreaterThan(2 * pixel(far, seen, 20, 25)[1]);
    expect(seen[0]).toBeGreaterThan(2 * seen[1]);
  });
  it("paint lies on what is untouched, bare material under every cut, the mat where the cut goes through", () => {
    const s = shaped((x) => (x < 13 ? 0 : x < 26 ? -1 : -THICK));
    const view = litView(s, brass, THICK, { paint: "#2040c0" }, [1, 2, 3]);
    const paint = pixel(s, view, 4, 15);
    expect(paint[2]).toBeGreaterThan(paint[0]);
    const bare = pixel(s, view, 19, 15);
    expect(bare[0]).toBeGreaterThan(bare[2]);
    expect(pixel(s, view, 35, 15)).toEqual([1, 2, 3]);
  });
  it(
    "flat stock lies in full light and open; a hole's side towards the light in shadow, its far side not; its " +
      "floor less open",
    () => {
      const flat = shadingOf(shaped(() => 0));
      expect([...new Set(flat.data)]).toEqual([255]);
      const s = shaped((x, y) => (x > 10 && x < 30 && y > 8 && y < 22 ? -4 : 0));
      const h = shadingOf(s);
      const value = (x: number, y: number, k: 0 | 1) =>
        h.data[2 * (Math.floor(y / (2 * s.cell)) * h.width + Math.floor(x / (2 * s.cell))) + k];
      // The light comes from the left and behind.
      expect(value(11.5, 20.5, 0)).toBe(0);
      expect(value(28.5, 10.5, 0)).toBe(255);
      expect(value(5, 15, 0)).toBe(255);
      expect(value(11.5, 20.5, 1)).toBeLessThan(value(20, 15, 1));
      expect(value(5, 15, 1)).toBe(255);
    },
  );
});

describe("a light that is moved", () => {
  it("throws the shadow of whatever stands between, wherever it comes from; none from straight above", () => {
    const post = shaped((x, y) => (Math.hypot(x - 20, y - 15) < 1.5 ? 0 : -4));
    const shading = shadingOf(post);
    for (let turn = 0; turn < 12; turn++) {
      const a = (turn * Math.PI) / 6;
      const [x, y] = [Math.cos(a), Math.sin(a)];
      const lit = relit(post, shading, { x, y, z: 1 });
      const value = (far: number) => {
        const [i, j] = [20 + far * x, 15 + far * y].map((v) => Math.floor(v / (2 * post.cell)));
        return lit.data[2 * (j * lit.width + i)];
      };
      // The post is 4 high and the light as high as far: its shadow reaches 4 beyond its foot.
      expect([turn, value(-3)]).toEqual([turn, 0]);
      expect([turn, value(-7)]).toEqual([turn, 255]);
      expect([turn, value(4)]).toEqual([turn, 255]);
    }
    const above = relit(post, shading, { x: 0, y: 0, z: 1 });
    for (let k = 0; k < above.data.length; k += 2) {
      expect(above.data[k]).toBe(255);
      // How open a place is does not hang on the light.
      expect(above.data[k + 1]).toBe(shading.data[k + 1]);
    }
    expect(relit(post, shading, USUAL_LIGHT)).toEqual(shading);
  });
});

describe("the proof's cells", () => {
  it("are square, fine on small stock and coarser on large, within the number asked for", () => {
    for (const [w, h] of [
      [20, 20],
      [90, 60],
      [300, 200],
      [1000, 600],
      [2440, 1220],
    ]) {
      const cell = usualCell(w, h);
      expect((w * h) / cell ** 2).toBeLessThanOrEqual(1.5e6);
      expect(cell).toBeGreaterThanOrEqual(0.05);
      expect(Math.abs(cell * 100 - Math.round(cell * 100))).toBeLessThan(1e-9);
    }
    expect(usualCell(20, 20)).toBe(0.05);
  });
  it("too many are refused with the number that would be needed", () => {
    expect(() => newSurface(2440, 1220, 0.1)).toThrow(/298 million cells.*at most 64 million/);
    expect(() => newSurface(100, 100, NaN)).toThrow(/cells/);
  });
});

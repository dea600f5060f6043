import { describe, expect, it } from "vitest";
import { circle } from "../testing/random.ts";
import { clearanceOf } from "./clearance/clearance.ts";
import { closing, grown, rounding, stepped, thinned } from "./morph.ts";
import { nesting } from "./nesting.ts";
import { isSound } from "./sound.ts";
import { regionArea, ringCount, ringsFrom, type Rings } from "./rings.ts";

const of = (...loops: [number, number][][]): Rings => {
  const r = ringsFrom(loops);
  return { ...r, parent: nesting(r) };
};
const box = (x0: number, y0: number, x1: number, y1: number): [number, number][] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const clearance = (r: Rings) => clearanceOf(r);

describe("growing and thinning", () => {
  it("a disc by a distance changes its radius by it", () => {
    const disc = of(circle(0, 0, 10, 720));
    expect(regionArea(grown(disc, 1.5, clearance))).toBeCloseTo(Math.PI * 11.5 ** 2, 0);
    expect(regionArea(thinned(disc, 1.5, clearance))).toBeCloseTo(Math.PI * 8.5 ** 2, 0);
  });
  it("a square grows round at its corners and thins sharp", () => {
    const square = of(box(0, 0, 20, 20));
    expect(regionArea(grown(square, 2, clearance))).toBeCloseTo(400 + 4 * 40 + Math.PI * 4, 1);
    expect(regionArea(thinned(square, 2, clearance))).toBeCloseTo(256, 3);
  });
  it("a hole shrinks as what is around it grows, and closes", () => {
    const ring = of(circle(0, 0, 20, 720), circle(0, 0, 3, 240, true));
    expect(ringCount(grown(ring, 1, clearance))).toBe(2);
    expect(ringCount(grown(ring, 3.2, clearance))).toBe(1);
  });
  it("closing joins pieces over a narrow gap and leaves a wide one", () => {
    const three = of(box(0, 0, 10, 10), box(10.6, 0, 20, 10), box(25, 0, 30, 10));
    const joined = stepped(three, closing(1), clearance);
    expect(ringCount(joined)).toBe(2);
    expect(regionArea(joined)).toBeCloseTo(100 + 94 + 6 + 50, 0);
  });
  it("rounding gives outer and inner corners the radius", () => {
    const L = of([
      [0, 0],
      [20, 0],
      [20, 10],
      [10, 10],
      [10, 20],
      [0, 20],
    ]);
    const lost = (1 - Math.PI / 4) * 4;
    expect(regionArea(stepped(L, rounding(2), clearance))).toBeCloseTo(300 - 5 * lost + lost, 0);
  });
  it("growing back by what was thinned leaves no knots, whatever the polygon's fineness", () => {
    for (const n of [30, 60, 100, 240]) {
      const ink = of(
        [
          [22, 11],
          [98, 11],
          [60, 68],
        ],
        circle(60, 30, 8.6, n, true),
      );
      const r = stepped(ink, rounding(1), clearance);
      expect(isSound(r), `${n} corners`).toBe(true);
      expect(ringCount(r)).toBe(2);
      expect(Math.abs(regionArea(r) - regionArea(ink)), `${n} corners`).toBeLessThan(4);
    }
  });
  it("steps of one sign are taken together: the same shape, by as many clearances as the sign changes", () => {
    const ink = of([...box(0, 0, 30, 12)], circle(15, 6, 3, 90, true), box(31, 0, 44, 12));
    const steps = [0.6, 0, -0.6, -0.8, 0.8, 0, 0.8, -0.8];
    let asked = 0;
    const counting = (r: Rings) => (asked++, clearanceOf(r));
    const together = stepped(ink, steps, counting);
    expect(asked).toBe(4);
    const each = steps.reduce((r, by) => (by > 0 ? grown(r, by, clearance) : thinned(r, -by, clearance)), ink);
    expect(ringCount(together)).toBe(ringCount(each));
    expect(Math.abs(regionArea(together) - regionArea(each))).toBeLessThan(0.02);
  });
});

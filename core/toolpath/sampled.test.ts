import { describe, expect, it } from "vitest";
import { ROUTER } from "../testing/shop.ts";
import { seeded } from "../testing/random.ts";
import { cutAlong } from "./loops.ts";
import { sampledSeconds, stretchesOf } from "./sampled.ts";
import { ToolpathWriter } from "./toolpath.ts";

/** A wavy way with sharp turns now and then, of so many points about a millimetre apart. */
function way(random: () => number, points: number) {
  const [x, y] = [new Float64Array(points), new Float64Array(points)];
  let heading = 6 * random();
  for (let i = 1; i < points; i++) {
    heading += random() < 0.05 ? 2 : 0.3 * (random() - 0.5);
    const step = 0.5 + random();
    x[i] = x[i - 1] + step * Math.cos(heading);
    y[i] = y[i - 1] + step * Math.sin(heading);
  }
  return { x, y };
}
const lengthOf = ({ x, y }: { x: Float64Array; y: Float64Array }, from: number, to: number) => {
  let sum = 0;
  for (let i = from + 1; i <= to; i++) sum += Math.hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
  return sum;
};

describe("paths looked at in stretches", () => {
  it("stand for all of their length, whatever it is shared out into", () => {
    const random = seeded(5);
    for (let round = 0; round < 100; round++) {
      const paths = Array.from({ length: 1 + Math.floor(30 * random()) }, () =>
        way(random, 1 + Math.floor(2000 * random() ** 4)),
      );
      const total = paths.reduce((sum, p) => sum + lengthOf(p, 0, p.x.length - 1), 0);
      const stretches = stretchesOf(paths);
      expect(stretches.reduce((sum, s) => sum + s.stands, 0)).toBeCloseTo(total, 6);
      for (const { path, from, to, length } of stretches)
        expect(lengthOf(paths[path], from, to)).toBeCloseTo(length, 9);
      const looked = stretches.reduce((sum, s) => sum + s.length, 0);
      expect(looked).toBeLessThan(1300);
    }
  });

  it("take as long as all of them, nearly", () => {
    const random = seeded(6);
    const cutOf = (paths: readonly ReturnType<typeof way>[]) => (k: number, from: number, to: number) => {
      const w = new ToolpathWriter(2400, 600, ROUTER.rapid);
      const { x, y } = paths[k];
      w.above(x[from], y[from], 0);
      cutAlong(w, x, y, from, to, 0);
      return w.take();
    };
    const off: number[] = [];
    for (let round = 0; round < 30; round++) {
      const paths = Array.from({ length: 1 + Math.floor(12 * random()) }, () =>
        way(random, 200 + Math.floor(4000 * random())),
      );
      const told = sampledSeconds(paths, cutOf(paths), ROUTER, 2400);
      // Each by itself and whole.
      const exact = paths.reduce(
        (sum, p) => sum + sampledSeconds([p], cutOf([p]), ROUTER, 2400, { count: 1, length: Infinity }),
        0,
      );
      off.push(Math.abs(told / exact - 1));
    }
    expect(Math.max(...off)).toBeLessThan(0.12);
    expect(off.reduce((sum, o) => sum + o, 0) / off.length).toBeLessThan(0.04);
  });
});

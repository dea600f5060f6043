import { describe, expect, it } from "vitest";
import { Span } from "../testing/span.ts";
import { seeded } from "../testing/random.ts";
import { type HeightField, heightAt } from "./field.ts";
import { highestOf } from "./sampled.ts";

describe("a field at the crossings of columns and rows", () => {
  for (const several of [1, 3])
    it(`each is the highest of ${several} × ${several} places, on the field, between its samples and past it`, () => {
      const off = new Span();
      for (let seed = 1; seed <= 30; seed++) {
        const random = seeded(seed);
        const [width, height] = [1 + Math.floor(9 * random()), 1 + Math.floor(9 * random())];
        const z = Float32Array.from({ length: width * height }, () => -3 * random());
        const f: HeightField = { x0: random(), y0: -random(), cell: 0.2 + random(), width, height, z };
        // Some fall on samples, some on the sides; they need not follow each other, nor be apart.
        const along = (from: number, count: number) => (_: unknown, k: number) =>
          k % 4 === 0
            ? from + Math.floor(count * random()) * 0.5 * f.cell
            : from + f.cell * (count + 2) * (random() - 0.1);
        const xs = Float64Array.from({ length: 12 * several }, along(f.x0, width));
        const ys = Float64Array.from({ length: 10 * several }, along(f.y0, height));
        if (seed % 3 === 0) ys.fill(ys[1], 2, 7);
        const got = highestOf(f, xs, ys, several);
        for (let j = 0; j < 10; j++)
          for (let i = 0; i < 12; i++) {
            const beside = Array.from(xs.subarray(i * several, (i + 1) * several));
            const before = Array.from(ys.subarray(j * several, (j + 1) * several));
            const wanted = Math.max(...before.flatMap((y) => beside.map((x) => heightAt(f, x, y))));
            off.take(got[j * 12 + i] - wanted, () => `seed ${seed}: ${i}, ${j}`);
          }
      }
      expect(off.least, off.leastAt).toBeGreaterThan(-1e-5);
      expect(off.most, off.mostAt).toBeLessThan(1e-5);
    });
});

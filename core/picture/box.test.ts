import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { boxMeans, type Samples } from "./box.ts";

describe("means over windows", () => {
  const random = seeded(3);
  const kinds: [string, (n: number) => Samples, 1 | 2][] = [
    ["bytes", (n) => Uint8Array.from({ length: n }, () => 256 * random()), 1],
    ["squares of bytes", (n) => Uint8Array.from({ length: n }, () => 256 * random()), 2],
    ["16-bit samples", (n) => Uint16Array.from({ length: n }, () => 65536 * random()), 1],
    ["squares of 16-bit samples", (n) => Uint16Array.from({ length: n }, () => 65536 * random()), 2],
    ["floats", (n) => Float32Array.from({ length: n }, () => random() - 0.5), 1],
  ];
  for (const [name, make, power] of kinds)
    it(`${name}: what adding up every window gives, cut off at the border, whatever the radius`, () => {
      for (const [width, height] of [
        [1, 1],
        [7, 5],
        [5, 9],
        [13, 1],
        [1, 12],
      ])
        for (const radius of [1, 2, 4, 20]) {
          const s = make(width * height);
          const means = boxMeans(width, height, radius, s, power);
          for (let y = 0; y < height; y++)
            for (let x = 0; x < width; x++) {
              let sum = 0;
              let count = 0;
              for (let v = Math.max(0, y - radius); v <= Math.min(height - 1, y + radius); v++)
                for (let u = Math.max(0, x - radius); u <= Math.min(width - 1, x + radius); u++, count++)
                  sum += s[v * width + u] ** power;
              const mean = sum / count;
              expect(Math.abs(means[y * width + x] - mean)).toBeLessThanOrEqual(1e-6 * Math.max(1, Math.abs(mean)));
            }
        }
    });
  it("into memory that is there already", () => {
    const out = new Float32Array(6);
    expect(boxMeans(3, 2, 1, Uint8Array.of(0, 6, 0, 6, 0, 6), 1, out)).toBe(out);
    expect([...out]).toEqual([3, 3, 3, 3, 3, 3]);
  });
});

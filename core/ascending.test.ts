import { expect, it } from "vitest";
import { ascending } from "./ascending.ts";
import { seeded } from "./testing/random.ts";

it("places of numbers in ascending order, every place once, however near to each other the numbers lie", () => {
  for (let seed = 1; seed <= 40; seed++) {
    const random = seeded(seed);
    const spread = 10 ** (12 * random() - 6);
    // Every third number lies within rounding of the one before.
    const values = new Float64Array(Math.floor(400 * random()));
    values.forEach((_, i) => {
      values[i] = i % 3 === 0 ? spread * (random() - 0.5) : values[i - 1] * (1 + (random() - 0.5) * 1e-15);
    });
    const order = ascending(values);
    for (let k = 1; k < order.length; k++)
      expect(values[order[k]], `seed ${seed}, place ${k}`).toBeGreaterThanOrEqual(values[order[k - 1]]);
    expect([...order].sort((i, j) => i - j)).toEqual([...values.keys()]);
  }
});

it("of equal numbers, of one and of none", () => {
  expect([...ascending(Float64Array.of(2, 2, 2))].sort()).toEqual([0, 1, 2]);
  expect([...ascending(Float64Array.of(7))]).toEqual([0]);
  expect(ascending(new Float64Array(0))).toHaveLength(0);
});

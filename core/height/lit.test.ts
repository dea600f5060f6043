import { expect, it } from "vitest";
import { cardOf, litFromTheSide } from "./lit.ts";

/** A round hill in the middle of a plate, its foot `deep` below the stock's top. */
function hill(deep: number, tall: number) {
  const [width, height] = [120, 80];
  const z = Float32Array.from({ length: width * height }, (_, k) => {
    const r = Math.hypot((k % width) - 60, Math.floor(k / width) - 40);
    return -deep + (r < 25 ? tall * Math.cos((Math.PI * r) / 50) : 0);
  });
  return { width, height, z };
}
const red = (data: Uint8ClampedArray, width: number, x: number, y: number) => data[4 * (y * width + x)];

it("a hill is light on the side that faces the light and dark on the other, however deep it lies", () => {
  for (const deep of [1, 9]) {
    const data = litFromTheSide(hill(deep, 1), 120, 80);
    // The light comes from the upper left.
    const [facing, ground, turned] = [red(data, 120, 44, 24), red(data, 120, 10, 10), red(data, 120, 75, 55)];
    expect(facing - ground, `${deep} mm deep`).toBeGreaterThan(20);
    expect(ground - turned, `${deep} mm deep`).toBeGreaterThan(5);
  }
});

it("a card is as wide and high as the surface is, and all of it is surface", () => {
  const { width, height, data } = cardOf(hill(3, 2));
  expect(width / height).toBeCloseTo(1.5, 2);
  expect(data.length).toBe(4 * width * height);
  for (let k = 3; k < data.length; k += 4) if (data[k] !== 255) throw new Error(`clear at ${k}`);
});

import { describe, expect, it } from "vitest";
import { framed, NO_FRAME } from "./frame.ts";
import type { Raster } from "./raster.ts";
import { turnedFrame } from "./reframe.ts";

/** White with black discs at places, each of radius 4. */
function dots(width: number, height: number, at: readonly [number, number][]): Raster {
  const data = new Uint8Array(4 * width * height).fill(255);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (at.some(([u, v]) => Math.hypot(x + 0.5 - u, y + 0.5 - v) < 4))
        data.fill(0, 4 * (y * width + x), 4 * (y * width + x) + 3);
  return { width, height, data };
}
/** Middle of everything dark. */
function middle(r: Raster): [number, number, number] {
  let [x, y, n] = [0, 0, 0];
  for (let i = 0; i < r.width * r.height; i++)
    if (r.data[4 * i + 3] > 128 && r.data[4 * i] < 128) {
      x += (i % r.width) + 0.5;
      y += Math.floor(i / r.width) + 0.5;
      n++;
    }
  return [x / n, y / n, n];
}

describe("a frame turned otherwise", () => {
  it("keeps its crop about the same place of the picture", () => {
    const picture = dots(240, 160, [[180, 50]]);
    for (const [from, to] of [
      [0, 12],
      [0, -30],
      [7, 0],
      [-20, 25],
    ]) {
      // A crop with the dot in its middle, as someone would drag it on the turned picture.
      const [x, y] = middle(framed(picture, { ...NO_FRAME, turn: from }));
      const s = turnedFrame(
        240,
        160,
        { ...NO_FRAME, turn: from, crop: `${Math.round(x - 20)},${Math.round(y - 15)},40,30` },
        to,
      );
      const r = framed(picture, s);
      expect([r.width, r.height]).toEqual([40, 30]);
      const m = middle(r);
      expect(Math.abs(m[0] - 20), `${from} → ${to}`).toBeLessThan(1.5);
      expect(Math.abs(m[1] - 15), `${from} → ${to}`).toBeLessThan(1.5);
    }
  });

  it("wipes off the same marks, whatever they were wiped with, and no others", () => {
    const picture = dots(240, 160, [
      [60, 40],
      [180, 110],
    ]);
    const [x, y] = [60, 40];
    for (const erase of [
      `spot ${x} ${y}`,
      `brush 8 ${x - 2} ${y} ${x + 2} ${y}`,
      `rect ${x - 8} ${y - 8} 16 16`,
      `lasso ${x - 9} ${y - 9} ${x + 9} ${y - 9} ${x} ${y + 14}`,
    ]) {
      const before = middle(framed(picture, { ...NO_FRAME, erase }));
      const turned = framed(picture, turnedFrame(240, 160, { ...NO_FRAME, erase }, 18));
      const both = middle(framed(picture, { ...NO_FRAME, turn: 18 }));
      const after = middle(turned);
      // One dot of two is left, before and after.
      expect(after[2] / before[2], erase).toBeCloseTo(1, 1);
      expect(after[2] / both[2], erase).toBeCloseTo(0.5, 1);
    }
  });

  it("comes back to where it was", () => {
    const s = { ...NO_FRAME, crop: "60,40,100,70", erase: "spot 90 80; brush 5 70 70 90 75" };
    const back = turnedFrame(240, 160, turnedFrame(240, 160, s, 9), 0);
    const numbers = (t: string) => t.match(/-?[\d.]+/g)!.map(Number);
    numbers(back.crop).forEach((v, i) => expect(Math.abs(v - numbers(s.crop)[i])).toBeLessThanOrEqual(1));
    numbers(back.erase).forEach((v, i) => expect(Math.abs(v - numbers(s.erase)[i])).toBeLessThanOrEqual(0.3));
  });
});

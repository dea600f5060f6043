import { describe, expect, it } from "vitest";
import { framed, framedSize, NO_FRAME } from "./frame.ts";
import type { Raster } from "./raster.ts";
import { shrunk } from "./shrink.ts";

/** A picture from a grey for each pixel. */
function picture(width: number, height: number, at: (x: number, y: number) => number, wide = false): Raster {
  const data = wide ? new Uint16Array(4 * width * height) : new Uint8Array(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data.set([at(x, y), at(x, y), at(x, y), wide ? 65535 : 255], 4 * (y * width + x));
  return { width, height, data };
}
const grey = (r: Raster, x: number, y: number) => r.data[4 * (y * r.width + x)];

describe("framing", () => {
  const ramp = picture(40, 30, (x, y) => 3 * x + 2 * y);

  it("is the picture itself where nothing is asked", () => {
    expect(framed(ramp, NO_FRAME)).toBe(ramp);
  });

  it("crops to whole pixels and says its size beforehand", () => {
    const s = { ...NO_FRAME, crop: "4,6,20,18" };
    const r = framed(ramp, s);
    expect([r.width, r.height]).toEqual([20, 18]);
    expect(framedSize(40, 30, s)).toEqual({ width: 20, height: 18 });
    for (const [x, y] of [
      [0, 0],
      [19, 17],
      [7, 3],
    ])
      expect(grey(r, x, y)).toBe(grey(ramp, x + 4, y + 6));
  });

  it("turns counter-clockwise: a quarter turn moves the right edge to the top", () => {
    const r = framed(ramp, { ...NO_FRAME, turn: 90 });
    expect([r.width, r.height]).toEqual([30, 40]);
    for (const [x, y] of [
      [2, 3],
      [20, 30],
      [29, 0],
    ])
      expect(Math.abs(grey(r, x, y) - grey(ramp, 39 - y, x))).toBeLessThanOrEqual(1);
  });

  it("turns a line that falls to the right level again", () => {
    const slope = Math.tan((7 * Math.PI) / 180);
    const askew = picture(200, 200, (x, y) => (Math.abs(y - 100 - slope * (x - 100)) < 3 ? 0 : 255));
    const r = framed(askew, { ...NO_FRAME, turn: 7 });
    const middle = (x: number) => {
      let [sum, n] = [0, 0];
      for (let y = 0; y < r.height; y++)
        if (r.data[4 * (y * r.width + x) + 3] > 128 && grey(r, x, y) < 128) [sum, n] = [sum + y, n + 1];
      return sum / n;
    };
    expect(Math.abs(middle(60) - middle(150))).toBeLessThan(0.5);
  });

  it("squares up a photographed rectangle: lines that met become parallel", () => {
    // A page seen from below: its far edge is shorter. A mark in its middle lands in the middle.
    const corners = [60, 40, 140, 40, 190, 180, 10, 180];
    const r = framed(
      picture(200, 200, (x, y) =>
        y > 40 && y < 180 && x > 10 + (50 * (180 - y)) / 140 && x < 190 - (50 * (180 - y)) / 140 ? 255 : 0,
      ),
      { ...NO_FRAME, corners: corners.join(" ") },
    );
    for (let y = 4; y < r.height - 4; y += 9)
      for (const x of [3, r.width - 4]) expect(grey(r, x, y)).toBeGreaterThan(200);
  });

  it("keeps 16 bits", () => {
    const r = framed(
      picture(40, 30, (x) => 1000 * x + 7, true),
      { ...NO_FRAME, crop: "10,0,20,20" },
    );
    expect(r.data).toBeInstanceOf(Uint16Array);
    expect(grey(r, 3, 3)).toBe(13007);
  });

  it("erases: a spot takes what is joined to it and nothing else", () => {
    const two = picture(60, 40, (x, y) =>
      (x > 10 && x < 20 && y > 10 && y < 30) || (x > 40 && x < 50 && y > 10 && y < 30) ? 20 : 240,
    );
    const r = framed(two, { ...NO_FRAME, erase: "spot 15 20" });
    expect(grey(r, 15, 20)).toBe(240);
    expect(grey(r, 45, 20)).toBe(20);
    expect(grey(two, 15, 20)).toBe(20);
  });

  it("erases a spot where there is no ground but transparency, and on a turned picture", () => {
    const clear = picture(60, 40, () => 0);
    for (let y = 0; y < 40; y++)
      for (let x = 0; x < 60; x++)
        clear.data[4 * (y * 60 + x) + 3] = Math.hypot(x - 20, y - 20) < 6 || Math.hypot(x - 45, y - 20) < 6 ? 255 : 0;
    const r = framed(clear, { ...NO_FRAME, erase: "spot 20 20" });
    expect(r.data[4 * (20 * 60 + 20) + 3]).toBe(0);
    expect(r.data[4 * (20 * 60 + 45) + 3]).toBe(255);
    const paper = picture(80, 60, (x, y) => (Math.hypot(x - 40, y - 30) < 6 ? 30 : 150));
    const t = framed(paper, {
      ...NO_FRAME,
      turn: 25,
      erase:
        `spot ${Math.round((80 * Math.cos(0.436) + 60 * Math.sin(0.436)) / 2)} ` +
        `${Math.round((80 * Math.sin(0.436) + 60 * Math.cos(0.436)) / 2)}`,
    });
    let dark = 0;
    for (let i = 0; i < t.width * t.height; i++) if (t.data[4 * i + 3] > 0 && t.data[4 * i] < 90) dark++;
    expect(dark).toBe(0);
  });

  it("erases by rectangle, lasso and brush, filling with the ground around", () => {
    const ground = picture(60, 40, (x, y) => (Math.hypot(x - 30, y - 20) < 6 ? 0 : 200));
    for (const erase of ["rect 20 10 20 20", "lasso 20 10 40 10 40 30 20 30", "brush 9 25 20 35 20"])
      expect(grey(framed(ground, { ...NO_FRAME, erase }), 30, 20), erase).toBe(200);
  });

  for (const [what, s] of [
    ["crop", { crop: "1,2,3" }],
    ["crop", { crop: "0,0,4,4" }],
    ["crop", { crop: "a,b,c,d" }],
    ["corners", { corners: "0 0 10 0" }],
    ["corners", { corners: "0 0 10 10 10 0 0 10" }],
    ["erase", { erase: "scribble 1 2" }],
    ["erase", { erase: "rect 1 2 3" }],
  ] as const)
    it(`refuses ${JSON.stringify(s)} with a sentence`, () =>
      expect(() => framed(ramp, { ...NO_FRAME, ...s })).toThrow(new RegExp(what, "i")));
});

it("a smaller copy holds the means of its blocks", () => {
  const r = shrunk(
    picture(100, 60, (x) => (x % 2) * 200),
    1500,
  );
  expect([r.width, r.height]).toEqual([50, 30]);
  expect(grey(r, 10, 10)).toBe(100);
});

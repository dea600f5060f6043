import { describe, expect, it } from "vitest";
import { clearanceOf } from "../geometry/clearance/clearance.ts";
import { ringsOf } from "../geometry/morph.ts";
import { insideRegion, regionArea, ringArea, ringCount, type Rings } from "../geometry/rings.ts";
import { circle, seeded, star } from "../testing/random.ts";
import { bridged } from "./bridges.ts";
import { centreLines } from "./centre.ts";
import { keepRings, onlyRings, piecesOf, placeIn, ringAround } from "./pieces.ts";

const of = (...loops: [number, number][][]): Rings => ringsOf(loops.map((l) => l.flat()));
const box = (x0: number, y0: number, x1: number, y1: number): [number, number][] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

describe("pieces", () => {
  const ink = of(
    box(0, 0, 40, 30),
    [...box(10, 10, 20, 20)].reverse() as [number, number][],
    box(13, 13, 17, 17),
    box(60, 0, 62.5, 30),
  );
  it("are told from holes, with areas and narrowest strokes", () => {
    const p = piecesOf(ink, clearanceOf(ink));
    expect(p.map((q) => [q.hole, q.area])).toEqual([
      [false, 1200],
      [true, 100],
      [false, 75],
      [false, 16],
    ]);
    expect(p.find((q) => q.area === 75)!.thinnest).toBeCloseTo(2.5, 2);
  });
  it("split in two: what is kept alone and what is hidden make the whole", () => {
    const only = onlyRings(ink, [[5, 5]]);
    const rest = keepRings(ink, [[5, 5]]);
    expect(only.map((v, k) => v !== rest[k])).toEqual([true, true, true, true]);
    // The square with its hole and the island in it, or the bar.
    expect(only).toEqual([true, true, true, false]);
    expect(onlyRings(ink, [[61, 5]])).toEqual([false, false, false, true]);
  });
  it("have a place inside them that is nobody else's, however bent they are", () => {
    for (let seed = 1; seed <= 10; seed++) {
      const r = of(star(seeded(seed), 18, 4, 30), circle(0, 0, 2, 40, true), star(seeded(seed + 50), 12, 3, 20, 70, 0));
      for (let k = 0; k < ringCount(r); k++) expect(ringAround(r, ...placeIn(r, k)), `seed ${seed} ring ${k}`).toBe(k);
    }
  });
  it("hide with everything inside them", () => {
    expect(ringAround(ink, 15, 15)).toBe(2);
    expect(keepRings(ink, [[12, 12]])).toEqual([true, false, false, true]);
    expect(keepRings(ink, [[61, 5]])).toEqual([true, true, true, false]);
  });
});

describe("bridges", () => {
  it("tie every island at its narrowest place by a strip of the width asked", () => {
    const o = of(circle(0, 0, 20, 360), circle(2, 0, 12, 240, true));
    const { ink, bridges } = bridged(o, 3);
    expect(bridges.length).toBe(1);
    expect(ringCount(ink)).toBe(1);
    // The ring is 6 mm wide on its right, and a 3 mm strip of it is gone.
    expect(regionArea(o) - regionArea(ink)).toBeCloseTo(18, -0.3);
    expect(Math.hypot(bridges[0].x0 - bridges[0].x1, bridges[0].y0 - bridges[0].y1)).toBeCloseTo(6, 1);
    for (const y of [0, 1.3, -1.3]) expect(insideRegion(ink, 17, y)).toBe(false);
    for (const y of [2, -2]) expect(insideRegion(ink, 17, y)).toBe(true);
  });
  it("leave no island however many there are (random stars full of holes)", () => {
    for (let seed = 1; seed <= 8; seed++) {
      const random = seeded(seed);
      const holes = Array.from({ length: 5 }, (_, k) =>
        circle(9 * Math.cos(k * 1.256), 9 * Math.sin(k * 1.256), 1.5 + 1.5 * random(), 40, true),
      );
      const { ink } = bridged(of(star(random, 14, 18, 26), ...holes), 0.8);
      for (let k = 0; k < ringCount(ink); k++) expect(ringArea(ink, k), `seed ${seed}`).toBeGreaterThan(0);
    }
  });
});

describe("centre lines", () => {
  it("of a bar: one line along its middle, without the corners' branches, as wide as the bar", () => {
    const l = centreLines(clearanceOf(of(box(0, 0, 40, 4))), 0.01);
    expect(l.closed.length).toBe(1);
    let length = 0;
    for (let i = 1; i < l.width.length; i++)
      length += Math.hypot(l.xy[2 * i] - l.xy[2 * i - 2], l.xy[2 * i + 1] - l.xy[2 * i - 1]);
    expect(length).toBeCloseTo(36, 1);
    for (let i = 0; i < l.width.length; i++) {
      expect(l.xy[2 * i + 1]).toBeCloseTo(2, 2);
      expect(l.width[i]).toBeCloseTo(4, 2);
    }
  });
  it("of a ring: one closed line midway", () => {
    const l = centreLines(clearanceOf(of(circle(0, 0, 10, 720), circle(0, 0, 8, 720, true))), 0.005);
    expect([...l.closed]).toEqual([1]);
    for (let i = 0; i < l.width.length; i++) expect(Math.hypot(l.xy[2 * i], l.xy[2 * i + 1])).toBeCloseTo(9, 1);
  });
  it("of a cross: goes straight through the crossing", () => {
    const cross = of([
      [0, 9],
      [9, 9],
      [9, 0],
      [11, 0],
      [11, 9],
      [20, 9],
      [20, 11],
      [11, 11],
      [11, 20],
      [9, 20],
      [9, 11],
      [0, 11],
    ]);
    const l = centreLines(clearanceOf(cross), 0.01);
    expect(l.closed.length).toBe(2);
    expect(Math.min(...[...l.width].filter((_, i) => i !== 0))).toBeGreaterThan(1.9);
  });
});

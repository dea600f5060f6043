import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { mended } from "./mend.ts";
import { insideRing, regionArea, ringArea, ringCount, ringsFrom, type Rings } from "./rings.ts";
import { isSound } from "./sound.ts";

type Loop = [number, number][];
const box = (x0: number, y0: number, x1: number, y1: number): Loop => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** Winding number of rings round a point, by the edges that a ray to the right crosses up and down. */
function winding(r: Rings, x: number, y: number): number {
  let turns = 0;
  for (let k = 0; k < ringCount(r); k++)
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const j = i + 1 < r.starts[k + 1] ? i + 1 : r.starts[k];
      const [ax, ay, bx, by] = [r.xy[2 * i], r.xy[2 * i + 1], r.xy[2 * j], r.xy[2 * j + 1]];
      if (ay > y === by > y) continue;
      if (x < ax + ((y - ay) / (by - ay)) * (bx - ax)) turns += by > ay ? 1 : -1;
    }
  return turns;
}
const inside = (r: Rings, x: number, y: number): boolean =>
  Array.from({ length: ringCount(r) }, (_, k) => insideRing(r, k, x, y)).filter(Boolean).length % 2 === 1;

describe("mended outlines", () => {
  const cases: [string, Loop[], number, number][] = [
    ["a doubled line is one", [box(0, 0, 10, 10), box(0, 0, 10, 10)], 1, 100],
    ["overlapping pieces are one", [box(0, 0, 10, 10), box(5, 5, 15, 15)], 1, 175],
    ["pieces that meet in a corner stand apart", [box(0, 0, 10, 10), box(10, 10, 20, 20)], 2, 200],
    ["pieces along a side are one", [box(0, 0, 10, 10), box(10, 0, 20, 10)], 1, 200],
    [
      "a bow tie has both of its halves",
      [
        [
          [0, 0],
          [10, 10],
          [10, 0],
          [0, 10],
        ],
      ],
      2,
      50,
    ],
    [
      "a hole that touches the edge in a point keeps its area",
      [
        box(0, 0, 10, 10),
        [
          [0, 5],
          [4, 7],
          [4, 3],
        ],
      ],
      1,
      92,
    ],
    [
      "a spike encloses nothing and goes",
      [
        [
          [0, 0],
          [10, 0],
          [10, 10],
          [10, 20],
          [10, 10],
          [0, 10],
        ],
      ],
      1,
      100,
    ],
  ];
  for (const [name, loops, count, area] of cases)
    it(name, () => {
      const r = mended(ringsFrom(loops));
      expect(isSound(r)).toBe(true);
      expect(regionArea(r)).toBeCloseTo(area, 1);
      expect(Array.from({ length: ringCount(r) }, (_, k) => ringArea(r, k) > 0).filter(Boolean).length).toBe(count);
    });

  it("random knots of lines that lie on each other are sound and enclose what they wound round", () => {
    const random = seeded(77);
    for (let round = 0; round < 300; round++) {
      const fine = round % 3 === 0 ? 1 : round % 3 === 1 ? 4 : 1e6;
      const at = (): number => Math.round(12 * random() * fine) / fine;
      const r = ringsFrom(
        Array.from({ length: 1 + Math.floor(4 * random()) }, () =>
          Array.from({ length: 3 + Math.floor(9 * random()) }, (): [number, number] => [at(), at()]),
        ),
      );
      const m = mended(r);
      expect(isSound(m), `round ${round}`).toBe(true);
      let wrong = 0;
      for (let q = 0; q < 200; q++) {
        const [x, y] = [12 * random(), 12 * random()];
        if ((winding(r, x, y) !== 0) !== inside(m, x, y)) wrong++;
      }
      // A point may fall into the gap of a thousandth of a millimetre.
      expect(wrong, `round ${round}`).toBeLessThanOrEqual(1);
    }
  });

  it("of rings whose direction is known, what winds backwards is outside", () => {
    const r = mended(
      ringsFrom([box(0, 0, 10, 10), [...box(2, 2, 4, 4)].reverse() as Loop, [...box(20, 0, 30, 10)].reverse() as Loop]),
      "positive",
    );
    expect(isSound(r)).toBe(true);
    expect(regionArea(r)).toBeCloseTo(96, 3);
  });
});

import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import type { HeightField } from "../../height/field.ts";
import type { Progress } from "../../problem.ts";
import { seeded } from "../../testing/random.ts";
import { cutterOf } from "../../testing/shop.ts";
import { Span } from "../../testing/span.ts";
import { Ground, groundOf, passedOver } from "./ground.ts";
import { placeOn, type Row, ringsOver, rowsOver, spiralOver } from "./rows.ts";
import { inOrder, type Run, runsOf } from "./runs.ts";

const BOARD = { width: 24, height: 15 };

/** Ground of a ball over a field that lies somewhere on the board. */
function groundAt(seed: number): Ground {
  const random = seeded(seed);
  const [x0, y0] = seed % 2 ? [0, 0] : [2 + 3 * random(), 1 + 2 * random()];
  const cell = 0.4;
  const width = Math.floor(((seed % 2 ? BOARD.width : 17) - x0) / cell);
  const height = Math.floor(((seed % 2 ? BOARD.height : 12) - y0) / cell);
  const field: HeightField = {
    x0,
    y0,
    cell,
    width,
    height,
    z: Float32Array.from({ length: width * height }, () => -3 * random()),
  };
  const p = profileOf(cutterOf("ball:2"));
  const surface = groundOf(field, BOARD, p, null);
  return new Ground(surface, p, passedOver(field, BOARD, p.radius));
}

const APART = 0.7;
const WAYS: [string, (g: Ground) => Row[]][] = [
  ["lines at 0°", (g) => rowsOver(g, APART, 0)],
  ["lines at 37°", (g) => rowsOver(g, APART, 37)],
  ["lines at −90°", (g) => rowsOver(g, APART, -90)],
  ["rings", (g) => ringsOver(g, APART)],
  ["a spiral", (g) => spiralOver(g, APART)],
];
const isInside = ({ passed }: Ground, x: number, y: number): boolean =>
  x >= passed.x0 - 1e-6 && x <= passed.x1 + 1e-6 && y >= passed.y0 - 1e-6 && y <= passed.y1 + 1e-6;

it("rows tell how far they are while they are found: that is most of the work of a finishing", () => {
  const g = groundAt(2);
  for (const rowsOf of [
    (told: Progress) => rowsOver(g, 0.3, 20, told),
    (told: Progress) => ringsOver(g, 0.3, told),
    (told: Progress) => spiralOver(g, 0.05, told),
  ]) {
    const shares: number[] = [];
    const rows = rowsOf((share) => void shares.push(share));
    const places = rows.reduce((sum, row) => sum + row.lowest.length, 0);
    expect(shares.length, `${places} places`).toBeGreaterThan(places / 5000);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares[shares.length - 1]).toBeGreaterThan(0.5);
    expect(Math.max(...shares)).toBeLessThan(1);
  }
});

describe("rows over a surface", () => {
  for (const [name, rowsOf] of WAYS)
    it(`${name}: places are near each other, all where the cutter may pass, and none is far from a row`, () => {
      for (let seed = 1; seed <= 4; seed++) {
        const g = groundAt(seed);
        const places: { x: number; y: number }[] = [];
        const [off, far] = [new Span(), new Span()];
        const wrong: string[] = [];
        for (const row of rowsOf(g)) {
          for (let i = 0; i < row.lowest.length; i++) {
            const at = placeOn(row, i);
            const isPassed = row.lowest[i] !== Infinity;
            const where = () => `${at.x}, ${at.y}`;
            if (isPassed !== isInside(g, at.x, at.y)) wrong.push(where());
            if (isPassed) places.push(at);
            if (isPassed) off.take(Math.abs(row.lowest[i] - g.tips.at(at.x, at.y)), where);
            if (i === 0) continue;
            const last = placeOn(row, i - 1);
            far.take(Math.hypot(at.x - last.x, at.y - last.y) / row.step, where);
          }
        }
        expect(wrong, `seed ${seed}`).toEqual([]);
        expect(off.most, `seed ${seed}: ${off.mostAt}`).toBeLessThan(1e-5);
        expect(far.most, `seed ${seed}: ${far.mostAt}`).toBeLessThanOrEqual(1 + 1e-6);
        const random = seeded(seed);
        for (let k = 0; k < 60; k++) {
          // Slanting rows end one after the other along a side: there the next is a little farther.
          const x = g.passed.x0 + APART + random() * (g.passed.x1 - g.passed.x0 - 2 * APART);
          const y = g.passed.y0 + APART + random() * (g.passed.y1 - g.passed.y0 - 2 * APART);
          const nearest = Math.min(...places.map((p) => Math.hypot(p.x - x, p.y - y)));
          // Half the distance of the rows, half a step along them, and what a round row's sides lie inside its circle.
          expect(nearest, `${x}, ${y}`).toBeLessThan(Math.hypot(APART / 2 + 0.02, g.surface.cell));
        }
      }
    });

  it("a point's places lie over samples, where its tips are highest, or near them", () => {
    const p = profileOf(cutterOf("v:60:6"));
    const cell = 0.2;
    for (const seed of [1, 2, 3]) {
      const random = seeded(seed);
      const at = { x0: 3 + random(), y0: 2 + random() };
      const z = Float32Array.from({ length: 60 * 40 }, () => -2 * random());
      const field: HeightField = { ...at, cell, width: 60, height: 40, z };
      const g = new Ground(groundOf(field, BOARD, p, null), p, passedOver(field, BOARD, p.radius));
      for (const [name, rowsOf] of WAYS) {
        let worst = 0;
        for (const row of rowsOf(g))
          for (let i = 1; i < row.lowest.length; i++)
            for (const share of [0.25, 0.5, 0.75]) {
              const { x, y } = placeOn(row, i - 1 + share);
              if (Math.max(row.lowest[i - 1], row.lowest[i]) === Infinity) continue;
              const straight = row.lowest[i - 1] + share * (row.lowest[i] - row.lowest[i - 1]);
              worst = Math.max(worst, g.tips.at(x, y) - straight);
            }
        // A peak missed halfway would be passed below by half a cell of the point's own slope: 0.17 mm.
        expect(worst, `seed ${seed}, ${name}`).toBeLessThan(0.06);
      }
    }
  });
  it("a place between two lies between them, and corners are where they were put", () => {
    const row = { x: Float64Array.of(0, 4, 4), y: Float64Array.of(0, 0, 2), each: 8 };
    expect([0, 4, 8, 12, 16].map((i) => placeOn(row, i))).toEqual([
      { x: 0, y: 0 },
      { x: 2, y: 0 },
      { x: 4, y: 0 },
      { x: 4, y: 1 },
      { x: 4, y: 2 },
    ]);
    expect(placeOn(row, 8.5).y).toBeCloseTo(0.125, 9);
  });
});

describe("runs of a row", () => {
  const rowOf = (lowest: number[], u = 0): Row => ({
    x: Float64Array.of(0, lowest.length - 1),
    y: Float64Array.of(0, 0),
    each: Math.max(1, lowest.length - 1),
    step: 1,
    u,
    du: 1,
    lowest: Float32Array.from(lowest),
  });
  const ends = (runs: Run[]) => runs.map(({ i0, i1 }) => [i0, i1]);

  it("bridge short gaps, not long ones, and never a place where the cutter may not pass", () => {
    const row = rowOf([-1, -1, 0, 0, -1, 0, 0, 0, 0, -1, Infinity, -1]);
    const cut = (i: number) => row.lowest[i] < 0;
    expect(ends(runsOf(row, cut, 3))).toEqual([
      [0, 4],
      [9, 9],
      [11, 11],
    ]);
    expect(ends(runsOf(row, cut, 1))).toEqual([
      [0, 1],
      [4, 4],
      [9, 9],
      [11, 11],
    ]);
    expect(runsOf(row, () => false)).toEqual([]);
  });

  it("each is cut once, whatever the order; a joined one begins near where the last ended, on the next row", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = seeded(seed);
      const rows = Array.from({ length: 1 + Math.floor(8 * random()) }, () => {
        const row = rowOf(
          Array.from({ length: 40 }, () => (random() < 0.7 ? -1 : 0)),
          10 * random(),
        );
        return runsOf(row, (i) => row.lowest[i] < 0, 1);
      });
      const far = 3;
      for (const oneWay of [false, true]) {
        const order = inOrder(rows, far, oneWay);
        const name = ({ row, i0, i1 }: Run) => `${rows.findIndex((r) => r[0]?.row === row)} ${i0} ${i1}`;
        expect(order.map(name).sort(), `seed ${seed}`).toEqual(rows.flat().map(name).sort());
        order.forEach((run, k) => {
          if (oneWay) expect([run.joined, run.back]).toEqual([false, false]);
          if (!run.joined) return;
          const last = order[k - 1];
          const along = ({ row }: Run, i: number) => row.u + i * row.du;
          const end = along(last, last.back ? last.i0 : last.i1);
          expect(Math.abs(along(run, run.back ? run.i1 : run.i0) - end)).toBeLessThanOrEqual(far);
          expect(rows.findIndex((r) => r[0]?.row === run.row)).toBe(rows.findIndex((r) => r[0]?.row === last.row) + 1);
          expect(run.back).toBe(!last.back);
        });
      }
    }
  });
});

import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import { between, type HeightField, heightAt } from "../../height/field.ts";
import { Tips } from "../../height/tips.ts";
import { Kept } from "../../kept.ts";
import { heightsOf } from "../../testing/cutting.ts";
import { seeded } from "../../testing/random.ts";
import { cutterOf } from "../../testing/shop.ts";
import { groundFor, groundOf, passedOver } from "./ground.ts";

const BOARD = { width: 30, height: 20 };

function fieldAt(seed: number, x0: number, y0: number, cell: number, width: number, height: number): HeightField {
  const random = seeded(seed);
  return { x0, y0, cell, width, height, z: Float32Array.from({ length: width * height }, () => -4 * random()) };
}
const groundAt = (g: HeightField, x: number, y: number): number =>
  between(g, (x - g.x0) / g.cell - 0.5, (y - g.y0) / g.cell - 0.5);

describe("the surface as a cutter meets it", () => {
  for (const [spec, grain] of [
    ["ball:3", null],
    ["taper:0.25:5:4", null],
    ["v:60:6", null],
    ["flat:6", 0.9],
  ] as const)
    it(`${spec}, grain ${grain}: is the stock's top round a field inside the board, and lies nowhere below it`, () => {
      const p = profileOf(cutterOf(spec));
      for (let seed = 1; seed <= 5; seed++) {
        const random = seeded(100 + seed);
        const f = fieldAt(seed, 3 + 4 * random(), 2 + 3 * random(), 0.3 + 0.2 * random(), 40, 25);
        const g = groundOf(f, BOARD, p, grain);
        const far = { x: f.x0 + f.width * f.cell, y: f.y0 + f.height * f.cell };
        for (let k = 0; k < 400; k++) {
          const [x, y] = [BOARD.width * random(), BOARD.height * random()];
          const isInside = x > f.x0 && y > f.y0 && x < far.x && y < far.y;
          if (!isInside) expect(groundAt(g, x, y), `${x}, ${y}`).toBe(0);
          // As fine as the field, samples between its own lie on it; coarser, each is the highest of several.
          else if (grain === null && g.cell < f.cell / 2)
            expect(groundAt(g, x, y)).toBeGreaterThan(heightAt(f, x, y) - 4 * (g.cell / f.cell));
        }
        // The field's own samples are kept or raised: its peaks hold the cutter.
        for (let k = 0; k < f.z.length; k += 3) {
          const i = k % f.width;
          const [x, y] = [f.x0 + (i + 0.5) * f.cell, f.y0 + ((k - i) / f.width + 0.5) * f.cell];
          if (grain === null) expect(groundAt(g, x, y)).toBeGreaterThanOrEqual(f.z[k] - 1e-5);
        }
      }
    });

  it("goes on level beyond the board where the field ends with it, so that the rim comes out clean", () => {
    const p = profileOf(cutterOf("ball:4"));
    const f = fieldAt(9, 0, 0, 0.5, 60, 40);
    const g = groundOf(f, BOARD, p, null);
    for (let y = 1; y < 19; y += 0.7) {
      const edge = groundAt(g, 0, y);
      for (const past of [0.3, 1, 2]) expect(groundAt(g, -past, y)).toBeCloseTo(edge, 4);
    }
    expect(passedOver(f, BOARD, 2)).toEqual({ x0: -2, y0: -2, x1: 32, y1: 22 });
    // The cutter's rim is held by samples a radius farther than its middle goes.
    expect(g.x0).toBeLessThanOrEqual(-4);
    expect(g.x0 + g.width * g.cell).toBeGreaterThanOrEqual(34);
  });

  it("passes over no more than asked: no overrun keeps the cutter's middle on the board", () => {
    const f = fieldAt(4, 0, 0, 0.5, 60, 40);
    expect(passedOver(f, BOARD, 0)).toEqual({ x0: 0, y0: 0, x1: 30, y1: 20 });
    const inside = fieldAt(4, 8, 6, 0.5, 20, 10);
    expect(passedOver(inside, BOARD, 2)).toEqual({ x0: 8, y0: 6, x1: 18, y1: 11 });
  });
});

describe("the surface as a roughing cutter meets it", () => {
  for (const spec of ["flat:4", "ball:5", "v:90:4"])
    it(`${spec}: fine samples are taken together, and the cutter stands nowhere lower, nor much higher, for it`, () => {
      const cutter = cutterOf(spec);
      for (let seed = 1; seed <= 4; seed++) {
        const random = seeded(seed);
        // Level parts of every height beside each other.
        const [cell, part] = [0.03, 4 + Math.floor(20 * random())];
        const f = fieldAt(seed, 1 + random(), 1 + random(), cell, 300, 260);
        f.z.forEach((_, k) => {
          const [i, j] = [k % f.width, Math.floor(k / f.width)];
          f.z[k] = f.z[Math.floor(j / part) * f.width + Math.floor(i / part)];
        });
        const inputs = { kept: new Kept(), stock: { ...BOARD, thickness: 18 }, grain: null } as never;
        const fine = groundFor(inputs, heightsOf(f), cutter);
        const rough = groundFor(inputs, heightsOf(f), cutter, null, true);
        expect(rough.surface.cell).toBeGreaterThan(1.9 * cell);
        const past = rough.surface.cell * Math.SQRT1_2 + cell;
        // As far away as what coarse samples stand for, and the cutter's widening, may lie.
        const p = profileOf(cutter);
        const wider = new Tips(
          fine.surface,
          {
            ...p,
            radius: p.radius + 2 * past,
            h: (r) => p.h(Math.max(0, r - 2 * past)),
            r: (h) => p.r(h) + 2 * past,
          },
          Infinity,
        );
        for (let k = 0; k < 400; k++) {
          const [x, y] = [f.x0 + 9 * random(), f.y0 + 7.8 * random()];
          const [low, own, high] = [fine.tips.at(x, y), rough.tips.at(x, y), wider.at(x, y)];
          expect(own, `seed ${seed}, ${x}, ${y}`).toBeGreaterThan(low - 1e-4);
          expect(own, `seed ${seed}, ${x}, ${y}`).toBeLessThan(high + 1e-4);
        }
      }
    });
});

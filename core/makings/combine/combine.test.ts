import { describe, expect, it } from "vitest";
import { plainFace } from "../../testing/face.ts";
import { clearanceOf } from "../../geometry/clearance/clearance.ts";
import { mended } from "../../geometry/mend.ts";
import { insideRegion, ringsFrom, type Rings } from "../../geometry/rings.ts";
import { asRead } from "../../geometry/shape.ts";
import { isSound } from "../../geometry/sound.ts";
import { Kept } from "../../kept.ts";
import { noProgress, Problem } from "../../problem.ts";
import { resolve, type Settings } from "../../settings/fields.ts";
import { shapesOf } from "../../testing/cutting.ts";
import { blob, circle, distanceToRings, seeded, star } from "../../testing/random.ts";
import type { Tools } from "../kind.ts";
import type { ShapesProduct } from "../product.ts";
import { combine } from "./combine.ts";
import { materialNamed } from "../../testing/shop.ts";

const tools: Tools = {
  kept: new Kept(),
  clearance: (r) => clearanceOf(r),
  progress: noProgress,
  picture: () => {
    throw new Error("no picture here");
  },
  drawing: () => "",
  solid: () => new Uint8Array(0),
  face: plainFace,
};

function combined(first: Rings, second: Rings | null, own: Settings): ShapesProduct {
  const reads = { first: shapesOf(first), second: second && shapesOf(second) };
  const given = { reads, asset: null, art: null, preview: null };
  const context = combine.context(
    {
      ...given,
      own,
      person: null,
      board: { width: 100, height: 100, margin: 5, thickness: 20, material: materialNamed("ash"), foot: 0 },
    },
    tools,
  );
  const { values } = resolve(combine.fields, own, context);
  return combine.make(given, values as never, () => false, tools);
}

/** A random region: spiky, round with a hole, or two apart. */
function region(random: () => number): Rings {
  const [x, y] = [40 + 20 * random(), 40 + 20 * random()];
  const kind = Math.floor(3 * random());
  if (kind === 0) return mended(ringsFrom([star(random, 5 + Math.floor(9 * random()), 8, 30, x, y)]));
  const loops = [blob(random, 120, 18 + 8 * random(), x, y, 0.3 * random())];
  loops.push(kind === 1 ? circle(x, y, 4 + 5 * random(), 60, true) : circle(x - 35, y, 3, 40));
  return mended(ringsFrom(loops));
}

const IS: Record<string, (a: boolean, b: boolean) => boolean> = {
  add: (a, b) => a || b,
  subtract: (a, b) => a && !b,
  overlap: (a, b) => a && b,
};

describe("combining against its definition, point by point", () => {
  for (const how of Object.keys(IS))
    it(`${how}: 60 random pairs`, () => {
      for (let seed = 1; seed <= 60; seed++) {
        const random = seeded(seed);
        const [a, b] = [region(random), region(random)];
        let made: ShapesProduct;
        try {
          made = combined(a, b, { how, hold: 0.01 });
        } catch (e) {
          // Nothing may be left; then no point of the stock lies in it.
          expect(e, `seed ${seed}`).toBeInstanceOf(Problem);
          for (let k = 0; k < 400; k++) {
            const [x, y] = [100 * random(), 100 * random()];
            expect(IS[how](insideRegion(a, x, y), insideRegion(b, x, y)), `seed ${seed}`).toBe(false);
          }
          continue;
        }
        expect(isSound(made.ink), `seed ${seed}`).toBe(true);
        for (let k = 0; k < 400; k++) {
          const [x, y] = [100 * random(), 100 * random()];
          if (Math.min(distanceToRings(a, x, y), distanceToRings(b, x, y)) < 0.02) continue;
          const wanted = IS[how](insideRegion(a, x, y), insideRegion(b, x, y));
          expect(insideRegion(made.ink, x, y), `seed ${seed}, ${x} ${y}`).toBe(wanted);
        }
      }
    });

  it("an offset moves the edge by so much, and no farther: 40 random regions", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = seeded(seed);
      const a = region(random);
      const by = 0.5 + 3 * random();
      const made = combined(a, null, { offset: by, hold: 0.01 });
      for (let k = 0; k < 300; k++) {
        const [x, y] = [100 * random(), 100 * random()];
        const d = distanceToRings(a, x, y) * (insideRegion(a, x, y) ? -1 : 1);
        if (Math.abs(d - by) < 0.03) continue;
        expect(insideRegion(made.ink, x, y), `seed ${seed}, ${x} ${y}, ${d} of ${by}`).toBe(d < by);
      }
    }
  });
});

it("shapes without a partner, moved by nothing, stay as they are", () => {
  const a = mended(ringsFrom([circle(50, 50, 20, 90)]));
  expect(combined(a, null, {}).ink).toBe(a);
});

it("a square is held by its corners: four lines, not a hundred", () => {
  const square = ringsFrom([
    [
      [20, 20],
      [60, 20],
      [60, 60],
      [20, 60],
    ],
  ]);
  const bitten = combined(square, ringsFrom([circle(60, 60, 10, 180)]), { how: "subtract" });
  expect(bitten.shape.kinds.length).toBeLessThan(10);
  expect(asRead(bitten.shape).starts.length - 1).toBe(1);
});

it("says what to do when nothing is left", () => {
  const a = ringsFrom([circle(30, 30, 5, 60)]);
  const b = ringsFrom([circle(70, 70, 5, 60)]);
  expect(() => combined(a, b, { how: "overlap" })).toThrow(/do not overlap/);
  expect(() => combined(a, a, { how: "subtract" })).toThrow(/cover the first/);
  expect(() => combined(a, null, { offset: -6 })).toThrow(/Offset less/);
});

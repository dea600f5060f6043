import "../../testing/ready.ts";
import { describe, expect, it } from "vitest";
import { heightAt, type HeightField } from "../../height/field.ts";
import type { Asking, Tools } from "../kind.ts";
import type { HeightsProduct, ShapesProduct } from "../product.ts";
import { rectangle } from "../../geometry/shape.ts";
import { seeded } from "../../testing/random.ts";
import { texture } from "../texture/texture.ts";
import { blend } from "./blend.ts";

/** A surface of noise whose depth lies between two levels. */
function noise(seed: number, place: Omit<HeightField, "z">, low: number, high: number): HeightsProduct {
  const random = seeded(seed);
  const z = Float32Array.from({ length: place.width * place.height }, () => low + (high - low) * random());
  return { is: "heights", field: { ...place, z }, picture: null, litho: null };
}
const inside = (x0: number, y0: number, x1: number, y1: number) =>
  ({ is: "shapes", ink: rectangle(x0, y0, x1, y1) }) as ShapesProduct;

const A = noise(1, { x0: 10, y0: 10, cell: 0.5, width: 60, height: 40 }, -4, -1);
const B = noise(2, { x0: 25, y0: 15, cell: 0.25, width: 100, height: 120 }, -3, 0);
const never = null as unknown as Tools;

function both(own: Record<string, string | number>, mask: ShapesProduct | null = null): HeightField {
  const reads = { first: A, second: B, inside: mask };
  const context = blend.context({ reads } as Asking<typeof blend.reads>, never);
  const s = { how: "added", gain: 1, soft: 0, ...own } as Parameters<typeof blend.make>[1];
  expect(context.hasOther).toBe(true);
  return blend.make({ reads, asset: null, art: null, preview: null }, s, () => false, never).field;
}
/** Every so many cells of a field, with where they lie. */
function* places(f: HeightField): Generator<{ x: number; y: number; z: number }> {
  for (let k = 0; k < f.z.length; k += 13)
    yield {
      x: f.x0 + ((k % f.width) + 0.5) * f.cell,
      y: f.y0 + (Math.floor(k / f.width) + 0.5) * f.cell,
      z: f.z[k],
    };
}
const holds = (f: HeightField, x: number, y: number) =>
  x > f.x0 && y > f.y0 && x < f.x0 + f.width * f.cell && y < f.y0 + f.height * f.cell;

describe("two surfaces as one", () => {
  const ways: Record<string, (a: number, b: number) => number> = {
    higher: Math.max,
    lower: Math.min,
    added: (a, b) => a + b,
    second: (_, b) => b,
    scaled: (a, b) => a * (b / Math.min(...B.field.z)),
  };
  for (const [how, wanted] of Object.entries(ways))
    it(`${how}: where both lie, each alone elsewhere, the stock's top where neither does`, () => {
      const f = both({ how });
      expect([f.x0, f.y0, f.cell]).toEqual([10, 10, 0.25]);
      const seen = new Set<string>();
      for (const { x, y, z } of places(f)) {
        const [inA, inB] = [holds(A.field, x, y), holds(B.field, x, y)];
        const [a, b] = [heightAt(A.field, x, y), heightAt(B.field, x, y)];
        if (inA && inB) expect(z).toBeCloseTo(wanted(a, b), 5);
        else expect(z).toBeCloseTo(inA ? a : b, 5);
        if (!inA && !inB) expect(z).toBe(0);
        seen.add(`${inA} ${inB}`);
      }
      expect(seen.size).toBe(4);
    });

  it("inside shapes alone, with an edge as hard or as soft as asked; the second as strong as asked", () => {
    const mask = inside(28, 18, 36, 26);
    for (const soft of [0, 2])
      for (const { x, y, z } of places(both({ how: "second", soft, gain: 2 }, mask))) {
        const a = holds(A.field, x, y) ? heightAt(A.field, x, y) : 0;
        const deep = Math.min(x - 28, 36 - x, y - 18, 26 - y);
        if (deep < 0) expect(z).toBeCloseTo(a, 5);
        else if (deep >= soft) expect(z).toBeCloseTo(2 * heightAt(B.field, x, y), 4);
        else {
          const w = (deep / soft) ** 2 * (3 - (2 * deep) / soft);
          expect(z).toBeCloseTo(w * 2 * heightAt(B.field, x, y) + (1 - w) * a, 4);
        }
      }
  });
});

describe("a texture", () => {
  const lay = (own: Record<string, string | number>, over: ShapesProduct | null = null): HeightField => {
    const reads = { from: A, over };
    const s = { tile: 30, seams: "mirrored", soft: 0, x: 0, y: 0, wide: 95, high: 70, ...own };
    const given = { reads, asset: null, art: null, preview: null };
    return texture.make(given, s as Parameters<typeof texture.make>[1], () => false, never).field;
  };

  it("covers its area with tiles that are all alike, or mirrored so that no seam shows", () => {
    const own = (i: number, j: number) => A.field.z[j * 60 + i];
    for (const seams of ["again", "mirrored"]) {
      const f = lay({ seams });
      expect([f.width, f.height, f.cell]).toEqual([190, 140, 0.5]);
      const fold = (i: number, n: number) => {
        const k = i % n;
        return seams === "mirrored" && Math.floor(i / n) % 2 === 1 ? n - 1 - k : k;
      };
      for (let k = 0; k < f.z.length; k += 7)
        expect(f.z[k]).toBeCloseTo(own(fold(k % f.width, 60), fold(Math.floor(k / f.width), 40)), 5);
      if (seams === "mirrored") expect(f.z[60]).toBe(f.z[59]);
    }
  });

  it("tiles half as wide come twice as often, as deep as before", () => {
    const f = lay({ tile: 15 });
    expect(f.cell).toBe(0.25);
    expect(f.z[5 * f.width + 7]).toBeCloseTo(A.field.z[5 * 60 + 7], 5);
  });

  it("ends at the shapes that it lies over, rising to the stock's top", () => {
    const f = lay({ soft: 3 }, inside(20, 20, 60, 50));
    for (const { x, y, z } of places(f)) {
      const deep = Math.min(x - 20, 60 - x, y - 20, 50 - y);
      if (deep <= 0) expect(z + 0).toBe(0);
      else if (deep >= 3) expect(z).toBeLessThan(-0.9);
      else expect(z).toBeGreaterThan(-4);
    }
  });
});

import { Vector3 } from "three";
import { describe, expect, it } from "vitest";
import { seeded } from "@oaken/core/testing/random";
import type { DrawnSurface } from "../../compute/messages.ts";
import { pickOn } from "./pick.ts";

const [W, H] = [40, 30];
/** A surface of one cell a millimetre that falls evenly to the right, cut by two cuts. */
const surface = {
  cell: 1,
  width: W,
  height: H,
  z: Float32Array.from({ length: W * H }, (_, k) => -0.05 * (k % W)),
  by: Uint8Array.from({ length: W * H }, (_, k) => (k % W < 20 ? 1 : 2)),
} as unknown as DrawnSurface;
const ray = (from: [number, number, number], to: [number, number, number]) => ({
  origin: new Vector3(...from),
  direction: new Vector3(to[0] - from[0], to[1] - from[1], to[2] - from[2]).normalize(),
});

describe("what lies under the pointer", () => {
  it("straight from above is the cell's own height, and the cut that made it", () => {
    expect(pickOn(surface, ray([10.5, 7.5, 100], [10.5, 7.5, 0]))).toMatchObject({ x: 10.5, y: 7.5, by: 1 });
    expect(pickOn(surface, ray([30.5, 7.5, 100], [30.5, 7.5, 0]))!.z).toBeCloseTo(-1.5, 5);
  });
  it("seen aslant lies on the ray and on the surface", () => {
    const random = seeded(3);
    for (let k = 0; k < 200; k++) {
      const to: [number, number, number] = [4 + 30 * random(), 4 + 22 * random(), 0];
      const r = ray([20 + 60 * (random() - 0.5), -60 * random(), 80], to);
      const at = pickOn(surface, r)!;
      const t = (at.x - r.origin.x) / r.direction.x;
      expect(r.origin.y + t * r.direction.y).toBeCloseTo(at.y, 6);
      // Within one cell's fall and what the last step still moves.
      expect(Math.abs(at.z - -0.05 * Math.floor(at.x))).toBeLessThan(0.06);
    }
  });
  it("beside the stock and without a surface is the level of its top", () => {
    expect(pickOn(surface, ray([-5, -5, 50], [-5, -5, 0]))).toEqual({ x: -5, y: -5, z: 0, by: 0 });
    expect(pickOn(null, ray([3, 4, 50], [3, 4, 0]))).toEqual({ x: 3, y: 4, z: 0, by: 0 });
  });
  it("above the horizon is nothing", () => {
    expect(pickOn(surface, ray([0, 0, 10], [5, 5, 10]))).toBeNull();
    expect(pickOn(surface, ray([0, 0, 10], [5, 5, 60]))).toBeNull();
  });
});

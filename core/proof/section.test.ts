import { describe, expect, it } from "vitest";
import { profileOf } from "../cutters/profile.ts";
import { cutterOf } from "../testing/shop.ts";
import { lengthOf, restingTip, sectionOf, stretchFor } from "./section.ts";
import { newSurface } from "./surface.ts";

/** A board 40 × 30 that falls by 0.1 for each mm to the right and by 0.05 for each mm away. */
function slope() {
  const s = newSurface(40, 30, 0.25, 12);
  for (let k = 0; k < s.z.length; k++)
    s.z[k] = -0.1 * ((k % s.width) + 0.5) * s.cell - 0.05 * (Math.floor(k / s.width) + 0.5) * s.cell;
  return s;
}

describe("a section", () => {
  it("shows the surface along its line, whichever way it runs, and nothing off the board", () => {
    const line = { x0: 5, y0: 25, x1: 35, y1: 5 };
    const z = sectionOf(slope(), line, 61);
    expect(lengthOf(line)).toBeCloseTo(Math.hypot(30, 20), 9);
    z.forEach((v, k) => expect(v).toBeCloseTo(-0.1 * (5 + k / 2) - 0.05 * (25 - k / 3), 4));
    const beyond = sectionOf(slope(), { x0: -10, y0: 10, x1: 50, y1: 10 }, 61);
    expect(beyond.findIndex((v) => !Number.isNaN(v))).toBe(10);
    expect(Number.isNaN(beyond[51])).toBe(true);
  });

  it("a cutter rests where it touches first: in a corner on the wall's foot, over a slot on both of its edges", () => {
    const wall = Float32Array.from({ length: 101 }, (_, k) => (k < 50 ? 0 : -4));
    const ball = profileOf(cutterOf("ball:4"));
    // Its middle a radius away from the wall it stands on the floor, nearer it hangs on the edge.
    expect(restingTip(wall, 0.1, 70, ball)).toBeCloseTo(-4, 2);
    expect(restingTip(wall, 0.1, 60, ball)).toBeCloseTo(-(2 - Math.sqrt(4 - 1.1 * 1.1)), 2);
    const slot = Float32Array.from({ length: 101 }, (_, k) => (Math.abs(k - 50) < 10 ? -4 : 0));
    const v = profileOf(cutterOf("v:90:10"));
    expect(restingTip(slot, 0.1, 50, v)).toBeCloseTo(-1, 2);
  });

  it("is stretched as far as it fits, and shrunk where even its true height does not", () => {
    expect(stretchFor(4, 2, 80)).toBe(10);
    expect(stretchFor(4, 2, 79)).toBe(5);
    expect(stretchFor(18, 10, 80)).toBe(0.2);
  });
});

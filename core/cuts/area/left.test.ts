import { describe, expect, it } from "vitest";
import { clearanceOf } from "../../geometry/clearance/clearance.ts";
import { ringsOf } from "../../geometry/morph.ts";
import { regionArea } from "../../geometry/rings.ts";
import { seeded } from "../../testing/random.ts";
import { leftArea } from "./left.ts";

const between = (random: () => number, low: number, high: number) => low + (high - low) * random();
const rectangle = (x: number, y: number, w: number, h: number) => [x, y, x + w, y, x + w, y + h, x, y + h];

describe("area that a round cutter does not reach", () => {
  it("is what is left in the corners of a rectangle, (4 - π) r²", () => {
    const random = seeded(3);
    for (let k = 0; k < 20; k++) {
      const [w, h, x] = [between(random, 20, 90), between(random, 20, 90), between(random, -50, 50)];
      const r = between(random, 1, 9);
      const region = ringsOf([rectangle(x, -x, w, h)]);
      const want = (4 - Math.PI) * r * r;
      expect(Math.abs(leftArea(region, clearanceOf(region), r, r) - want)).toBeLessThan(0.04 * want + 0.1);
    }
  });

  it("is a strip along the walls where the cutter keeps off them", () => {
    const region = ringsOf([rectangle(0, 0, 40, 30)]);
    const [r, leave] = [3, 0.5];
    const want = 40 * 30 - (39 * 29 - (4 - Math.PI) * r * r);
    expect(Math.abs(leftArea(region, clearanceOf(region), r + leave, r) / want - 1)).toBeLessThan(0.03);
  });

  it("is nothing of a disc, and all of what the cutter does not enter", () => {
    const disc = Array.from({ length: 720 }, (_, k) =>
      k % 2 === 0 ? 10 * Math.cos((Math.PI * k) / 360) : 10 * Math.sin((Math.PI * (k - 1)) / 360),
    );
    const region = ringsOf([disc]);
    const c = clearanceOf(region);
    expect(leftArea(region, c, 4, 4)).toBeLessThan(0.05);
    expect(leftArea(region, c, 11, 11)).toBeCloseTo(regionArea(region), 0);
  });

  it("counts a neck once, though the cutter reaches into it from both sides", () => {
    // Two squares joined by a neck 4 long and 3 wide; the cutter is 4 wide.
    const region = ringsOf([
      [0, 0, 20, 0, 20, 8.5, 24, 8.5, 24, 0, 44, 0, 44, 20, 24, 20, 24, 11.5, 20, 11.5, 20, 20, 0, 20],
    ]);
    const r = 2;
    // Where two discs of radius r stand at the mouths they reach h into the neck on the middle line, less beside it.
    const mouth = 1.5 * Math.sqrt(r * r - 1.5 ** 2) + r * r * Math.asin(1.5 / r) - 3 * Math.sqrt(r * r - 1.5 ** 2);
    const want = (8 - 2 * Math.PI) * r * r + 4 * 3 - 2 * mouth;
    expect(Math.abs(leftArea(region, clearanceOf(region), r, r) - want)).toBeLessThan(0.4);
  });
});

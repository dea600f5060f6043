import { describe, expect, it } from "vitest";
import type { HeightField } from "../../height/field.ts";
import { profileOf } from "../../cutters/profile.ts";
import { lostDetail } from "../../proof/lost.ts";
import { heightsOf, planReading } from "../../testing/cutting.ts";
import { BOARD, CELL, surface, swept } from "../../testing/surfaces.ts";
import { cutterOf } from "../../testing/shop.ts";
import { heightAsked, regionOf } from "./asked.ts";

/** What a ball leaves of a surface, against what was asked for. */
function leftOf(f: HeightField, spec: string) {
  const plan = planReading("finish", { art: heightsOf(f) }, spec, { stepover: 0.2 }, {}, BOARD);
  const { s } = swept([[plan, profileOf(cutterOf(spec))]], 2 * CELL);
  return lostDetail(s, heightAsked(f, regionOf(f, BOARD), 0.02), new Uint8Array(s.z.length));
}
/** The board lowered by 4, and in it a trench round the middle, from 5 to 9 mm off it, 3 deeper and upright. */
function trenched(): HeightField {
  const [width, height, cell] = [400, 300, 0.1];
  const z = Float32Array.from({ length: width * height }, (_, k) => {
    const off = Math.hypot((k % width) + 0.5 - width / 2, Math.floor(k / width) + 0.5 - height / 2) * cell;
    return off > 5 && off < 9 ? -7 : -4;
  });
  return { x0: 0, y0: 0, cell, width, height, z };
}

describe("what is left of a wanted surface", () => {
  it("beside upright walls is the fillet that a ball leaves, no higher than its radius, not the wall itself", () => {
    const { lost, lostHeight } = leftOf(trenched(), "ball:3");
    expect(lostHeight).toBeLessThan(1.5);
    expect(lostHeight).toBeGreaterThan(0.5);
    // A fillet of radius R is higher than 0.06 within R − √(R² − (R − 0.06)²) of its wall: 1.08.
    const fillets = 2 * Math.PI * (5 + 9) * 1.08;
    expect(lost).toBeLessThan(1.1 * fillets);
    expect(lost).toBeGreaterThan(0.7 * fillets);
  });

  it("is a trench that the cutter does not go into, as high as it is deep", () => {
    const { lostHeight, lostAt } = leftOf(trenched(), "ball:8");
    // A ball of 4 sinks into a trench 4 wide by 4 − √(16 − 4); at the trench's walls it does not sink at all.
    expect(lostHeight).toBeGreaterThan(3 - (4 - Math.sqrt(12)) - 0.1);
    expect(lostHeight).toBeLessThan(3.05);
    const off = Math.hypot(lostAt.x - 20, lostAt.y - 15);
    expect(off).toBeGreaterThan(5);
    expect(off).toBeLessThan(9);
  });

  it("is next to nothing where hills are wider than the ball", () => {
    const { lost, area } = leftOf(surface(3, 0.2, false), "ball:2");
    expect(lost / area).toBeLessThan(0.002);
  });
});

import { describe, expect, it } from "vitest";
import { mended } from "../mend.ts";
import { regionArea, ringsFrom, ringsLength, type Rings } from "../rings.ts";
import { blob, circle, seeded, star } from "../../testing/random.ts";
import { type Clearance, clearanceOf, inset } from "./clearance.ts";
import { insetLengths } from "./lengths.ts";

/** Blobs over each other with round holes: full of necks. */
function necked(seed: number): { region: Rings; random: () => number } {
  const random = seeded(seed);
  const place = () => 30 + 40 * random();
  const loops: [number, number][][] = [
    seed % 3
      ? blob(random, 60 + Math.floor(240 * random()), 15 + 20 * random(), 50, 50, 0.6 * random())
      : star(random, 9, 14, 40, 50, 50),
  ];
  for (let k = 0; k < 4; k++) loops.push(blob(random, 40, 2 + 6 * random(), place(), place(), 0.4));
  for (let k = 0; k < 2; k++) loops.push(circle(place(), place(), 2 + 3 * random(), 60, true));
  return { region: mended(ringsFrom(loops)), random };
}

/** Clearances of the necks along an axis: nodes none of whose neighbours is nearer to the boundary. */
function necksOf({ axis }: Clearance): number[] {
  const isNeck = new Uint8Array(axis.x.length).fill(1);
  axis.a.forEach((i, e) => {
    const j = axis.b[e];
    isNeck[axis.d[i] < axis.d[j] ? j : i] = 0;
  });
  return [...axis.d].filter((d, i) => isNeck[i] && d > 0.1);
}

describe("insets beside necks", () => {
  it("lose no ring: between two distances the area changes by what lies between their curves", () => {
    const apart = 1e-4;
    let looked = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const { region, random } = necked(seed);
      const c = clearanceOf(region);
      for (const neck of necksOf(c))
        for (let k = 0; k < 6; k++) {
          const rho = neck + (random() < 0.5 ? -1 : 1) * 10 ** (-6 + 4 * random());
          const [outer, inner] = [inset(c, rho - apart).rings, inset(c, rho).rings];
          const between = regionArea(outer) - regionArea(inner);
          const most = 1.5 * apart * Math.max(ringsLength(outer), ringsLength(inner));
          expect(between, `seed ${seed}, neck ${neck}, distance ${rho}`).toBeGreaterThan(-0.02);
          expect(between, `seed ${seed}, neck ${neck}, distance ${rho}`).toBeLessThan(most + 0.02);
          looked++;
        }
    }
    expect(looked).toBeGreaterThan(1000);
  });

  it("are as long as told without drawing them", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const c = clearanceOf(necked(seed).region);
      const at = Float64Array.from({ length: 12 }, (_, k) => (c.widest * (k + 0.5)) / 12);
      insetLengths(c, at).forEach((told, k) => {
        const drawn = ringsLength(inset(c, at[k]).rings);
        expect(Math.abs(told - drawn), `seed ${seed}, ${at[k]} mm in`).toBeLessThan(0.003 * drawn + 0.1);
      });
    }
  });
});

import { describe, expect, it } from "vitest";
import { profileOf } from "../cutters/profile.ts";
import { seeded } from "../testing/random.ts";
import { Swaths, sweepLine } from "./swaths.ts";
import { newSurface } from "./surface.ts";
import { cutterOf } from "../testing/shop.ts";

/** A walk along rows of cells and across them, as most surfaces are finished: straight on, back, or round a corner. */
function rowWalk(random: () => number): number[] {
  let [x, y, z, quarter] = [20, 20.125, -1.5, 0];
  const out = [x, y, z];
  for (let k = 0; k < 40; k++) {
    if (random() < 0.3) quarter = Math.floor(4 * random());
    if (x < 8 || x > 32 || y < 8 || y > 32) [x, y] = [20, 20];
    const d = 0.1 + random();
    x += d * [1, 0, -1, 0][quarter];
    y += d * [0, 1, 0, -1][quarter];
    z = Math.max(-4, Math.min(-0.2, z + 1.2 * d * (2 * random() - 1)));
    out.push(x, y, z);
  }
  return out;
}

/** A walk of straight moves, x, y, z by turns: gentle bends and short steps, sharp turns, or both. */
function walk(random: () => number, step: number, bend: number, climb: number): number[] {
  let [x, y, z, heading] = [20, 20, -1.5, 2 * Math.PI * random()];
  const out = [x, y, z];
  for (let k = 0; k < 40; k++) {
    heading += bend * (2 * random() - 1);
    if (x < 8 || x > 32 || y < 8 || y > 32) heading = Math.atan2(20 - y, 20 - x);
    const d = step * (0.2 + random());
    x += d * Math.cos(heading);
    y += d * Math.sin(heading);
    z = Math.max(-4, Math.min(-0.2, z + climb * d * (2 * random() - 1)));
    out.push(x, y, z);
  }
  return out;
}

function distanceToWalk(w: number[], x: number, y: number): number {
  let best = Infinity;
  for (let i = 3; i < w.length; i += 3) {
    const [dx, dy] = [w[i] - w[i - 3], w[i + 1] - w[i - 2]];
    const t = Math.max(0, Math.min(1, ((x - w[i - 3]) * dx + (y - w[i - 2]) * dy) / (dx * dx + dy * dy)));
    best = Math.min(best, Math.hypot(x - w[i - 3] - t * dx, y - w[i - 2] - t * dy));
  }
  return best;
}

describe("moves in a row cut what each of them cuts by itself", () => {
  const cell = 0.25;
  const swept = (spec: string, w: number[], together: boolean) => {
    const s = newSurface(40, 40, cell);
    const p = profileOf(cutterOf(spec));
    const c = new Swaths(s, p, 1);
    for (let i = 3; i < w.length; i += 3) {
      const m = [w[i - 3], w[i - 2], w[i - 1], w[i], w[i + 1], w[i + 2]] as const;
      if (together) c.line(...m);
      else sweepLine(s, p, 1, ...m);
    }
    c.end();
    return s;
  };
  for (const spec of [
    "v:60:12",
    "v:90:12:1",
    "ball:6",
    "taper:0.8:7:6",
    "v:20:3",
    "drill:4",
    "form:0/0:0.6/0.1:2/1:3/4",
    "form:0.5/0:2/0.4:2.5/3:4/3.2:5/6",
  ])
    for (const [name, step, bend, climb] of [
      ["smooth and short", 0.3, 0.15, 0.1],
      ["turning back and forth", 1.2, 3.1, 0],
      ["steep and sharp", 1.5, 1.5, 0.9],
      ["long and level", 6, 1, 0],
      ["along rows and across", 0, 0, 0],
    ] as const)
      it(`${spec}, ${name}`, () => {
        const random = seeded(spec.length * 7 + name.length);
        for (let n = 0; n < 4; n++) {
          const w = step > 0 ? walk(random, step, bend, climb) : rowWalk(random);
          const [a, b] = [swept(spec, w, true), swept(spec, w, false)];
          let worst = 0;
          for (let i = 0; i < a.z.length; i++) worst = Math.max(worst, Math.abs(a.z[i] - b.z[i]));
          expect(worst).toBeLessThan(1e-5);
        }
      });
  it("a flat cutter's, where slight bends meet in a mitre, to a twentieth of a cell beyond its rim", () => {
    const random = seeded(5);
    let mitres = 0;
    for (let n = 0; n < 12; n++) {
      const w = walk(random, n % 2 ? 0.4 : 4, [0.05, 0.2, 0.8, 3.1][n % 4], n % 3 === 2 ? 0.3 : 0);
      const [a, b] = [swept("flat:5", w, true), swept("flat:5", w, false)];
      for (let i = 0; i < a.z.length; i++) {
        if (a.z[i] === b.z[i]) continue;
        mitres++;
        expect(a.z[i]).toBeLessThan(b.z[i]);
        const d = distanceToWalk(w, ((i % a.width) + 0.5) * cell, (Math.floor(i / a.width) + 0.5) * cell);
        expect(d).toBeGreaterThan(2.5 - 1e-6);
        expect(d).toBeLessThan(2.5 + 0.051 * cell);
      }
    }
    expect(mitres).toBeLessThan(150);
  });
});

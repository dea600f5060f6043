import { describe, expect, it } from "vitest";
import { clearanceOf } from "../../geometry/clearance/clearance.ts";
import { type Rings, ringsFrom } from "../../geometry/rings.ts";
import { Kept } from "../../kept.ts";
import { circle, seeded, star } from "../../testing/random.ts";
import type { AreaPlan, Level } from "./level.ts";
import { isDone, reachedBy } from "./reached.ts";
import { restsOf, type Run } from "./rests.ts";

const STEPOVER = 0.8;
const FLOOR: Level = { z0: -1, z1: -2, from: 1 };

/** Stars with narrow points, some with an island, of which a 10 mm cutter leaves much to a 2 mm one. */
function stars(seed: number): Rings {
  const random = seeded(seed);
  const loops = [star(random, 7, 8, 30, 40, 40), star(random, 9, 6, 28, 110, 40)];
  if (random() < 0.7) loops.push(circle(40, 40, 3, 40, true));
  return ringsFrom(loops);
}

/** A plate with islands all over, between which a 10 mm cutter goes nowhere. */
function islands(seed: number): Rings {
  const random = seeded(seed);
  const loops: [number, number][][] = [circle(60, 60, 55, 90)];
  for (let i = 0; i < 16; i++) {
    const [x, y] = [27 + 22 * (i % 4), 27 + 22 * Math.floor(i / 4)];
    loops.push(star(random, 9, 6, 8.5, x, y).reverse());
  }
  return ringsFrom(loops);
}

function left(region: Rings): readonly Run[][] {
  const c = clearanceOf(region);
  const before = [{ radius: 5, from: 5 }];
  const reached = reachedBy(c, before);
  const p: AreaPlan = {
    c,
    radius: 1,
    stepover: STEPOVER,
    slope: 0.05,
    entry: "auto",
    centre: true,
    conventional: false,
    before,
    done: (x, y, d) => (reached ? isDone(reached, 1, x, y, d) : -1),
  };
  return restsOf(p, FLOOR, new Kept());
}

const distance = (a: Run, b: Run): number => {
  let least = Infinity;
  for (let i = 0; i < a.x.length; i++)
    for (let j = 0; j < b.x.length; j++) least = Math.min(least, Math.hypot(a.x[i] - b.x[j], a.y[i] - b.y[j]));
  return least;
};

describe("what earlier cutters left", () => {
  it("is cut from the open towards the walls: of two stretches beside each other the deeper one first", () => {
    let pairs = 0;
    for (let seed = 1; seed <= 12; seed++)
      for (const corner of left(stars(seed)))
        corner.forEach((run, k) => {
          for (const before of corner.slice(0, k)) {
            if (before.step >= run.step || distance(before, run) > STEPOVER) continue;
            expect.fail(`seed ${seed}: a stretch ${run.step} steps in comes after one ${before.step} steps in`);
          }
          pairs += k;
        });
    expect(pairs).toBeGreaterThan(300);
  });

  it("is cut in an order that goes shorter ways than step by step", () => {
    let [ways, byStep] = [0, 0];
    for (let seed = 1; seed <= 6; seed++)
      for (const corner of left(islands(seed))) {
        const random = seeded(seed);
        const any = corner.map((run) => ({ run, at: random() })).sort((a, b) => a.at - b.at);
        const sorted = any.map(({ run }) => run).sort((a, b) => b.step - a.step);
        ways += corner.slice(1).reduce((sum, r) => sum + r.way, 0);
        for (let k = 1; k < sorted.length; k++) {
          const [p, q] = [sorted[k - 1], sorted[k]];
          byStep += Math.hypot(q.x[0] - p.x[p.x.length - 1], q.y[0] - p.y[p.y.length - 1]);
        }
      }
    expect(ways).toBeGreaterThan(0);
    expect(ways).toBeLessThan(0.85 * byStep);
  });

  it("is told with the way to each stretch", () => {
    for (let seed = 1; seed <= 6; seed++)
      for (const corner of left(stars(seed)))
        for (let k = 1; k < corner.length; k++) {
          const [p, q] = [corner[k - 1], corner[k]];
          if (p.closed || q.closed) continue;
          const way = Math.hypot(q.x[0] - p.x[p.x.length - 1], q.y[0] - p.y[p.y.length - 1]);
          expect(q.way).toBeCloseTo(way, 9);
        }
  });
});

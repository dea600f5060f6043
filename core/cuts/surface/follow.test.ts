import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import type { HeightField } from "../../height/field.ts";
import { seeded } from "../../testing/random.ts";
import { cutterOf } from "../../testing/shop.ts";
import { Span } from "../../testing/span.ts";
import { FEED, PLUNGE, RAPID, type Toolpath, ToolpathWriter } from "../../toolpath/toolpath.ts";
import {
  backToBeginning,
  type Course,
  courseOf,
  type Enter,
  follow,
  type Following,
  rampEnd,
  rampInto,
  wayInFarther,
} from "./follow.ts";
import { Ground, passedOver } from "./ground.ts";
import { ringsOver, type Row, rowsOver } from "./rows.ts";
import { inOrder, runsOf } from "./runs.ts";

const BOARD = { width: 12, height: 9 };
const CELL = 0.1;

/** Hills and a step on a small board, for a ball of 2 mm. */
function groundAt(seed: number): Ground {
  const random = seeded(seed);
  const [width, height] = [Math.round((BOARD.width + 4) / CELL), Math.round((BOARD.height + 4) / CELL)];
  const waves = Array.from({ length: 5 }, () => [random() - 0.5, random() - 0.5, 6 * random(), 0.4 * random()]);
  const z = new Float32Array(width * height);
  for (let k = 0; k < z.length; k++) {
    const [x, y] = [(k % width) * CELL, Math.floor(k / width) * CELL];
    z[k] = Math.min(
      0,
      -1.5 + waves.reduce((sum, [a, b, c, gain]) => sum + gain * Math.sin(3 * (a * x + b * y) + c), 0),
    );
    if (seed % 2 && x > 6 && x < 9) z[k] -= 1;
  }
  const surface: HeightField = { x0: -2, y0: -2, cell: CELL, width, height, z };
  const p = profileOf(cutterOf("ball:2"));
  const field = { ...surface, x0: 0, y0: 0, width: BOARD.width / CELL, height: BOARD.height / CELL };
  return new Ground(surface, p, passedOver(field, BOARD, 0));
}
const drop: (w: ToolpathWriter) => Enter = (w) => (_, x, y, z) => {
  w.above(x, y);
  w.plunge(z);
  return true;
};

/** Places along every cutting move, a hundredth of it apart, with the tip's height there. */
function* placesOn(t: Toolpath): Generator<[number, number, number]> {
  for (let i = 1; i < t.kind.length; i++) {
    if (t.kind[i] !== FEED) continue;
    for (let q = 0; q <= 1; q += 0.05) {
      const at = (v: Float64Array) => v[i - 1] + q * (v[i] - v[i - 1]);
      yield [at(t.x), at(t.y), at(t.z)];
    }
  }
}

describe("following rows over a surface", () => {
  const ways: [string, (g: Ground) => Row[]][] = [
    ["lines", (g) => rowsOver(g, 0.8, 20)],
    ["rings", (g) => ringsOver(g, 0.8)],
  ];
  for (const [name, rowsOf] of ways)
    it(`${name}: the tip stays on its lowest heights, between rows too, and never far above along them`, () => {
      for (let seed = 1; seed <= 6; seed++) {
        const g = groundAt(seed);
        const f: Following = { tips: g.tips, tolerance: 0.01, over: (z) => z };
        const w = new ToolpathWriter(1000, 400, 5000);
        const rows = rowsOf(g);
        const runs = rows.map((row) => runsOf(row, () => true));
        for (const run of inOrder(runs, 4, false)) expect(follow(w, run, f, drop(w))).toBe(true);
        const t = w.take();
        const above = new Span();
        for (const [x, y, z] of placesOn(t)) above.take(z - g.tips.at(x, y), () => `${x}, ${y}`);
        expect(above.least, `seed ${seed}: ${above.leastAt}`).toBeGreaterThan(-0.01);
        for (const row of rows)
          for (const run of runsOf(row, () => true)) {
            const course = courseOf({ ...run, back: false, joined: false }, f);
            const ahead = new Span();
            course.s.forEach((s, k) => ahead.take(s - (k ? course.s[k - 1] : 0), () => `place ${k}`));
            expect(ahead.least, `seed ${seed}: ${ahead.leastAt}`).toBeGreaterThanOrEqual(0);
            expect(course.corners[0]).toBe(0);
          }
      }
    });

  it("without a way in a run is left out, and nothing is written for it", () => {
    const g = groundAt(2);
    const [row] = rowsOver(g, 3, 0);
    const [run] = runsOf(row, () => true);
    const w = new ToolpathWriter(1000, 400, 5000);
    const f: Following = { tips: g.tips, tolerance: 0.01, over: (z) => z };
    expect(follow(w, { ...run, back: false, joined: false }, f, () => false)).toBe(false);
    expect(w.count).toBe(0);
  });
});

describe("ramps along a course", () => {
  it("sink no steeper than asked, never below what is wanted, and end where the course begins", () => {
    let ramps = 0;
    for (let seed = 1; seed <= 8; seed++) {
      const g = groundAt(seed);
      const random = seeded(50 + seed);
      const rows = rowsOver(g, 1.5, 180 * random());
      const f: Following = { tips: g.tips, tolerance: 0.03, over: (z) => Math.max(z, -2) };
      for (const row of rows) {
        const [run] = runsOf(row, () => true);
        if (!run || run.i1 - run.i0 < 6) continue;
        const course = courseOf({ ...run, back: random() < 0.5, joined: false }, f);
        const slope = Math.tan(((1 + 8 * random()) * Math.PI) / 180);
        const end = rampEnd(course, -course.z[0], slope);
        if (end === 0) continue;
        ramps++;
        const w = new ToolpathWriter(1000, 400, 5000);
        rampInto(w, course, f, 0, slope, end);
        expect(Math.hypot(w.x - course.x[0], w.y - course.y[0])).toBeLessThan(1e-9);
        expect(Math.abs(w.z - course.z[0])).toBeLessThan(0.04);
        const t = w.take();
        expect([...t.kind]).not.toContain(PLUNGE);
        const above = new Span();
        for (const [x, y, z] of placesOn(t)) above.take(z - f.over(g.tips.at(x, y)), () => `${x}, ${y}`);
        expect(above.least, `seed ${seed}: ${above.leastAt}`).toBeGreaterThan(-0.01);
        for (let i = 1; i < t.kind.length; i++) {
          // Down to the stock's top there is air.
          if (t.kind[i] !== FEED || t.z[i - 1] > 0) continue;
          const level = Math.hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1]);
          // A chord lies above the ramp by its tolerance at most, at either end.
          expect(t.z[i - 1] - t.z[i], `seed ${seed}`).toBeLessThanOrEqual(slope * level + 0.031);
        }
        expect([...t.kind].filter((kind) => kind === RAPID).length).toBeLessThanOrEqual(4);
      }
    }
    expect(ramps).toBeGreaterThan(20);
  });
});

describe("a way in", () => {
  it("is looked for farther along where a course begins in a dip too steep for a ramp, and leads back into it", () => {
    for (let seed = 1; seed <= 50; seed++) {
      const random = seeded(seed);
      const [n, slope, step] = [60 + Math.floor(200 * random()), Math.tan((5 * Math.PI) / 180), 0.2];
      const dip = 5 + Math.floor(20 * random());
      const s = Float64Array.from({ length: n + 1 }, (_, k) => k * step);
      // Three times as steep as the ramp, then level.
      const z = s.map((_, k) => -4 + 3 * slope * step * Math.min(k, dip));
      const course = { s, x: s, y: s.map(() => 7), z, corners: [0, n] };
      const length = (c: Course) => c.s[rampEnd(c, -c.z[0], slope)];
      expect(length(course), `seed ${seed}`).toBe(0);
      const least = 3;
      const found = wayInFarther(course, (rest) => (length(rest) >= least ? length(rest) : null))!;
      expect(found.way).toBe(length(found.rest));
      expect(found.from, `seed ${seed}`).toBeGreaterThanOrEqual(dip);
      expect([found.rest.x[0], found.rest.z[0], found.rest.s[0]]).toEqual([s[found.from], z[found.from], 0]);
      const w = new ToolpathWriter(1000, 300, 5000);
      w.above(found.rest.x[0], 7);
      w.plunge(found.rest.z[0]);
      const before = w.count;
      backToBeginning(w, course, found.from, { tolerance: 0.03 } as Following);
      expect([w.x, w.y]).toEqual([0, 7]);
      expect(w.z).toBeLessThanOrEqual(-4 + 0.03);
      const t = w.take();
      for (let i = before; i < t.x.length; i++)
        if (t.kind[i] !== RAPID) expect(t.z[i]).toBeGreaterThanOrEqual(z[Math.round(t.x[i] / step)] - 1e-9);
    }
  });
  it("is none where a course has room nowhere", () => {
    const s = Float64Array.of(0, 1, 2, 3);
    const course = { s, x: s, y: s, z: Float64Array.of(-3, -2, -1, 0), corners: [0, 3] };
    expect(wayInFarther(course, () => null)).toBeNull();
  });
});

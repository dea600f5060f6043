import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import { type HeightField, heightAt } from "../../height/field.ts";
import { newSurface } from "../../proof/surface.ts";
import { heightsOf, planReading } from "../../testing/cutting.ts";
import { seeded } from "../../testing/random.ts";
import { cutterOf } from "../../testing/shop.ts";
import { Span } from "../../testing/span.ts";
import { against, BOARD, CELL, surface, swept } from "../../testing/surfaces.ts";
import type { Planned } from "../kind.ts";

const finish = (f: HeightField, cutter: string, own = {}) =>
  planReading("finish", { art: heightsOf(f) }, cutter, own, {}, BOARD);

/** A surface of upright steps, as a picture of few pixels gives. */
function blocks(seed: number): HeightField {
  const random = seeded(seed);
  const cell = 0.5 + 0.8 * random();
  const [width, height] = [Math.floor(BOARD.width / cell), Math.floor(BOARD.height / cell)];
  const z = new Float32Array(width * height);
  for (let n = 0; n < 12; n++) {
    const [i0, j0] = [Math.floor(width * random()), Math.floor(height * random())];
    const [w, h, low] = [2 + width * random() * 0.4, 2 + height * random() * 0.4, -8 * random()];
    for (let j = j0; j < Math.min(height, j0 + h); j++)
      for (let i = i0; i < Math.min(width, i0 + w); i++) z[j * width + i] = low;
  }
  return { x0: 0, y0: 0, cell, width, height, z };
}

describe("finishing", () => {
  for (const [cutter, own] of [
    ["ball:3", { angle: 0 }],
    ["ball:2", { angle: 33 }],
    ["taper:0.5:7:4", { angle: 90 }],
    ["v:60:6", { angle: -20 }],
    ["ball:3", { way: "rings" }],
    ["v:60:6", { way: "rings" }],
    ["ball:3", { way: "spiral" }],
  ] as const)
    it(`${cutter} ${JSON.stringify(own)} goes never below the surface, and leaves the ridge it states`, () => {
      const f = surface(3, 0.1, false);
      const stepover = cutter.startsWith("v") ? 0.15 : 0.4;
      const plan = finish(f, cutter, { stepover, ...own });
      const p = profileOf(cutterOf(cutter));
      const { s } = swept([[plan, p]]);
      const { below, above } = against(s, f);
      expect(below).toBeLessThan(0.005);
      const ridge = p.h(stepover / 2);
      // Slopes of these hills reach 45°, where rows lie farther apart along the surface than in plan.
      expect(above[Math.floor(0.5 * above.length)]).toBeLessThan(ridge + 0.012);
      expect(above[Math.floor(0.99 * above.length)]).toBeLessThan(2.4 * ridge + 0.02);
    });

  it("surface-level: says so where nothing lies below the stock's top", () => {
    const f = surface(1, 0.5, false);
    f.z.fill(0);
    const { toolpath, notes } = finish(f, "ball:3");
    expect(toolpath.kind.length).toBe(0);
    expect(notes.map((n) => [n.code, n.severity])).toEqual([["surface-level", "warning"]]);
  });

  it("a spiral is cut without lifting where it stays over the surface", () => {
    const { toolpath: t } = finish(surface(3, 0.1, false, 5), "ball:3", { stepover: 0.8, way: "spiral" });
    const lifts = [...t.kind].filter((kind, i) => kind === 0 && i > 0 && t.z[i] > 0 && t.z[i - 1] < 0).length;
    // Only in the corners, where its turns leave the field.
    const corners = 4 * Math.ceil((Math.hypot(30, 20) / 2 - 10) / 0.8);
    expect(lifts).toBeLessThanOrEqual(corners + 1);
  });

  it("leaves ridges on level ground as high as it states", () => {
    const f = surface(1, 0.2, false);
    f.z.fill(-1);
    for (const [cutter, stepover] of [
      ["ball:3", 0.6],
      ["v:90:10", 0.5],
    ] as const) {
      const p = profileOf(cutterOf(cutter));
      const { s } = swept([[finish(f, cutter, { stepover, tolerance: 0.001 }), p]], 0.02);
      const { above } = against(s, f, 2);
      expect(above[above.length - 1] / p.h(stepover / 2)).toBeGreaterThan(0.9);
      expect(above[above.length - 1] / p.h(stepover / 2)).toBeLessThan(1.1);
    }
  });

  // These walls stand at 80° and more: along a taper's flank a hundredth sideways is a tenth in height.
  for (const [cutter, cells, most] of [
    ["ball:3", [0.07, 0.5], 0.03],
    ["flat:2", [0.23], 0.03],
    ["taper:0.25:5:3", [0.23], 0.1],
  ] as const)
    it(`${cutter}: steps, a spike and coarse samples are nowhere cut into`, () => {
      for (const cell of cells) {
        const f = surface(5, cell, true);
        const { s } = swept([[finish(f, cutter, { stepover: 0.5, angle: 10 }), profileOf(cutterOf(cutter))]]);
        const { below } = against(s, f, cell);
        expect(below, `samples of ${cell} mm`).toBeLessThan(most);
      }
    });

  it("stays inside a field that ends on the board, and comes out clean where the board ends", () => {
    const f = surface(7, 0.1, false, 6);
    const { s } = swept([[finish(f, "ball:3", { stepover: 0.5 }), profileOf(cutterOf("ball:3"))]]);
    const round = new Span();
    for (let k = 0; k < s.z.length; k++) {
      const i = k % s.width;
      const [x, y] = [(i + 0.5) * CELL, ((k - i) / s.width + 0.5) * CELL];
      if (Math.min(x, y, 40 - x, 30 - y) < 6) round.take(s.z[k], () => `${x}, ${y}`);
    }
    expect([round.least, round.most], round.leastAt).toEqual([0, 0]);
    const whole = surface(7, 0.1, false);
    const out = swept([[finish(whole, "ball:3", { stepover: 0.3 }), profileOf(cutterOf("ball:3"))]]).s;
    for (let i = 5; i < out.width; i += 7) expect(out.z[i]).toBeLessThan(heightAt(whole, (i + 0.5) * CELL, 0.02) + 0.1);
  });

  it("writes far fewer moves than the samples that it passes, and slows down only where it sinks", () => {
    const f = surface(3, 0.1, false);
    const { toolpath: t, values } = finish(f, "ball:3", { stepover: 0.4 });
    const samples = (BOARD.width / 0.1) * (BOARD.height / 0.4);
    expect(t.kind.length).toBeLessThan(samples / 4);
    for (let i = 1; i < t.kind.length; i++) {
      if (t.kind[i] !== 1) continue;
      const sink = t.z[i - 1] - t.z[i];
      const length = Math.hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1], sink);
      if (sink <= 0) expect(t.feed[i]).toBe(values.feed);
      else expect((t.feed[i] * sink) / length).toBeLessThanOrEqual(Number(values.plunge) + 1e-6);
    }
  });
});

describe("roughing", () => {
  const rough = (f: HeightField, cutter: string, own = {}, earlier: [string, object][] = []) =>
    planReading(
      "rough",
      { art: heightsOf(f) },
      cutter,
      own,
      {
        target: { id: "f", kind: "finish", cutter: cutterOf("ball:3"), settings: {} },
        earlier: earlier.map(([c, settings], k) => ({
          id: `r${k}`,
          kind: "rough",
          cutter: cutterOf(c),
          settings: settings as Record<string, number>,
        })),
      },
      BOARD,
    );

  for (const [cutter, angle] of [
    ["flat:6", 0],
    ["flat:4", 25],
    ["ball:6", 90],
  ] as const)
    it(`${cutter} at ${angle}° leaves what it is told above the surface, nowhere less`, () => {
      const f = surface(4, 0.2, true);
      const plan = rough(f, cutter, { leave: 0.4, angle, stepdown: 1.2, ramp: 5 });
      const p = profileOf(cutterOf(cutter));
      const { s, reports } = swept([[plan, p]]);
      const { below, above } = against(s, f);
      expect(below).toBe(0);
      const left = new Span();
      for (let k = 0; k < s.z.length; k++) {
        const i = k % s.width;
        const w = heightAt(f, (i + 0.5) * CELL, ((k - i) / s.width + 0.5) * CELL);
        left.take(s.z[k] - w - Math.min(0.4, -w), () => `cell ${k}`);
      }
      expect(left.least, left.leastAt).toBeGreaterThanOrEqual(-0.08);
      expect(reports[0].rapids).toBe(0);
      // Most of what stood above is gone: what stays are steps on slopes, and corners that the cutter cannot reach.
      const stood = against(newSurface(BOARD.width, BOARD.height, CELL), f).above;
      const volume = (v: number[]) => v.reduce((sum, h) => sum + h, 0);
      expect(volume(above)).toBeLessThan(0.45 * volume(stood));
    });

  it("with a cutter that does not cut at its centre never goes straight down into stock", () => {
    const f = surface(4, 0.2, true, 5);
    const { s, reports } = swept([[rough(f, "flat10", { stepdown: 1.5 }), profileOf(cutterOf("flat10"))]]);
    expect(reports[0].plunges).toBe(0);
    expect(against(s, f).below).toBe(0);
  });

  it("plunges where there is no room to ramp, and says so; leaves out what it may not plunge into", () => {
    const hole = (wide: number): HeightField => {
      const f = surface(1, 0.1, false);
      f.z.fill(0);
      for (let j = 0; j < f.height; j++)
        for (let i = 0; i < f.width; i++)
          if (Math.abs(i * 0.1 - 20) < wide / 2 && Math.abs(j * 0.1 - 15) < wide / 2) f.z[j * f.width + i] = -3;
      return f;
    };
    const narrow = rough(hole(3.3), "flat:3", { leave: 0, stepdown: 3, ramp: 1 });
    expect(narrow.notes.map((n) => n.code)).toContain("plunges-into-stock");
    expect(Math.min(...narrow.toolpath.z)).toBeLessThan(-2.5);
    const wide = rough(hole(11), "flat10", { leave: 0 });
    expect(wide.notes.map((n) => [n.code, n.severity])).toContainEqual(["no-way-in", "stop"]);
    expect(Math.min(...wide.toolpath.z, 0)).toBe(0);
  });

  it("a smaller cutter after larger ones comes down nowhere at rapid speed into what they left", () => {
    // Rows of the larger cutter leave stock between them beside upright walls, as pictures of few pixels have.
    for (let seed = 1; seed <= 14; seed++) {
      const f = blocks(seed);
      const first = { leave: 0.3, stepdown: 3, stepover: 2.4 + (seed % 3) };
      const larger: [string, object][] = [["flat:6", { ...first, angle: 20 * (seed % 4) }]];
      if (seed % 2) larger.push(["flat:4", { ...first, stepover: 1.7 }]);
      const smaller = seed % 5 === 0 ? "ball:2" : "flat:2";
      const plans = [...larger, [smaller, { leave: 0.3, stepdown: 1 }] as [string, object]].map(
        ([cutter, own], k): [Planned, ReturnType<typeof profileOf>] => [
          rough(f, cutter, own, larger.slice(0, k)),
          profileOf(cutterOf(cutter)),
        ],
      );
      const { reports } = swept(plans, 0.1);
      expect(
        reports.map((r) => r.rapids),
        `seed ${seed}`,
      ).toEqual(plans.map(() => 0));
    }
  });

  it("a smaller cutter after a larger one cuts only what that left", () => {
    const f = surface(4, 0.2, true);
    const alone = rough(f, "flat:2", { stepdown: 1 });
    const after = rough(f, "flat:2", { stepdown: 1 }, [["flat:6", { leave: 0.3, stepdown: 2, stepover: 1.2 }]]);
    const length = (plan: Planned) => {
      const { kind, x, y } = plan.toolpath;
      let sum = 0;
      for (let i = 1; i < kind.length; i++) if (kind[i] === 1) sum += Math.hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
      return sum;
    };
    expect(length(after)).toBeLessThan(0.6 * length(alone));
    expect(after.toolpath.kind.length).toBeGreaterThan(10);
  });
});

import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import { boundsOf, insideRegion, ringsFrom, type Rings } from "../../geometry/rings.ts";
import { FEED, PLUNGE, RAPID } from "../../toolpath/toolpath.ts";
import { circle, distanceToRings, seeded, star } from "../../testing/random.ts";
import { planOn, proofOf } from "../../testing/cutting.ts";
import { cutterOf } from "../../testing/shop.ts";

const CELL = 0.1;

/**
 * Compares the surface swept from the moves with the definition z = −min(F, d/tan(θ/2)): the largest wall error
 * normal to the wall, the largest depth outside the region, and the share of floor left higher than the stated ridge.
 */
function against(region: Rings, angle: number, floor: number, ridge: number, cuts: Parameters<typeof proofOf>[0]) {
  const s = proofOf(cuts, CELL);
  const half = (angle * Math.PI) / 360;
  let wall = 0;
  let outside = 0;
  let deepest = 0;
  let floorCells = 0;
  let high = 0;
  const b = boundsOf(region.xy);
  const within = (v: number, lo: number, hi: number) => v > lo - 1 && v < hi + 1;
  // Every third cell: steps that share no factor with any shape here.
  for (let j = 0; j < s.height; j += 3)
    for (let i = 0; i < s.width; i += 3) {
      if (!within(i * s.cell, b.minX, b.maxX) || !within(j * s.cell, b.minY, b.maxY)) continue;
      const x = (i + 0.5) * s.cell;
      const y = (j + 0.5) * s.cell;
      const z = s.z[j * s.width + i];
      const d = distanceToRings(region, x, y);
      if (!insideRegion(region, x, y)) {
        if (d > 0.01) outside = Math.max(outside, -z);
        continue;
      }
      const ideal = -Math.min(floor, d / Math.tan(half));
      if (ideal > -floor) wall = Math.max(wall, Math.abs(z - ideal) * Math.sin(half));
      else if (d > floor * Math.tan(half) + 0.05) {
        floorCells++;
        deepest = Math.max(deepest, -floor - z);
        if (z > -floor + ridge * 1.02 + 0.002) high++;
      }
    }
  return { wall, outside, deepest, untouched: floorCells > 0 ? high / floorCells : 0 };
}

const shapes: [string, Rings][] = [
  [
    "square",
    ringsFrom([
      [
        [30, 30],
        [70, 30],
        [70, 70],
        [30, 70],
      ],
    ]),
  ],
  ["circle", ringsFrom([circle(50, 50, 12, 360)])],
  ["ring", ringsFrom([circle(50, 50, 20, 360), circle(50, 50, 14, 360, true)])],
  [
    "wedge",
    ringsFrom([
      [
        [20, 40],
        [80, 40],
        [80, 46],
      ],
    ]),
  ],
];

describe("V-carve against its definition", () => {
  for (const [name, region] of shapes)
    for (const angle of [60, 90])
      it(`${name}, ${angle}°, no clearing cutter`, () => {
        const cutter = `v:${angle}:30`;
        const plan = planOn("vcarve", region, cutter, { floor: 4, ridge: 0.1, stepdown: 50 });
        const r = against(region, angle, 4, 0.1, [{ ...plan, cutter }]);
        expect(r.wall).toBeLessThan(0.01);
        expect(r.outside).toBe(0);
        expect(r.deepest).toBeLessThan(1e-5);
        expect(r.untouched).toBeLessThan(0.001);
      });

  it("random stars, with a clearing cutter first", () => {
    for (let seed = 1; seed <= 8; seed++) {
      const region = ringsFrom([star(seeded(seed), 7 + seed, 14, 44, 50, 50)]);
      const v = "v:60:30";
      const settings = { floor: 3, ridge: 0.1, stepdown: 50, limited: true };
      const flat = "flat:4";
      const clear = planOn(
        "clear",
        region,
        flat,
        {},
        { target: { id: "v", kind: "vcarve", cutter: cutterOf(v), settings } },
      );
      const carve = planOn("vcarve", region, v, settings, {
        helpers: [{ id: "c", kind: "clear", cutter: cutterOf(flat), settings: clear.values }],
      });
      const r = against(region, 60, 3, 0.1, [
        { ...clear, cutter: flat },
        { ...carve, cutter: v },
      ]);
      expect(r.wall, `seed ${seed}`).toBeLessThan(0.01);
      expect(r.outside, `seed ${seed}`).toBe(0);
      expect(r.untouched, `seed ${seed}`).toBeLessThan(0.001);
    }
  });

  it("in passes ends at the same surface", () => {
    const region = shapes[3][1];
    const plan = planOn("vcarve", region, "v:60:30", { floor: 6, stepdown: 1.5 });
    const r = against(region, 60, 6, 0.05, [{ ...plan, cutter: "v:60:30" }]);
    expect(r.wall).toBeLessThan(0.01);
    let deepestFirst = 0;
    for (let i = 0; i < 5; i++) deepestFirst = Math.min(deepestFirst, plan.toolpath.z[i]);
    expect(deepestFirst).toBeGreaterThanOrEqual(-1.5 - 1e-9);
  });

  it("a flat tip stays out of strokes narrower than itself", () => {
    const region = ringsFrom([
      [
        [20, 50],
        [80, 50],
        [80, 50.3],
        [20, 50.3],
      ],
    ]);
    expect(planOn("vcarve", region, "v:30:6:0.5", {}).toolpath.kind.length).toBe(0);
  });

  it("no move, and no way between two cuts over the floor, comes nearer to a wall than its depth allows", () => {
    let overFloor = 0;
    for (let seed = 1; seed <= 10; seed++) {
      // Islands with corners turned towards the floor: ways between rings must go round them.
      const region = ringsFrom([
        star(seeded(seed), 9 + 2 * seed, 20, 44, 50, 50),
        star(seeded(seed + 50), 7, 4, 9, 45, 52).reverse(),
        star(seeded(seed + 90), 5, 1, 3, 58, 47).reverse(),
      ]);
      const settings = { floor: 3, ridge: 0.3, stepdown: 50, limited: true };
      const clear = planOn(
        "clear",
        region,
        "flat:4",
        {},
        { target: { id: "v", kind: "vcarve", cutter: cutterOf("v:60:30"), settings } },
      );
      const { toolpath: t } = planOn("vcarve", region, "v:60:30", settings, {
        helpers: [{ id: "c", kind: "clear", cutter: cutterOf("flat:4"), settings: clear.values }],
      });
      const half = Math.PI / 6;
      for (let i = 1; i < t.kind.length; i++) {
        if (t.kind[i] === RAPID || Math.hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1]) < 1e-9) continue;
        if (t.kind[i] !== FEED) continue;
        if (t.z[i] === -3 && t.z[i - 1] === -3) overFloor++;
        for (let q = 1; q < 12; q++) {
          const f = q / 12;
          const depth = -t.z[i - 1] - f * (t.z[i] - t.z[i - 1]);
          const d = distanceToRings(
            region,
            t.x[i - 1] + f * (t.x[i] - t.x[i - 1]),
            t.y[i - 1] + f * (t.y[i] - t.y[i - 1]),
          );
          expect(d, `seed ${seed}, move ${i}`).toBeGreaterThan(depth * Math.tan(half) - 0.006);
        }
      }
    }
    expect(overFloor).toBeGreaterThan(500);
  });

  it("goes over the floor that a clearing cutter left beside the walls without lifting for each place", () => {
    for (let seed = 1; seed <= 6; seed++) {
      const region = ringsFrom([star(seeded(seed), 11 + 2 * seed, 16, 44, 50, 50)]);
      const settings = { floor: 3, ridge: 0.3, stepdown: 50, limited: true };
      const flat = cutterOf("flat:8");
      const target = { id: "v", kind: "vcarve", cutter: cutterOf("v:60:30"), settings };
      const clear = planOn("clear", region, "flat:8", {}, { target });
      const { toolpath: t, facts } = planOn("vcarve", region, "v:60:30", settings, {
        helpers: [{ id: "c", kind: "clear", cutter: flat, settings: clear.values }],
      });
      // Every corner of the star that is too narrow for the clearing cutter is such a place.
      expect(facts.scraped, `seed ${seed}`).toBeGreaterThan(100);
      const plunges = t.kind.filter((k) => k === PLUNGE).length;
      expect(plunges, `seed ${seed}`).toBeLessThanOrEqual(2);
    }
  });

  it("carves a star's corners and the foot of its walls in one go: hardly a plunge, hardly any way twice", () => {
    const region = ringsFrom([star(seeded(4), 13, 12, 44, 50, 50)]);
    const { toolpath: t } = planOn("vcarve", region, "v:60:30", { floor: 20, stepdown: 50 });
    const plunges = Array.from(t.kind, (k, i) => (k === PLUNGE ? t.z[i] : NaN)).filter((z) => !Number.isNaN(z));
    expect(plunges[0]).toBeCloseTo(0, 3);
    expect(plunges.length).toBeLessThanOrEqual(3);
  });

  for (const cutter of [
    "ball:3",
    "ball:6",
    "taper:0.5:5:6",
    "taper:1:15:8",
    "v:60:12",
    "v:30:6:0.2",
    "form:0/0:0.6/0.1:2/1:3/4",
  ])
    it(`${cutter}: nowhere along its moves does it open more than a hundredth beyond the outline`, () => {
      const p = profileOf(cutterOf(cutter));
      for (let seed = 1; seed <= 5; seed++) {
        const region = ringsFrom([star(seeded(seed), 5 + 2 * seed, 8, 40, 50, 50)]);
        const { toolpath: t } = planOn("vcarve", region, cutter, { floor: 1.5, stepdown: 50, ridge: 0.2 });
        let worst = 0;
        for (let i = 1; i < t.kind.length; i++) {
          if (t.kind[i] !== FEED) continue;
          const length = Math.hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1]);
          const steps = Math.max(3, Math.min(40, Math.ceil(length / 0.05)));
          for (let q = 1; q < steps; q++) {
            const f = q / steps;
            const depth = -t.z[i - 1] - f * (t.z[i] - t.z[i - 1]);
            if (depth <= 0) continue;
            worst = Math.max(
              worst,
              p.r(depth) -
                distanceToRings(region, t.x[i - 1] + f * (t.x[i] - t.x[i - 1]), t.y[i - 1] + f * (t.y[i] - t.y[i - 1])),
            );
          }
        }
        // A flat tip opens its own width where a stroke is hardly wider.
        expect(worst, `seed ${seed}`).toBeLessThan(0.01);
      }
    });

  it("a disc, whose axis is next to a point, is cut in its middle whatever may be left out", () => {
    for (const held of [0, 0.1, 0.5]) {
      const { toolpath: t } = planOn(
        "vcarve",
        ringsFrom([circle(50, 50, 1.2, 200)]),
        "v:60:12",
        { floor: 5, stepdown: 50 },
        {},
        null,
        held,
      );
      expect(Math.min(...t.z)).toBeCloseTo(-1.2 / Math.tan(Math.PI / 6), 1);
    }
  });

  it("leaves out branches that change the wall by less than half of what the edge is known to", () => {
    const random = seeded(12);
    // A stroke 6 mm wide whose edge wobbles by a twentieth of a millimetre.
    const side = (y: number, back: boolean): [number, number][] =>
      Array.from({ length: 200 }, (_, i) => [20 + 0.3 * (back ? 199 - i : i), y + 0.1 * random()]);
    const rough = [...side(47, false), ...side(53, true)];
    const moves = [0, 0.2].map(
      (held) =>
        planOn("vcarve", ringsFrom([rough]), "v:60:30", { floor: 20, stepdown: 50 }, {}, null, held).toolpath.kind
          .length,
    );
    expect(moves[1]).toBeLessThan(0.65 * moves[0]);
  });
});

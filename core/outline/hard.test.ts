import { describe, expect, it } from "vitest";
import { asRead, flatten } from "../geometry/shape.ts";
import { ringArea, ringCount } from "../geometry/rings.ts";
import type { Grey } from "../picture/raster.ts";
import { histogram, findInkLevel } from "../picture/tone.ts";
import { distanceToRings, seeded } from "../testing/random.ts";
import { SegmentGrid } from "../geometry/segmentgrid.ts";
import { contoursAt } from "./contours.ts";
import { isSound } from "../geometry/sound.ts";
import { fitOutline, type Outline } from "./outline.ts";
import { reduced } from "./refit.ts";

const [W, H] = [320, 240];
/** A grey picture from a distance to the ink's edge, px, inside positive. */
function drawn(inside: (x: number, y: number) => number): Grey {
  const data = new Uint8Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++)
      data[y * W + x] = Math.round(255 * Math.max(0, Math.min(1, 0.5 - inside(x + 0.5, y + 0.5) / 2)));
  return { width: W, height: H, data, max: 255 };
}
const place = { scale: 0.25, x0: 0, y1: H / 4 };
const settings = { hold: 0.05, specks: 0, pinholes: 0, cornerAngle: 0.7 };
const trace = (g: Grey, more: Partial<typeof settings> = {}): Outline =>
  fitOutline(contoursAt(g, findInkLevel(histogram(g))), place, { ...settings, ...more });
const areaOf = (o: Outline): number => {
  const r = flatten(o.shape, 0.005);
  let sum = 0;
  for (let k = 0; k < ringCount(r); k++) sum += ringArea(r, k);
  return sum;
};
const random = seeded(21);
const noise = Float64Array.from({ length: W * H }, () => random() - 0.5);
const spiral = (x: number, y: number): number => {
  const [dx, dy] = [x - 160, y - 120];
  const r = Math.hypot(dx, dy);
  const turn = r / 12 - Math.atan2(dy, dx) / (2 * Math.PI);
  return Math.min(3 - Math.abs(turn - Math.round(turn)) * 12, 110 - r, r - 10);
};

/** A quarter of the picture is enough of what has an edge at every pixel. */
const quarter = (inside: (x: number, y: number) => number) => (x: number, y: number) =>
  x < W / 2 && y < H / 2 ? inside(x, y) : -1;

const HARD: readonly [string, Grey][] = [
  ["random noise", drawn(quarter((x, y) => 4 * noise[Math.floor(y) * W + Math.floor(x)]))],
  ["a checkerboard of single pixels", drawn(quarter((x, y) => ((Math.floor(x) + Math.floor(y)) % 2 ? 1 : -1)))],
  ["squares that touch in points", drawn((x, y) => ((Math.floor(x / 8) + Math.floor(y / 8)) % 2 ? 1 : -1))],
  [
    "two discs that touch in a point",
    drawn((x, y) => Math.max(60 - Math.hypot(x - 100, y - 120), 60 - Math.hypot(x - 220, y - 120))),
  ],
  ["a spiral of one stroke", drawn(spiral)],
  ["thousands of specks", drawn(quarter((x, y) => 4 * (1.3 - Math.hypot((x % 4) - 2, (y % 4) - 2))))],
  ["lines one pixel apart", drawn((x) => Math.abs((x % 4) - 2) - 1)],
  ["a soft gradient", drawn((x, y) => (x + y - 280) / 140)],
];

describe("pictures that are hard on an outline", () => {
  for (const [name, grey] of HARD)
    for (const hold of [0.02, 0.2])
      it(`${name}, held within ${hold}: contours never cross, and enclose what is ink`, () => {
        const o = trace(grey, { hold });
        expect(isSound(asRead(o.shape))).toBe(true);
        expect(o.maxDeviation).toBeLessThanOrEqual(hold + 1e-9);
        for (let k = 0; k < o.shape.parent.length; k++) expect(o.shape.parent[k]).toBeLessThan(k);
        // Pixels below the level, give or take what the edges' half pixels and the hold allow.
        const level = 255 * findInkLevel(histogram(grey));
        let pixels = 0;
        for (const v of grey.data) if (v < level) pixels++;
        const rings = flatten(o.shape, 0.01);
        let edge = 0;
        for (let k = 0; k < ringCount(rings); k++)
          for (let i = rings.starts[k]; i < rings.starts[k + 1]; i++) {
            const j = i + 1 < rings.starts[k + 1] ? i + 1 : rings.starts[k];
            edge += Math.hypot(rings.xy[2 * j] - rings.xy[2 * i], rings.xy[2 * j + 1] - rings.xy[2 * i + 1]);
          }
        expect(Math.abs(areaOf(o) - pixels / 16)).toBeLessThan(edge * (0.25 * place.scale + hold) + 0.5);
      });

  // Of those where no other contour is as near to a point as its own.
  const alone = HARD.filter(([name]) => /squares|spiral|gradient/.test(name));
  for (const [name, grey] of alone)
    it(`${name}, greys that hardly change held looser: the deviation said is the one that is there`, () => {
      const contours = contoursAt(grey, findInkLevel(histogram(grey)));
      const o = fitOutline(contours, place, { ...settings, faint: true });
      const drawn = new SegmentGrid(asRead(o.shape));
      let worst = 0;
      for (let i = 0; i < contours.xy.length / 2; i++) {
        const [x, y] = [contours.xy[2 * i] * place.scale, place.y1 - contours.xy[2 * i + 1] * place.scale];
        worst = Math.max(worst, drawn.distance(x, y, 1));
      }
      expect(Math.abs(o.maxDeviation - worst)).toBeLessThan(0.003);
    });

  it("one stroke wound up stays one piece without a hole", () => {
    const o = trace(drawn(spiral), { specks: 0.2 });
    expect(o.shape.parent.length).toBe(1);
  });

  it("specks go by their size in mm², whatever they stand on", () => {
    const o = trace(HARD[5][1], { specks: 0.5 });
    expect(o.shape.parent.length).toBe(0);
    expect(o.dropped).toBeGreaterThan(1000);
    expect(o.droppedAt.length / 2).toBeLessThanOrEqual(500);
  });
});

describe("nodes brought under a limit", () => {
  /** A plate with straight sides and four true corners, and a wavy cut in its upper side. */
  const plate = drawn((x, y) =>
    Math.min(x - 40, 280 - x, 200 - y, y - 60 - (Math.abs(x - 160) < 60 ? 12 * Math.sin(x / 7) ** 2 : 0)),
  );
  const corners = [
    [10, 10],
    [70, 10],
  ] as const;
  for (const most of [60, 24, 18])
    it(`at most ${most}: what it cost is measured, corners and straight runs stay`, () => {
      const { outline, hold } = reduced((h) => trace(plate, { hold: h }), 0.01, most);
      expect(outline.nodes).toBeLessThanOrEqual(most);
      expect(outline.maxDeviation).toBeLessThanOrEqual(hold);
      const rings = flatten(outline.shape, 0.001);
      for (const [x, y] of corners) expect(distanceToRings(rings, x, y)).toBeLessThan(0.06);
      // Halfway along the near side and both ends of it: on the line.
      for (const x of [20, 40, 60]) expect(distanceToRings(rings, x, 10)).toBeLessThan(0.06);
    });
  it("gives up after a while where corners alone are more than the limit, with the least it found", () => {
    const { outline } = reduced((h) => trace(plate, { hold: h }), 0.01, 2);
    expect(outline.nodes).toBeGreaterThan(2);
    expect(outline.nodes).toBeLessThan(20);
  });
});

import { describe, expect, it } from "vitest";
import { GrowingF64, GrowingI32 } from "../growing.ts";
import { seeded } from "../testing/random.ts";
import { ringArea } from "./rings.ts";
import {
  arcSweep,
  asRead,
  eachSegment,
  FLATTEN,
  flatten,
  GRID,
  readContour,
  rectangle,
  type Shape,
  ShapeBuilder,
  shapeBounds,
  shapeOfRings,
} from "./shape.ts";

/** A closed contour of lines, arcs and cubics in random order, and samples of the curves themselves. */
function drawn(seed: number): { shape: Shape; on: [number, number][] } {
  const random = seeded(seed);
  const at = () => 40 * random() - 20;
  const b = new ShapeBuilder();
  const on: [number, number][] = [];
  let [x, y] = [at(), at()];
  const origin: [number, number] = [x, y];
  b.begin(x, y, -1);
  const n = 3 + Math.floor(5 * random());
  for (let k = 0; k < n; k++) {
    const [x1, y1] = k === n - 1 ? origin : [at(), at()];
    const kind = k === n - 1 ? 0 : Math.floor(3 * random());
    if (kind === 0) {
      b.line(x1, y1);
      for (let t = 0; t <= 1; t += 0.05) on.push([x + t * (x1 - x), y + t * (y1 - y)]);
    } else if (kind === 1) {
      // A centre as far from both ends: somewhere on their bisector.
      const side = 2 * random() - 1;
      const [cx, cy] = [(x + x1) / 2 - side * (y1 - y), (y + y1) / 2 + side * (x1 - x)];
      const turn = random() < 0.5 ? 1 : -1;
      b.arc(cx, cy, turn, x1, y1);
      const radius = Math.hypot(x - cx, y - cy);
      const begin = Math.atan2(y - cy, x - cx);
      const sweep = arcSweep(x, y, cx, cy, turn, x1, y1);
      for (let t = 0; t <= 1; t += 0.02)
        on.push([cx + radius * Math.cos(begin + t * sweep), cy + radius * Math.sin(begin + t * sweep)]);
    } else {
      const [ax, ay, bx, by] = [at(), at(), at(), at()];
      b.cubic(ax, ay, bx, by, x1, y1);
      for (let t = 0; t <= 1; t += 0.02) {
        const [p, q, r, s] = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3];
        on.push([p * x + q * ax + r * bx + s * x1, p * y + q * ay + r * by + s * y1]);
      }
    }
    [x, y] = [x1, y1];
  }
  return { shape: b.take(), on };
}

/** How far a place is from a closed polygon, mm. */
function distance(xy: ArrayLike<number>, x: number, y: number): number {
  let best = Infinity;
  const n = xy.length / 2;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const [dx, dy] = [xy[2 * j] - xy[2 * i], xy[2 * j + 1] - xy[2 * i + 1]];
    const t = ((x - xy[2 * i]) * dx + (y - xy[2 * i + 1]) * dy) / (dx * dx + dy * dy || 1);
    const s = Math.max(0, Math.min(1, t));
    best = Math.min(best, Math.hypot(xy[2 * i] + s * dx - x, xy[2 * i + 1] + s * dy - y));
  }
  return best;
}

describe("curves as polygons", () => {
  it("chords stay within the tolerance of lines, arcs and cubics, whatever it is", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { shape, on } = drawn(seed);
      for (const tolerance of [0.5, 0.02]) {
        const { xy } = flatten(shape, tolerance);
        for (const [x, y] of on)
          expect(distance(xy, x, y), `seed ${seed}, ${tolerance}`).toBeLessThanOrEqual(tolerance * 1.0001);
      }
    }
  });

  it("a finer tolerance takes more points, and lines none but their ends", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { shape } = drawn(seed);
      const counts = [1, 0.1, 0.01].map((t) => flatten(shape, t).xy.length);
      expect(counts[0]).toBeLessThanOrEqual(counts[1]);
      expect(counts[1]).toBeLessThanOrEqual(counts[2]);
    }
    const square = shapeOfRings(rectangle(0, 0, 10, 5));
    expect(flatten(square, 1e-6).xy.length).toBe(8);
  });

  it("as cuts read them: on the grid, no point twice, within what cuts allow", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { shape, on } = drawn(seed);
      const { xy } = asRead(shape);
      for (const v of xy) expect(Math.abs(v / GRID - Math.round(v / GRID))).toBeLessThan(1e-4);
      const n = xy.length / 2;
      for (let i = 0; i < n; i++) {
        const j = (i + 1) % n;
        expect(xy[2 * i] === xy[2 * j] && xy[2 * i + 1] === xy[2 * j + 1]).toBe(false);
      }
      for (const [x, y] of on) expect(distance(xy, x, y)).toBeLessThan(FLATTEN + 2 * GRID);
    }
  });

  it("tells of each point which segment it lies on, and an open contour begins at its origin", () => {
    const b = new ShapeBuilder();
    b.begin(0, 0, -1);
    b.line(4, 0);
    b.arc(4, 2, 1, 4, 4);
    b.line(0, 4);
    const shape = b.take();
    const [xy, segment] = [new GrowingF64(8), new GrowingI32(8)];
    readContour(shape, 0, false, xy, segment);
    expect([xy.data[0], xy.data[1]]).toEqual([0, 0]);
    const of = [...segment.take()];
    expect(of.length).toBe(xy.length / 2);
    expect([of[0], of[1], of[of.length - 1]]).toEqual([0, 0, 2]);
    expect([...of].sort((p, q) => p - q)).toEqual(of);
  });

  it("contours of less than a triangle keep their index with no points", () => {
    const b = new ShapeBuilder();
    b.begin(1, 1, -1);
    b.line(2, 1);
    b.line(1, 1);
    b.begin(0, 0, -1);
    for (const [x, y] of [
      [3, 0],
      [3, 3],
      [0, 0],
    ])
      b.line(x, y);
    const { starts, xy } = asRead(b.take());
    expect([...starts]).toEqual([0, 0, 3]);
    expect(xy.length).toBe(6);
  });
});

describe("arcs", () => {
  it("sweep the way that they turn, a closed one all round", () => {
    expect(arcSweep(1, 0, 0, 0, 1, 0, 1)).toBeCloseTo(Math.PI / 2, 12);
    expect(arcSweep(1, 0, 0, 0, -1, 0, 1)).toBeCloseTo((-3 * Math.PI) / 2, 12);
    expect(arcSweep(1, 0, 0, 0, 1, 1, 0)).toBeCloseTo(2 * Math.PI, 12);
    expect(arcSweep(1, 0, 0, 0, -1, 1, 0)).toBeCloseTo(-2 * Math.PI, 12);
  });

  it("a circle of two has the area and the bounds of a circle", () => {
    const b = new ShapeBuilder();
    b.begin(-5, 2, -1);
    b.arc(0, 2, 1, 5, 2);
    b.arc(0, 2, 1, -5, 2);
    const shape = b.take();
    const r = flatten(shape, 0.001);
    expect(ringArea(r, 0)).toBeCloseTo(25 * Math.PI, 1);
    const { minX, maxX, minY, maxY } = shapeBounds(shape);
    for (const [found, wanted] of [
      [minX, -5],
      [maxX, 5],
      [minY, -3],
      [maxY, 7],
    ])
      expect(Math.abs(found - wanted)).toBeLessThan(0.011);
  });
});

it("rings become lines and the same rings again", () => {
  const rings = rectangle(1, 2, 8, 5);
  const shape = shapeOfRings(rings);
  let lines = 0;
  eachSegment(shape, 0, (kind) => void (lines += kind === 0 ? 1 : 0));
  expect(lines).toBe(4);
  const back = flatten(shape, 0.1);
  const corners = (xy: Float64Array) =>
    Array.from({ length: xy.length / 2 }, (_, i) => `${xy[2 * i]} ${xy[2 * i + 1]}`).sort();
  expect(corners(back.xy)).toEqual(corners(rings.xy));
  expect([...back.parent]).toEqual([-1]);
});

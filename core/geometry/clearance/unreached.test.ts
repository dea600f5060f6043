import { describe, expect, it } from "vitest";
import { hypot } from "../../hypot.ts";
import { seeded, star } from "../../testing/random.ts";
import { ringsOf } from "../morph.ts";
import { boundsOf, regionArea, ringCount, type Rings, ringsFrom } from "../rings.ts";
import { spans } from "../scanlines.ts";
import { SegmentGrid } from "../segmentgrid.ts";
import { isSound } from "../sound.ts";
import { type Clearance, clearanceOf, inset } from "./clearance.ts";
import { type Unreached, unreached, unreachedArea } from "./unreached.ts";

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
      expect(Math.abs(unreachedArea(clearanceOf(region), r) - want)).toBeLessThan(0.001 * want);
    }
  });

  it("is nothing of a disc, and all of what the cutter does not enter", () => {
    const disc = Array.from({ length: 720 }, (_, k) =>
      k % 2 === 0 ? 10 * Math.cos((Math.PI * k) / 360) : 10 * Math.sin((Math.PI * (k - 1)) / 360),
    );
    const region = ringsOf([disc]);
    const c = clearanceOf(region);
    expect(unreachedArea(c, 4)).toBeLessThan(0.05);
    expect(unreachedArea(c, 11)).toBeCloseTo(regionArea(region), 0);
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
    expect(Math.abs(unreachedArea(clearanceOf(region), r) - want)).toBeLessThan(0.01);
  });

  it("goes as far from the edge of a corner as a ring no disc covers whole: r (1 - sin half its angle)", () => {
    const random = seeded(5);
    for (let k = 0; k < 20; k++) {
      // A kite: corners of 2a at both ends.
      const [a, r] = [between(random, 0.2, 1.2), between(random, 0.5, 2)];
      const c = clearanceOf(ringsOf([[-20, 0, 0, -20 * Math.tan(a), 20, 0, 0, 20 * Math.tan(a)]]));
      const { corners, necks } = unreached(c, r);
      const sharp = [Math.sin(a), Math.cos(a)].map((sin) => r * (1 - sin));
      const want = [...sharp, ...sharp].sort((p, q) => p - q);
      expect(necks).toHaveLength(0);
      expect([...corners].sort((p, q) => p - q).map((h) => h.toFixed(3))).toEqual(want.map((h) => h.toFixed(3)));
    }
  });

  it("so far inside a region is that of the region within its inset", () => {
    let tried = 0;
    for (let seed = 20; tried < 12; seed++) {
      const random = seeded(seed);
      const region = ringsFrom([star(random, 8 + Math.floor(20 * random()), 8, 22, 0, 0)]);
      const c = clearanceOf(region);
      const [inside, r] = [between(random, 0.3, 2), between(random, 0.5, 2)];
      if (!isSound(region) || c.widest < inside + r) continue;
      tried++;
      const want = unreached(clearanceOf(inset(c, inside).rings), r);
      const told = unreached(c, r, { inside });
      expect(Math.abs(told.area - want.area), `seed ${seed}`).toBeLessThan(0.01 * want.area + 0.02);
      // Ends of its arcs are corners so blunt that nothing is left in them.
      const sum = (of: Unreached) => [...of.corners, ...of.necks].reduce((s, h) => s + h, 0);
      expect(Math.abs(sum(told) - sum(want)), `seed ${seed}`).toBeLessThan(0.03 * sum(want));
    }
  });

  it("half a step from the edge and farther is what is left of rings, each as wide as a step", () => {
    let [tried, told, left] = [0, 0, 0];
    for (let seed = 40; tried < 8; seed++) {
      const random = seeded(seed);
      const region = ringsFrom([star(random, 8 + Math.floor(20 * random()), 8, 22, 0, 0)]);
      const r = between(random, 1, 3);
      const c = clearanceOf(region);
      if (!isSound(region) || c.widest < r) continue;
      tried++;
      const step = between(random, 0.05, 0.15) * r;
      const centre = new SegmentGrid(inset(c, r).rings);
      for (let d = step; d < r; d += step) {
        const { rings } = inset(c, d);
        left += step * lengthWhere(rings, (x, y) => centre.distance(x, y, 2 * r) > r);
      }
      told += unreached(c, r, { foot: step / 2 }).area;
    }
    expect(told / left).toBeGreaterThan(0.98);
    expect(told / left).toBeLessThan(1.02);
  });

  it("of stars with a hole is what discs at every place of the centre leave of lines across them", () => {
    let tried = 0;
    for (let seed = 1; tried < 12; seed++) {
      const random = seeded(seed);
      const [points, holes] = [8 + Math.floor(40 * random()), 4 + Math.floor(6 * random())];
      const region = ringsFrom([
        star(random, points, 6, 20, 0, 0),
        star(random, holes, 0.5, 3, between(random, -1, 1), 0).reverse(),
      ]);
      if (!isSound(region)) continue;
      tried++;
      const c = clearanceOf(region);
      for (const r of [1, 2, 3]) {
        const want = uncoveredArea(region, c, r);
        expect(Math.abs(unreachedArea(c, r) - want), `seed ${seed}, radius ${r}`).toBeLessThan(0.005 * want + 0.04);
      }
    }
  });
});

/** How much of some rings lies where it is asked for, looked at every 0.02 mm; mm. */
function lengthWhere({ xy, starts }: Rings, isThere: (x: number, y: number) => boolean): number {
  let length = 0;
  for (let k = 0; k + 1 < starts.length; k++)
    for (let i = starts[k]; i < starts[k + 1]; i++) {
      const j = i + 1 < starts[k + 1] ? i + 1 : starts[k];
      const [dx, dy] = [xy[2 * j] - xy[2 * i], xy[2 * j + 1] - xy[2 * i + 1]];
      const places = Math.max(1, Math.ceil(hypot(dx, dy) / 0.02));
      for (let p = 0; p < places; p++) {
        const f = (p + 0.5) / places;
        if (isThere(xy[2 * i] + f * dx, xy[2 * i + 1] + f * dy)) length += hypot(dx, dy) / places;
      }
    }
  return length;
}

/** Lines that are looked along, across the longer side of a region. */
const LINES = 500;

/** The same along parallel lines: exact along each, with a disc round every point of the centre's edges. */
function uncoveredArea(region: Rings, c: Clearance, radius: number): number {
  const { minX, minY, maxX, maxY } = boundsOf(region.xy);
  const spacing = Math.max(maxX - minX, maxY - minY) / LINES;
  const first = minY + spacing / 2;
  const reached = Array.from({ length: Math.ceil((maxY - minY) / spacing) }, (): [number, number][] => []);
  if (radius < c.widest) {
    const { rings } = inset(c, radius);
    for (const { row, x0, x1 } of spans(rings, 0, spacing, first)) reached[row]?.push([x0, x1]);
    for (let k = 0; k < ringCount(rings); k++)
      for (let i = rings.starts[k]; i < rings.starts[k + 1]; i++) {
        const j = i + 1 < rings.starts[k + 1] ? i + 1 : rings.starts[k];
        const [ax, ay, bx, by] = [rings.xy[2 * i], rings.xy[2 * i + 1], rings.xy[2 * j], rings.xy[2 * j + 1]];
        const low = Math.max(0, Math.ceil((Math.min(ay, by) - radius - first) / spacing));
        const high = Math.min(reached.length - 1, Math.floor((Math.max(ay, by) + radius - first) / spacing));
        for (let row = low; row <= high; row++) {
          const part = roundEdge(ax, ay, bx, by, radius, first + row * spacing);
          if (part) reached[row].push(part);
        }
      }
  }
  for (const parts of reached) parts.sort((p, q) => p[0] - q[0]);
  let area = 0;
  for (const { row, x0, x1 } of spans(region, 0, spacing, first))
    area += spacing * uncovered(reached[row] ?? [], x0, x1);
  return area;
}

/** The stretch of the line at height y that lies within `radius` of an edge; null where none does. */
function roundEdge(ax: number, ay: number, bx: number, by: number, radius: number, y: number): [number, number] | null {
  let [low, high] = [Infinity, -Infinity];
  const add = (x: number) => {
    low = Math.min(low, x);
    high = Math.max(high, x);
  };
  const disc = (cx: number, cy: number) => {
    const half = radius * radius - (y - cy) ** 2;
    if (half < 0) return;
    add(cx - Math.sqrt(half));
    add(cx + Math.sqrt(half));
  };
  disc(ax, ay);
  disc(bx, by);
  const length = hypot(bx - ax, by - ay);
  // The two sides of the band beside the edge.
  if (length > 0 && by !== ay)
    for (const side of [radius / length, -radius / length]) {
      const f = (y - (ay + side * (bx - ax))) / (by - ay);
      if (f >= 0 && f <= 1) add(ax - side * (by - ay) + f * (bx - ax));
    }
  return low < high ? [low, high] : null;
}

/** How much of a stretch no part covers; the parts are in the order of their beginnings. */
function uncovered(parts: readonly [number, number][], x0: number, x1: number): number {
  let at = x0;
  let open = 0;
  for (const [low, high] of parts) {
    if (low >= x1) break;
    if (low > at) open += low - at;
    at = Math.max(at, high);
  }
  return open + Math.max(0, x1 - Math.min(x1, Math.max(at, x0)));
}

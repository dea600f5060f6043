import { describe, expect, it } from "vitest";
import { hypot } from "../../hypot.ts";
import { seeded, star } from "../../testing/random.ts";
import { ringsOf } from "../morph.ts";
import { boundsOf, regionArea, ringCount, type Rings, ringsFrom } from "../rings.ts";
import { spans } from "../scanlines.ts";
import { isSound } from "../sound.ts";
import { type Clearance, clearanceOf, inset } from "./clearance.ts";
import { unreachedArea } from "./unreached.ts";

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

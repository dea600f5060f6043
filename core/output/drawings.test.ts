import { describe, expect, it } from "vitest";
import { boundsOf, regionArea } from "../geometry/rings.ts";
import { flatten, rectangle, type Shape, ShapeBuilder, shapeBounds, shapeOfRings } from "../geometry/shape.ts";
import type { Lines } from "../outline/centre.ts";
import { newSurface } from "../proof/surface.ts";
import { seeded } from "../testing/random.ts";
import { heightMap } from "./heightmap.ts";
import { pathData, writeSvg } from "./svg.ts";

/**
 * Reads path data by the SVG grammar (absolute M, L, C, A, Z) into polygons, arcs by the endpoint parameterisation of
 * the SVG 1.1 specification, appendix F.6: nothing here is taken from the writer.
 */
function polygonsOf(d: string): [number, number][][] {
  const out: [number, number][][] = [];
  let at: [number, number] = [0, 0];
  for (const [, letter, rest] of d.matchAll(/([MLCAZ])([^MLCAZ]*)/g)) {
    const v = (rest.match(/-?\d*\.?\d+/g) ?? []).map(Number);
    const ring = out[out.length - 1];
    if (letter === "M") out.push([(at = [v[0], v[1]])]);
    else if (letter === "L") ring.push((at = [v[0], v[1]]));
    else if (letter === "C") {
      for (let i = 1; i <= 64; i++) {
        const t = i / 64;
        const u = 1 - t;
        const mix = (k: number) => u ** 3 * at[k] + 3 * u * u * t * v[k] + 3 * u * t * t * v[2 + k] + t ** 3 * v[4 + k];
        ring.push([mix(0), mix(1)]);
      }
      at = [v[4], v[5]];
    } else if (letter === "A") {
      const [r0, , , large, sweep, x, y] = v;
      const [hx, hy] = [(at[0] - x) / 2, (at[1] - y) / 2];
      const r = Math.max(r0, Math.hypot(hx, hy));
      const k = (large === sweep ? -1 : 1) * Math.sqrt(Math.max(0, r * r - hx * hx - hy * hy) / (hx * hx + hy * hy));
      const [cx, cy] = [k * hy + (at[0] + x) / 2, -k * hx + (at[1] + y) / 2];
      const from = Math.atan2(at[1] - cy, at[0] - cx);
      let angle = Math.atan2(y - cy, x - cx) - from;
      if (sweep === 1 && angle < 0) angle += 2 * Math.PI;
      if (sweep === 0 && angle > 0) angle -= 2 * Math.PI;
      for (let i = 1; i <= 256; i++)
        ring.push([cx + r * Math.cos(from + (angle * i) / 256), cy + r * Math.sin(from + (angle * i) / 256)]);
      at = [x, y];
    }
  }
  return out;
}
const signedArea = (p: [number, number][]) =>
  p.reduce((s, [x, y], i) => s + x * p[(i + 1) % p.length][1] - p[(i + 1) % p.length][0] * y, 0) / 2;

describe("SVG", () => {
  const random = seeded(23);
  /** A closed contour of lines, arcs less and more than half round, and cubics, wound any way. */
  function anything(): Shape {
    const b = new ShapeBuilder();
    const centre = [40 + 40 * random(), 40 + 40 * random()];
    const turn = random() < 0.5 ? 1 : -1;
    const count = 3 + Math.floor(4 * random());
    const corners = Array.from({ length: count }, (_, i) => {
      const a = (turn * 2 * Math.PI * i) / count;
      return [centre[0] + (15 + 10 * random()) * Math.cos(a), centre[1] + (15 + 10 * random()) * Math.sin(a)];
    });
    b.begin(corners[0][0], corners[0][1], -1);
    corners.forEach(([x0, y0], i) => {
      const [x1, y1] = corners[(i + 1) % corners.length];
      const kind = Math.floor(3 * random());
      if (kind === 0) b.line(x1, y1);
      else if (kind === 1)
        b.cubic(
          x0 + 8 * (random() - 0.5),
          y0 + 8 * (random() - 0.5),
          x1 + 8 * (random() - 0.5),
          y1 + 8 * (random() - 0.5),
          x1,
          y1,
        );
      else {
        // A centre on the chord's bisector, either side of it: the arc is more than half round on one of them.
        const k = random() - 0.5;
        b.arc((x0 + x1) / 2 - k * (y1 - y0), (y0 + y1) / 2 + k * (x1 - x0), random() < 0.5 ? 1 : -1, x1, y1);
      }
    });
    return b.take();
  }

  it("draws the same lines, arcs and cubics, every one the right way round", () => {
    for (let round = 0; round < 100; round++) {
      const s = anything();
      const [ring] = polygonsOf(pathData(s, 0, 0));
      const ours = flatten(s, 0.001);
      // y points down in the drawing.
      const area = ringAreaOf(ours.xy);
      expect(-signedArea(ring)).toBeCloseTo(area, 0);
      const b = shapeBounds(s);
      const drawn = boundsOf(Float64Array.from(ring.flatMap(([x, y]) => [x, -y])));
      for (const side of ["minX", "maxX", "minY", "maxY"] as const)
        expect(Math.abs(drawn[side] - b[side]), side).toBeLessThan(0.02);
    }
  });
  it("has the artwork's size in millimetres, and its far edge at the top", () => {
    const svg = writeSvg(shapeOfRings(rectangle(20, 30, 50, 70)), { x: 10, y: 20, width: 100, height: 60 });
    expect(svg).toContain('width="100mm" height="60mm" viewBox="0 0 100 60"');
    const [ring] = polygonsOf(/ d="([^"]*)"/.exec(svg)![1]);
    expect(boundsOf(Float64Array.from(ring.flat()))).toEqual({ minX: 10, maxX: 40, minY: 10, maxY: 50 });
  });
  it("draws a centre line as a stroke as wide as it was, closed where it is", () => {
    const lines: Lines = {
      xy: Float64Array.of(0, 0, 10, 0, 0, 5, 5, 5, 5, 9, 0, 5),
      width: Float64Array.of(1, 3, 2, 2, 2, 2),
      starts: Int32Array.of(0, 2, 6),
      closed: Uint8Array.of(0, 1),
    } as unknown as Lines;
    const svg = writeSvg(shapeOfRings(rectangle(0, 0, 1, 1)), { x: 0, y: 0, width: 20, height: 10 }, lines);
    expect([...svg.matchAll(/stroke-width="([^"]*)"/g)].map((m) => m[1])).toEqual(["2", "2"]);
    expect([...svg.matchAll(/ d="([^"]*)"/g)].map((m) => m[1])).toEqual(["M0 10L10 10", "M0 5L5 5L5 1Z"]);
    expect(svg).not.toContain('id="ink"');
  });
});

function ringAreaOf(xy: Float64Array): number {
  return signedArea(Array.from({ length: xy.length / 2 }, (_, i): [number, number] => [xy[2 * i], xy[2 * i + 1]]));
}

describe("height map", () => {
  it("gives every height back to within half a step, far edge first", () => {
    const random = seeded(6);
    const s = newSurface(7, 5, 1);
    for (let k = 0; k < s.z.length; k++) s.z[k] = -4 * random();
    s.z[0] = 0;
    s.z[1] = -4;
    const { data, mmPerStep } = heightMap(s, -4);
    for (let j = 0; j < s.height; j++)
      for (let i = 0; i < s.width; i++)
        expect(
          Math.abs((data[(s.height - 1 - j) * s.width + i] - 65535) * mmPerStep - s.z[j * s.width + i]),
        ).toBeLessThanOrEqual(mmPerStep / 2 + 1e-6);
    expect(data[4 * 7]).toBe(65535);
    expect(data[4 * 7 + 1]).toBe(0);
  });
  it("holds what is cut deeper at its least, and untouched stock at its most", () => {
    const s = newSurface(2, 1, 1);
    s.z[1] = -18;
    expect([...heightMap(s, -3).data]).toEqual([65535, 0]);
    expect([...heightMap(newSurface(2, 1, 1), 0).data]).toEqual([65535, 65535]);
  });
});

it("areas of rings and of what is drawn agree for a region with a hole", () => {
  const region = {
    xy: Float64Array.of(0, 0, 20, 0, 20, 10, 0, 10, 5, 2, 5, 8, 12, 8, 12, 2),
    starts: Int32Array.of(0, 4, 8),
    parent: Int32Array.of(-1, 0),
  };
  const drawn = polygonsOf(pathData(shapeOfRings(region), 0, 10)).reduce((sum, p) => sum - signedArea(p), 0);
  expect(drawn).toBeCloseTo(regionArea(region), 6);
});

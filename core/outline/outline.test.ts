import { describe, expect, it } from "vitest";
import { asRead, flatten } from "../geometry/shape.ts";
import type { Grey } from "../picture/raster.ts";
import { distanceToRings, seeded } from "../testing/random.ts";
import { contourArea, type Contours, contoursAt } from "./contours.ts";
import { isSound } from "../geometry/sound.ts";
import { fitOutline } from "./outline.ts";

/** A grey picture of a distance function: black inside, a soft edge one pixel wide. */
function soft(width: number, height: number, inside: (x: number, y: number) => number): Grey {
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      data[y * width + x] = Math.round(255 * Math.max(0, Math.min(1, 0.5 - inside(x + 0.5, y + 0.5) / 2)));
  return { width, height, data, max: 255 };
}
const disc = (cx: number, cy: number, r: number) => (x: number, y: number) => r - Math.hypot(x - cx, y - cy);
const place = { scale: 0.1, x0: 0, y1: 20 };
const settings = { hold: 0.03, specks: 0.05, pinholes: 0.05, cornerAngle: (40 * Math.PI) / 180 };

describe("contours", () => {
  it("pass between pixels where the grey says: a soft disc to a few hundredths of a pixel", () => {
    const c = contoursAt(soft(200, 200, disc(100.3, 99.6, 71.4)), 0.5);
    expect(c.parent.length).toBe(1);
    let worst = 0;
    for (let i = 0; i < c.xy.length; i += 2)
      worst = Math.max(worst, Math.abs(Math.hypot(c.xy[i] - 100.3, c.xy[i + 1] - 99.6) - 71.4));
    expect(worst).toBeLessThan(0.05);
  });

  it("know their parents: a ring in a ring in a ring", () => {
    const d = (x: number, y: number) => {
      const r = Math.hypot(x - 60, y - 60);
      return Math.max(Math.min(50 - r, r - 40), Math.min(30 - r, r - 20), 8 - r);
    };
    const c = contoursAt(soft(120, 120, d), 0.5);
    expect([...c.hole]).toEqual([0, 1, 0, 1, 0]);
    expect([...c.parent]).toEqual([-1, 0, 1, 2, 3]);
  });

  it("close along the border where ink runs off the picture", () => {
    const c = contoursAt({ width: 20, height: 16, data: new Uint8Array(320), max: 255 }, 0.5);
    expect(c.parent.length).toBe(1);
    // the rectangle less its four corner triangles of half a pixel
    expect(contourArea(c, 0)).toBeCloseTo(320 - 4 * 0.125, 6);
  });

  it("never touch or cross on noise, at any level, and every cell's links close", () => {
    const random = seeded(5);
    for (const level of [0.203, 0.5, 0.73]) {
      const data = Uint8Array.from({ length: 48 * 40 }, () => Math.floor(random() * 256));
      const c = contoursAt({ width: 48, height: 40, data, max: 255 }, level);
      expect(isSound(c)).toBe(true);
      // Even–odd over all contours must give back each sample's side.
      let wrong = 0;
      for (let y = 0; y < 40; y++)
        for (let x = 0; x < 48; x++) {
          let inside = false;
          for (let k = 0; k < c.parent.length; k++)
            for (let i = c.starts[k]; i < c.starts[k + 1]; i++) {
              const j = i + 1 < c.starts[k + 1] ? i + 1 : c.starts[k];
              const [ax, ay, bx, by] = [c.xy[2 * i], c.xy[2 * i + 1], c.xy[2 * j], c.xy[2 * j + 1]];
              const py = y + 0.5 + 1e-7;
              if (ay > py !== by > py && x + 0.5 < ax + ((py - ay) / (by - ay)) * (bx - ax)) inside = !inside;
            }
          if (inside !== data[y * 48 + x] < level * 255) wrong++;
        }
      expect(wrong).toBe(0);
    }
  });

  it(
    "cross exactly between neighbours on different sides, whatever the width, the depth of the samples and the " +
      "level",
    () => {
      const random = seeded(19);
      for (let width = 1; width <= 13; width++)
        for (const max of [255, 65535] as const)
          for (const level of [0, 0.004, 0.25, 0.5, 0.502, 0.75, 0.999, 1]) {
            const height = 1 + Math.floor(random() * 6);
            // Whole sides of the range too, so that rows of one kind meet.
            const sample = () => (random() < 0.3 ? 0 : random() < 0.4 ? max : Math.floor(random() * (max + 1)));
            const values = Array.from({ length: width * height }, sample);
            const grey: Grey = {
              width,
              height,
              data: max === 255 ? Uint8Array.from(values) : Uint16Array.from(values),
              max,
            };
            // A sample that equals the level counts as ink by a hair.
            const ink = (x: number, y: number) =>
              x >= 0 && y >= 0 && x < width && y < height && values[y * width + x] <= level * max;
            const expected = new Set<string>();
            for (let y = 0; y <= height; y++)
              for (let x = 0; x <= width; x++) {
                if (y < height && ink(x - 1, y) !== ink(x, y)) expected.add(`across ${x} ${y}`);
                if (x < width && ink(x, y - 1) !== ink(x, y)) expected.add(`down ${x} ${y}`);
              }
            const c = contoursAt(grey, level);
            const found = new Set<string>();
            for (let i = 0; i < c.xy.length; i += 2) {
              const [x, y] = [c.xy[i], c.xy[i + 1]];
              // On the picture's border crossings lie on it, inside between two centres.
              const row = Math.abs(y - 0.5 - Math.round(y - 0.5)) < 1e-9 && y !== 0 && y !== height;
              found.add(
                row
                  ? `across ${x === 0 ? 0 : x === width ? width : Math.floor(x - 0.5) + 1} ${y - 0.5}`
                  : `down ${x - 0.5} ${y === 0 ? 0 : y === height ? height : Math.floor(y - 0.5) + 1}`,
              );
            }
            expect([...found].sort(), `${width} × ${height} of ${max} at ${level}`).toEqual([...expected].sort());
          }
    },
  );

  it("keep a twentieth of a pixel apart where greys lie within a whisker of the level", () => {
    const random = seeded(8);
    for (let round = 0; round < 12; round++) {
      // Three greys: well below the level, well above, and so near to it that contours run through pixels' centres.
      const greys = [20, 128, 230];
      const data = Uint8Array.from({ length: 400 }, () => greys[Math.floor(3 * random())]);
      const c = contoursAt({ width: 20, height: 20, data, max: 255 }, (128 + 1e-3 * (round % 2 ? 1 : -1)) / 255);
      expect(nearestStrangers(c)).toBeGreaterThan(0.05);
    }
  });

  it("a one-pixel checkerboard gives separate squares", () => {
    const data = Uint8Array.from({ length: 256 }, (_, i) => (((i >> 4) + i) % 2 ? 255 : 0));
    const c = contoursAt({ width: 16, height: 16, data, max: 255 }, 0.499);
    expect(isSound(c)).toBe(true);
  });
});

/** Least distance between points of two edges that are not neighbours, looked for at every edge's ends, px. */
function nearestStrangers(c: Contours): number {
  const edges: { k: number; i: number; j: number }[] = [];
  for (let k = 0; k + 1 < c.starts.length; k++)
    for (let i = c.starts[k]; i < c.starts[k + 1]; i++)
      edges.push({ k, i, j: i + 1 < c.starts[k + 1] ? i + 1 : c.starts[k] });
  let least = Infinity;
  for (const e of edges)
    for (const f of edges) {
      if (e.i === f.i || e.i === f.j) continue;
      const [x, y] = [c.xy[2 * e.i], c.xy[2 * e.i + 1]];
      const [ax, ay, bx, by] = [c.xy[2 * f.i], c.xy[2 * f.i + 1], c.xy[2 * f.j], c.xy[2 * f.j + 1]];
      const [dx, dy] = [bx - ax, by - ay];
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
      // Along its own contour, the second edge from a point may be near it where the edge between is short.
      const beside = e.k === f.k && (e.j === f.i || edges.some((g) => g.i === f.j && g.j === e.i));
      if (!beside) least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
    }
  return least;
}

describe("fitted outline", () => {
  const blob = soft(300, 200, (x, y) => {
    const a = Math.atan2(y - 100, x - 150);
    return 70 + 14 * Math.sin(5 * a) - Math.hypot(x - 150, y - 100);
  });

  it("stays within hold of the contour, checked from outside", () => {
    for (const hold of [0.01, 0.03, 0.1]) {
      const c = contoursAt(blob, 0.5);
      const o = fitOutline(c, place, { ...settings, hold });
      const rings = flatten(o.shape, 0.0005);
      let worst = 0;
      for (let i = 0; i < c.xy.length; i += 2)
        worst = Math.max(worst, distanceToRings(rings, place.x0 + c.xy[i] * 0.1, place.y1 - c.xy[i + 1] * 0.1));
      expect(worst).toBeLessThan(hold + 0.001);
      expect(o.maxDeviation).toBeLessThanOrEqual(hold);
    }
  });

  it("needs fewer nodes when it may stray farther", () => {
    const nodes = [0.005, 0.03, 0.15].map(
      (hold) => fitOutline(contoursAt(blob, 0.5), place, { ...settings, hold }).nodes,
    );
    expect(nodes[0]).toBeGreaterThan(nodes[1]);
    expect(nodes[1]).toBeGreaterThan(nodes[2]);
  });

  it("finds circles as arcs and keeps a rectangle's corners and straight sides", () => {
    const circle = fitOutline(contoursAt(soft(200, 200, disc(100, 100, 70)), 0.5), place, settings);
    expect([...circle.shape.kinds].every((k) => k === 1)).toBe(true);
    expect(circle.nodes).toBeLessThanOrEqual(4);
    const box = soft(240, 200, (x, y) => Math.min(x - 40.2, 200.2 - x, y - 50.3, 150.3 - y));
    const o = fitOutline(contoursAt(box, 0.5), place, { ...settings, hold: 0.05 });
    expect(o.nodes).toBe(4);
    const xs = [0, 1, 2, 3].map((i) => o.shape.nodes[6 * i + 4]).sort((a, b) => a - b);
    expect(xs[0]).toBeCloseTo(4.02, 2);
    expect(xs[3]).toBeCloseTo(20.02, 2);
  });

  it("drops specks with everything inside them, and never crosses itself", () => {
    const random = seeded(11);
    const data = Uint8Array.from({ length: 160 * 120 }, () => Math.floor(random() * 256));
    const c = contoursAt({ width: 160, height: 120, data, max: 255 }, 0.45);
    const o = fitOutline(c, { scale: 0.1, x0: 0, y1: 12 }, { ...settings, specks: 0.2, pinholes: 0.1, hold: 0.1 });
    expect(o.dropped).toBeGreaterThan(100);
    expect(isSound(asRead(o.shape))).toBe(true);
    for (let k = 0; k < o.shape.parent.length; k++) expect(o.shape.parent[k]).toBeLessThan(k);
  });
});

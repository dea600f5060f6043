import { describe, expect, it } from "vitest";
import type { Grey } from "../picture/raster.ts";
import { seeded } from "../testing/random.ts";
import { contoursAt } from "./contours.ts";
import { edgeNoise, smoothed } from "./noise.ts";

/** A disc drawn with edges `soft` px wide, its greys as `spoil` leaves them. */
function disc(soft: number, spoil: (grey: number, x: number, y: number) => number): Grey {
  const size = 240;
  const data = new Uint8Array(size * size);
  for (let i = 0; i < data.length; i++) {
    const [x, y] = [(i % size) + 0.5 - 120.3, Math.floor(i / size) + 0.5 - 119.6];
    const grey = 255 * Math.max(0, Math.min(1, 0.5 + (Math.hypot(x, y) - 90) / soft));
    data[i] = Math.max(0, Math.min(255, Math.round(spoil(grey, i % size, Math.floor(i / size)))));
  }
  return { width: size, height: size, data, max: 255 };
}

describe("an edge's own noise", () => {
  const of = (g: Grey): number => edgeNoise(contoursAt(g, 0.5));
  it("is next to nothing for a clean soft edge, whatever its contrast", () => {
    expect(of(disc(2, (g) => g))).toBeLessThan(0.02);
    expect(of(disc(6, (g) => 60 + 0.5 * g))).toBeLessThan(0.03);
  });
  it("is a quarter of a pixel or so for steps of whole pixels", () => {
    const stepped = of(disc(2, (g) => (g < 128 ? 0 : 255)));
    expect(stepped).toBeGreaterThan(0.2);
    expect(stepped).toBeLessThan(0.32);
  });
  it("is what grain moves it by: grain over the slope of the edge", () => {
    const random = seeded(3);
    // Three even numbers between −½ and ½: together a spread of ½.
    const grain = (by: number) => (g: number) => g + 2 * by * (random() + random() + random() - 1.5);
    for (const sigma of [6, 12]) {
      const expected = sigma / (255 / 8);
      const found = of(disc(8, grain(sigma)));
      expect(found).toBeGreaterThan(0.55 * expected);
      expect(found).toBeLessThan(1.3 * expected);
    }
  });
  it("of nothing is none", () => expect(edgeNoise({ xy: new Float64Array(0), starts: new Int32Array(1) })).toBe(0));
});

describe("averaging noise out", () => {
  const c = contoursAt(
    disc(2, (g) => (g < 128 ? 0 : 255)),
    0.5,
  );
  const off = (xy: Float64Array): number => {
    let sum = 0;
    for (let i = 0; i < xy.length; i += 2) sum += Math.abs(Math.hypot(xy[i] - 120.3, xy[i + 1] - 119.6) - 90);
    return (2 * sum) / xy.length;
  };
  it("brings a stepped edge to less than half its distance from the true one, no point farther than allowed", () => {
    const s = smoothed(c.xy, true, 0.22, 1, 0.5);
    expect(off(s)).toBeLessThan(0.5 * off(c.xy));
    let farthest = 0;
    for (let i = 0; i < s.length; i++) farthest = Math.max(farthest, Math.abs(s[i] - c.xy[i]));
    expect(farthest).toBeLessThanOrEqual(0.5);
    expect(farthest).toBeGreaterThan(0.2);
  });
  it("leaves quiet edges and the ends of open runs as they are", () => {
    expect(smoothed(c.xy, true, 0.01, 1, 0.5)).toBe(c.xy);
    const open = smoothed(c.xy, false, 0.22, 1, 0.5);
    expect([...open.slice(0, 2), ...open.slice(-2)]).toEqual([...c.xy.slice(0, 2), ...c.xy.slice(-2)]);
  });
});

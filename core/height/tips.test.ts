import { describe, expect, it } from "vitest";
import { profileOf } from "../cutters/profile.ts";
import { seeded } from "../testing/random.ts";
import { cutterOf } from "../testing/shop.ts";
import { heightAt, type HeightField } from "./field.ts";
import { leftBy, tipSurface } from "./surface.ts";
import { Tips } from "./tips.ts";

/** A terrain of noise at every scale, steps and spikes. */
function terrain(random: () => number, width: number, height: number, cell: number): HeightField {
  const z = new Float32Array(width * height);
  for (let scale = 32, gain = 1.5; scale >= 1; scale /= 2, gain *= 0.6) {
    const across = Math.ceil(width / scale) + 2;
    const grid = Float64Array.from({ length: across * (Math.ceil(height / scale) + 2) }, () => gain * random());
    for (let j = 0; j < height; j++)
      for (let i = 0; i < width; i++) z[j * width + i] -= grid[Math.floor(j / scale) * across + Math.floor(i / scale)];
  }
  for (let k = 0; k < 5; k++) z[Math.floor(random() * z.length)] = 0;
  return { x0: -3, y0: 7, cell, width, height, z };
}

/** Greys of a photograph as they come: level parts with some grain, and edges as high as all of it within a sample. */
function cliffs(random: () => number, width: number, height: number, cell: number, depth: number): HeightField {
  const parts = Array.from({ length: 12 }, () => ({ x: width * random(), y: height * random(), z: -depth * random() }));
  const z = new Float32Array(width * height);
  for (let k = 0; k < z.length; k++) {
    const [i, j] = [k % width, Math.floor(k / width)];
    const far = parts.map((p) => Math.hypot(p.x - i, p.y - j));
    z[k] = Math.min(0, parts[far.indexOf(Math.min(...far))].z + 0.15 * (random() - 0.5));
  }
  return { x0: 2, y0: -1, cell, width, height, z };
}

/** The definition, every sample under the cutter looked at. */
function lowest(t: HeightField, h: (r: number) => number, radius: number, x: number, y: number): number {
  let best = -Infinity;
  const from = (low: number, at: number) => Math.max(0, Math.floor((at - radius - low) / t.cell) - 1);
  const to = (low: number, at: number, samples: number) =>
    Math.min(samples - 1, Math.ceil((at + radius - low) / t.cell));
  for (let j = from(t.y0, y); j <= to(t.y0, y, t.height); j++)
    for (let i = from(t.x0, x); i <= to(t.x0, x, t.width); i++) {
      const d = Math.sqrt((t.x0 + (i + 0.5) * t.cell - x) ** 2 + (t.y0 + (j + 0.5) * t.cell - y) ** 2);
      if (d <= radius) best = Math.max(best, t.z[j * t.width + i] - h(d));
    }
  return best;
}

/** Parts of a cell between which the surface is looked at. */
const FINER = 8;
/** How far the cutter may reach into the surface, sideways or down, mm: a little farther the coarser that is. */
const within = (cell: number): number => 0.007 + cell / 100;

/** The definition, the bilinear surface under the cutter looked at in small steps. */
function lowestBetween(t: HeightField, h: (r: number) => number, radius: number, x: number, y: number): number {
  let best = heightAt(t, x, y);
  const step = t.cell / FINER;
  // Counted from the outermost samples, so that the peaks, which are samples, are among the places looked at.
  const [lowX, lowY] = [t.x0 + t.cell / 2, t.y0 + t.cell / 2];
  const from = (low: number, at: number) => Math.max(0, Math.floor((at - radius - low) / step));
  const to = (low: number, at: number, samples: number) =>
    Math.min((samples - 1) * FINER, Math.ceil((at + radius - low) / step));
  for (let j = from(lowY, y); j <= to(lowY, y, t.height); j++)
    for (let i = from(lowX, x); i <= to(lowX, x, t.width); i++) {
      const [qx, qy] = [lowX + i * step, lowY + j * step];
      const d = Math.hypot(qx - x, qy - y);
      if (d <= radius) best = Math.max(best, heightAt(t, qx, qy) - h(d));
    }
  return best;
}

/** Seeds with their cells, mm. */
const SIZES = [
  [5, 0.07],
  [6, 0.15],
  [7, 0.5],
] as const;
const CUTTERS = ["ball:3", "flat:2", "v:60:6", "v:30:4:0.3", "taper:0.5:5:3", "v:170:8", "form:0/0:0.6/0.1:2/1:3/4"];

describe("the lowest tip over a terrain", () => {
  for (const spec of CUTTERS)
    it(`${spec}: over its samples it is that of its definition`, () => {
      const p = profileOf(cutterOf(spec));
      for (const [seed, cell] of SIZES) {
        const t = terrain(seeded(seed), 47, 38, cell);
        const tips = tipSurface(t, p);
        for (let k = 0; k < t.z.length; k += 7) {
          const [i, j] = [k % t.width, Math.floor(k / t.width)];
          const wanted = lowest(t, p.h, p.radius, t.x0 + (i + 0.5) * cell, t.y0 + (j + 0.5) * cell);
          expect(tips.z[k], `seed ${seed}, ${i}, ${j}`).toBeCloseTo(wanted, 4);
        }
      }
    });

  it("the same far from the sides, on level ground and beside steps, for cutters of every width", () => {
    const random = seeded(11);
    for (let n = 0; n < 14; n++) {
      const spec = [`ball:${1 + n / 2}`, `flat:${1 + n / 3}`, `v:${40 + 8 * n}:8`][n % 3];
      const p = profileOf(cutterOf(spec));
      const t = terrain(random, 96 + n, 90, 0.12 + 0.01 * n);
      for (let j = 20; j < 70; j++) for (let i = 30; i < 60 + n; i++) t.z[j * t.width + i] = -1 - (i > 50 ? 0.5 : 0);
      const tips = tipSurface(t, p);
      for (let k = 0; k < 100; k++) {
        const [i, j] = [Math.floor(random() * t.width), Math.floor(random() * t.height)];
        const at = j * t.width + i;
        const wanted = lowest(t, p.h, p.radius, t.x0 + (i + 0.5) * t.cell, t.y0 + (j + 0.5) * t.cell);
        expect(tips.z[at], `${spec}, ${i}, ${j}`).toBeCloseTo(wanted, 4);
        const held = t.z[at + tips.away[at] * t.width + tips.right[at]];
        const far = Math.hypot(tips.right[at], tips.away[at]) * t.cell;
        expect(held - p.h(Math.min(p.radius, far)), `what holds ${spec}, ${i}, ${j}`).toBeCloseTo(wanted, 4);
      }
    }
  });

  for (const spec of CUTTERS)
    it(`${spec}: between samples the cutter stands on the surface between them`, () => {
      const p = profileOf(cutterOf(spec));
      for (const [seed, cell] of SIZES) {
        const random = seeded(seed);
        const t = terrain(random, 47, 38, cell);
        const fine = cell / FINER;
        const most = within(cell);
        const tips = new Tips(t, p);
        for (let k = 0; k < 40; k++) {
          const x = t.x0 + (0.5 + random() * (t.width - 1)) * cell;
          const y = t.y0 + (0.5 + random() * (t.height - 1)) * cell;
          const found = tips.at(x, y);
          const wanted = lowestBetween(t, (r) => p.h(r + most), p.radius - most, x, y);
          expect(found, `seed ${seed}, ${x}, ${y}`).toBeGreaterThan(wanted - most);
          // No higher than it must: by the steps between which the surface was looked at, and what level ground adds.
          const highest = lowestBetween(
            t,
            (r) => p.h(Math.max(0, Math.min(p.radius, r) - fine)),
            p.radius + fine,
            x,
            y,
          );
          const sag = p.ball > 0 ? (cell * cell) / (4 * p.ball) : 0;
          expect(found, `seed ${seed}, ${x}, ${y}`).toBeLessThan(highest + sag + most);
        }
      }
    });

  it("it stands on every sample under it of cliffs as high as the whole, wherever it stands", () => {
    for (const spec of ["flat:2", "ball:2", "taper:0.5:5:3"])
      for (let seed = 1; seed <= 10; seed++) {
        const random = seeded(seed);
        const t = cliffs(random, 80, 70, 0.04 + 0.04 * random(), 3);
        const p = profileOf(cutterOf(spec));
        const tips = new Tips(t, p);
        const most = within(t.cell);
        for (let k = 0; k < 1500; k++) {
          const x = t.x0 + (0.5 + random() * (t.width - 1)) * t.cell;
          const y = t.y0 + (0.5 + random() * (t.height - 1)) * t.cell;
          const wanted = lowest(t, (r) => p.h(Math.min(p.radius, r + most)), p.radius - most, x, y);
          expect(tips.at(x, y), `${spec}, seed ${seed}, ${x}, ${y}`).toBeGreaterThan(wanted - most);
        }
      }
  });

  it("what is left by a cutter that was everywhere lies nowhere below the surface, and is it where it is flat", () => {
    const p = profileOf(cutterOf("ball:2"));
    const t = terrain(seeded(9), 50, 40, 0.1);
    for (let j = 0; j < t.height; j++) for (let i = 20; i < 50; i++) t.z[j * t.width + i] = -2;
    const left = leftBy(tipSurface(t, p), p);
    for (let k = 0; k < t.z.length; k++) expect(left.z[k]).toBeGreaterThanOrEqual(t.z[k] - 1e-5);
    expect(left.z[20 * t.width + 42]).toBeCloseTo(-2, 5);
  });
});

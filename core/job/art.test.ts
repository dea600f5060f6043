import { built, productIn } from "../testing/building.ts";
import { describe, expect, it } from "vitest";
import { boundsOf } from "../geometry/rings.ts";
import type { Raster } from "../picture/raster.ts";
import { seeded } from "../testing/random.ts";
import type { BoardJob } from "./document.ts";
import { addOutline } from "./edit.ts";
import { begun } from "../testing/shop.ts";

const SEED = Number(process.env.OAKEN_SEED ?? 5);
const stock = { width: 200, height: 160, thickness: 18 };

/** A dark disc with a red one beside it, somewhere on a white sheet, with a speck of dust in the far corner. */
function sheet(random: () => number): { raster: Raster; width: number; height: number } {
  const [W, H] = [300 + Math.floor(300 * random()), 300 + Math.floor(300 * random())];
  const data = new Uint8Array(4 * W * H).fill(255);
  const r = 30 + 20 * random();
  const [cx, cy] = [r + 4 + (W - 4 * r - 8) * random(), r + 4 + (H - 2 * r - 8) * random()];
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const dark = 0.5 + r - Math.hypot(x + 0.5 - cx, y + 0.5 - cy);
      const red = 0.5 + r - Math.hypot(x + 0.5 - cx - 2 * r + 6, y + 0.5 - cy);
      const share = (d: number) => Math.max(0, Math.min(1, d));
      for (let k = 0; k < 3; k++) {
        const ink = k === 0 ? 0.4 * share(red) : 0.95 * share(red);
        data[4 * (y * W + x) + k] = 255 * (1 - Math.max(0.95 * share(dark), ink));
      }
    }
  data.set([0, 0, 0, 255], 4 * ((H - 2) * W + W - 2));
  return { raster: { width: W, height: H, data }, width: 4 * r - 6, height: 2 * r };
}

const inkBox = (job: BoardJob, raster: Raster) => {
  const build = built(job, raster, { cells: 2000, quick: true });
  expect(build.problem).toBeNull();
  const shapes = productIn(build, "shapes");
  return { ...boundsOf(shapes.ink.xy), shapes };
};
/** The outline holds its edge within so much, on either side. */
const near = (b: { shapes: { held: number } }, is: number, wanted: number) =>
  expect(Math.abs(is - wanted)).toBeLessThanOrEqual(2 * b.shapes.held + 1e-3);
const jobOf = (r: Raster, settings: Record<string, number | string>): BoardJob => {
  const job = begun("sign", { sha: "c".repeat(64), name: "a.png", width: r.width, height: r.height }, stock);
  Object.assign(job.makings[0].settings, settings);
  return job;
};

describe(`a picture measured over its art (seed ${SEED})`, () => {
  const random = seeded(SEED);
  for (let k = 0; k < 6; k++) {
    const { raster, width, height } = sheet(random);
    it(`sheet ${k}: the width is what a ruler shows, in the middle of the stock, whatever surrounds it`, () => {
      const b = inkBox(jobOf(raster, { measured: "art", width: 90 }), raster);
      near(b, b.maxX - b.minX, 90);
      near(b, (b.minX + b.maxX) / 2, stock.width / 2);
      near(b, (b.minY + b.maxY) / 2, stock.height / 2);
      expect((b.maxX - b.minX) / (b.maxY - b.minY)).toBeCloseTo(width / height, 1);
    });
    it(`sheet ${k}: by itself it fills the stock inside its margin, and a place is its own edge's`, () => {
      const b = inkBox(jobOf(raster, { measured: "art" }), raster);
      const fills = Math.min(stock.width - 10, ((stock.height - 10) * width) / height);
      expect(Math.abs(b.maxX - b.minX - fills)).toBeLessThan(0.6 + 2 * b.shapes.held);
      const placed = inkBox(jobOf(raster, { measured: "art", width: 60, x: 12, y: 7 }), raster);
      near(placed, placed.minX, 12);
      near(placed, placed.minY, 7);
    });
    it(`sheet ${k}: colours are measured by what is kept of them`, () => {
      const job = jobOf(raster, { measured: "art", width: 90 });
      Object.assign(job.makings[2].settings, { trace: "colours", colours: 3 });
      const b = inkBox(job, raster);
      near(b, b.maxX - b.minX, 90);
    });
  }

  it("what is a speck by its size on the piece is judged at that size, not at the picture's own", () => {
    // A disc, and a dot 60 px beside it: 2 mm² while the whole sheet is 90 mm wide, some 30 where the art is.
    const [W, H] = [400, 300];
    const data = new Uint8Array(4 * W * H).fill(255);
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++) {
        const isInk = Math.hypot(x - 60, y - 80) < 30 || Math.hypot(x - 120, y - 80) < 3.5;
        if (isInk) data.fill(0, 4 * (y * W + x), 4 * (y * W + x) + 3);
      }
    const job = jobOf({ width: W, height: H, data }, { measured: "art", width: 90 });
    Object.assign(job.makings[2].settings, { specks: 10 });
    const b = inkBox(job, { width: W, height: H, data });
    expect(b.shapes.shape.parent.length).toBe(2);
    near(b, b.maxX - b.minX, 90);
  });

  it("all outlines of one picture see it in one place: that of all their art together", () => {
    const { raster } = sheet(seeded(9));
    const job = jobOf(raster, { measured: "art", width: 90 });
    Object.assign(job.makings[2].settings, { trace: "colours", colours: 3, keep: "#0d0d0d" });
    const alone = inkBox(job, raster);
    near(alone, alone.maxX - alone.minX, 90);
    addOutline(job, "outline", { keep: "#990d0d" });
    const together = inkBox(job, raster);
    expect(together.maxX - together.minX).toBeLessThan(60);
  });

  it("over the whole picture it lies as it always has", () => {
    const { raster } = sheet(seeded(9));
    const { place } = productIn(built(jobOf(raster, { width: 90 }), raster, { cells: 2000 }), "raster");
    expect(place.width).toBe(90);
    expect(place.x0).toBe(55);
  });
});

import { describe, expect, it } from "vitest";
import { plainFace } from "../../testing/face.ts";
import { heightAt, type HeightField, rangeOf } from "../../height/field.ts";
import { buildJob, type BuildResult } from "../../job/build.ts";
import { type BoardJob, emptyJob } from "../../job/document.ts";
import { addCut, addDrawing, addMaking } from "../../job/edit.ts";
import { checkBoard } from "../../job/schema.ts";
import { Kept } from "../../kept.ts";
import type { Setting } from "../../settings/fields.ts";
import { productIn } from "../../testing/building.ts";
import { SHOP } from "../../testing/shop.ts";

const STOCK = { width: 100, height: 80, thickness: 18, margin: 5 };
const drawing = (of: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60">${of}</svg>`;
/** In the middle of the board. */
const DISC = drawing('<circle cx="30" cy="30" r="15"/>');
const SQUARE = drawing('<rect x="10" y="10" width="40" height="40"/>');
const MIDDLE = { x: 50, y: 40 };

/** A drawing on the board, and what is made from it by `add`. */
function built(svg: string, add: (job: BoardJob, art: string) => void): BuildResult {
  const job = emptyJob(SHOP, "body", STOCK);
  add(job, addDrawing(job, { sha: "d".repeat(64), name: "art.svg", width: 60, height: 60 }));
  const files = { picture: () => null as never, drawing: () => svg, solid: () => null as never, face: plainFace };
  return buildJob(checkBoard(job), { files, cells: 4000, quick: true }, new Kept());
}
function raised(svg: string, settings: Record<string, Setting> = {}): { f: HeightField; b: BuildResult } {
  const b = built(svg, (job, art) => {
    addMaking(job, "raise", art);
    Object.assign(job.makings[1].settings, settings);
  });
  expect(b.problem?.code ?? "nothing-cut").toMatch(/^no/);
  return { f: productIn(b, "heights").field, b };
}

describe("a raised body", () => {
  it("is a dome over a disc: as high as a ball of the disc's radius", () => {
    const { f } = raised(DISC, { depth: 16, radius: 15 });
    for (let r = 0; r < 14.5; r += 0.7)
      for (let turn = 0; turn < 6; turn++) {
        const [x, y] = [MIDDLE.x + r * Math.cos(turn), MIDDLE.y + r * Math.sin(turn)];
        // The ground 16 below, the ball's top 15 above that.
        expect(heightAt(f, x, y), `${r}`).toBeCloseTo(-16 + Math.sqrt(225 - r * r), 1);
      }
    expect(heightAt(f, MIDDLE.x + 17, MIDDLE.y)).toBe(-16);
  });

  it("is a pyramid over a square, hollow as a bowl's rim, and level where it would be too high", () => {
    const slope = raised(SQUARE, { form: "slope", angle: 30, depth: 15 }).f;
    for (let d = 0.5; d < 19; d += 1.3)
      expect(heightAt(slope, MIDDLE.x - 20 + d, MIDDLE.y)).toBeCloseTo(-15 + d * Math.tan(Math.PI / 6), 1);
    const hollow = raised(SQUARE, { form: "hollow", radius: 10, depth: 12 }).f;
    for (let d = 0.5; d < 9.5; d += 1.1)
      expect(heightAt(hollow, MIDDLE.x - 20 + d, MIDDLE.y)).toBeCloseTo(-2 - Math.sqrt(100 - d * d), 1);
    const level = raised(SQUARE, { form: "slope", angle: 45, depth: 4, tall: "level", top: 1 }).f;
    expect(heightAt(level, MIDDLE.x, MIDDLE.y)).toBeCloseTo(-1, 5);
    expect(heightAt(level, MIDDLE.x - 18, MIDDLE.y)).toBeCloseTo(-3, 1);
  });

  it("follows a curve that is drawn, from the edge inward to the whole depth, and is level beyond it", () => {
    const points = "0,0.1 0.25,0.7 0.6,0.4 1,0.9";
    const { f } = raised(SQUARE, { form: "drawn", radius: 8, depth: 10, top: 1, curve: points });
    const at = (inward: number) => heightAt(f, MIDDLE.x - 20 + inward, MIDDLE.y);
    // Through its points, at their share of the way.
    for (const [x, y] of [
      [0.25, 0.7],
      [0.6, 0.4],
      [1, 0.9],
    ])
      expect(at(8 * x)).toBeCloseTo(-11 + 10 * y, 1);
    for (let d = 8.2; d < 20; d += 1.7) expect(at(d)).toBeCloseTo(-2, 2);
    const straight = raised(SQUARE, { form: "drawn", radius: 10, depth: 10, curve: "0,0 1,1" }).f;
    for (let d = 0.5; d < 9.5; d += 0.7)
      expect(heightAt(straight, MIDDLE.x - 20 + d, MIDDLE.y)).toBeCloseTo(-10 + d, 1);
  });

  it("pressed, it keeps its form: every height is the same share of what it would be", () => {
    const free = raised(DISC, { depth: 15, radius: 15 }).f;
    const { f } = raised(DISC, { depth: 3 });
    expect(rangeOf(f).low).toBe(-3);
    expect(heightAt(f, MIDDLE.x, MIDDLE.y)).toBeCloseTo(0, 1);
    for (let r = 0; r < 14; r += 1.3) {
      const share = (z: HeightField, depth: number) => (heightAt(z, MIDDLE.x + r, MIDDLE.y) + depth) / depth;
      expect(share(f, 3)).toBeCloseTo(share(free, 15), 2);
    }
  });

  it("goes so far beyond the shapes as its ground, and finds its radius in the widest stroke", () => {
    const { f, b } = raised(DISC, { margin: 7 });
    expect([f.x0, f.y0]).toEqual([expect.closeTo(28, 2), expect.closeTo(18, 2)]);
    expect(f.width * f.cell).toBeCloseTo(44, 1);
    expect([...b.makings.values()][1].values.radius).toBeCloseTo(15, 1);
  });

  it("is cut like any surface", () => {
    const b = built(SQUARE, (job, art) => {
      addCut(job, "finish", addMaking(job, "raise", art), SHOP.cutters);
    });
    expect(b.problem).toBeNull();
    expect(b.cuts[0].toolpath.kind.length).toBeGreaterThan(100);
    expect(Math.min(...b.cuts[0].toolpath.z)).toBeCloseTo(-5, 1);
  });
});

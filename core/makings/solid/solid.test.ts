import { describe, expect, it } from "vitest";
import { plainFace } from "../../testing/face.ts";
import { rangeOf } from "../../height/field.ts";
import { writeStl } from "../../height/stl.ts";
import { buildJob, type BuildResult } from "../../job/build.ts";
import { type BoardJob, emptyJob, type StockSettings } from "../../job/document.ts";
import { addSolid } from "../../job/edit.ts";
import { checkBoard } from "../../job/schema.ts";
import { Kept } from "../../kept.ts";
import type { Setting } from "../../settings/fields.ts";
import { productIn } from "../../testing/building.ts";
import { cutterOf, SHOP } from "../../testing/shop.ts";

/** A wedge 60 × 40 that rises from 2 to 10 from left to right. */
function wedge(): Uint8Array {
  const [width, height] = [60, 40];
  const z = Float32Array.from({ length: width * height }, (_, k) => 2 + (8 * ((k % width) + 0.5)) / width);
  return writeStl({ x0: 0, y0: 0, cell: 1, width, height, z }, 0);
}

function built(bytes: Uint8Array, settings: Record<string, Setting> = {}, stock: Partial<StockSettings> = {}) {
  const job: BoardJob = emptyJob(SHOP, "solid", { width: 120, height: 90, thickness: 18, margin: 5, ...stock });
  const id = addSolid(job, { sha: "e".repeat(64), name: "wedge.stl", width: 1, height: 1 });
  job.makings[0].settings = settings;
  const cutter = cutterOf("ball:6");
  job.cuts = [{ id: "f", kind: "finish", name: "Finish", on: true, reads: { art: id }, cutter, settings: {} }];
  const files = { picture: () => null as never, drawing: () => "", solid: () => bytes, face: plainFace };
  return buildJob(checkBoard(job), { files, cells: 4000, quick: true }, new Kept());
}
const fieldOf = (b: BuildResult) => productIn(b, "heights").field;
const valuesOf = (b: BuildResult) => [...b.makings.values()][0].values;

describe("a solid as a height", () => {
  it("lies in the middle at its own size and height, where it fits", () => {
    const b = built(wedge());
    expect(b.problem).toBeNull();
    const { width, x, y, depth } = valuesOf(b);
    expect([width, x, y]).toEqual([60, 30, 25]);
    // From its point to its base.
    expect(depth).toBeCloseTo(9.93, 1);
    const f = fieldOf(b);
    expect([f.x0, f.y0]).toEqual([30, 25]);
    expect(f.width * f.cell).toBeCloseTo(60, 9);
    expect(f.height * f.cell).toBeCloseTo(40, 1);
  });

  it("its slope is the wedge's own, at any width in proportion", () => {
    for (const width of [30, 60]) {
      const f = fieldOf(built(wedge(), { width }));
      const row = Math.floor(f.height / 2) * f.width;
      const at = (share: number) => f.z[row + Math.round(share * (f.width - 1))];
      // 8 of height in 60 of width, whatever the width.
      expect((at(0.75) - at(0.25)) / (width / 2)).toBeCloseTo(8 / 60, 2);
      expect(rangeOf(f).high).toBeCloseTo(0, 2);
    }
  });

  it("is scaled to fit the board's margin, and its depth to what the stock holds", () => {
    const narrow = valuesOf(built(wedge(), {}, { width: 50, height: 40 }));
    expect(narrow.width).toBeCloseTo(40, 1);
    const thin = valuesOf(built(wedge(), {}, { thickness: 8 }));
    expect(thin.depth).toBe(6);
  });

  it("top and depth: its highest place lies at −top, its lowest at −top − depth", () => {
    const { low, high } = rangeOf(fieldOf(built(wedge(), { top: 1.5, depth: 4 })));
    expect(high).toBeCloseTo(-1.5, 2);
    // Its base shows nowhere from above: 2 of its 9.93 stand below the lowest place that is seen.
    expect(low).toBeGreaterThan(-5.5);
    expect(low).toBeLessThan(-4);
  });

  it("seen from another side it has that side's width and height", () => {
    const front = valuesOf(built(wedge(), { side: "front" }, { thickness: 60 }));
    expect([front.width, Math.round(Number(front.depth))]).toEqual([60, 40]);
    const left = valuesOf(built(wedge(), { side: "left" }, { thickness: 80 }));
    expect([left.width, Math.round(Number(left.depth))]).toEqual([40, 60]);
  });

  it("from its front a wedge leaves a corner open, and says how much", () => {
    const b = built(wedge(), { side: "front" }, { thickness: 60 });
    const { leftOut } = productIn(b, "heights");
    // Half of the rise from 2 to 10 of the 10: two fifths of the rectangle.
    expect(leftOut!.join()).toMatch(/4\d % of the rectangle|39 % of the rectangle/);
    expect(productIn(built(wedge()), "heights").leftOut).toEqual([]);
  });

  it("a damaged file, and a sheet seen from its edge, are one sentence and no fault", () => {
    expect(built(new Uint8Array(10)).problem).toMatchObject({ code: "bad-solid" });
    const sheet = "solid s\nfacet\nvertex 0 0 0\nvertex 9 0 0\nvertex 9 9 0\nendfacet\nendsolid";
    const flat = Uint8Array.from(sheet, (c) => c.charCodeAt(0));
    expect(built(flat, { side: "front" }).problem?.message).toMatch(/from another/);
    // From above it is a level triangle.
    expect(built(flat).problem).toBeNull();
  });
});

import { describe, expect, it } from "vitest";
import { lightOf } from "../../colour.ts";
import { profileOf } from "../../cutters/profile.ts";
import type { GreyProduct } from "../../makings/product.ts";
import { planReading } from "../../testing/cutting.ts";
import { greyOf } from "../../testing/grey.ts";
import { newSurface } from "../../proof/surface.ts";
import { nothingSwept, sweep } from "../../proof/sweep.ts";
import { cutterOf } from "../../testing/shop.ts";
import type { Planned } from "../kind.ts";

const COAT = 0.1;
const BOARD = { width: 80, height: 60, thickness: 12, coat: COAT };
const CELL = 0.04;

/** A picture over the whole board. */
const overBoard = (at: (x: number, y: number) => number, width = 400, height = 300): GreyProduct =>
  greyOf(at, { wide: BOARD.width, width, height });

/** Twelve steps from black to white, 20 mm squares. */
const wedge = overBoard((x, y) => (Math.floor(4 * x) + 4 * Math.floor(3 * y)) / 11);

const plan = (art: GreyProduct, cutter: string, own = {}, board = BOARD) =>
  planReading("lines", { art }, cutter, own, {}, board);

/** The surface that is bare, 1, or painted, 0, after the moves were swept. */
function bared({ toolpath }: Planned, cutter: string) {
  const s = newSurface(BOARD.width, BOARD.height, CELL, BOARD.thickness);
  const report = nothingSwept();
  sweep(s, toolpath, profileOf(cutterOf(cutter)), 1, 0, toolpath.kind.length, report);
  return { bare: Uint8Array.from(s.z, (z) => (z < -COAT - 1e-6 ? 1 : 0)), width: s.width, height: s.height, report };
}

/** The share that is bare in a square, mm. */
function shareIn({ bare, width }: ReturnType<typeof bared>, x0: number, y0: number, size: number): number {
  let sum = 0;
  const [i0, j0, n] = [Math.round(x0 / CELL), Math.round(y0 / CELL), Math.round(size / CELL)];
  for (let j = j0; j < j0 + n; j++) for (let i = i0; i < i0 + n; i++) sum += bare[j * width + i];
  return sum / (n * n);
}

describe("shaded lines", () => {
  for (const [cutter, own] of [
    ["v:60:6", {}],
    ["v:60:6", { shape: "waves" }],
    ["v:60:6", { shape: "rings" }],
    ["v:30:6", { shape: "spiral", spacing: 0.9 }],
    ["v:60:6", { shape: "dots" }],
    ["v:60:6:0.2", { shape: "dots", spacing: 1.2 }],
    ["v:90:6", { crossed: true }],
    ["v:90:6:0.2", { spacing: 1.3 }],
    ["ball:2", {}],
    ["taper:0.25:7:6", {}],
  ] as const)
    it(`${cutter} ${JSON.stringify(own)}: bare surface is the light wanted, over 5 mm squares of a wedge`, () => {
      const planned = plan(wedge, cutter, own);
      const { least, most } = planned.tones!;
      expect(most - least).toBeGreaterThan(0.3);
      const seen = bared(planned, cutter);
      expect(seen.report.rapids).toBe(0);
      for (let step = 0; step < 12; step++) {
        const [x, y] = [20 * (step % 4), 20 * Math.floor(step / 4)];
        const wanted = least + (most - least) * lightOf(step / 11);
        // The middle of each step: four squares.
        const squares = [5, 10].flatMap((a) => [5, 10].map((b) => shareIn(seen, x + a, y + b, 5)));
        const mean = squares.reduce((a, b) => a + b) / 4;
        expect(Math.abs(mean - wanted), `step ${step}: ${mean} for ${wanted}`).toBeLessThan(0.02);
        for (const share of squares) expect(Math.abs(share - wanted), `step ${step}: ${share}`).toBeLessThan(0.04);
      }
    });

  it("white leaves strips of paint as wide as asked", () => {
    const white = overBoard(() => 1);
    const { toolpath } = plan(white, "v:60:6", { spacing: 1, strip: 0.3, angle: 0 });
    const { r } = profileOf(cutterOf("v:60:6"));
    const deepest = -Math.min(...toolpath.z);
    expect(2 * r(deepest)).toBeCloseTo(0.7, 2);
    const rows = [...new Set([...toolpath.y].map((y) => Math.round(1000 * y) / 1000))].sort((a, b) => a - b);
    for (let k = 1; k < rows.length; k++) expect(rows[k] - rows[k - 1]).toBeCloseTo(1, 3);
  });

  it("black stays whole with a point, and nothing is cut beyond the picture", () => {
    const { toolpath, tones } = plan(
      overBoard(() => 0),
      "v:60:6",
    );
    expect(tones!.least).toBe(0);
    expect(toolpath.kind.length).toBe(0);
    const white = plan(
      overBoard(() => 1),
      "v:60:6",
    );
    const { r } = profileOf(cutterOf("v:60:6"));
    white.toolpath.x.forEach((x, i) => {
      const wide = r(Math.max(0, -white.toolpath.z[i]));
      expect(Math.min(x, BOARD.width - x) - wide).toBeGreaterThanOrEqual(0);
      const y = white.toolpath.y[i];
      expect(Math.min(y, BOARD.height - y) - wide).toBeGreaterThanOrEqual(0);
    });
  });

  it("a picture finer than the lines is drawn as its mean light, not as freckles", () => {
    const fine = overBoard((x, y) => (Math.floor(200 * x) + Math.floor(150 * y)) % 2);
    const planned = plan(fine, "v:60:6", { spacing: 2 });
    const { most } = planned.tones!;
    const seen = bared(planned, "v:60:6");
    for (const [x, y] of [
      [10, 10],
      [40, 30],
      [60, 45],
    ])
      expect(Math.abs(shareIn(seen, x, y, 10) - most / 2)).toBeLessThan(0.03);
  });

  it("says what cannot be drawn", () => {
    const codes = (p: Planned) => p.notes.map((n) => [n.code, n.severity]);
    expect(codes(plan(wedge, "v:60:6", {}, { ...BOARD, coat: 0 }))).toEqual([["no-paint", "warning"]]);
    expect(codes(plan(wedge, "v:60:6", { depth: 0.1 }))).toEqual([["not-through-paint", "stop"]]);
    expect(codes(plan(wedge, "v:60:6", { depth: 0.2 }))).toEqual([["few-tones", "warning"]]);
    expect(codes(plan(wedge, "v:60:6", { depth: 1.5 }))).toEqual([["paint-all-gone", "warning"]]);
    const away = greyOf(() => 1, { wide: 80, x0: 200 });
    expect(codes(plan(away, "v:60:6"))).toEqual([["nothing-on-the-board", "stop"]]);
  });

  it("a strip of 20,000 × 200 pixels, few pixels and one grey give lines; a strip lower than a spacing none", () => {
    for (const art of [overBoard((x) => x, 20000, 200), overBoard((x, y) => x * y, 16, 16), overBoard(() => 0.5)]) {
      const { toolpath } = plan(art, "v:60:6", { spacing: 0.5 });
      expect([...toolpath.x, ...toolpath.y, ...toolpath.z].every(Number.isFinite)).toBe(true);
      expect(toolpath.kind.length).toBeGreaterThan(0);
    }
    const low = plan(
      overBoard(() => 1, 20000, 20),
      "v:60:6",
      { spacing: 0.5 },
    );
    expect(low.notes.map((n) => n.code)).toEqual(["nothing-on-the-board"]);
  });
});

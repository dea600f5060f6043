import { describe, expect, it } from "vitest";
import { type Gesture, TOOLS, toolById } from "./tools.ts";

const hand = (pixels: number[], more: Partial<Gesture> = {}): Gesture => ({
  pixels,
  space: { toPixel: (x, y) => [x, y], toStock: (x, y) => [x, y], perMm: 10, width: 800, height: 600 },
  own: {},
  file: { sha: "", width: 800, height: 600 },
  built: {} as Gesture["built"],
  offset: [0, 0],
  mode: "",
  brush: 12,
  proportion: 0,
  ...more,
});
const apply = (id: string, g: Gesture) => toolById(id)!.apply(g) as Record<string, unknown> | null;

describe("tools of the stage", () => {
  it("crop: the dragged box whichever way it was dragged, in pixels of the uncropped picture", () => {
    expect(apply("crop", hand([300, 200, 100, 50]))).toEqual({ crop: "100,50,200,150" });
    expect(apply("crop", hand([100, 50, 300, 200], { offset: [40, 30] }))).toEqual({ crop: "140,80,200,150" });
    expect(apply("crop", hand([100, 50, 300, 90], { mode: "proportion", proportion: 2 }))).toEqual({
      crop: "100,50,200,100",
    });
    expect(apply("crop", hand([100, 50, 104, 300]))).toBeNull();
  });

  it("erase: each way adds one item to what was wiped before", () => {
    const own = { erase: "spot 1 2" };
    expect(apply("erase", hand([10, 20], { mode: "spot", own }))).toEqual({ erase: "spot 1 2; spot 10 20" });
    expect(apply("erase", hand([10, 20, 30, 40], { mode: "brush" }))).toEqual({ erase: "brush 12 10 20 30 40" });
    expect(apply("erase", hand([30, 40, 10, 20], { mode: "rect" }))).toEqual({ erase: "rect 10 20 20 20" });
    expect(apply("erase", hand([1, 1, 9, 1], { mode: "lasso" }))).toBeNull();
  });

  it(
    "straighten: a line that falls to the right is turned level, a steep one upright, on top of what was turned " +
      "before",
    () => {
      expect(apply("straighten", hand([0, 0, 100, 10]))).toMatchObject({ turn: 5.71 });
      expect(apply("straighten", hand([0, 0, 10, 100]))).toMatchObject({ turn: -5.71 });
      expect(apply("straighten", hand([100, 10, 0, 0], { own: { turn: 2 } }))).toMatchObject({ turn: 7.71 });
      expect(apply("straighten", hand([0, 0, 3, 1]))).toBeNull();
      // What was cropped stays the same part of the picture.
      expect(apply("straighten", hand([0, 0, 100, 10], { own: { crop: "350,250,100,100" } }))!.crop).toMatch(
        /^3\d\d,2\d\d,100,100$/,
      );
    },
  );

  it("square up: the four corners, and nothing of the frame before", () => {
    expect(apply("corners", hand([1, 2, 3, 4, 5, 6, 7, 8.04]))).toEqual({
      corners: "1 2 3 4 5 6 7 8",
      turn: undefined,
      crop: undefined,
      erase: undefined,
    });
  });

  it("every tool says what to do in a sentence, and no two share a name", () => {
    expect(new Set(TOOLS.map((t) => t.id)).size).toBe(TOOLS.length);
    for (const t of TOOLS) expect(t.how).toMatch(/^[A-Z].*\.$/);
  });
});

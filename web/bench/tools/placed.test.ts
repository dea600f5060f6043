import { describe, expect, it } from "vitest";
import { seeded } from "@oaken/core/testing/random";
import { parseErase } from "@oaken/core/picture/erase";
import { type Ground, isListed, placedBy, withItem } from "./placed.ts";

/** A picture of 800 × 600 pixels that lies from (20, 30) at 5 px/mm, cropped by (40, 10). */
const ground: Ground = {
  space: {
    toPixel: (x, y) => [(x - 20) * 5, (30 + 120 - y) * 5],
    toStock: (px, py) => [20 + px / 5, 30 + 120 - py / 5],
    perMm: 5,
    width: 800,
    height: 600,
  },
  offset: [40, 10],
};

const TEXTS: [tool: string, text: string, ground: Ground | null][] = [
  ["crop", "100,60,300,200", ground],
  ["erase", "spot 120 80; rect 50 40 100 60; lasso 10 10 90 20 40 80; brush 12 200 210 260 220", ground],
  ["hide", "140 110; 300 200", ground],
  ["bridge", "140.5 110", ground],
  ["tabs", "20 35; 60.25 35", null],
  ["pierce", "5 5", null],
  ["drill", "12.5 40; 80 40", null],
];

describe("things placed by hand, as a list", () => {
  it("tell where they lie on the stock: a box by its near left corner and its size", () => {
    const [kept] = placedBy("crop", "100,60,300,200", ground);
    // 60 px right of the crop's origin are 12 mm; the near edge is 250 px below it, 50 mm from the far edge at 150.
    expect(kept.measures.map((m) => [m.label, m.mm])).toEqual([
      ["from the left", 32],
      ["from the front", 100],
      ["wide", 60],
      ["high", 40],
    ]);
    const [mark, , , brush] = placedBy("erase", TEXTS[1][1], ground);
    expect(mark.measures.map((m) => m.mm)).toEqual([36, 136]);
    expect(brush.measures.map((m) => m.mm)).toEqual([52, 110, 2.4]);
    expect(placedBy("tabs", "20 35; 60.25 35", null)[1].measures.map((m) => m.mm)).toEqual([60.25, 35]);
  });

  it("take a measure that is typed, and leave every other measure of theirs as it was", () => {
    const random = seeded(5);
    for (const [tool, text, on] of TEXTS) {
      const all = placedBy(tool, text, on);
      all.forEach((item, k) =>
        item.measures.forEach((measure, i) => {
          const mm = Math.round(10 * (measure.least > 0 ? 5 + 40 * random() : 150 * random())) / 10;
          const after = withItem(tool, text, k, measure.set(mm))!;
          const [now, others] = [placedBy(tool, after, on), all];
          expect(now).toHaveLength(others.length);
          now.forEach((p, q) =>
            p.measures.forEach((m, j) => {
              const wanted = q === k && j === i ? mm : others[q].measures[j].mm;
              // Pixels are kept whole for a crop and in tenths elsewhere.
              expect(Math.abs(m.mm - wanted), `${tool} ${item.name}: ${m.label}`).toBeLessThan(0.21);
            }),
          );
          if (tool === "erase") expect(parseErase(after)).toHaveLength(4);
        }),
      );
    }
  });

  it("go one by one: without its last item a setting is automatic again", () => {
    expect(withItem("hide", "140 110; 300 200", 0, null)).toBe("300 200");
    expect(withItem("hide", "140 110", 0, null)).toBeUndefined();
    expect(withItem("crop", "100,60,300,200", 0, null)).toBeUndefined();
    expect(isListed("corners")).toBe(false);
  });
});

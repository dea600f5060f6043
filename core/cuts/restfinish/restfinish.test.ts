import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import type { HeightField } from "../../height/field.ts";
import { heightsOf, planReading } from "../../testing/cutting.ts";
import { cutterOf } from "../../testing/shop.ts";
import { against, BOARD, surface, swept } from "../../testing/surfaces.ts";
import { figures } from "../../toolpath/toolpath.ts";

const finish = (f: HeightField, cutter: string, own = {}) =>
  planReading("finish", { art: heightsOf(f) }, cutter, own, {}, BOARD);
const rest = (f: HeightField, cutter: string, after: string, own = {}) =>
  planReading(
    "restfinish",
    { art: heightsOf(f) },
    cutter,
    own,
    { target: { id: "f", kind: "finish", cutter: cutterOf(after), settings: {} } },
    BOARD,
  );
const profile = (spec: string) => profileOf(cutterOf(spec));

/** Level at −2 mm with V-shaped valleys of 1.2 mm more, too narrow for a large ball. */
function valleys(): HeightField {
  const f = surface(1, 0.1, false);
  for (let j = 0; j < f.height; j++)
    for (let i = 0; i < f.width; i++) {
      const aside = Math.abs((i * f.cell) % 10) - 5;
      f.z[j * f.width + i] = -2 - Math.max(0, 1.2 - 2 * Math.abs(aside));
    }
  return f;
}

describe("rest of a surface", () => {
  it("goes only where the larger cutter could not, and leaves what the finer one alone would", () => {
    const f = valleys();
    const large = finish(f, "ball:8", { stepover: 0.5 });
    const taken = rest(f, "ball:2", "ball:8", { stepover: 0.3, above: 0.05 });
    const all = finish(f, "ball:2", { stepover: 0.3 });
    // Valleys are 1.2 mm wide every 10 mm: well under a third of the board.
    expect(figures(taken.toolpath).cutLength).toBeLessThan(0.4 * figures(all.toolpath).cutLength);
    // 0.37 mm of each, where h₁(0.6 − a) − h₄(0.6) + a²/6 > 0.05, told by places 0.1 mm apart.
    const share = Number(taken.facts.area) / (BOARD.width * BOARD.height);
    expect(share).toBeGreaterThan(0.027);
    expect(share).toBeLessThan(0.047);
    const alone = against(swept([[large, profile("ball:8")]]).s, f);
    const { s } = swept([
      [large, profile("ball:8")],
      [taken, profile("ball:2")],
    ]);
    const both = against(s, f);
    expect(both.below).toBeLessThan(0.005);
    const fine = against(swept([[all, profile("ball:2")]]).s, f);
    const at = (v: number[], share: number) => v[Math.floor(share * v.length)];
    expect(at(alone.above, 0.97)).toBeGreaterThan(0.3);
    // What may stay is what was not worth it, with the ridges of both.
    expect(at(both.above, 0.999)).toBeLessThan(at(fine.above, 0.999) + 0.05 + 0.02);
  });

  it("finds nothing to do where the larger cutter reached everywhere", () => {
    const f = surface(1, 0.2, false);
    f.z.fill(-1.5);
    const taken = rest(f, "ball:2", "ball:8");
    expect(taken.toolpath.kind.length).toBe(0);
    expect(taken.facts.area).toBe(0);
  });

  it("of several, each goes on from the one before", () => {
    const f = valleys();
    const second = (earlier: boolean) =>
      planReading(
        "restfinish",
        { art: heightsOf(f) },
        "ball:2",
        { stepover: 0.4 },
        {
          target: { id: "f", kind: "finish", cutter: cutterOf("ball:8"), settings: {} },
          earlier: earlier ? [{ id: "r", kind: "restfinish", cutter: cutterOf("ball:4"), settings: {} }] : [],
        },
        BOARD,
      ).facts.area;
    expect(second(true)).toBeLessThan(0.8 * second(false));
  });
});

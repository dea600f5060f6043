import { describe, expect, it } from "vitest";
import { planOn } from "../testing/cutting.ts";
import { ringsOf } from "../geometry/morph.ts";
import { readFigure } from "../shop/column.ts";
import { partNamed, readEntry } from "../shop/parts.ts";
import { seeded } from "../testing/random.ts";
import { ROUTER } from "../testing/shop.ts";
import { type Machine, paceIn, withPace } from "./machine.ts";

describe("the pace that is remembered", () => {
  it("is kept by material, the last one counts, and the usual one needs no remembering", () => {
    const random = seeded(7);
    const wanted = new Map<string, number>();
    let machine: Machine = { ...ROUTER };
    for (let k = 0; k < 200; k++) {
      const id = ["ash", "mdf", "oak-2", "brass"][Math.floor(4 * random())];
      const pace = Math.round(100 * (0.3 + 1.7 * random())) / 100;
      machine = withPace(machine, id, pace);
      wanted.set(id, pace);
      for (const [m, p] of wanted) expect(paceIn(machine, m)).toBe(p === 1 ? null : p);
      const column = partNamed("machines").columns.find((c) => c.key === "paces")!;
      if (machine.paces) expect(readFigure(column, machine.paces)).toBe(machine.paces);
    }
    for (const id of wanted.keys()) machine = withPace(machine, id, 1);
    expect(machine).toEqual(ROUTER);
    expect(paceIn({ paces: "ash; mdf x; ; oak 0" }, "ash")).toBeNull();
  });

  it("beyond what anything is cut at counts for nothing, and is refused in the table", () => {
    for (const paces of ["ash 20", "ash 0.01", "mdf 1; ash 2.5"]) {
      expect(paceIn({ paces }, "ash")).toBeNull();
      expect(() => readEntry(partNamed("machines"), { ...ROUTER, paces })).toThrow(/between 0.3 and 2/);
    }
  });

  it("is what a cut begins with, and its feed follows", () => {
    const square = ringsOf([[20, 20, 80, 20, 80, 80, 20, 80]]);
    const values = (machine: Machine) => planOn("pocket", square, "flat:6", {}, { machine }).values;
    const usual = values({ ...ROUTER, feedMost: 20_000 });
    const fast = values(withPace({ ...ROUTER, feedMost: 20_000 }, "ash", 1.25));
    expect(fast.pace).toBe(1.25);
    expect(Number(fast.feed) / Number(usual.feed)).toBeCloseTo(1.25, 1);
    expect(values(withPace(ROUTER, "mdf", 1.25)).pace).toBe(1);
  });
});

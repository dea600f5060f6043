import { describe, expect, it } from "vitest";
import type { Column, Entry } from "@oaken/core/shop/column";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { PARTS, partNamed } from "@oaken/core/shop/parts";
import { seeded } from "@oaken/core/testing/random";
import { figureFrom, means, optionsOf, shownOf, textOf, unitOf } from "./figures.ts";

const column = (part: string, key: string): Column => partNamed(part).columns.find((c) => c.key === key)!;
const diameter = column("cutters", "diameter");

describe("figures in the tables", () => {
  it("lengths are shown in the person's unit, and everything else as it is", () => {
    expect([textOf(diameter, 3.175, "mm"), textOf(diameter, 3.175, "in")]).toEqual(["3.175", "0.125"]);
    expect([unitOf(diameter, "mm"), unitOf(diameter, "in")]).toEqual(["mm", "in"]);
    const feed = column("machines", "feedMost");
    expect([textOf(feed, 3000, "in"), unitOf(feed, "in")]).toEqual(["3000", "mm/min"]);
    const chip = column("materials", "chipMost");
    expect(textOf(chip, 0.12, "in")).toBe("0.12");
  });
  it("what is typed takes arithmetic and either unit, and keeps to the column's range", () => {
    expect(figureFrom(diameter, "1/4in", "mm")).toBe(6.35);
    expect(figureFrom(diameter, "0.5", "in")).toBe(12.7);
    expect(figureFrom(diameter, "6 + 0.5", "mm")).toBe(6.5);
    expect(() => figureFrom(diameter, "0", "mm")).toThrow(/Diameter: 0 is out of range/);
    expect(() => figureFrom(diameter, "wide", "mm")).toThrow(/not a length/);
    expect(figureFrom(column("cutters", "reach"), " ", "mm")).toBeUndefined();
  });
  it("what means nothing for an entry shows nothing", () => {
    const angle = column("cutters", "angle");
    const flat = FIRST_SHOP.cutters.find((c) => c.kind === "flat")! as unknown as Entry;
    const v = FIRST_SHOP.cutters.find((c) => c.kind === "v")! as unknown as Entry;
    expect([means(angle, flat), shownOf(angle, flat, "mm")]).toEqual([false, ""]);
    expect([means(angle, v), shownOf(angle, v, "mm")]).toEqual([true, "60"]);
    expect(shownOf(column("cutters", "kind"), v, "mm")).toBe("V");
  });
  it("a yes or no and a choice are chosen from, the rest is written", () => {
    expect(optionsOf(column("cutters", "centreCutting"))!.map((o) => o.value)).toEqual(["yes", "no"]);
    expect(optionsOf(column("cutters", "kind"))!.map((o) => o.value)).toEqual([
      "flat",
      "ball",
      "v",
      "taper",
      "drill",
      "form",
      "torch",
    ]);
    expect(optionsOf(diameter)).toBeUndefined();
  });
  it("every figure of every first entry comes back from what its field shows", () => {
    for (const part of PARTS)
      for (const entry of FIRST_SHOP[part.id] as unknown as Entry[])
        for (const c of part.columns)
          expect(figureFrom(c, textOf(c, entry[c.key], "mm"), "mm"), `${entry.name}, ${c.label}`).toEqual(entry[c.key]);
  });
  it("lengths shown in inches come back to within what the field shows, and shown again are the same", () => {
    const random = seeded(5);
    for (let k = 0; k < 500; k++) {
      const mm = Math.round(1e4 * 190 * random() + 1) / 1e4;
      const shown = textOf(diameter, mm, "in");
      const back = figureFrom(diameter, shown === "0" ? "0.0001" : shown, "in") as number;
      expect(Math.abs(back - mm)).toBeLessThan(0.0001 * 25.4);
      expect(textOf(diameter, back, "in")).toBe(shown === "0" ? "0.0001" : shown);
    }
  });
});

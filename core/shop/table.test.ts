import { describe, expect, it } from "vitest";
import { FIRST_SHOP } from "./first/shop.ts";
import { type Entry, readFigure } from "./column.ts";
import { freshId, partNamed, PARTS, readEntry } from "./parts.ts";
import { readTable, writeCsv, writeJson } from "./table.ts";

const entriesOf = (id: string): Entry[] => FIRST_SHOP[id as "cutters"] as unknown as Entry[];
const rack = partNamed("cutters");
const head = "name,kind,diameter,angle,flutes,fluteLength,centreCutting";

describe("files of the shop", () => {
  for (const part of PARTS) {
    const entries = entriesOf(part.id);
    it(`${part.id}: JSON and a table give back what was written`, () => {
      expect(readTable(part, writeJson(part, entries))).toEqual({ entries, faults: [] });
      expect(readTable(part, writeCsv(part, entries))).toEqual({ entries, faults: [] });
    });
    it(`${part.id}: each entry passes its own check`, () => {
      for (const e of entries) expect(readEntry(part, e)).toEqual(e);
    });
  }
  it("a table made by hand: labels for keys, semicolons, decimal commas, units, no ids", () => {
    const { entries, faults } = readTable(
      rack,
      "Name;Kind;Diameter;Flutes;Cutting length;Cuts at centre\nMy flat;flat;3,175;2;12,7 mm;yes\n",
    );
    expect(faults).toEqual([]);
    expect(entries).toEqual([
      {
        id: "my-flat",
        name: "My flat",
        kind: "flat",
        diameter: 3.175,
        flutes: 2,
        fluteLength: 12.7,
        centreCutting: true,
      },
    ]);
  });
  it("names every fault by its row and column, and takes nothing then", () => {
    const { entries, faults } = readTable(
      rack,
      `${head}\nGood,flat,3,,2,12,yes\nBad,flat,1e9,,2,0,maybe\n,v,6,0,1,5,no\nTwo,v,6,180,1,5,no\n`,
    );
    expect(entries).toEqual([]);
    expect(faults.map((f) => `${f.row} ${f.column}`)).toEqual([
      "2 Diameter",
      "2 Cutting length",
      "2 Cuts at centre",
      "3 Name",
      "3 Angle",
      "4 Angle",
    ]);
    for (const f of faults) expect(f.message).toMatch(/\.$/);
  });
  for (const [what, text, says] of [
    ["an empty file", "", /empty/],
    ["only a head", head, /holds no cutter/],
    ["a column that is none", "name,colour\nA,red\n", /"colour" is not one of a cutter/],
    ["more values than columns", `${head}\nA,flat,3,,2,12,yes,more\n`, /Row 1 has 8 values under 7 columns/],
    ["an open quotation mark", `${head}\n"A,flat,3,,2,12,yes\n`, /quotation mark is not closed/],
    ["another part's file", writeJson(partNamed("machines"), []), /holds machines, not cutters/],
    ["damaged JSON", '{"format":"oaken-shop",', /damaged/],
    ["another program's JSON", '{"format":"other","entries":[]}', /not one of Oaken Bit's/],
    ["a newer version's", '{"format":"oaken-shop","version":9,"part":"cutters","entries":[]}', /newer version/],
    ["a million rows", `${head}\n${"A,flat,3,,2,12,yes\n".repeat(30_000)}`, /at most 20000/],
  ] as [string, string, RegExp][])
    it(`${what} is refused with a sentence`, () => expect(() => readTable(rack, text)).toThrow(says));
  for (const [what, more, says] of [
    ["a tip wider than the body", { kind: "v", angle: 60, tip: 9 }, /tip must be narrower/],
    ["an angle of nought", { kind: "v", angle: 0 }, /out of range/],
    ["a V without an angle", { kind: "v" }, /included angle/],
    ["no cutting length", { fluteLength: 0 }, /out of range/],
    ["a diameter of a thousand kilometres", { diameter: 1e9 }, /out of range/],
    ["a figure that is an object", { diameter: { mm: 3 } }, /no figure/],
    ["a figure that is none", { colour: "red" }, /"colour" is not a figure of a cutter/],
    ["half a flute", { flutes: 1.5 }, /not a whole number/],
    ["an id with a path in it", { id: "../x" }, /lower-case letters/],
  ] as [string, object, RegExp][])
    it(`a cutter with ${what} is refused with a sentence`, () =>
      expect(() =>
        readEntry(rack, {
          id: "a",
          name: "A",
          kind: "flat",
          diameter: 6,
          flutes: 2,
          fluteLength: 20,
          centreCutting: true,
          ...more,
        }),
      ).toThrow(says));
  it("a dialect's extension and torch stay what they are: no path, no second line", () => {
    const dialects = partNamed("dialects");
    const [first] = entriesOf("dialects");
    expect(() => readEntry(dialects, { ...first, extension: "../sh" })).toThrow(/small letters or digits/);
    expect(() => readEntry(dialects, { ...first, torchOn: "M3\nM30" })).toThrow(/one line/);
  });
  it("text that a table program would run is kept from running, and comes back as it was", () => {
    const nasty = { ...entriesOf("cutters")[3], note: "=HYPERLINK(1)", name: "@cmd" };
    const csv = writeCsv(rack, [nasty]);
    expect(csv).not.toMatch(/(^|,)[=@]/m);
    expect(readTable(rack, csv).entries).toEqual([nasty]);
  });
  it("colours and lists of numbers are read as they are said", () => {
    const column = (part: string, key: string) => partNamed(part).columns.find((c) => c.key === key)!;
    expect(readFigure(column("materials", "face"), "#ff8000")).toEqual([255, 128, 0]);
    expect(() => readFigure(column("materials", "face"), "red")).toThrow(/#rrggbb/);
    expect(readFigure(column("machines", "spindleSteps"), "10000 17000; 24000")).toEqual([10000, 17000, 24000]);
  });
  it("rows of numbers say where one is wrong", () => {
    const column = (part: string, key: string) => partNamed(part).columns.find((c) => c.key === key)!;
    const power = column("machines", "powerBySpeed");
    expect(readFigure(power, "6000 400\n12000 1100")).toEqual([
      [6000, 400],
      [12000, 1100],
    ]);
    expect(() => readFigure(power, "6000 400; 12000")).toThrow(/row 2 holds 1 numbers; write 2: speed, power/);
    expect(() => readFigure(power, "6000 400; 6000 500")).toThrow(/row 2: speed does not rise/);
    expect(() => readFigure(power, "6000 -1")).toThrow(/row 1, Power: -1 is out of range/);
    for (const wrong of [[1, 2], [[1]], [["a", 3]], "x", { a: 1 }])
      expect(() => readEntry(partNamed("machines"), { ...entriesOf("machines")[0], powerBySpeed: wrong })).toThrow();
  });
  it("a cutter whose kind changes keeps what fits it and gets what it needs", () => {
    const flat = entriesOf("cutters").find((e) => e.kind === "flat")!;
    for (const kind of ["flat", "ball", "v", "taper", "drill", "form", "torch"]) {
      const changed = rack.suited!({ ...flat, kind });
      expect(readEntry(rack, changed)).toEqual(changed);
      const back = rack.suited!({ ...changed, kind: "flat" });
      expect(back).toEqual(flat);
    }
  });
  it("ids are made from names, unlike those that are taken", () => {
    expect(freshId("Fräser 6 mm", new Set())).toBe("fra-ser-6-mm");
    expect(freshId("A", new Set(["a", "a-2"]))).toBe("a-3");
    expect(freshId("مطرقة", new Set())).toBe("entry");
  });
});

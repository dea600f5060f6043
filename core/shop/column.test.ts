import { describe, expect, it } from "vitest";
import { seeded } from "../testing/random.ts";
import { type Column, readFigure, sayFigure } from "./column.ts";
import { PARTS } from "./parts.ts";

const columns = PARTS.flatMap((p) => p.columns.map((c) => [`${p.id}, ${c.label}`, c] as const));
const random = seeded(99);

/** Any figure that a column may hold. */
function anyFigure(c: Column): unknown {
  const [least, most] = [c.least ?? 0, Math.min(c.most ?? 1000, 1e6)];
  const number = () => Math.round(1e4 * (least + (most - least) * (0.001 + 0.998 * random()))) / 1e4;
  switch (c.type) {
    case "number":
      return number();
    case "whole":
      return Math.max(least, Math.floor(number()));
    case "numbers":
      return Array.from({ length: 1 + Math.floor(5 * random()) }, number);
    case "rows":
      return Array.from({ length: 1 + Math.floor(5 * random()) }, () => c.parts!.map((q) => anyFigure(q) as number))
        .sort((a, b) => a[0] - b[0])
        .filter((row, k, all) => k === 0 || row[0] > all[k - 1][0]);
    case "choice":
      return c.options![Math.floor(random() * c.options!.length)].value;
    case "switch":
      return random() < 0.5;
    case "colour":
      return [0, 0, 0].map(() => Math.floor(256 * random()));
    default:
      return "M8";
  }
}

describe("figures in words", () => {
  for (const [what, c] of columns.filter(([, q]) => !q.pattern))
    it(`${what}: what is said is read back the same, with a comma for the point too`, () => {
      for (let k = 0; k < 30; k++) {
        const figure = anyFigure(c);
        const said = sayFigure(c, figure);
        expect(readFigure(c, ` ${said} `)).toEqual(figure);
        if (c.type === "number") expect(readFigure(c, `${said.replace(".", ",")} ${c.unit ?? ""}`)).toBe(figure);
      }
    });
  it("a number in another unit is not taken for one in its own", () => {
    const diameter = columns.find(([what]) => what === "cutters, Diameter")![1];
    expect(readFigure(diameter, "6 mm")).toBe(6);
    for (const text of ["0.25in", "0.25 in", '1/4"', "6 cm", "6 mm/min"])
      expect(() => readFigure(diameter, text)).toThrow(/Diameter: .*(in mm|not a number)/);
  });
  it("an empty one is left out where it may be, else said to be empty", () => {
    for (const [, c] of columns)
      if (c.optional) expect(readFigure(c, "  ")).toBeUndefined();
      else expect(() => readFigure(c, "  ")).toThrow(`${c.label}: it is empty.`);
  });
  it("nonsense is refused with the column's name, whatever it is", () => {
    const nonsense = ["NaN", "1e999", "--3", "0x10", "1,2,3", "Infinity", "⅓", "=1+1", "\u0000", "1;2"];
    for (const [, c] of columns.filter(([, q]) => q.type === "number" || q.type === "whole"))
      for (const text of nonsense) expect(() => readFigure(c, text), text).toThrow(`${c.label}: `);
  });
});

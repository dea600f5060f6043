import { describe, expect, it } from "vitest";
import { formatLength, formatTime, parseLength } from "./units.ts";

describe("lengths as people type them", () => {
  const cases: [string, "mm" | "in", number][] = [
    ["120", "mm", 120],
    ["6in", "mm", 152.4],
    ["5 1/2in - 3mm", "mm", 136.7],
    ["1/4in", "mm", 6.35],
    ["2", "in", 50.8],
    ["(10 + 2) * 3", "mm", 36],
    ["100/3mm", "mm", 100 / 3],
    ["3,5", "mm", 3.5],
    ["-2 mm", "mm", -2],
    ['1 3/8"', "mm", 34.925],
    ["10cm", "mm", 100],
    ["2 * 1in", "mm", 50.8],
    [".5in", "mm", 12.7],
  ];
  for (const [text, unit, mm] of cases)
    it(`${text} (${unit})`, () => expect(parseLength(text, unit)).toBeCloseTo(mm, 9));
  for (const text of ["", "abc", "1 +", "2mm * 3mm", "1/0", "(3", "5 6", "1e3x"])
    it(`refuses "${text}" with a sentence`, () => expect(() => parseLength(text)).toThrow(/is not a length/));
});

it("writes lengths and times without noise", () => {
  expect([formatLength(3), formatLength(2.504), formatLength(-0.0001), formatLength(25.4, "in")]).toEqual([
    "3",
    "2.5",
    "0",
    "1",
  ]);
  expect([
    formatTime(42),
    formatTime(300),
    formatTime(312),
    formatTime(4320),
    formatTime(7199),
    formatTime(59.7),
  ]).toEqual(["42 s", "5 min", "5 min 12 s", "1 h 12 min", "2 h 0 min", "1 min"]);
});

import { describe, expect, it } from "vitest";
import { fieldLength, spoken } from "./speech.ts";
import { seeded } from "./testing/random.ts";
import { parseLength } from "./units.ts";

describe("a length in a field", () => {
  it("is a fraction where it is an exact sixteenth, else a decimal", () => {
    const cases: [number, string][] = [
      [139.7, "5 1/2"],
      [25.4, "1"],
      [6.35, "1/4"],
      [1.5875, "1/16"],
      [-34.925, "-1 3/8"],
      [3, "0.118"],
      [0, "0"],
      [300, "11.811"],
    ];
    for (const [mm, said] of cases) expect(fieldLength(mm, "in")).toBe(said);
    expect(fieldLength(139.7, "mm")).toBe("139.7");
  });
  it("reads back to what it was, every sixteenth exactly, anything else to half of its last place", () => {
    const random = seeded(3);
    for (let k = -500; k < 500; k++) {
      const mm = (k * 25.4) / 16;
      expect(parseLength(fieldLength(mm, "in"), "in")).toBeCloseTo(mm, 9);
      const any = 400 * (random() - 0.5);
      expect(Math.abs(parseLength(fieldLength(any, "in"), "in") - any)).toBeLessThan(0.0128);
    }
  });
});

describe("a sentence", () => {
  const cases: [string, string][] = [
    ["leaves 15 of 18 mm", "leaves 0.591 of 0.709 in"],
    ["180 × 120 × 18 mm · Ash", "7.087 × 4.724 × 0.709 in · Ash"],
    ["the pixel is 0.088 mm; closer only follows noise", "the pixel is 0.0035 in; closer only follows noise"],
    ["near x 25.4, y -50.8 mm.", "near x 1, y -2 in."],
    ["a feed of 1,270 mm/min", "a feed of 50 in/min"],
    ["84.67 mm high · 3.5 px/mm", "3.333 in high · 88.9 px/in"],
    ["12.5 mm² (2.0 %) of the art", "0.0194 in² (2.0 %) of the art"],
    ["scrapes 3 m of open floor", "scrapes 9.84 ft of open floor"],
    ["240 m/min in ash at 6.35 mm wide", "787 ft/min in ash at 1/4 in wide"],
    ["2.0 pixels in a millimetre at this width", "50.8 pixels in an inch at this width"],
    ["3 pieces of 4 pass", "3 pieces of 4 pass"],
    ["rev 3 · 12 min 5 s", "rev 3 · 12 min 5 s"],
    ["Make it 139.7 mm wide", "Make it 5 1/2 in wide"],
    [
      "has 1.8 pixels in a millimetre; under 2 its edges wobble",
      "has 45.7 pixels in an inch; under 50.8 its edges wobble",
    ],
  ];
  for (const [mm, inches] of cases)
    it(mm, () => {
      expect(spoken(mm, "in")).toBe(inches);
      expect(spoken(mm, "mm")).toBe(mm);
    });
});

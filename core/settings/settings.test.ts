import { describe, expect, it } from "vitest";
import { type Field, parseSetting, resolve, settingsSchema, showSetting } from "./fields.ts";
import { parsePlaces, showPlaces } from "./places.ts";

const fields: Field<{ thickness: number }>[] = [
  {
    key: "depth",
    label: "Depth",
    type: "length",
    min: 0.1,
    max: 50,
    auto: (c) => ({ value: c.thickness / 2, reason: "half the stock" }),
    consequence: (v, c) => `leaves ${c.thickness - (v as number)}`,
  },
  {
    key: "passes",
    label: "Passes",
    type: "number",
    min: 1,
    max: 20,
    auto: (_, s) => ({ value: Math.ceil((s.depth as number) / 2), reason: "2 mm each" }),
  },
  {
    key: "side",
    label: "Side",
    type: "choice",
    options: [
      { value: "in", label: "inside" },
      { value: "out", label: "outside" },
    ],
    auto: () => ({ value: "in", reason: "usual" }),
  },
  { key: "tabs", label: "Tabs", type: "switch", auto: () => ({ value: true, reason: "to be safe" }) },
  { key: "share", label: "Share", type: "share", min: 0, max: 1, auto: () => ({ value: 0.4, reason: "usual" }) },
  {
    key: "at",
    label: "Places",
    type: "text",
    check: (t) => void parsePlaces(t, "Places"),
    auto: () => ({ value: "", reason: "none" }),
  },
];
const byKey = (k: string) => fields.find((f) => f.key === k)! as Field<never>;

describe("settings", () => {
  it("take their automatic value with its reason, later ones from earlier ones", () => {
    const { values, resolved } = resolve(fields, {}, { thickness: 12 });
    expect(values).toEqual({ depth: 6, passes: 3, side: "in", tabs: true, share: 0.4, at: "" });
    expect(resolved.depth).toEqual({ value: 6, reason: "half the stock", set: false, consequence: "leaves 6" });
  });
  it("keep what was set, say what automatic would be, and pass it on", () => {
    const { values, resolved } = resolve(fields, { depth: 9 }, { thickness: 12 });
    expect(values.passes).toBe(5);
    expect(resolved.depth).toMatchObject({
      set: true,
      reason: "set by you; automatic would be 6 mm",
      consequence: "leaves 3",
    });
  });
  it("are read from text with units, and shown as people write them", () => {
    expect(parseSetting(byKey("depth"), "1/4in")).toBeCloseTo(6.35, 9);
    expect(parseSetting(byKey("depth"), "0.5", "in")).toBeCloseTo(12.7, 9);
    expect(parseSetting(byKey("share"), "35 %")).toBeCloseTo(0.35, 9);
    expect(parseSetting(byKey("tabs"), "none")).toBe(false);
    expect(parseSetting(byKey("side"), "outside")).toBe("out");
    expect(showSetting(byKey("share"), 0.35)).toBe("35 %");
    expect(showSetting(byKey("side"), "out")).toBe("outside");
  });
  for (const [key, text, says] of [
    ["depth", "60", /more than the most, 50 mm/],
    ["depth", "0", /less than the least, 0.1 mm/],
    ["depth", "deep", /is not a length/],
    ["passes", "three", /is not a number/],
    ["tabs", "perhaps", /neither on nor off/],
    ["side", "left", /not one of in, out/],
    ["at", "1 2; 3", /write x y/],
  ] as const)
    it(`refuse ${key} = "${text}" with a sentence`, () => expect(() => parseSetting(byKey(key), text)).toThrow(says));
  it("have a schema that knows every key with its range, and no other", () => {
    expect(settingsSchema(fields as Field<never>[])).toMatchObject({
      additionalProperties: false,
      properties: {
        depth: { type: "number", minimum: 0.1, maximum: 50 },
        side: { enum: ["in", "out"] },
        tabs: { type: "boolean" },
      },
    });
  });
});

it("places go to text and back", () => {
  const places: [number, number][] = [
    [1.234, -5],
    [20, 30.006],
  ];
  expect(parsePlaces(showPlaces(places), "Places")).toEqual([
    [1.23, -5],
    [20, 30.01],
  ]);
  expect(parsePlaces(" ; ", "Places")).toEqual([]);
});

import { describe, expect, it } from "vitest";
import { copyOf } from "../copy.ts";
import { begun, cutterNamed, cutterOf, materialNamed } from "../testing/shop.ts";
import { documentOf } from "./boards.ts";
import { shortCode } from "./code.ts";
import { differences } from "./difference.ts";
import type { JobDocument } from "./document.ts";

const asset = { sha: "e".repeat(64), name: "fox.png", width: 60, height: 40 };
const job = documentOf(begun("sign", asset, {}, { clear: [cutterNamed("flat3")] }));
const changed = (edit: (d: JobDocument) => void): string[] => {
  const after = copyOf(job);
  edit(after);
  return differences(job, after);
};
const carve = (d: JobDocument) => d.boards[0].cuts.find((c) => c.id === "carve")!;

describe("the difference between two states of a job", () => {
  it("is nothing where nothing differs", () => expect(differences(job, copyOf(job))).toEqual([]));
  for (const [what, edit, says] of [
    ["a setting", (d) => void (carve(d).settings.floor = 4), ["Carve: floor automatic → 4 mm"]],
    ["the stock", (d) => void (d.boards[0].stock.thickness = 17.1), ["stock thickness 18 mm → 17.1 mm"]],
    ["the material", (d) => void (d.boards[0].stock.material = materialNamed("oak")), ["material Ash → Oak"]],
    ["a cutter", (d) => void (carve(d).cutter = cutterOf("v:90:12")), ["Carve: cutter V 60° × 12 → V 90° × 12"]],
    ["a cut switched off", (d) => void (carve(d).on = false), ["Carve: on → off"]],
    ["a cut taken out", (d) => void d.boards[0].cuts.shift(), ["Clear taken out"]],
    ["the order", (d) => void d.boards[0].cuts.reverse(), ["order of cuts now Carve, Clear"]],
    [
      "the zero",
      (d) => void (d.boards[0].stock.zero = "centre-centre-bed"),
      ["work zero front left corner, top of the stock → centre, on the bed"],
    ],
    [
      "a stop",
      (d) => void (carve(d).stop = { what: "stain", note: "dark oak" }),
      ["Carve: stop none → Stain: dark oak"],
    ],
    ["another picture", (d) => void (d.makings[0].asset!.sha = "f".repeat(64)), [/: another file$/]],
    ["long lists", (d) => void (d.makings[0].settings.erase = "rect 1 2 3 4; ".repeat(9)), [/: .* changed$/]],
  ] as [string, (d: JobDocument) => void, (string | RegExp)[]][])
    it(`tells ${what}`, () => {
      const said = changed(edit);
      expect(said).toHaveLength(says.length);
      says.forEach((s, i) => expect(said[i]).toMatch(s));
    });
});

describe("the short code", () => {
  it("is the same for the same, and other for any small change", () => {
    expect(shortCode(job)).toBe(shortCode(copyOf(job)));
    const codes = new Set(Array.from({ length: 2000 }, (_, i) => shortCode({ ...job, name: `Fox ${i}` })));
    expect(codes.size).toBe(2000);
    for (const code of codes) expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{6}$/);
  });
});

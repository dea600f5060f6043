import { isOwned } from "../shop/shop.ts";
import { describe, expect, it } from "vitest";
import { cutKind } from "../cuts/register.ts";
import type { Fit } from "../picture/fitness.ts";
import { byPromise, OUTCOMES, outcomeById } from "./outcomes.ts";
import { checkBoard } from "./schema.ts";
import { SHOP, begun, cutterOf } from "../testing/shop.ts";

const picture = { sha: "a".repeat(64), name: "ginkgo-scan.jpg", width: 1600, height: 1066 };
const stock = { width: 300, height: 200, thickness: 18 };
/** A crisp drawing with strokes of a few millimetres: suits nearly everything. */
const fine: Fit = {
  flatColours: 2,
  flatShare: 1,
  greyShare: 0.03,
  contrast: 0.9,
  pixelsPerMm: 8,
  width: 200,
  noise: 0,
  blocks: 1,
  thinnest: 2.5,
  typical: 4,
  contours: 12,
  circles: 8,
  uneven: 0,
  art: null,
};

describe("every outcome", () => {
  for (const o of OUTCOMES)
    it(
      `${o.title}: starts a job that any reader takes, with cuts of known kinds, their cutters and their ` +
        "helpers' targets",
      () => {
        const job = begun(o.id, picture, stock);
        expect(checkBoard(JSON.parse(JSON.stringify(job)))).toEqual(job);
        expect(job.name).toBe("ginkgo-scan");
        expect(job.cuts.length).toBeGreaterThan(0);
        expect(new Set(job.cuts.map((c) => c.id)).size).toBe(job.cuts.length);
        for (const c of job.cuts) {
          expect(cutKind(c.kind).cutters).toContain(c.cutter.kind);
          for (const read of Object.values(c.reads)) expect(job.makings.map((n) => n.id)).toContain(read);
          if (c.target) expect(job.cuts.map((x) => x.id)).toContain(c.target);
        }
        expect(o.about).toMatch(/^[A-Z].*\.$/);
      },
    );
  it("is found by its id, and an unknown one is answered with those there are", () => {
    for (const o of OUTCOMES) expect(outcomeById(o.id)).toBe(o);
    expect(() => outcomeById("casserole")).toThrow(/"casserole".*sign, raised, cutout/);
  });
  it("use only kinds of cuts that there are, and most of them", () => {
    const used = new Set(
      OUTCOMES.flatMap((o) =>
        begun(o.id, picture, stock, {
          clear: o.takes?.clear ? [cutterOf("flat:3")] : [],
          rest: o.takes?.rest ? [cutterOf("flat:1")] : [],
        }).cuts.map((c) => c.kind),
      ),
    );
    for (const kind of used) expect(() => cutKind(kind)).not.toThrow();
    expect(used.size).toBeGreaterThanOrEqual(9);
  });
});

describe("cutters that were chosen", () => {
  const flats = (n: number) => Array.from({ length: n }, (_, i) => cutterOf(`flat:${6 - i / 2}`));
  it("come in the order given, helpers before or after what they help", () => {
    const sign = begun("sign", picture, stock, { clear: flats(3) });
    expect(sign.cuts.map((c) => `${c.kind} ${c.cutter.diameter}`)).toEqual([
      "clear 6",
      "clear 5.5",
      "clear 5",
      `vcarve ${sign.cuts[3].cutter.diameter}`,
    ]);
    const pocket = begun("pocket", picture, stock, { main: [cutterOf("flat:8")], rest: flats(2) });
    expect(pocket.cuts.map((c) => c.kind)).toEqual(["pocket", "rest", "rest"]);
    const out = begun("cutout", picture, stock, { main: flats(2) });
    expect(out.cuts.map((c) => c.name)).toEqual(["Rough out", "Cut out"]);
    expect(out.cuts[0].settings.leave).toBeGreaterThan(0);
  });
  const toomany: [string, Parameters<typeof begun>[3], RegExp][] = [
    ["sign", { main: flats(2) }, /takes one cutter; 2 were given/],
    ["sign", { rest: flats(1) }, /no use for a cutter for the rest/],
    ["cutout", { main: flats(3) }, /at most 2 cutters; 3 were given/],
    ["drill", { clear: flats(1) }, /no use for a clearing cutter/],
    ["raised", { clear: flats(7) }, /at most 6 clearing cutters; 7 were given/],
  ];
  for (const [outcome, cutters, says] of toomany)
    it(`${outcome}: more than it can use are refused: ${says.source}`, () =>
      expect(() => begun(outcome, picture, stock, cutters)).toThrow(says));
  it("a cut-out by itself takes the thinnest cutter that reaches through the stock", () => {
    const reach = SHOP.cutters.filter((c) => c.kind === "flat" && c.diameter >= 3 && isOwned(c));
    for (const thickness of [3, 6, 12, 18, 25]) {
      const { cutter } = begun("cutout", picture, { ...stock, thickness }).cuts[0];
      const through = reach.filter((c) => c.fluteLength > thickness + 0.5);
      if (through.length > 0) expect(cutter.diameter).toBe(Math.min(...through.map((c) => c.diameter)));
    }
  });
});

describe("whether a picture suits", () => {
  it("what it suits comes first: surfaces and lines for a photograph, the usual order for a drawing", () => {
    const untraced = { thinnest: null, typical: null, contours: null, circles: null };
    expect(byPromise({ ...fine, ...untraced })).toEqual(OUTCOMES);
    const photograph = byPromise({ ...fine, ...untraced, greyShare: 0.5, flatColours: 60 }).map((o) => o.id);
    expect(photograph.slice(0, 3).sort()).toEqual(["lines", "lithophane", "relief"]);
    expect([...photograph].sort()).toEqual(OUTCOMES.map((o) => o.id).sort());
  });
  it("a crisp drawing of broad strokes suits all that is cut from areas and lines", () => {
    for (const id of ["sign", "raised", "cutout", "engrave", "pocket", "hatch", "drill", "plasma"])
      expect(outcomeById(id).suits(fine), id).toMatchObject({ good: true });
  });
  const not: [string, Partial<Fit>, string[], RegExp][] = [
    [
      "a photo",
      { greyShare: 0.6 },
      ["sign", "raised", "cutout", "engrave", "pocket", "hatch", "drill", "plasma"],
      /soft greys/,
    ],
    [
      "hair-thin strokes",
      { thinnest: 0.2, typical: 0.3 },
      ["sign", "raised", "cutout", "pocket", "hatch", "plasma"],
      /strokes/,
    ],
    ["strokes of a millimetre", { thinnest: 1, typical: 1.6 }, ["cutout", "pocket", "plasma"], /strokes of 1\.0 mm/],
    ["broad areas", { typical: 20 }, ["engrave"], /no lines/],
    ["hundreds of pieces", { contours: 400 }, ["cutout", "plasma"], /400 separate outlines/],
    ["lettering with two dots", { contours: 17, circles: 2 }, ["drill"], /only 2 of its 17 outlines are circles/],
    ["a ring in a drawing", { contours: 9, circles: 1 }, ["drill"], /only 1 of its 9 outlines is a circle/],
    ["hardly any contrast", { contrast: 0.1 }, ["sign", "raised", "pocket", "hatch"], /little contrast/],
  ];
  for (const [name, fault, ids, says] of not)
    it(`${name}: not for ${ids.join(", ")}, and says why`, () => {
      for (const id of ids) {
        const { good, why } = outcomeById(id).suits({ ...fine, ...fault });
        expect(good, id).toBe(false);
        expect(why).toMatch(says);
      }
    });
  it("what was not measured is held against nothing", () =>
    expect(
      OUTCOMES.every((o) => o.suits({ ...fine, thinnest: null, typical: null, contours: null, circles: null }).good),
    ).toBe(true));
});

import { PDFDocument } from "pdf-lib";
import { describe, expect, it } from "vitest";
import { fontFile } from "../../testing/face.ts";
import { built } from "../../testing/building.ts";
import { seeded } from "../../testing/random.ts";
import { begun, cutterNamed, SHOP } from "../../testing/shop.ts";
import { setupSheet } from "../../job/sheet.ts";
import { drawCutter, drawStock } from "./drawings.ts";
import { type Fonts, Paper, WIDE } from "./paper.ts";

const font = (rest: string): Uint8Array => fontFile("atkinson-hyperlegible-next", rest);
const fonts: Fonts = { regular: [font("latin-400"), font("latin-ext-400")], bold: [font("latin-600")] };
/** One dark pixel, as PNG. */
const DOT = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNkYAAAAAYAAjCB0C8AAAAASUVORK5CYII=",
  "base64",
);
const pagesOf = async (pdf: Uint8Array): Promise<number> => (await PDFDocument.load(pdf)).getPageCount();

describe("paper", () => {
  it("text is broken into lines no wider than asked, and no word is lost", async () => {
    const paper = await Paper.begin(fonts, "test");
    const random = seeded(17);
    for (let k = 0; k < 60; k++) {
      const words = Array.from({ length: 1 + Math.floor(30 * random()) }, () =>
        "abcdefghijklmnopqrstuvwxyzÄéłß".slice(0, 1 + Math.floor(29 * random())),
      );
      const wide = 60 + 300 * random();
      const size = 7 + 9 * random();
      const lines = paper.wrap(words.join(" "), wide, { size });
      for (const l of lines) expect(paper.width(l, { size })).toBeLessThanOrEqual(wide + 1e-6);
      expect(lines.join("").replaceAll(" ", "")).toBe(words.join(""));
    }
  });
  it("a word wider than the line is broken where it must, and never for ever", async () => {
    const paper = await Paper.begin(fonts, "test");
    const lines = paper.wrap("m".repeat(200), 50, { size: 10 });
    expect(lines.join("")).toBe("m".repeat(200));
    expect(paper.wrap("mm", 1, { size: 10 }).join("")).toBe("mm");
    expect(paper.wrap("", 50)).toEqual([""]);
  });
  it("a letter that no font has takes room like a question mark, others their own", async () => {
    const paper = await Paper.begin(fonts, "test");
    expect(paper.width("ש", { size: 10 })).toBeCloseTo(paper.width("?", { size: 10 }), 6);
    expect(paper.width("ł", { size: 10 })).not.toBeCloseTo(paper.width("?", { size: 10 }), 3);
    expect(paper.width("WW", { size: 10 })).toBeCloseTo(2 * paper.width("W", { size: 10 }), 1);
    expect(paper.width("W", { size: 20 })).toBeCloseTo(2 * paper.width("W", { size: 10 }), 6);
  });
  it("goes on on a new page only where what comes does not fit", async () => {
    const paper = await Paper.begin(fonts, "test");
    expect(paper.need(700)).toBe(false);
    paper.y = 700;
    expect(paper.need(100)).toBe(true);
    expect(paper.y).toBe(0);
    paper.text(0, 20, "second page");
    expect(await pagesOf(await paper.finish("foot"))).toBe(2);
  });
  it("every first cutter and any board can be drawn", async () => {
    const paper = await Paper.begin(fonts, "test");
    for (const [i, cutter] of SHOP.cutters.entries()) drawCutter(paper, cutter, (i % 12) * 40, 40 * (i % 9), 30, 36);
    const random = seeded(4);
    for (let k = 0; k < 20; k++) {
      const [width, height] = [5 + 3000 * random(), 5 + 3000 * random()];
      drawStock(
        paper,
        { x: 0, y: 300, wide: WIDE / 2, high: 200 },
        {
          width,
          height,
          zero: { x: width * random(), y: height * random() },
          bounds: random() < 0.3 ? null : { x: 1, y: 1, width: width / 2, height: height / 2 },
          clamps: [
            { x: -5, y: 0, width: 20, height: 10, tall: 12 },
            { x: 3, y: 9, width: 6, height: 6, tall: 3, round: true },
          ],
        },
      );
    }
    expect(await pagesOf(await paper.finish("foot"))).toBe(1);
  });
});

describe("a setup sheet", () => {
  const [W, H] = [120, 90];
  const data = new Uint8Array(4 * W * H).fill(255);
  for (let y = 20; y < 70; y++) for (let x = 20; x < 100; x++) data.fill(10, 4 * (y * W + x), 4 * (y * W + x) + 3);
  const picture = { width: W, height: H, data };
  const asset = { sha: "c".repeat(64), name: "bar.png", width: W, height: H };
  const build = (edit: (j: ReturnType<typeof begun>) => void = () => {}) => {
    const j = begun("sign", asset, { width: 100, height: 70, thickness: 12 }, { clear: [cutterNamed("flat3")] });
    edit(j);
    const b = built(j, picture, { cells: 20_000 });
    expect(b.problem).toBeNull();
    return b;
  };
  const parts = {
    findings: [],
    programs: [],
    from: "revision 3",
    proof: new Uint8Array(DOT),
    png: () => new Uint8Array(DOT),
    fonts,
  };
  it("is one page for a plain job, and bears its name", async () => {
    const pdf = await setupSheet(build(), parts);
    const doc = await PDFDocument.load(pdf);
    expect([doc.getPageCount(), doc.getTitle()]).toEqual([1, "bar, setup sheet"]);
  });
  it("shows the board after each of several steps, and one step not twice", async () => {
    const asked: { width: number; data: Uint8ClampedArray }[] = [];
    const png = (seen: (typeof asked)[number]) => {
      asked.push(seen);
      return new Uint8Array(DOT);
    };
    const b = build();
    await setupSheet(b, { ...parts, png });
    const cutting = b.cuts.filter((c) => c.toolpath.kind.length > 0);
    expect(asked.length).toBe(cutting.length);
    // Each step changes the board, and nothing that is cut comes back.
    expect(asked[0].data).not.toEqual(asked[1].data);
    const one = build((j) => void (j.cuts.find((c) => c.kind === "clear")!.on = false));
    asked.length = 0;
    await setupSheet(one, { ...parts, png });
    expect(asked).toEqual([]);
  });
  it("goes on for as many pages as its stops and findings take, whatever their length", async () => {
    const long = "The picture is coarse. ".repeat(60);
    const findings = Array.from({ length: 30 }, (_, i) => ({
      severity: i % 2 ? ("stop" as const) : ("warning" as const),
      message: `${i} ${long}`,
    }));
    const b = build((j) => {
      for (const c of j.cuts) c.stop = { what: "other", note: "wait ".repeat(39) };
      j.stock.clamps = Array.from({ length: 40 }, (_, i) => ({ x: i, y: -20, width: 5, height: 5, tall: 4 }));
    });
    expect(await pagesOf(await setupSheet(b, { ...parts, findings }))).toBeGreaterThan(3);
  });
  it("of a job of which nothing is cut is a sheet all the same", async () => {
    const b = build((j) => {
      for (const c of j.cuts) c.on = false;
    });
    expect(await pagesOf(await setupSheet(b, parts))).toBe(1);
  });
});

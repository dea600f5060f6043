import "../../testing/ready.ts";
import { describe, expect, it } from "vitest";
import { boundsOf, ringArea, ringCount } from "../../geometry/rings.ts";
import { asRead } from "../../geometry/shape.ts";
import { isSound } from "../../geometry/sound.ts";
import { boardJob, documentOf } from "../../job/boards.ts";
import { buildJob } from "../../job/build.ts";
import { addCut, addLettering } from "../../job/edit.ts";
import { startJob } from "../../job/start.ts";
import { onePicture } from "../../job/tools.ts";
import { inspect } from "../../inspect/inspect.ts";
import { Kept } from "../../kept.ts";
import { type Face, FACES } from "../../lettering/face.ts";
import { readFace } from "../../lettering/read.ts";
import { fontFile, plainFace } from "../../testing/face.ts";
import { seeded } from "../../testing/random.ts";
import { SHOP } from "../../testing/shop.ts";
import type { Settings } from "../../settings/fields.ts";
import type { ShapesProduct } from "../product.ts";
import { laidOut, linesIn, type Setting } from "./layout.ts";

/** A face whose letters run into each other. */
const hand = readFace([fontFile("dancing-script", "latin-600")]);
const faces = (id: string): Face => (id === "hand" ? hand : plainFace());
const files = { ...onePicture(null as never), face: faces };

function wordsJob(settings: Settings, stock = { width: 200, height: 100, thickness: 18 }, person?: string) {
  const job = startJob(SHOP, { outcome: "sign", words: "", stock });
  job.makings[0].settings = settings;
  job.cuts = [];
  if (person) job.naming = { person };
  return buildJob(job, { files, cell: 1 }, new Kept());
}
function words(...from: Parameters<typeof wordsJob>): ShapesProduct {
  const build = wordsJob(...from);
  if (build.problem) throw build.problem;
  return build.makings.get("lettering")!.product as ShapesProduct;
}
const box = (p: ShapesProduct) => boundsOf(p.ink.xy);
/** The area of all letters, their counters taken off, mm². */
const area = ({ ink }: ShapesProduct): number =>
  Array.from({ length: ringCount(ink) }, (_, k) => ringArea(ink, k)).reduce((a, b) => a + b, 0);

/** Straight and centred, all else as a line asks. */
const plainly: Setting = { height: 10, spread: 0, pitch: 15, align: "centre", along: "line", radius: 0 };

describe("lettering", () => {
  it("makes capitals as high as it is told, with their feet on the baseline", () => {
    for (const height of [1, 7.5, 60]) {
      const b = box(words({ text: "HEH", height, x: 12, y: 9 }));
      expect(b.minY).toBeCloseTo(9, 3);
      expect(b.maxY - b.minY).toBeCloseTo(height, 3);
    }
  });
  it("stands words with and without long letters on the same line", () => {
    const [short, long] = ["axe", "gypsy"].map((text) => box(words({ text, height: 10, y: 30 })));
    expect(short.minY).toBeGreaterThan(29.7);
    expect(long.minY).toBeLessThan(28);
  });
  it("grows with the square of its height, whatever it says", () => {
    for (const text of ["Ogham", "& 89", "Öl"])
      expect(area(words({ text, height: 20 })) / area(words({ text, height: 10 }))).toBeCloseTo(4, 2);
  });
  it("sets pairs of letters as close as the face says", () => {
    const [line] = linesIn(plainFace(), "AV");
    const apart = ["A", "V"].map((t) => linesIn(plainFace(), t)[0].width);
    expect(line.width).toBeLessThan(apart[0] + apart[1] - 0.02);
  });
  it("moves letters apart by what is added, and lines by their pitch", () => {
    const lines = linesIn(plainFace(), "III\nI");
    const [tight, wide] = [0, 3].map((spread) => laidOut(lines, plainFace(), { ...plainly, spread }));
    expect(wide.width - tight.width).toBeCloseTo(2 * 3, 9);
    expect(tight.height).toBeCloseTo(10 + 15, 9);
  });
  it("stands every letter on its circle, above it or inside its lower half", () => {
    const lines = linesIn(plainFace(), "H".repeat(40));
    const round = laidOut(lines, plainFace(), plainly).width;
    const radius = (1.00001 * round) / (2 * Math.PI);
    for (const along of ["over", "under"] as const) {
      const { curves, width, height } = laidOut(lines, plainFace(), { ...plainly, along, radius });
      // They fill the whole circle: its middle is that of the box round them.
      const away = (x: number, y: number) => Math.hypot(x - width / 2, y - height / 2);
      for (const { segments } of curves) {
        const corners = segments.map(({ n }) => away(n[4], n[5]));
        const [nearest, farthest] = [Math.min(...corners), Math.max(...corners)];
        // The feet of an H stand a little off the circle, which is nearest in the letter's middle.
        const foot = along === "over" ? nearest : farthest;
        expect(foot - radius).toBeGreaterThan(-0.05);
        expect(foot - radius).toBeLessThan(0.3);
        expect(farthest - nearest).toBeGreaterThan(9.7);
      }
    }
  });
  it("finds a circle by itself on which every line fits", () => {
    for (const text of ["Ada", "x\nMarrowdale Botanic Garden", "Marrowdale Botanic Garden\nx\ny", "Öl\nfür 3 €"])
      for (const along of ["over", "under"]) expect(wordsJob({ text, along }).problem, `${along} ${text}`).toBeNull();
  });
  it("says which line is longer than its circle is round", () => {
    const lines = linesIn(plainFace(), "ab\nMarrowdale Botanic Garden");
    expect(() => laidOut(lines, plainFace(), { ...plainly, along: "over", radius: 24 })).toThrow(/^Line 2 is .* round/);
  });
  it("is sound as cuts read it, in every size, face and spacing, also where letters run into each other", () => {
    const seed = 20261127;
    console.log(`lettering seed ${seed}`);
    const random = seeded(seed);
    const letters = [..."abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789&@§ÄÖüéçß%#?!.,;:'\"()"];
    for (let k = 0; k < 120; k++) {
      const text = Array.from({ length: 1 + Math.floor(14 * random()) }, () =>
        random() < 0.12 ? " " : letters[Math.floor(random() * letters.length)],
      ).join("");
      if (!text.trim()) continue;
      const settings = {
        text,
        face: k % 3 ? "plain" : "hand",
        height: 2 * 40 ** random(),
        spread: random() < 0.5 ? 0 : 6 * (random() - 0.7),
        along: random() < 0.3 ? "over" : "line",
      };
      const build = wordsJob(settings);
      const of = `seed ${seed}, ${k}: ${JSON.stringify(settings)}`;
      expect(build.makings.get("lettering"), `${of} ${build.problem?.message}`).toBeDefined();
      const product = build.makings.get("lettering")!.product as ShapesProduct;
      expect(isSound(product.ink), of).toBe(true);
      expect(isSound(asRead(product.shape)), of).toBe(true);
    }
  });
  it("joins what runs into each other into one outline", () => {
    const joined = words({ text: "mimi", face: "hand", height: 20 });
    const outer = Array.from({ length: ringCount(joined.ink) }, (_, k) => joined.ink.parent[k]).filter((p) => p < 0);
    // One word, and two dots.
    expect(outer.length).toBe(3);
  });
  it("fits any board by itself, inside its margin", () => {
    const random = seeded(7);
    for (let k = 0; k < 40; k++) {
      const stock = { width: 20 + 400 * random(), height: 20 + 300 * random(), thickness: 18 };
      const text = "Long words on boards\nof any size".slice(Math.floor(30 * random())).trim() || "x";
      const b = box(words(k % 3 ? { text } : { text, along: k % 2 ? "over" : "under" }, stock));
      expect(b.minX).toBeGreaterThan(4.5);
      expect(b.maxX).toBeLessThan(stock.width - 4.5);
      expect([b.minY > 0, b.maxY < stock.height]).toEqual([true, true]);
    }
  });
  it("writes whose piece it is, where nobody wrote anything", () => {
    const [own, other] = ["Ada", "Bo"].map((who) => words({}, undefined, who));
    expect(area(own)).not.toBeCloseTo(area(other), 1);
    expect(area(own)).toBeCloseTo(area(words({ text: "Ada" })), 6);
  });
  it("says which letters its face does not have, and what to do where it has none", () => {
    const build = wordsJob({ text: "Ada 木" });
    expect(inspect({ build }).map((f) => [f.code, f.severity])).toContainEqual(["letters-missing", "warning"]);
    expect(inspect({ build }).find((f) => f.code === "letters-missing")!.message).toContain("木");
    expect(wordsJob({ text: "木" }).problem).toMatchObject({ code: "no-words", message: /木.*Latin letters/ });
    expect(wordsJob({ text: "" }).problem?.code).toBe("no-words");
    expect(wordsJob({ text: "x".repeat(100_000) }).problem?.message).toMatch(/at most 500 letters/);
  });
  it("has a face for every name, and each of them has every letter of the languages round about", () => {
    expect(new Set(FACES.map((f) => f.value)).size).toBe(FACES.length);
    expect(linesIn(plainFace(), "Łódź Škoda Çağrı Ærø œuvre ñ ß")[0].missing).toEqual([]);
  });
});

describe("words beside what a job has", () => {
  const begun = (outcome: string) => {
    const job = startJob(SHOP, { outcome, words: "Above", stock: { width: 200, height: 100, thickness: 18 } });
    job.makings[0].settings.y = 60;
    return job;
  };
  it("stand below it, in its middle, where there is room, and else at the margin", () => {
    const job = begun("sign");
    const id = addLettering(job, "lettering", { text: "below" });
    const at = (y: number) => {
      job.makings[0].settings.y = y;
      const build = buildJob(job, { files, cell: 1 }, new Kept());
      const [above, below] = ["lettering", id].map((m) => box(build.makings.get(m)!.product as ShapesProduct));
      return { above, below };
    };
    const roomy = at(60);
    expect(roomy.below.maxY).toBeLessThan(roomy.above.minY);
    expect(Math.abs(roomy.below.minX + roomy.below.maxX - roomy.above.minX - roomy.above.maxX)).toBeLessThan(4);
    expect(at(12).below.minY).toBeGreaterThan(5);
    expect(at(12).below.minY).toBeLessThan(12);
  });
  it("have room made for them: art that fills its board stands above, until somebody puts them elsewhere", () => {
    const [width, height] = [60, 50];
    const data = new Uint8Array(4 * width * height).fill(255);
    for (let k = 0; k < width * height; k++) if (k % width > 8 && k % width < 50) data.fill(0, 4 * k, 4 * k + 3);
    const drawn = { ...files, picture: () => ({ width, height, data }) };
    const asset = { sha: "a".repeat(64), name: "bar.png", width, height };
    for (const [words, stock] of [
      ["gypsy", { width: 120, height: 100, thickness: 18 }],
      ["Quill\n& Thistle\nQ", { width: 90, height: 140, thickness: 18 }],
    ] as const) {
      const job = startJob(SHOP, { outcome: "sign", asset, words, stock });
      const made = (id: string) =>
        box(buildJob(job, { files: drawn, cell: 1 }, new Kept()).makings.get(id)!.product as ShapesProduct);
      expect(made("outline").minY).toBeGreaterThan(made("lettering").maxY);
      expect(made("lettering").minY).toBeGreaterThanOrEqual(5);
      const before = made("outline");
      job.makings.find((m) => m.kind === "lettering")!.settings.y = 20;
      expect(made("outline").minY).toBeLessThan(before.minY);
    }
  });
  it("are carved along with it, and not cut out along with it", () => {
    const sign = begun("sign");
    addLettering(sign, "lettering");
    const both = sign.makings.find((m) => m.kind === "combine")!;
    expect(sign.cuts.every((c) => c.reads.art === both.id)).toBe(true);
    const cutout = begun("cutout");
    addLettering(cutout, "lettering");
    expect(cutout.cuts.map((c) => c.reads.art)).toEqual(["lettering"]);
    expect(cutout.makings.map((m) => m.kind)).toEqual(["lettering", "lettering"]);
  });
  it("go without anything beside them, and come back as they were from a file", () => {
    const job = begun("sign");
    addCut(job, "pocket", "lettering", SHOP.cutters);
    const build = buildJob(boardJob(documentOf(job)), { files, cell: 1 }, new Kept());
    expect(build.problem).toBeNull();
  });
});

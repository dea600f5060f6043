import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { insideRegion } from "@oaken/core/geometry/rings";
import { inspect } from "@oaken/core/inspect/inspect";
import { isSound } from "@oaken/core/geometry/sound";
import { buildJob } from "@oaken/core/job/build";
import { emptyJob, type BoardJob } from "@oaken/core/job/document";
import { addCut, addDrawing } from "@oaken/core/job/edit";
import { checkBoard } from "@oaken/core/job/schema";
import { Kept } from "@oaken/core/kept";
import { ARC } from "@oaken/core/geometry/shape";
import { productIn } from "@oaken/core/testing/building";
import { seeded } from "@oaken/core/testing/random";
import { faceOf } from "./faces.ts";
import { SHOP } from "@oaken/core/testing/shop";

const SIDE = 100;
const PER_MM = 8;

/** A job that cuts a drawing out of a sheet as wide as the drawing's page. */
function job(svg: string, settings = {}): { doc: BoardJob; files: Parameters<typeof buildJob>[1]["files"] } {
  const doc = emptyJob(SHOP, "drawing", { width: SIDE, height: SIDE, thickness: 6, margin: 0 });
  const id = addDrawing(doc, { sha: "c".repeat(64), name: "drawing.svg", width: SIDE, height: SIDE });
  doc.makings[0].settings = settings;
  addCut(doc, "profile", id, SHOP.cutters);
  return {
    doc: checkBoard(doc),
    files: { picture: () => null as never, drawing: () => svg, solid: () => new Uint8Array(0), face: faceOf },
  };
}

function shapesOf(svg: string, settings = {}) {
  const { doc, files } = job(svg, settings);
  const build = buildJob(doc, { files, cells: 4000, quick: true }, new Kept());
  if (build.problem) throw new Error(build.problem.message);
  return { ...productIn(build, "shapes"), build };
}

const page = (inside: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE}mm" height="${SIDE}mm" viewBox="0 0 200 200">${inside}</svg>`;

/** Random filled elements, apart or one in another, turned, scaled and mirrored by their groups. */
function drawn(random: () => number): string {
  const n = (least: number, most: number) => (least + (most - least) * random()).toFixed(3);
  const one = (): string => {
    const kind = Math.floor(5 * random());
    if (kind === 0)
      return `<rect x="${n(2, 10)}" y="${n(2, 10)}" width="${n(10, 30)}" height="${n(10, 30)}" rx="${n(0, 6)}"/>`;
    if (kind === 1) return `<ellipse cx="20" cy="20" rx="${n(5, 18)}" ry="${n(5, 18)}"/>`;
    if (kind === 2)
      return `<path d="M5 5h${n(10, 25)}a${n(3, 9)} ${n(3, 9)} ${n(0, 90)} 0 1 5 12l-${n(3, 20)} ${n(5, 15)}z"/>`;
    if (kind === 3)
      return `<path fill-rule="evenodd" d="M4 20a16 16 0 1 0 32 0 16 16 0 1 0-32 0zm8 0a8 8 0 1 1 16 0z"/>`;
    return `<path d="M4 4C${n(5, 35)} ${n(0, 10)} ${n(20, 38)} ${n(20, 30)} 20 36Q${n(2, 12)} ${n(20, 34)} 4 4z"/>`;
  };
  return [0, 1, 2, 3]
    .map((k) => {
      const at = `translate(${(k % 2) * 100 + 30} ${Math.floor(k / 2) * 100 + 30})`;
      const turn = `rotate(${n(-180, 180)} 20 20)`;
      const mirror = random() < 0.5 ? "scale(-1 1) translate(-40 0)" : "";
      return `<g transform="${at}"><g transform="${turn}"><g transform="${mirror}">${one()}</g></g></g>`;
    })
    .join("");
}

describe("a drawing's shapes against what a renderer that shares nothing with them draws", () => {
  it("40 random pages: pixels wholly in or out are so in the shapes", async () => {
    for (let seed = 1; seed <= 40; seed++) {
      // Marks in two corners: the shapes then fill the page, and lie on the sheet where they lie on it.
      const svg = page(`${drawn(seeded(seed))}<path d="M0 0h2v2H0zM198 198h2v2h-2z"/>`);
      const { data, info } = await sharp(Buffer.from(svg), { density: 25.4 * PER_MM })
        .resize(SIDE * PER_MM)
        .flatten({ background: "#fff" })
        .greyscale()
        .raw()
        .toBuffer({ resolveWithObject: true });
      expect(info.width).toBe(SIDE * PER_MM);
      const made = shapesOf(svg);
      expect(isSound(made.ink), `seed ${seed}`).toBe(true);
      let wrong = 0;
      let seen = 0;
      for (let y = 1; y + 1 < info.height; y += 3)
        for (let x = 1; x + 1 < info.width; x += 3) {
          const around = [-1, 0, 1].flatMap((v) => [-1, 0, 1].map((u) => data[(y + v) * info.width + x + u]));
          const isIn = around.every((g) => g === 0);
          if (!isIn && !around.every((g) => g === 255)) continue;
          seen++;
          const at = insideRegion(made.ink, (x + 0.5) / PER_MM, SIDE - (y + 0.5) / PER_MM);
          if (at !== isIn) wrong++;
        }
      expect(seen).toBeGreaterThan(1000);
      expect(wrong, `seed ${seed}: ${svg}`).toBe(0);
    }
  });

  it("a circle stays two arcs, of its own radius; a millimetre stays a millimetre", () => {
    const { shape, ink, held } = shapesOf(page('<circle cx="100" cy="100" r="60"/>'));
    expect([...shape.kinds]).toEqual([ARC, ARC]);
    expect(held).toBe(0);
    const xs = [...ink.xy].filter((_, i) => i % 2 === 0);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(60, 6);
  });

  it("a shape in a shape is a hole, or filled where that is wanted", () => {
    const ring = page('<circle cx="100" cy="100" r="60"/><circle cx="100" cy="100" r="20" fill="#fff"/>');
    expect(insideRegion(shapesOf(ring).ink, 50, 50)).toBe(false);
    expect(insideRegion(shapesOf(ring, { overlap: "adds" }).ink, 50, 50)).toBe(true);
  });

  it("what is not filled is known from groups, styles and classes", () => {
    const line = '<path d="M20 20L180 20L180 180"/>';
    const circle = '<circle cx="60" cy="120" r="30"/>';
    for (const [open, close, sheet] of [
      ['<g fill="none">', "</g>", ""],
      ['<g style="stroke:#000; fill:none">', "</g>", ""],
      ['<g class="cut">', "</g>", "<style>.mark, .cut { fill : none; stroke:#000 }</style>"],
      ['<g class="cut">', "</g>", "<style><![CDATA[.cut{fill:none}]]></style>"],
    ]) {
      // The open line is left out, the circle is closed by itself.
      expect(shapesOf(page(sheet + open + line + circle + close)).shape.parent.length, open + sheet).toBe(1);
      expect(shapesOf(page(`${line}${sheet}${open}${circle}${close}`)).shape.parent.length, open).toBe(2);
    }
  });

  it("what is hidden or not drawn is not there", () => {
    for (const hidden of ['display="none"', 'style="display:none"', 'visibility="hidden"'])
      expect(() => shapesOf(page(`<g ${hidden}><circle cx="60" cy="60" r="30"/></g>`)), hidden).toThrow(
        /no closed shape/,
      );
    expect(() => shapesOf(page('<defs><circle cx="60" cy="60" r="30"/></defs>'))).toThrow(/no closed shape/);
  });

  it("shapes that cross are mended, and it is said where", () => {
    const crossing = page('<rect x="40" y="40" width="60" height="60"/><rect x="80" y="80" width="60" height="60"/>');
    const { ink, mendedAt } = shapesOf(crossing, { overlap: "adds" });
    expect(mendedAt.length).toBeGreaterThan(0);
    expect(isSound(ink)).toBe(true);
  });

  it("is cut like any other shapes", () => {
    const { build } = shapesOf(page('<circle cx="100" cy="100" r="60"/>'));
    expect(build.cuts[0].toolpath.kind.length).toBeGreaterThan(4);
    expect(Math.min(...build.proof.z)).toBeLessThanOrEqual(-6);
  });
});

describe("a drawing that cannot be taken says so in a sentence", () => {
  const bad: [string, string, RegExp][] = [
    ["nothing in it", page(""), /holds no closed shape/],
    ["only text", page("<text>Fern</text>"), /no closed shape.*text/],
    ["only an open line", page('<path fill="none" d="M0 0L50 50"/>'), /no closed shape.*enclose nothing/],
    ["cut short", page('<circle cx="100" cy="100" r="60"/>').slice(0, -9), /cannot be read/],
    ["no drawing", "hello", /cannot be read/],
    ["numbers without end", page('<path d="M1e999 0L1 1L2 0z"/>'), /no closed shape/],
  ];
  for (const [what, svg, says] of bad)
    it(what, () => {
      expect(() => shapesOf(svg)).toThrow(says);
    });
  it("a line that closes nowhere beside a shape is left out, and the shape is taken", () => {
    const { shape } = shapesOf(page('<circle cx="100" cy="100" r="60"/><path fill="none" d="M0 0L50 50"/>'));
    expect(shape.parent.length).toBe(1);
  });
  it("drawing-left-out: what has no shape is said on the drawing, and the shapes are taken", () => {
    const { build } = shapesOf(
      page('<circle cx="100" cy="100" r="60"/><text>Fern</text><path fill="none" d="M0 0h9"/>'),
    );
    const found = inspect({ build }).find((f) => f.code === "drawing-left-out");
    expect(found?.message).toMatch(/drawing\.svg holds more.*text.*; lines that enclose nothing\.$/);
    expect(found?.severity).toBe("note");
  });
});

import "@oaken/core/testing/ready";
import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { addBoard, boardJob, boardPrefixes, documentOf } from "@oaken/core/job/boards";
import { onePicture } from "@oaken/core/job/tools";
import { Kept } from "@oaken/core/kept";
import { figures } from "@oaken/core/toolpath/toolpath";
import { readProgram } from "@oaken/core/output/gcode/reader";
import type { Raster } from "@oaken/core/picture/raster";
import { begun } from "@oaken/core/testing/shop";
import { sheetOf, writtenOf } from "./written.ts";

/** A dark disc on white, 120 × 90. */
const raster: Raster = { width: 120, height: 90, data: new Uint8Array(4 * 120 * 90).fill(255) };
for (let y = 0; y < 90; y++)
  for (let x = 0; x < 120; x++)
    if (Math.hypot(x - 60, y - 45) < 30) raster.data.fill(10, 4 * (y * 120 + x), 4 * (y * 120 + x) + 3);
const asset = { sha: "e".repeat(64), name: "disc.png", width: 120, height: 90 };
const job = begun("pocket", asset, { width: 60, height: 45, thickness: 10 });
const files = onePicture(raster);
const WRITING = { from: "test", date: "2026-01-02", prefix: "" };

it("each program comes with its lines, its time and the bounds that reading it back gives", () => {
  const written = writtenOf(job, files, WRITING, new Kept());
  const programs = written.files.filter((f) => f.program);
  expect(programs).toHaveLength(1);
  const text = new TextDecoder().decode(programs[0].bytes);
  const { lines, seconds, box, cuts } = programs[0].program!;
  expect(lines).toBe(text.trimEnd().split("\n").length);
  expect(cuts).toEqual(["pocket"]);
  expect(seconds).toBeGreaterThan(10);
  const read = figures(readProgram(text, false).toolpath);
  // Read back, the machine comes from its zero: the near sides are there.
  for (const side of ["maxX", "maxY", "minZ"] as const) expect(box[side]).toBeCloseTo(read[side], 2);
  // What is cut lies a cutter's radius round the path, inside the stock.
  const { bounds } = written;
  expect(bounds!.x0).toBeLessThan(box.minX);
  expect(bounds!.x1).toBeGreaterThan(box.maxX);
  expect([bounds!.x0 >= 0, bounds!.y1 <= 45]).toEqual([true, true]);
  expect(written.rings!.starts.length).toBe(2);
});

it("pictures are PNG, texts as they are, and names begin with the board where there are several", () => {
  const doc = documentOf(job);
  addBoard(doc, "board");
  const [prefix] = boardPrefixes(doc);
  const written = writtenOf(boardJob(doc), files, { ...WRITING, prefix }, new Kept());
  for (const f of written.files) {
    expect(f.name.startsWith("board-1-")).toBe(true);
    if (f.name.endsWith(".png")) expect([...f.bytes.subarray(1, 4)]).toEqual([0x50, 0x4e, 0x47]);
    if (f.name.endsWith(".svg")) expect(new TextDecoder().decode(f.bytes)).toMatch(/^<\?xml|^<svg/);
  }
});

it("a job that cannot be built says why", () => {
  const bad = structuredClone(job);
  bad.makings[2].settings.specks = 100_000;
  expect(() => writtenOf(bad, files, WRITING, new Kept())).toThrow(/only specks/);
});

it("a setup sheet is a PDF of a page or two, whatever letters its names have", async () => {
  const folder = "../../node_modules/@fontsource/atkinson-hyperlegible-next/files/";
  const file = (name: string) =>
    readFileSync(new URL(`${folder}atkinson-hyperlegible-next-${name}-normal.woff`, import.meta.url));
  const fonts = { regular: [file("latin-400"), file("latin-ext-400")], bold: [file("latin-600")] };
  const named = { ...job, name: "Zażółć \u202E שלום 😀 ".repeat(12), naming: { person: "x".repeat(200) } };
  const pdf = await sheetOf(named, files, WRITING, [], { kept: new Kept(), fonts });
  expect(new TextDecoder().decode(pdf.subarray(0, 5))).toBe("%PDF-");
  expect(pdf.length).toBeLessThan(1_000_000);
});

import "../testing/ready.ts";
import { describe, expect, it } from "vitest";
import { inspect } from "../inspect/inspect.ts";
import { Kept } from "../kept.ts";
import type { Raster } from "../picture/raster.ts";
import { begun, cutterNamed, materialNamed, SHOP } from "../testing/shop.ts";
import { addBoard, boardJob, boardPrefixes, documentOf, duplicateBoard, putBoard, removeBoard } from "./boards.ts";
import { buildJob } from "./build.ts";
import type { BoardJob, JobDocument } from "./document.ts";
import { addCut, addOutline, removeMaking } from "./edit.ts";
import { outputsOf } from "./outputs.ts";
import { checkJob } from "./schema.ts";
import { onePicture } from "./tools.ts";

/** A dark disc on white, 200 × 150. */
const raster: Raster = { width: 200, height: 150, data: new Uint8Array(4 * 200 * 150).fill(255) };
for (let y = 0; y < 150; y++)
  for (let x = 0; x < 200; x++)
    if (Math.hypot(x - 100, y - 75) < 60) raster.data.fill(10, 4 * (y * 200 + x), 4 * (y * 200 + x) + 3);
const asset = { sha: "e".repeat(64), name: "disc.png", width: 200, height: 150 };

/** A job of a pocket on one board, and a cut-out on a second, thicker and smaller one of another wood. */
function twoBoards(): JobDocument {
  const doc = documentOf(begun("pocket", asset, { width: 120, height: 90, thickness: 10 }));
  const id = addBoard(doc, "board");
  const second = boardJob(doc, id);
  Object.assign(second.stock, { width: 80, height: 70, thickness: 20, material: materialNamed("walnut") });
  second.stock.zero = "centre-centre-bed";
  addCut(second, "profile", "outline", SHOP.cutters);
  second.cuts[0].cutter = cutterNamed("flat6");
  putBoard(doc, second);
  return checkJob(doc, SHOP);
}
const files = onePicture(raster);
const build = (job: BoardJob, kept = new Kept()) => buildJob(job, { files, cells: 20_000 }, kept);

describe("a job of two boards", () => {
  it("is built board by board: each with its own stock, cuts, proof and findings", () => {
    const doc = twoBoards();
    const [first, second] = doc.boards.map((b) => build(boardJob(doc, b.id)));
    expect([first.job.stock.material.id, second.job.stock.material.id]).toEqual(["ash", "walnut"]);
    expect(first.cuts.map((c) => c.cut.kind)).toEqual(["pocket"]);
    expect(second.cuts.map((c) => c.cut.kind)).toEqual(["profile"]);
    const deepest = (z: Float32Array) => z.reduce((a, b) => Math.min(a, b));
    expect(deepest(first.proof.z)).toBeCloseTo(-3, 3);
    expect(deepest(second.proof.z)).toBeLessThanOrEqual(-20);
    expect(first.proof.width * first.proof.cell).toBeCloseTo(120, 0);
    expect(second.proof.width * second.proof.cell).toBeCloseTo(80, 0);
    for (const b of [first, second]) expect(inspect({ build: b }).filter((f) => f.severity === "stop")).toEqual([]);
  });

  it("gives the same for a board alone as beside another, and from what was kept for the other", () => {
    const doc = twoBoards();
    const alone = documentOf(boardJob(doc, "board-2"));
    const kept = new Kept();
    build(boardJob(doc, "board"), kept);
    const beside = build(boardJob(doc, "board-2"), kept);
    expect(beside.proof.z).toEqual(build(boardJob(alone)).proof.z);
    expect(beside.cuts[0].toolpath).toEqual(build(boardJob(alone)).cuts[0].toolpath);
  });

  it("writes files of which no two have one name, each naming its board and its zero", () => {
    const doc = twoBoards();
    const prefixes = boardPrefixes(doc);
    const outputs = doc.boards.map(
      (b, i) => outputsOf(build(boardJob(doc, b.id)), "test", { prefix: prefixes[i] }).files,
    );
    const names = outputs.flat().map((f) => f.name);
    expect(new Set(names).size).toBe(names.length);
    const heads = outputs.map((fs) =>
      String(fs.find((f) => f.program)!.content)
        .split("\n")
        .slice(0, 6)
        .join(),
    );
    expect(heads[0]).toMatch(/disc, Board 1.*front left corner, top of the stock/);
    expect(heads[1]).toMatch(/disc, Board 2.*centre, on the bed/);
    for (const b of doc.boards) b.name = "Same";
    expect(new Set(boardPrefixes(doc)).size).toBe(2);
    expect(boardPrefixes(documentOf(boardJob(doc)))).toEqual([""]);
  });
});

describe("boards of a document", () => {
  it("are added after another, with stock like its, and named so that they are told apart", () => {
    const doc = documentOf(begun("sign", asset, { thickness: 9 }));
    const id = addBoard(doc, "board");
    expect(doc.boards.map((b) => [b.id, b.name, b.cuts.length])).toEqual([
      ["board", "Board 1", 1],
      [id, "Board 2", 0],
    ]);
    expect(doc.boards[1].stock).toEqual(doc.boards[0].stock);
    doc.boards[1].stock.thickness = 4;
    expect(doc.boards[0].stock.thickness).toBe(9);
  });
  it("are duplicated with their cuts, and taken out, but not the last", () => {
    const doc = documentOf(begun("sign", asset));
    const twin = duplicateBoard(doc, "board");
    expect(doc.boards[1].cuts).toEqual(doc.boards[0].cuts);
    doc.boards[1].cuts[0].settings.floor = 1;
    expect(doc.boards[0].cuts[0].settings.floor).toBeUndefined();
    removeBoard(doc, "board");
    expect(doc.boards.map((b) => b.id)).toEqual([twin]);
    removeBoard(doc, twin);
    expect(doc.boards.map((b) => b.id)).toEqual([twin]);
  });
  it("a making taken out on one is gone for the cuts of all", () => {
    const doc = documentOf(begun("pocket", asset));
    const first = boardJob(doc);
    const outline = addOutline(first, "outline");
    putBoard(doc, first);
    const id = addBoard(doc, "board");
    const second = boardJob(doc, id);
    addCut(second, "hatch", outline, SHOP.cutters);
    putBoard(doc, second);
    const again = boardJob(doc);
    removeMaking(again, outline);
    putBoard(doc, again);
    expect(doc.boards[1].cuts[0].reads).toEqual({});
    expect(checkJob(doc, SHOP).makings.map((m) => m.id)).not.toContain(outline);
  });
});

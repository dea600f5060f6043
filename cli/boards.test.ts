import { mkdtemp, readdir, readFile, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import { addBoard, boardJob, putBoard } from "@oaken/core/job/boards";
import { addCut } from "@oaken/core/job/edit";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { readJobFile, writeJobFile } from "@oaken/files/jobfile";
import { make } from "./make.ts";

let dir: string;
const file = (name: string) => join(dir, name);
const run = (...args: string[]) => make(args, () => {});
const report = async (name: string) => JSON.parse(await readFile(join(file(name), "report.json"), "utf8"));

const disc =
  '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><rect width="400" height="300" fill="#fff"/>' +
  '<circle cx="200" cy="150" r="100"/></svg>';

beforeAll(async () => {
  dir = await mkdtemp(join(tmpdir(), "oaken-boards-"));
  await writeFile(file("disc.png"), await sharp(Buffer.from(disc)).png().toBuffer());
  await run(
    file("disc.png"),
    "--as",
    "pocket",
    "--stock",
    "120x90x12",
    "--size",
    "80",
    "--cell",
    "0.4",
    "--out",
    file("one"),
  );
  // The same job with a second board, of which something is cut out.
  const job = readJobFile(await readFile(join(file("one"), "job.json"), "utf8"), FIRST_SHOP);
  const lid = boardJob(job.job, addBoard(job.job, "board"));
  lid.board.name = "Lid";
  lid.stock.thickness = 6;
  lid.cell = 0.4;
  addCut(lid, "profile", "outline", FIRST_SHOP.cutters);
  putBoard(job.job, lid);
  await writeFile(file("two.json"), writeJobFile(job));
});

describe("a job of several boards on the command line", () => {
  it("writes the programs of every board, each under its name, and a report of all and of each", async () => {
    expect(await run(file("two.json"), "--out", file("two"))).toBe(0);
    const names = await readdir(file("two"));
    expect(names.filter((n) => n.endsWith(".nc")).sort()).toEqual([
      expect.stringMatching(/^board-1-01-.*pocket.*\.nc$/),
      expect.stringMatching(/^lid-01-.*\.nc$/),
    ]);
    for (const n of ["board-1-proof.png", "lid-proof.png", "board-1-outline.dxf", "lid-outline.dxf", "job.json"])
      expect(names).toContain(n);
    const r = await report("two");
    expect(r.boards.map((b: { board: string }) => b.board)).toEqual(["Board 1", "Lid"]);
    expect(r.boards.map((b: { stock: { thickness: number } }) => b.stock.thickness)).toEqual([12, 6]);
    expect(r.seconds).toBeCloseTo(r.boards[0].seconds + r.boards[1].seconds, 1);
    expect(r.files.length).toBe(r.boards[0].files.length + r.boards[1].files.length);
    expect(new Set(r.files).size).toBe(r.files.length);
  });
  it("one board's report is as it always was", async () => {
    const r = await report("one");
    expect(r.boards).toBeUndefined();
    expect(r.files.every((n: string) => !n.startsWith("board"))).toBe(true);
    expect(r.stock.material).toBe("ash");
  });
  it("options are for the board that is named, by its name or its id; the first otherwise", async () => {
    await run(file("two.json"), "--depth", "2", "--out", file("first"));
    await run(file("two.json"), "--board", "Lid", "--material", "oak", "--out", file("lid"));
    await run(file("two.json"), "--board", "board-2", "--zero", "centre-centre-top", "--out", file("id"));
    const minZ = async (name: string) =>
      (await report(name)).boards.map((b: { cuts: { minZ: number }[] }) => b.cuts[0].minZ);
    expect((await minZ("first"))[0]).toBe(-2);
    expect((await minZ("first"))[1]).toBeLessThan(-6);
    const materials = (await report("lid")).boards.map((b: { stock: { material: string } }) => b.stock.material);
    expect(materials).toEqual(["ash", "oak"]);
    expect((await report("id")).boards[1].zero).toEqual({ x: 60, y: 45, z: 0 });
  });
  it("a board that is not there is refused with those that are", async () => {
    await expect(run(file("two.json"), "--board", "Base", "--out", file("none"))).rejects.toThrow(
      /no board "Base". It has Board 1, Lid/,
    );
  });
  it("a finding that stops one board keeps the programs of all back", async () => {
    expect(await run(file("two.json"), "--depth", "40", "--out", file("stopped"))).toBe(3);
    expect((await readdir(file("stopped"))).filter((n) => n.endsWith(".nc"))).toEqual([]);
    const stops = (await report("stopped")).findings.filter((f: { severity: string }) => f.severity === "stop");
    expect(stops.map((f: { board: string }) => f.board)).toEqual(stops.map(() => "Board 1"));
  });
});

describe("surfaces on the command line", () => {
  it("a relief takes its depth, rim and cutters from the options, and is reported", async () => {
    const args = [
      "--as",
      "relief",
      "--stock",
      "60x45x12",
      "--depth",
      "3",
      "--rim",
      "2",
      "--top",
      "0.5",
      "--cell",
      "0.3",
    ];
    expect(await run(file("disc.png"), ...args, "--rough", "none", "--cutter", "ball:6", "--out", file("relief"))).toBe(
      0,
    );
    const r = await report("relief");
    expect(r.cuts.map((c: { kind: string }) => c.kind)).toEqual(["finish"]);
    expect(r.height).toMatchObject({ low: -3.5, high: 0 });
    expect(r.outline).toBeUndefined();
    expect(await readdir(file("relief"))).toContain("height.png");
  });
  it("a drawing has no greys to make a surface of: one sentence", async () => {
    await writeFile(file("disc.svg"), disc);
    await expect(run(file("disc.svg"), "--exact", "--as", "relief", "--out", file("no"))).rejects.toThrow(
      /"relief" is made from a height, and this file gives shapes/,
    );
  });
});

import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { readProgram } from "@oaken/core/output/gcode/reader";
import { check } from "./check.ts";
import { folderWithArt, picture } from "./testing/folder.ts";

const { file, run } = await folderWithArt();

describe("oaken make", () => {
  it("writes everything the contract names", async () => {
    const { code, said } = await run(
      file("art.png"),
      "--as",
      "sign",
      "--out",
      file("a"),
      "--stock",
      "6inx100x12",
      "--size",
      "120",
      "--clear",
      "flat:3",
      "--zero",
      "centre-centre-top",
      "--json",
    );
    expect(code).toBe(0);
    const names = (await readdir(file("a"))).sort();
    expect(names.filter((n) => n.endsWith(".nc")).length).toBe(2);
    for (const n of ["job.json", "outline.dxf", "outline.svg", "proof-height.png", "proof.png", "report.json"])
      expect(names).toContain(n);
    const report = JSON.parse(said);
    expect(report).toEqual(JSON.parse(await readFile(join(file("a"), "report.json"), "utf8")));
    expect(report.artwork).toEqual({ x: 16.2, y: 10.63, width: 120, height: 78.75 });
    expect(report.stock.width).toBe(152.4);
    expect(report.zero).toEqual({ x: 76.2, y: 50, z: 0 });
    expect(report.cuts.map((c: { kind: string }) => c.kind)).toEqual(["clear", "vcarve"]);
    for (const c of report.cuts) {
      const t = readProgram(await readFile(join(file("a"), c.program), "utf8")).toolpath;
      expect(Math.min(...t.z)).toBeCloseTo(c.minZ, 3);
      expect(c.moves).toBeGreaterThan(20);
    }
    const map = await sharp(join(file("a"), "proof-height.png")).metadata();
    expect([map.depth, map.width]).toEqual(["ushort", report.proof.width]);
    const svg = await readFile(join(file("a"), "outline.svg"), "utf8");
    expect(svg).toContain('width="120mm" height="78.75mm"');
  });

  it("the outline draws like the picture", async () => {
    const svg = await sharp(join(file("a"), "outline.svg"), { density: 25.4 * (640 / 120) })
      .resize(640, 420, { fit: "fill" })
      .flatten({ background: "#fff" })
      .greyscale()
      .raw()
      .toBuffer();
    const truth = await picture().greyscale().raw().toBuffer();
    let off = 0;
    for (let i = 0; i < truth.length; i++) if (Math.abs(svg[i] - truth[i]) > 128) off++;
    expect(off / truth.length).toBeLessThan(0.0005);
  });

  it("opens its own job file again to the same programs", async () => {
    expect((await run(join(file("a"), "job.json"), "--out", file("b"))).code).toBe(0);
    for (const n of (await readdir(file("a"))).filter((q) => q.endsWith(".nc")))
      expect(await readFile(join(file("b"), n), "utf8")).toBe(await readFile(join(file("a"), n), "utf8"));
  });

  it("makes raised and cut-out, in both dialects, with any setting", async () => {
    expect(
      (
        await run(
          file("art.png"),
          "--as",
          "raised",
          "--out",
          file("c"),
          "--stock",
          "150x100x12",
          "--size",
          "110",
          "--border",
          "grow:6",
          "--dialect",
          "inch-toolchange",
          "--clear",
          "flat:4",
          "--set",
          "carve.ridge=0.2",
        )
      ).code,
    ).toBe(0);
    expect((await readdir(file("c"))).filter((n) => n.endsWith(".nc")).length).toBe(1);
    expect(
      (
        await run(
          file("art.png"),
          "--as",
          "cutout",
          "--out",
          file("d"),
          "--stock",
          "150x100x6",
          "--tabs",
          "none",
          "--cutter",
          "flat:3",
          "--json",
        )
      ).code,
    ).toBe(0);
    const report = JSON.parse(await readFile(join(file("d"), "report.json"), "utf8"));
    expect(report.cuts[0].minZ).toBeLessThanOrEqual(-6);
    expect(report.cuts[0].cutter).toMatchObject({ kind: "flat", diameter: 3 });
  });

  it("exits 3 without programs when a finding stops it, and writes with --force, saying so", async () => {
    const args = [file("art.png"), "--as", "sign", "--out", file("e"), "--stock", "150x100x6", "--depth", "8"];
    expect((await run(...args)).code).toBe(3);
    expect(await readdir(file("e"))).toEqual(["report.json"]);
    const forced = await run(...args, "--force");
    expect(forced.code).toBe(0);
    expect(forced.said).toMatch(/in spite of findings/);
  });
});

describe("every outcome from the command line", () => {
  const report = async (dir: string) => JSON.parse(await readFile(join(file(dir), "report.json"), "utf8"));
  const cases: [string, string[], string[]][] = [
    [
      "pocket",
      [
        "--cutter",
        "flat:6",
        "--rest",
        "flat:3",
        "--rest",
        "flat:1",
        "--stepover",
        "2",
        "--stepdown",
        "2",
        "--entry",
        "ramp",
        "--depth",
        "4",
      ],
      ["pocket", "rest", "rest"],
    ],
    ["sign", ["--clear", "flat:8", "--clear", "flat:3", "--depth", "3"], ["clear", "clear", "vcarve"]],
    ["cutout", ["--cutter", "flat:6", "--cutter", "flat:3", "--tabs", "2", "--skin", "0.4"], ["profile", "profile"]],
    ["hatch", ["--angle", "20", "--second", "110", "--spacing", "2"], ["hatch"]],
    ["drill", ["--depth", "5", "--peck", "2", "--set", "drill.most=40"], ["drill"]],
    ["plasma", ["--kerf", "1.4", "--lead", "4", "--side", "outside"], ["plasma"]],
  ];
  for (const [as, options, kinds] of cases)
    it(`${as}: programs that check finds nothing wrong with`, async () => {
      const thickness = as === "plasma" ? "3" : "9";
      expect(
        (
          await run(
            file("art.png"),
            "--as",
            as,
            "--out",
            file(`x-${as}`),
            "--stock",
            `150x100x${thickness}`,
            ...options,
          )
        ).code,
      ).toBe(0);
      const r = await report(`x-${as}`);
      expect(r.cuts.map((c: { kind: string }) => c.kind)).toEqual(kinds);
      for (const c of r.cuts) {
        const said: string[] = [];
        const spec =
          c.cutter.kind === "v"
            ? `v:${c.cutter.angle}:${c.cutter.diameter}:${c.cutter.tip}`
            : c.cutter.kind === "drill"
              ? `drill:${c.cutter.diameter}:${c.cutter.angle}`
              : `${c.cutter.kind}:${c.cutter.diameter}`;
        const alone = r.cuts.filter((q: { program: string }) => q.program === c.program).length === 1;
        // A program for the rest runs through ground that others opened: alone it may meet stock.
        if (!alone || c.kind === "rest" || c.name === "Clear 2") continue;
        expect(
          await check(
            [join(file(`x-${as}`), c.program), "--stock", `150x100x${thickness}`, "--cutter", spec, "--json"],
            (l) => said.push(l),
          ),
          said[0],
        ).toBe(0);
        const found = JSON.parse(said[0]);
        expect(found.rapidsThroughStock).toBe(0);
        expect(found.bounds.minZ).toBeCloseTo(c.minZ, 3);
        // The spindle's start is in the program, not in the cut.
        expect(Math.abs(found.seconds - c.seconds)).toBeLessThan(as === "plasma" ? 1 : 6);
      }
    });

  it("says what an outcome has no use for", async () => {
    await expect(run(file("art.png"), "--as", "drill", "--clear", "flat:3", "--out", file("bad"))).rejects.toThrow(
      /no use for a clearing cutter/,
    );
    await expect(
      run(file("art.png"), "--as", "sign", "--cutter", "v:60:12", "--cutter", "v:90:12", "--out", file("bad")),
    ).rejects.toThrow(/takes one cutter/);
    await expect(run(file("art.png"), "--as", "drill", "--stepover", "2", "--out", file("bad"))).rejects.toThrow(
      /no cut of this job has a stepover/,
    );
    await expect(run(file("art.png"), "--as", "pocket", "--entry", "jump", "--out", file("bad"))).rejects.toThrow(
      /not one of auto, helix, ramp, plunge/,
    );
  });
});

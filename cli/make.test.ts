import { readdir, readFile, writeFile, mkdir } from "node:fs/promises";
import { join } from "node:path";
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { readProgram } from "@oaken/core/output/gcode/reader";
import { decodePicture } from "@oaken/files/decode";
import { check } from "./check.ts";
import { outline } from "./outline.ts";
import { art, folderWithArt, picture } from "./testing/folder.ts";

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

describe("oaken outline", () => {
  const report = async (...args: string[]) => {
    const said: string[] = [];
    expect(
      await outline([file("art.png"), "--size", "120", "--out", file("o"), "--json", ...args], (l) => said.push(l)),
    ).toBe(0);
    return JSON.parse(said[0]).outline;
  };
  it("writes drawings and figures alone", async () => {
    const o = await report();
    expect((await readdir(file("o"))).sort()).toEqual(["outline.dxf", "outline.svg", "report.json"]);
    expect(o).toMatchObject({ pieces: 1, holes: 1, loose: 1, bridges: 0 });
    expect(o.thinnest).toBeGreaterThan(5);
    expect(o.meanDeviation).toBeLessThan(o.maxDeviation);
  });
  it("takes every way of tracing and shaping", async () => {
    expect((await report("--trace", "centre")).lines).toBeGreaterThan(0);
    expect((await report("--trace", "colours", "--colours", "2")).colours.length).toBe(2);
    expect((await report("--trace", "colours", "--colours", "2", "--keep-colours", "#ffffff")).pieces).toBe(2);
    expect((await report("--grow", "-1")).pieces).toBe(1);
    expect((await report("--bridges", "3")).loose).toBe(0);
    expect((await report("--reduce", "9")).nodes).toBeLessThanOrEqual(9);
    expect((await report("--reduce", "0.5mm")).nodes).toBeLessThan(30);
    expect(
      (
        await report(
          "--crop",
          "100,40,300,360",
          "--channels",
          "1,0,0",
          "--even",
          "60",
          "--smooth",
          "0.4",
          "--corner",
          "30",
          "--round-corners",
          "1",
          "--close-gaps",
          "0.5",
          "--turn",
          "2",
          "--ink",
          "auto",
          "--drawing",
          "splines",
        )
      ).pieces,
    ).toBeGreaterThan(0);
    expect((await report("--erase", "spot 320 150", "--ink", "0.5").catch((e) => e)).message).toMatch(
      /nothing in it to trace|No ink/,
    );
  });
  for (const [args, says] of [
    [["--trace", "smell"], /not one of ink, colours, centre/],
    [["--colours", "99"], /more than the most/],
    [["--crop", "1,2"], /Crop/],
    [["--grow", "-40"], /Nothing is left/],
    [["--channels", "1,2"], /red, green and blue/],
    [["--keep-colours", "puce"], /not a colour/],
    [["--drawing", "crayon"], /No way of drawing/],
  ] as const)
    it(`refuses ${args.join(" ")}`, async () => {
      await expect(
        outline([file("art.png"), "--size", "120", "--out", file("bad"), ...args], () => {}),
      ).rejects.toThrow(says);
    });
  it("answers noise with a sentence", async () => {
    const n = 1600;
    await writeFile(
      file("noise.png"),
      await sharp(
        Buffer.from(Uint8Array.from({ length: n * n }, (_, i) => (Math.imul(i + 1, 2654435761) >>> 13) & 255)),
        { raw: { width: n, height: n, channels: 1 } },
      )
        .png()
        .toBuffer(),
    );
    await expect(
      outline([file("noise.png"), "--size", "300", "--out", file("bad"), "--trace", "colours"], () => {}),
    ).rejects.toThrow(/noise rather than a drawing/);
  });
});

describe("engraving along centre lines", () => {
  it("cuts as wide as the strokes with the outcome's own settings", async () => {
    const { code } = await run(
      file("art.png"),
      "--as",
      "engrave",
      "--out",
      file("g"),
      "--stock",
      "150x100x12",
      "--size",
      "110",
      "--json",
    );
    expect(code).toBe(0);
    const r = JSON.parse(await readFile(join(file("g"), "report.json"), "utf8"));
    expect(r.cuts.map((c: { kind: string }) => c.kind)).toEqual(["engrave"]);
    expect(r.cuts[0].minZ).toBeCloseTo(-2, 3);
  });
});

describe("pictures that must work", () => {
  const kinds: [string, () => Promise<Buffer>][] = [
    ["CMYK JPEG", () => picture().toColourspace("cmyk").jpeg({ quality: 95 }).toBuffer()],
    ["16-bit PNG", () => picture().toColourspace("rgb16").png().toBuffer()],
    ["palette PNG", () => picture().png({ palette: true, colours: 8 }).toBuffer()],
    ["grey with alpha", () => picture().greyscale().ensureAlpha().png().toBuffer()],
    ["WebP", () => picture().webp().toBuffer()],
    ["AVIF", () => picture().avif().toBuffer()],
    ["GIF", () => picture().gif().toBuffer()],
    [
      "SVG",
      async () =>
        Buffer.from(art.replace('width="640" height="420"', 'width="640" height="420" viewBox="0 0 640 420"')),
    ],
    ["wide-gamut PNG", () => picture().withIccProfile("p3").png().toBuffer()],
    ["TIFF 16-bit", () => picture().toColourspace("rgb16").tiff().toBuffer()],
    ["turned by EXIF", () => picture().rotate(-90).withMetadata({ orientation: 6 }).jpeg({ quality: 95 }).toBuffer()],
  ];
  for (const [name, bytes] of kinds)
    it(name, async () => {
      const r = await decodePicture(await bytes(), name);
      // An SVG is drawn large enough to trace.
      const k = name === "SVG" ? 3000 / 640 : 1;
      expect([r.width, r.height]).toEqual([Math.round(640 * k), Math.round(420 * k)]);
      const max = r.data instanceof Uint16Array ? 65535 : 255;
      const at = (x: number, y: number) => r.data[4 * (Math.round(y * k) * r.width + Math.round(x * k))] / max;
      expect(at(320, 150)).toBeLessThan(0.15);
      expect(at(320, 260)).toBeGreaterThan(0.9);
      expect(at(60, 60)).toBeGreaterThan(0.9);
    });

  it("BMP", async () => {
    const { data } = await picture().removeAlpha().raw().toBuffer({ resolveWithObject: true });
    const row = 640 * 3;
    const bmp = Buffer.alloc(54 + row * 420);
    bmp.write("BM");
    bmp.writeUInt32LE(bmp.length, 2);
    bmp.writeUInt32LE(54, 10);
    bmp.writeUInt32LE(40, 14);
    bmp.writeInt32LE(640, 18);
    bmp.writeInt32LE(420, 22);
    bmp.writeUInt16LE(1, 26);
    bmp.writeUInt16LE(24, 28);
    for (let y = 0; y < 420; y++)
      for (let x = 0; x < 640; x++)
        for (let k = 0; k < 3; k++) bmp[54 + (419 - y) * row + 3 * x + k] = data[3 * (y * 640 + x) + 2 - k];
    const r = await decodePicture(bmp, "art.bmp");
    expect([r.width, r.height, r.data[4 * (150 * 640 + 320)] < 40, r.data[3]]).toEqual([640, 420, true, 255]);
  });
  it("folders are made as needed", async () => {
    await mkdir(file("deep"), { recursive: true });
    expect(
      (await run(file("art.png"), "--out", join(file("deep"), "er", "still"), "--stock", "150x100x12", "--size", "60"))
        .code,
    ).toBe(0);
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

import { mkdtemp, readdir, readFile, writeFile, mkdir } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import { readProgram } from "@oaken/core/output/gcode/reader";
import { decodePicture } from "@oaken/files/decode";
import { check } from "./check.ts";
import { make } from "./make.ts";
import type { LooseJob } from "@oaken/core/testing/loose";
import { outline } from "./outline.ts";

let dir = "";
const art =
  `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="420"><rect width="640" height="420" fill="#fff"/>` +
  `<path d="M120 360L320 60L520 360Z" fill="#111"/><circle cx="320" cy="260" r="46" fill="#fff"/></svg>`;
const picture = () => sharp(Buffer.from(art)).blur(0.7);
const file = (name: string) => join(dir, name);
const run = async (...args: string[]) => {
  const said: string[] = [];
  const code = await make(args, (l) => said.push(l));
  return { code, said: said.join("\n") };
};

beforeAll(async () => {
  dir = await mkdtemp(join(tmpdir(), "oaken-"));
  await writeFile(file("art.png"), await picture().png().toBuffer());
});

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

describe("bad input: one sentence each", () => {
  const cases: [string, string[], RegExp][] = [
    ["no picture", [], /Name one picture/],
    ["no file", ["/nowhere/x.png"], /cannot be opened/],
    ["zero size", ["art.png", "--size", "0"], /above 0/],
    ["negative size", ["art.png", "--size=-5"], /above 0/],
    ["absurd size", ["art.png", "--size", "9km"], /not a length/],
    ["huge size", ["art.png", "--size", "1e9"], /not a length|up to/],
    ["V of 0°", ["art.png", "--cutter", "v:0:10"], /between 1° and 179°/],
    ["V of 180°", ["art.png", "--cutter", "v:180:10"], /between 1° and 179°/],
    ["stock of two", ["art.png", "--stock", "100x100"], /width x height x thickness/],
    ["unknown outcome", ["art.png", "--as", "statue"], /cannot become "statue"/],
    ["unknown material", ["art.png", "--material", "cheese"], /No material "cheese"/],
    ["unknown dialect", ["art.png", "--dialect", "esperanto"], /No dialect/],
    ["unknown zero", ["art.png", "--zero", "middle"], /not a work zero/],
    ["unknown option", ["art.png", "--nonsense"], /nonsense/],
    ["unknown setting", ["art.png", "--set", "carve.colour=red"], /has no "colour"/],
    ["ink out of range", ["art.png", "--ink", "1.5"], /more than the most/],
    ["a flat cutter for a carve", ["art.png", "--cutter", "flat:3"], /needs a v, taper or ball cutter/],
  ];
  for (const [name, args, says] of cases)
    it(name, async () => {
      await expect(run(...args.map((a) => (a === "art.png" ? file(a) : a)), "--out", file("bad"))).rejects.toThrow(
        says,
      );
      expect(await readdir(file("bad")).catch(() => [])).toEqual([]);
    });

  const pictures: [string, () => Promise<Buffer> | Buffer, RegExp][] = [
    ["empty", () => Buffer.alloc(0), /is empty/],
    ["text named png", () => Buffer.from("hello, I am text"), /not a picture/],
    ["truncated JPEG", async () => (await picture().jpeg().toBuffer()).subarray(0, 4000), /damaged or cut short/],
    [
      "168 megapixels",
      () =>
        sharp({ create: { width: 14000, height: 12000, channels: 3, background: "#fff" } })
          .png()
          .toBuffer(),
      /168 megapixels/,
    ],
    [
      "30,000 × 2",
      () =>
        sharp({ create: { width: 30000, height: 2, channels: 3, background: "#000" } })
          .png()
          .toBuffer(),
      /30000 × 2 pixels/,
    ],
    [
      "all white",
      () =>
        sharp({ create: { width: 300, height: 200, channels: 3, background: "#fff" } })
          .png()
          .toBuffer(),
      /all white/,
    ],
    [
      "all black",
      () =>
        sharp({ create: { width: 300, height: 200, channels: 3, background: "#000" } })
          .png()
          .toBuffer(),
      /all black/,
    ],
    [
      "transparent",
      () =>
        sharp({ create: { width: 300, height: 200, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } })
          .png()
          .toBuffer(),
      /wholly transparent/,
    ],
  ];
  for (const [name, bytes, says] of pictures)
    it(`picture: ${name}`, async () => {
      await writeFile(file("bad.png"), await bytes());
      await expect(run(file("bad.png"), "--as", "sign", "--out", file("bad"))).rejects.toThrow(says);
    });

  const jobs: [string, (j: LooseJob) => void, RegExp][] = [
    ["newer", (j) => (j.version = 7), /newer version/],
    ["unknown kinds", (j) => (j.nodes[1].kind = "dream"), /"dream"/],
    ["without its picture", (j) => (j.assets = {}), /does not hold its picture/],
    ["with a changed picture", (j) => (Object.values(j.assets)[0].base64 = "AAAA"), /is damaged/],
  ];
  for (const [name, edit, says] of jobs)
    it(`job file: ${name}`, async () => {
      const j = JSON.parse(await readFile(join(file("a"), "job.json"), "utf8"));
      edit(j);
      await writeFile(file("bad.json"), JSON.stringify(j));
      await expect(run(file("bad.json"), "--out", file("bad"))).rejects.toThrow(says);
    });

  it("a folder that cannot be made", async () => {
    await writeFile(file("wall"), "x");
    await expect(
      run(file("art.png"), "--out", join(file("wall"), "in"), "--stock", "150x100x12", "--size", "60"),
    ).rejects.toThrow(/could not be written/);
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

describe("oaken check", () => {
  const program = async (name: string, lines: string) => {
    await writeFile(file(name), lines);
    return file(name);
  };
  const say = async (...args: string[]) => {
    const said: string[] = [];
    const code = await check([...args, "--json"], (l) => said.push(l));
    return { code, ...JSON.parse(said[0]) };
  };
  it("finds a rapid through stock, a cut too deep and a plunge, with their places", async () => {
    const p = await program("rapid.nc", "G21 G90\nG0 Z5\nG0 X10 Y10\nG1 Z-2 F300\nG0 X40 Y10\nG0 Z5\nM30\n");
    const r = await say(p, "--stock", "60x40x10", "--cutter", "flat10");
    expect(r).toMatchObject({ code: 3, rapidsThroughStock: 1, plungesWithoutCentre: 1, depth: 2, throughStock: false });
    expect(r.places[0]).toMatchObject({ what: "rapid through stock", x: 40, y: 10 });
    const deep = await program("deep.nc", "G21 G90\nG0 Z5\nG0 X10 Y10\nG1 Z-15 F300\nG1 X20 F500\nG0 Z5\nM30\n");
    expect(await say(deep, "--stock", "60x40x10", "--cutter", "flat3")).toMatchObject({
      code: 3,
      movesDeeperThanFlutes: 2,
      throughStock: true,
    });
  });
  it("changes cutters with the program, takes its zero from where it is said to be, and reads inches", async () => {
    const p = await program(
      "two.nc",
      "G20 G90\nT1 M6\nM3 S9000\nG0 Z0.5\nG0 X-1 Y-0.5\nG1 Z-0.1 F10\nG1 X1 F20\nG0 Z0.5\nT2 M6\nG0 X0 " +
        "Y0.5\nG1 Z-0.2\nG0 Z0.5\nM30\n",
    );
    const r = await say(
      p,
      "--stock",
      "100x60x10",
      "--cutter",
      "flat:6",
      "--cutter",
      "v:60:12",
      "--zero",
      "centre-centre-top",
    );
    expect(r).toMatchObject({ code: 0, unit: "in", depth: 5.08 });
    expect(r.bounds.minX).toBeCloseTo(50 - 25.4, 3);
    await expect(check([p, "--stock", "100x60x10", "--cutter", "flat:6"], () => {})).rejects.toThrow(
      /changes to tool 2, but only 1 cutter was named/,
    );
  });
  it("finds what lies between the ends of moves, and what does nothing or turns nothing", async () => {
    const stock = ["--stock", "100x60x10", "--cutter", "flat:6"];
    const run = async (text: string): Promise<{ code: number; said: string }> => {
      await writeFile(file("odd.nc"), text);
      const lines: string[] = [];
      const code = await check([file("odd.nc"), ...stock], (l) => lines.push(l));
      return { code, said: lines.join("\n") };
    };
    const head = "G21 G90 M3 S9000 F600\nG0 Z5\nG0 X10 Y50\nG1 Z-1\n";
    // Both ends of the half round lie on the stock, its middle 10 mm beyond the far edge.
    expect((await run(`${head}G2 X50 Y50 I20 J0\nG0 Z5\nM30`)).said).toMatch(/1 moves? cut beyond the stock's edge/);
    expect((await run(`${head}G1 X50\nG0 Z5\nM30`)).said).toMatch(/Nothing wrong/);
    expect(await run("G21 G90\nG0 Z5\nM30")).toMatchObject({ code: 3, said: expect.stringMatching(/cuts nothing/) });
    expect(await run("")).toMatchObject({ code: 3 });
    expect(await run(head.replace("M3 S9000", "") + "G1 X50\nG0 Z5\nM30")).toMatchObject({
      code: 3,
      said: expect.stringMatching(/spindle stands still/),
    });
    expect((await run(`${head}G55\nG1 X50\nG0 Z5\nM30`)).said).toMatch(/offset G55/);
  });

  it("answers what cannot be read with the line", async () => {
    const p = await program("odd.nc", "G21\nG0 Z5\nHELLO\n");
    await expect(check([p, "--stock", "60x40x10", "--cutter", "flat3"], () => {})).rejects.toThrow(
      /Line 3 of the program/,
    );
    await expect(check([file("nowhere.nc"), "--stock", "60x40x10", "--cutter", "flat3"], () => {})).rejects.toThrow(
      /cannot be opened/,
    );
    await expect(check([p, "--cutter", "flat3"], () => {})).rejects.toThrow(/oaken check PROGRAM/);
  });
});

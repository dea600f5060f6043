import { mkdtemp, readdir, readFile, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import { lightOf } from "@oaken/core/colour";
import { make } from "./make.ts";
import { program, type Step } from "./testing/program.ts";

let dir: string;
const file = (name: string) => join(dir, name);
const run = (out: string, ...args: string[]) => make([...args, "--out", file(out)], () => {});
const report = async (name: string) => JSON.parse(await readFile(join(file(name), "report.json"), "utf8"));

const [W, H] = [300, 200];
/** A 16-bit ramp from left to right. */
const ramp = Uint16Array.from({ length: W * H }, (_, k) => Math.round((65535 * ((k % W) + 0.5)) / W));

beforeAll(async () => {
  dir = await mkdtemp(join(tmpdir(), "oaken-surfaces-"));
  const grey16 = sharp(ramp, { raw: { width: W, height: H, channels: 1 } }).toColourspace("grey16");
  await writeFile(file("ramp.png"), await grey16.png().toBuffer());
  const wedge = Uint8Array.from({ length: W * H }, (_, k) => 51 * Math.floor(((k % W) * 6) / W));
  await writeFile(
    file("wedge.png"),
    await sharp(wedge, { raw: { width: W, height: H, channels: 1 } })
      .png()
      .toBuffer(),
  );
});

describe("height maps and solids on the command line", () => {
  it("--map: a 16-bit ramp keeps its steps, and comes out as an even slope", async () => {
    expect(
      await run("map", file("ramp.png"), "--as", "relief", "--map", "--stock", "75x50x12", "--set", "stock.margin=0",
        "--depth", "6", "--cutter", "ball:4", "--rough", "none", "--stepover", "1"), // prettier-ignore
    ).toBe(0);
    const { data, info } = await sharp(join(file("map"), "height.png"))
      .toColourspace("grey16")
      .raw({ depth: "ushort" })
      .toBuffer({ resolveWithObject: true });
    const greys = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
    const row = Array.from({ length: info.width }, (_, i) => greys[(100 * info.width + i) * info.channels]);
    // 6 mm of 12 over 300 samples: half of 65,535, each step like the next to within one.
    for (let i = 1; i < row.length; i++) expect(Math.abs(row[i] - row[i - 1] - 65535 / 2 / W)).toBeLessThan(1.5);
    const { height } = await report("map");
    expect(height.low).toBeCloseTo(-6, 1);
  });

  it("--stl writes the wanted surface, which --map takes back in as the same surface", async () => {
    const stock = ["--stock", "75x50x12", "--set", "stock.margin=0", "--cell", "0.5", "--rough", "none"];
    const more = ["--cutter", "ball:4", "--stepover", "2"];
    await run("out", file("ramp.png"), "--as", "relief", "--map", "--depth", "6", "--stl", ...stock, ...more);
    expect(await readdir(file("out"))).toContain("surface.stl");
    await run(
      "back",
      join(file("out"), "surface.stl"),
      "--as",
      "relief",
      "--map",
      "--depth",
      "12",
      ...stock,
      ...more,
      "--force",
    );
    const { height, findings } = await report("back");
    // 12 mm is all of the solid, its base with it: from the ramp's top to the underside.
    expect(height.high).toBeCloseTo(0, 2);
    const map = sharp(join(file("back"), "height.png"))
      .toColourspace("grey16")
      .raw({ depth: "ushort" });
    const { data, info } = await map.toBuffer({ resolveWithObject: true });
    const greys = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
    for (const share of [0.1, 0.5, 0.9]) {
      const grey = greys[(Math.floor(info.height / 2) * info.width + Math.floor(share * info.width)) * info.channels];
      // z = −12·(1 − grey); wanted −6·(1 − share), in proportion to what was highest.
      expect(-12 * (1 - grey / 65535)).toBeCloseTo(-6 * (1 - share), 0);
    }
    expect(findings.map((f: { code: string }) => f.code)).not.toContain("solid-left-out");
  });

  it("a solid with an undercut says so: solid-left-out", async () => {
    // A table: a plate on a narrower block, each a box of twelve triangles.
    const box = (x: number, y: number, z: number, w: number, d: number, h: number): string => {
      const c = (k: number) => `vertex ${x + (k & 1 ? w : 0)} ${y + (k & 2 ? d : 0)} ${z + (k & 4 ? h : 0)}`;
      const sides = ["0231", "4576", "0154", "2673", "0462", "1375"].map((s) => [...s].map(Number));
      return sides
        .flatMap(([a, b, e, f]) => [
          [a, b, e],
          [a, e, f],
        ]) // prettier-ignore
        .map((t) => `facet normal 0 0 0\nouter loop\n${t.map(c).join("\n")}\nendloop\nendfacet\n`)
        .join("");
    };
    const table = `solid table\n${box(10, 10, 0, 20, 10, 5)}${box(0, 0, 5, 40, 30, 3)}endsolid\n`;
    await writeFile(file("table.stl"), table);
    await run("table", file("table.stl"), "--as", "relief", "--map", "--stock", "60x50x15", "--cell", "0.5");
    const { findings } = await report("table");
    expect(findings.find((f: { code: string }) => f.code === "solid-left-out").message).toMatch(/undercuts/);
  });

  it("a damaged solid, and one where a picture is wanted, get one sentence", async () => {
    await writeFile(file("bad.stl"), "solid nothing\nfacet\nendsolid\n");
    await expect(run("bad", file("bad.stl"), "--as", "relief", "--map")).rejects.toThrow(/no triangle/);
    await expect(run("bad", file("table.stl"), "--as", "sign")).rejects.toThrow(/Use a picture/);
  });
});

/** The share that a program bares of a square under a coat, by discs stamped along every move: no planner's code. */
function bared(steps: Step[], slope: number, coat: number, x0: number, y0: number, size: number): number {
  const cell = 0.03;
  const n = Math.round(size / cell);
  const bare = new Uint8Array(n * n);
  const stamp = (x: number, y: number, z: number): void => {
    const r = (-z - coat) * slope;
    if (r <= 0) return;
    const from = (v: number) => Math.max(0, Math.ceil((v - r) / cell - 0.5));
    const to = (v: number) => Math.min(n - 1, Math.floor((v + r) / cell - 0.5));
    for (let j = from(y - y0); j <= to(y - y0); j++)
      for (let i = from(x - x0); i <= to(x - x0); i++)
        if (Math.hypot(x0 + (i + 0.5) * cell - x, y0 + (j + 0.5) * cell - y) <= r) bare[j * n + i] = 1;
  };
  for (const { rapid, from, to } of steps) {
    if (rapid) continue;
    const parts = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / 0.03));
    for (let q = 0; q <= parts; q++) {
      const at = (a: number, b: number) => a + ((b - a) * q) / parts;
      stamp(at(from.x, to.x), at(from.y, to.y), at(from.z, to.z));
    }
  }
  return bare.reduce((sum, v) => sum + v, 0) / bare.length;
}

describe("shaded lines on the command line", () => {
  for (const shape of ["lines", "dots", "rings"])
    it(`--shape ${shape}: the program bares what the report says of each step of a wedge`, async () => {
      const out = `shaded-${shape}`;
      const args = ["--as", "lines", "--shape", shape, "--stock", "66x46x12", "--paint", "#102030:0.2"];
      expect(await run(out, file("wedge.png"), ...args, "--cutter", "v:60:6", "--cell", "0.2")).toBe(0);
      const { lines, artwork, cuts } = await report(out);
      expect(lines.most - lines.least).toBeGreaterThan(0.5);
      const steps = program(await readFile(join(file(out), cuts[0].program), "utf8"));
      const slope = Math.tan(Math.PI / 6);
      for (let step = 0; step < 6; step++) {
        const x0 = artwork.x + ((step + 0.5) / 6) * artwork.width - 2.5;
        const share = bared(steps, slope, 0.2, x0, artwork.y + artwork.height / 2 - 2.5, 5);
        const wanted = lines.least + (lines.most - lines.least) * lightOf((51 * step) / 255);
        expect(Math.abs(share - wanted), `step ${step}: ${share} for ${wanted}`).toBeLessThan(0.03);
      }
      expect(await readdir(file(out))).toContain("arms-length.png");
    });

  it("refuses paint that is none, and a shape that there is not", async () => {
    const args = [file("wedge.png"), "--as", "lines"];
    await expect(run("no", ...args, "--paint", "black:0.1")).rejects.toThrow(/--paint/);
    await expect(run("no", ...args, "--paint", "#000000:9")).rejects.toThrow(/--paint/);
    await expect(run("no", ...args, "--shape", "stars")).rejects.toThrow(/Lines/);
  });
});

import { readdir, readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import type { LooseJob } from "@oaken/core/testing/loose";
import { folderWithArt, picture } from "./testing/folder.ts";

const { file, run } = await folderWithArt();
// A job file to damage.
await run(file("art.png"), "--as", "sign", "--out", file("a"));

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
    ["unknown option", ["art.png", "--nonsense"], /^Unknown option '--nonsense'. "oaken make --help" lists .*\.$/],
    ["unknown setting", ["art.png", "--set", "carve.colour=red"], /has no "colour"/],
    ["ink out of range", ["art.png", "--ink", "1.5"], /more than the most/],
    ["a flat cutter for a carve", ["art.png", "--cutter", "flat:3"], /needs a v, taper, ball or form cutter/],
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
    ["unknown kinds", (j) => (j.makings[1].kind = "dream"), /"dream"/],
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

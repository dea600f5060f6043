import { readFile, mkdir } from "node:fs/promises";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { decodePicture } from "@oaken/files/decode";
import { art, folderWithArt, picture } from "./testing/folder.ts";

const { file, run } = await folderWithArt();

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

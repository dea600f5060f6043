import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { greyTiff } from "@oaken/core/output/tiff";
import { seeded } from "@oaken/core/testing/random";
import { decodePicture } from "./decode.ts";

describe("height maps as TIFF", () => {
  it("are read back sample for sample, with their size, by a library that shares nothing with the writer", async () => {
    for (let seed = 1; seed <= 8; seed++) {
      const random = seeded(seed);
      const [width, height] = [16 + Math.floor(90 * random()), 16 + Math.floor(70 * random())];
      const data = Uint16Array.from({ length: width * height }, () => Math.floor(65536 * random()));
      const cell = 0.05 + random();
      const bytes = greyTiff({ width, height, data }, cell);
      const info = await sharp(bytes).metadata();
      expect([info.width, info.height, info.depth, info.channels]).toEqual([width, height, "ushort", 1]);
      // The library tells density in samples an inch.
      expect(Math.abs(info.density! / (25.4 / cell) - 1)).toBeLessThan(0.02 + cell / 25.4);
      const { data: raw } = await sharp(bytes)
        .toColourspace("grey16")
        .raw({ depth: "ushort" })
        .toBuffer({ resolveWithObject: true });
      const back = new Uint16Array(raw.buffer, raw.byteOffset, raw.length / 2);
      expect([...back], `seed ${seed}`).toEqual([...data]);
      // And it comes in again as a height map of 16 bits.
      const again = await decodePicture(bytes, "map.tif");
      expect([again.width, again.height, again.data.BYTES_PER_ELEMENT]).toEqual([width, height, 2]);
      for (let i = 0; i < data.length; i++) expect(again.data[4 * i]).toBe(data[i]);
    }
  });
});

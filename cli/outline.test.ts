import { readdir, writeFile } from "node:fs/promises";
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { outline } from "./outline.ts";
import { folderWithArt } from "./testing/folder.ts";

const { file } = await folderWithArt();

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

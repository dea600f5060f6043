import { readdir, writeFile } from "node:fs/promises";
import { describe, expect, it } from "vitest";
import { folderWithArt } from "./testing/folder.ts";

const { file, run } = await folderWithArt();
const page = (inside: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="40mm" viewBox="0 0 80 40">${inside}</svg>`;
await writeFile(file("plate.svg"), page('<rect width="80" height="40" rx="6"/>'));
await writeFile(file("hole.svg"), page('<circle cx="40" cy="20" r="10"/>'));

const reported = async (...args: string[]) => {
  const { code, said } = await run(...args, "--stock", "120x80x6", "--json");
  return { code, report: JSON.parse(said) };
};

describe("drawings from the command line", () => {
  it("--exact: a plate as wide as it was drawn, of four arcs and four lines", async () => {
    const { code, report } = await reported(file("plate.svg"), "--exact", "--as", "cutout", "--out", file("a"));
    expect(code).toBe(0);
    expect(report.picture).toBeNull();
    expect(report.artwork).toEqual({ x: 20, y: 20, width: 80, height: 40 });
    expect(report.outline).toMatchObject({ contours: 1, nodes: 8, arcs: 4, maxDeviation: 0 });
    const sized = await reported(file("plate.svg"), "--exact", "--as", "pocket", "--size", "60", "--out", file("a"));
    expect(sized.report.artwork).toEqual({ x: 30, y: 25, width: 60, height: 30 });
  });

  it("--with and --by: a hole taken out of the plate, and the job file makes the same again", async () => {
    const args = ["--exact", "--with", file("hole.svg"), "--by", "subtract", "--as", "cutout", "--out", file("b")];
    const { report } = await reported(file("plate.svg"), ...args);
    expect(report.outline).toMatchObject({ pieces: 1, holes: 1 });
    const again = await run(file("b/job.json"), "--out", file("c"), "--json");
    expect(JSON.parse(again.said).outline).toEqual(report.outline);
  });

  it("--offset: a traced outline grown by 2 mm on each side", async () => {
    const plain = await reported(file("art.png"), "--as", "pocket", "--art", "60", "--out", file("d"));
    const grown = await reported(file("art.png"), "--as", "pocket", "--art", "60", "--offset", "2", "--out", file("d"));
    const box = (r: { report: { cuts: { facts: { area: number } }[] } }) => r.report.cuts[0].facts.area;
    expect(box(grown)).toBeGreaterThan(box(plain) + 2 * 60);
  });

  it("takes away what the last run wrote and this one does not, and nothing else", async () => {
    await run(file("plate.svg"), "--exact", "--as", "sign", "--stock", "120x80x6", "--out", file("e"));
    await writeFile(file("e/99-mine.nc"), "G0 X0");
    const before = (await readdir(file("e"))).filter((n) => n.endsWith(".nc"));
    await run(file("plate.svg"), "--exact", "--as", "cutout", "--stock", "120x80x6", "--out", file("e"));
    const after = (await readdir(file("e"))).filter((n) => n.endsWith(".nc"));
    expect(before.length).toBe(3);
    expect(after).toContain("99-mine.nc");
    expect(after.filter((n) => before.includes(n))).toEqual(["99-mine.nc"]);
  });

  it("--text: words alone are carved, as high as they are told, and the job file makes the same again", async () => {
    const args = ["--text", "HE\\nEH", "--capitals", "10", "--set", "lettering.pitch=16", "--as", "sign"];
    const { code, report } = await reported(...args, "--out", file("g"));
    expect(code).toBe(0);
    expect(report.picture).toBeNull();
    expect(report.artwork.height).toBeCloseTo(26, 3);
    expect(report.outline.pieces).toBe(4);
    const again = await run(file("g/job.json"), "--out", file("h"), "--json");
    expect(JSON.parse(again.said).outline).toEqual(report.outline);
  });

  it("--text beside a drawing: carved of both, and not cut out with it", async () => {
    const beside = async (as: string, out: string) =>
      (await reported(file("hole.svg"), "--exact", "--text", "below", "--as", as, "--out", file(out))).report;
    expect((await beside("sign", "i")).outline.contours).toBeGreaterThan(6);
    expect((await beside("cutout", "j")).outline.contours).toBe(1);
  });

  it("says what cannot be taken", async () => {
    await expect(run("--text", "Ada", "--as", "relief", "--out", file("f"))).rejects.toThrow(/made from a height/);
    await expect(run(file("art.png"), "--text", "Ada", "--as", "relief", "--out", file("f"))).rejects.toThrow(
      /words are shapes/,
    );
    const out = ["--out", file("f")];
    await expect(run(file("art.png"), "--exact", ...out)).rejects.toThrow(/not an SVG drawing/);
    await expect(run(file("plate.svg"), "--with", file("art.png"), ...out)).rejects.toThrow(/not an SVG drawing/);
    await expect(run(file("plate.svg"), "--exact", "--offset", "-90", ...out)).rejects.toThrow(/Offset less/);
    await expect(run(file("plate.svg"), "--by", "xor", "--with", file("hole.svg"), ...out)).rejects.toThrow(
      /not one of/,
    );
  });
});

import { readFileSync, writeFileSync } from "node:fs";
import { readdir, readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { PDFDocument } from "pdf-lib";
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import { DIALECTS } from "@oaken/core/shop/first/dialects";
import { FIRST_SHOP } from "@oaken/core/shop/first/shop";
import { partNamed } from "@oaken/core/shop/parts";
import { writeCsv } from "@oaken/core/shop/table";
import { make } from "./make.ts";
import { folderWithArt } from "./testing/folder.ts";
import { program } from "./testing/program.ts";

let on: Awaited<ReturnType<typeof folderWithArt>>;
beforeAll(async () => {
  on = await folderWithArt();
});
const board = ["--as", "sign", "--size", "80", "--stock", "100x70x18", "--clear", "none", "--cell", "0.5"];
const run = (out: string, ...args: string[]) => on.run(on.file("art.png"), ...board, "--out", on.file(out), ...args);
const text = (out: string, name: string) => readFile(join(on.file(out), name), "utf8");
const report = async (out: string) => JSON.parse(await text(out, "report.json"));

describe("programs and papers", () => {
  it("are named by the pattern, for a person and a class, and say whose they are", async () => {
    const whose = ["--person", "../Zoë (Łódź)", "--class", "7 b"];
    await run("named", "--pattern", "{class}-{person}-{cut}", ...whose, "--sheet");
    const names = await readdir(on.file("named"));
    expect(names).toContain("7-b-..-zoe-lodz-carve.nc");
    const nc = await text("named", "7-b-..-zoe-lodz-carve.nc");
    expect(nc).toMatch(/^\(for: \.\.\/Zoe Lodz, 7 b\)$/m);
    expect(nc).toMatch(/^\(stock: 100 x 70 x 18 mm Ash\)$/m);
    expect(nc).toMatch(/^\(code: [0-9A-Z]{6}\)$/m);
    expect((await report("named")).files).toContain("sheet.pdf");
    const pdf = await PDFDocument.load(await readFile(join(on.file("named"), "sheet.pdf")));
    expect(pdf.getPageCount()).toBe(1);
    expect(pdf.getTitle()).toBe("art, setup sheet");
  });
  it("the frame goes round all that is cut, above everything, with the spindle off", async () => {
    await run("frame", "--frame", "stops", "--clamp", "0,60,10,10,14");
    const name = (await readdir(on.file("frame"))).find((n) => n.includes("frame"))!;
    expect(name).toMatch(/^00-/);
    const nc = await text("frame", name);
    expect(nc).not.toMatch(/^M[34]\b/m);
    expect(nc.match(/^M0$/gm)).toHaveLength(5);
    const round = program(nc).filter((s) => s.from.x !== s.to.x || s.from.y !== s.to.y);
    for (const s of round.slice(1)) expect(s.to.z).toBeGreaterThan(14);
    const cutting = (await readdir(on.file("frame"))).find((n) => n.startsWith("01-"))!;
    const steps = program(await text("frame", cutting)).filter((s) => !s.rapid);
    for (const axis of ["x", "y"] as const)
      for (const end of [Math.min, Math.max])
        expect(end(...round.map((s) => s.to[axis]))).toBeCloseTo(end(...steps.map((s) => s.to[axis])), 1);
  });
  it("a frame by itself goes through, wherever the option stands", async () => {
    await run("through", "--frame", "--json");
    const name = (await readdir(on.file("through"))).find((n) => n.includes("frame"))!;
    expect(await text("through", name)).not.toMatch(/^M0$/m);
  });
  it("a clamp in the way stops, one beside it is passed over", async () => {
    const hit = await run("hit", "--clamp", "40,30,20,10,12");
    expect(hit.code).toBe(3);
    expect(hit.said).toMatch(/stop: Carve would run into clamp 1, 12 mm tall/);
    expect((await run("past", "--clamp", "0,0,8,8,12")).code).toBe(0);
    const nc = (await readdir(on.file("past"))).find((n) => n.endsWith(".nc"))!;
    const rapids = program(await text("past", nc)).filter((s) => s.rapid && s.from.x !== s.to.x);
    for (const s of rapids.slice(1)) expect(Math.min(s.from.z, s.to.z)).toBeGreaterThan(12);
  });
  it("the report tells what each cut runs at, with its reasons", async () => {
    await run("feeds", "--machine", "bench-router");
    const [cut] = (await report("feeds")).cuts;
    expect(cut.feeds.feed).toBeGreaterThan(1400);
    expect(Object.keys(cut.feeds.reasons)).toEqual(["feed", "plunge", "spindle", "stepdown"]);
    for (const reason of Object.values(cut.feeds.reasons)) expect(reason).toMatch(/\w/);
  });
  it("a machine brings the dialect that it reads; a dialect may be a file of its own", async () => {
    await run("machine", "--machine", "sheet-router");
    const [name] = (await readdir(on.file("machine"))).filter((n) => n.endsWith(".nc"));
    expect(await text("machine", name)).toMatch(/^T1 M6$/m);
    const own = { ...DIALECTS[0], id: "mine", name: "Mine", comments: "semicolon", extension: "tap", begin: "M8" };
    await writeFile(on.file("mine.json"), JSON.stringify(own));
    await run("dialect", "--dialect", on.file("mine.json"));
    const [tap] = (await readdir(on.file("dialect"))).filter((n) => n.endsWith(".tap"));
    expect(await text("dialect", tap)).toMatch(/^; job: art\n[\s\S]*\nM8\n/);
  });
  it("cutters may come from the workshop's own rack", async () => {
    const rack = [{ ...FIRST_SHOP.cutters[0], id: "mine", name: "My V", angle: 90, fluteLength: 6 }];
    await writeFile(on.file("rack.csv"), writeCsv(partNamed("cutters"), rack as never));
    await run("rack", "--rack", on.file("rack.csv"), "--cutter", "mine");
    expect((await report("rack")).cuts[0].cutter.angle).toBe(90);
  });
  for (const [what, args, says] of [
    ["an unknown machine", ["--machine", "loom"], /No machine "loom"/],
    ["an unknown name in a pattern", ["--pattern", "{colour}"], /\{colour\} is not known/],
    ["a frame that is neither", ["--frame=round"], /write through, or stops/],
    ["a clamp without a height", ["--clamp", "1,2,3,4"], /write X,Y,W,H,Z/],
    ["a dialect file that is not there", ["--dialect", "/nowhere.json"], /cannot be opened/],
    ["a person's name of 300 letters", ["--person", "x".repeat(300)], /person/],
  ] as [string, string[], RegExp][])
    it(`${what} is refused with a sentence`, async () => {
      const made = make([on.file("art.png"), ...board, "--out", on.file("no"), ...args], () => {});
      await expect(made).rejects.toThrow(says);
    });
});

describe("a piece from a starting job", () => {
  beforeAll(async () => {
    await run("start");
    const job = JSON.parse(await text("start", "job.json"));
    await writeFile(on.file("plain.json"), JSON.stringify(job));
    job.name = "Label";
    job.start = { open: ["picture", "size"], least: 40, most: 90 };
    await writeFile(on.file("start.json"), JSON.stringify(job));
    const dark = { width: 300, height: 200, channels: 3 as const, background: "#ffffff" };
    const bar = await sharp({ create: { width: 200, height: 60, channels: 3, background: "#000000" } })
      .png()
      .toBuffer();
    await writeFile(
      on.file("own.png"),
      await sharp({ create: dark })
        .composite([{ input: bar }])
        .png()
        .toBuffer(),
    );
  });
  const begin = (out: string, ...args: string[]) =>
    make([on.file("start.json"), on.file("own.png"), "--out", on.file(out), ...args], () => {});
  it("takes the person's picture and name, and keeps the rest", async () => {
    expect(await begin("ada", "--person", "Ada", "--class", "4b", "--size", "70")).toBe(0);
    const r = await report("ada");
    expect([r.name, r.picture.width, r.stock.width]).toEqual(["Label, Ada", 300, 100]);
    const [nc] = (await readdir(on.file("ada"))).filter((n) => n.endsWith(".nc"));
    expect(await text("ada", nc)).toMatch(/^\(for: Ada, 4b\)$/m);
    const job = JSON.parse(await text("ada", "job.json"));
    expect([job.start, job.begun.name, Object.keys(job.assets).length]).toEqual([undefined, "Label", 1]);
  });
  it("refuses what is locked, and a size beyond the limits, each in a sentence", async () => {
    await expect(begin("no", "--stock", "50x50x10")).rejects.toThrow(/"Label" locks the stock/);
    await expect(begin("no", "--depth", "9")).rejects.toThrow(/locks the cuts/);
    await expect(begin("no", "--size", "95")).rejects.toThrow(/95 mm wide.*allows 40 to 90 mm/);
  });
  it("puts words into lettering that is open, and refuses them where it is locked or there is none", async () => {
    const words = (open: string[], ...args: string[]) => {
      const job = JSON.parse(readFileSync(on.file("words/job.json"), "utf8"));
      job.start = { open };
      writeFileSync(on.file("words.json"), JSON.stringify(job));
      return make([on.file("words.json"), on.file("own.png"), "--out", on.file("named"), ...args], () => {});
    };
    expect(await make([on.file("own.png"), "--text", "Name", "--out", on.file("words")], () => {})).toBe(0);
    expect(await words(["picture", "text"], "--person", "Ada", "--text", "Ada\\nLovelace")).toBe(0);
    const job = JSON.parse(await text("named", "job.json"));
    expect(job.makings.find((m: { kind: string }) => m.kind === "lettering").settings.text).toBe("Ada\nLovelace");
    await expect(words(["picture"], "--person", "Ada", "--text", "Ada")).rejects.toThrow(
      /locks what the piece is made/,
    );
    await expect(begin("no", "--text", "Ada")).rejects.toThrow(/no lettering/);
  });
  it("a job that is no starting job takes no other picture", async () => {
    const plain = make([on.file("plain.json"), on.file("own.png"), "--out", on.file("no")], () => {});
    await expect(plain).rejects.toThrow(/not a starting job/);
    const twice = make([on.file("own.png"), on.file("own.png"), "--out", on.file("no")], () => {});
    await expect(twice).rejects.toThrow(/is a picture/);
  });
});

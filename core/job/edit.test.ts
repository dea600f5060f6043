import { shapesOf } from "../inspect/products.ts";
import { built } from "../testing/building.ts";
import { describe, expect, it } from "vitest";
import { inspect } from "../inspect/inspect.ts";
import type { Raster } from "../picture/raster.ts";
import { writePrograms } from "../output/gcode/writer.ts";
import { stopWords, zeroPoint } from "./document.ts";
import { addCut, addHelper, addOutline, addPicture, duplicateCut, moveCut, removeCut, removeMaking } from "./edit.ts";
import { checkBoard } from "./schema.ts";
import { SHOP, begun, cutterNamed, cutterOf, dialectNamed } from "../testing/shop.ts";

/** A picture of a dark red square beside a dark blue disc on white, 400 × 200. */
function twoColours(): Raster {
  const [width, height] = [400, 200];
  const data = new Uint8Array(4 * width * height).fill(255);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const square = Math.abs(x - 100) < 60 && Math.abs(y - 100) < 60;
      const disc = Math.hypot(x - 300, y - 100) < 60;
      if (square || disc) data.set(square ? [150, 20, 20] : [20, 20, 150], 4 * (y * width + x));
    }
  return { width, height, data };
}
const raster = twoColours();
const asset = { sha: "b".repeat(64), name: "two.png", width: 400, height: 200 };
const start = (outcome = "pocket") => begun(outcome, asset, { width: 120, height: 70, thickness: 12 });
const build = (job: ReturnType<typeof start>) => built(checkBoard(job), raster, { cells: 60_000 });
const codes = (job: ReturnType<typeof start>) => inspect({ build: build(job) }).map((f) => f.code);
const middle = (b: ReturnType<typeof build>, i: number): number => {
  const { x } = b.cuts[i].toolpath;
  return x.reduce((s, v) => s + v, 0) / x.length;
};

it("a border does not become the art when the art is taken out", () => {
  const job = start("sign");
  const border = addOutline(job, "outline", { ink: 0.8 });
  job.cuts[0].reads = { art: "outline", border };
  removeMaking(job, "outline");
  expect(job.cuts[0].reads).toEqual({ border });
  job.cuts[0].reads = { art: border, border: "gone" };
  removeMaking(job, "nothing");
  expect(job.cuts[0].reads).toEqual({ art: border });
});

describe("several outlines in one job", () => {
  it("each colour as its own shape, cut by its own cut", () => {
    const job = start();
    job.makings[2].settings = { trace: "colours", colours: 3, keep: "#961414" };
    const blue = addOutline(job, "outline", { keep: "#141496" }, "Blue");
    const id = addCut(job, "pocket", blue, SHOP.cutters);
    const b = build(job);
    expect(shapesOf(b).map((m) => m.making.id)).toEqual(["outline", blue]);
    expect(job.cuts.find((c) => c.id === id)!.reads).toEqual({ art: blue });
    expect(middle(b, 0)).toBeLessThan(50);
    expect(middle(b, 1)).toBeGreaterThan(70);
  });

  it("an outline taken out leaves its cut without a shape, with one clear finding and its settings kept", () => {
    const job = start();
    const second = addOutline(job, "outline");
    addCut(job, "pocket", second, SHOP.cutters);
    job.cuts[1].settings.depth = 1.5;
    removeMaking(job, second);
    expect(job.cuts[1]).toMatchObject({ reads: {}, settings: { depth: 1.5 } });
    expect(inspect({ build: build(job) }).filter((f) => f.code === "no-shape")).toHaveLength(1);
    expect(build(job).cuts[0].toolpath.kind.length).toBeGreaterThan(10);
  });

  it("another picture brings its own tone and outline, and goes with its outline", () => {
    const job = start();
    const outline = addPicture(job, { ...asset, sha: "c".repeat(64), name: "other.png" });
    expect(checkBoard(job).makings.map((n) => n.id)).toEqual([
      "picture",
      "tone",
      "outline",
      "picture-2",
      "tone-2",
      outline,
    ]);
    removeMaking(job, outline);
    expect(job.makings.map((n) => n.id)).toEqual(["picture", "tone", "outline"]);
  });
});

describe("a carve that stands inside another outline", () => {
  /** A grey plate with a dark disc on it: two levels of ink, one inside the other. */
  const plate: Raster = { width: 300, height: 200, data: new Uint8Array(4 * 300 * 200).fill(255) };
  for (let y = 0; y < 200; y++)
    for (let x = 0; x < 300; x++)
      if (Math.abs(x - 150) < 120 && Math.abs(y - 100) < 80)
        plate.data.fill(Math.hypot(x - 150, y - 100) < 40 ? 20 : 150, 4 * (y * 300 + x), 4 * (y * 300 + x) + 3);
  const job = () => {
    const j = begun("raised", { ...asset, width: 300, height: 200 }, { width: 120, height: 80, thickness: 12 });
    j.makings[2].settings.ink = 0.3;
    j.cuts[0].reads.border = addOutline(j, "outline", { ink: 0.8 });
    j.cuts[0].settings = { side: "stands", border: "shape", floor: 1.5 };
    return j;
  };
  const carved = (j: ReturnType<typeof job>) => built(checkBoard(j), plate, { cells: 60_000 });
  it("carves between the two, and nothing else", () => {
    const b = carved(job());
    const z = (x: number, y: number) =>
      b.proof.z[Math.floor(y / b.proof.cell) * b.proof.width + Math.floor(x / b.proof.cell)];
    expect(inspect({ build: b }).filter((f) => f.severity === "stop")).toEqual([]);
    expect(z(60, 40)).toBe(0);
    expect(z(60, 60)).toBeCloseTo(-1.5, 1);
    expect(z(8, 40)).toBe(0);
  });
  it("says so when the border does not hold the ink, or is none", () => {
    const swapped = job();
    const { art, border } = swapped.cuts[0].reads;
    swapped.cuts[0].reads = { art: border, border: art };
    expect(inspect({ build: carved(swapped) }).map((f) => f.code)).toContain("ink-outside-border");
    const none = job();
    delete none.cuts[0].reads.border;
    expect(inspect({ build: carved(none) }).map((f) => f.code)).toContain("ink-outside-border");
  });
});

describe("the machining order", () => {
  it("moves cuts, and a group as one", () => {
    const job = start();
    for (const k of ["hatch", "engrave", "drill"]) addCut(job, k, "outline", SHOP.cutters);
    const order = () => job.cuts.map((c) => c.kind).join(" ");
    moveCut(job, "drill", 0);
    expect(order()).toBe("drill pocket hatch engrave");
    job.cuts[1].group = job.cuts[2].group = "floor";
    moveCut(job, "hatch", 3);
    expect(order()).toBe("drill engrave pocket hatch");
    moveCut(job, "pocket", 0);
    expect(order()).toBe("pocket hatch drill engrave");
  });

  it("helpers stand where they work, go with their cut, and each takes what the one before left", () => {
    const job = start("sign");
    addHelper(job, job.cuts[0], "clear", cutterNamed("flat6"));
    addHelper(
      job,
      job.cuts.find((c) => c.kind === "vcarve")!,
      "clear",
      cutterNamed("flat2"),
    );
    expect(job.cuts.map((c) => `${c.kind} ${c.cutter.diameter}`)).toEqual(["clear 6", "clear 2", "vcarve 12"]);
    const both = build(job);
    const alone = start("sign");
    addHelper(alone, alone.cuts[0], "clear", cutterNamed("flat2"));
    expect(both.cuts[1].figures.cutLength).toBeLessThan(0.5 * build(alone).cuts[0].figures.cutLength);
    expect(both.lost!.cuts[2]!.uncut).toBe(0);
    removeCut(job, "carve");
    expect(job.cuts).toEqual([]);
  });

  it("is judged: clearing after the carve, rest before its pocket, work on what is free, the same cut twice", () => {
    const sign = start("sign");
    addHelper(sign, sign.cuts[0], "clear", cutterNamed("flat3"));
    expect(codes(sign)).not.toContain("wrong-order");
    moveCut(sign, sign.cuts[0].id, 1);
    expect(codes(sign)).toContain("wrong-order");
    const out = start("cutout");
    out.cuts[0].settings.tabs = 0;
    expect(codes(out)).toContain("piece-comes-loose");
    addCut(out, "engrave", "outline", SHOP.cutters);
    expect(codes(out)).toContain("cut-after-free");
    moveCut(out, "engrave", 0);
    expect(codes(out)).not.toContain("cut-after-free");
    const twice = start();
    duplicateCut(twice, "pocket");
    expect(codes(twice)).toContain("duplicate-cut");
  });
});

describe("stops", () => {
  it("begin a program of their own, or pause inside one, with their words", () => {
    const job = start();
    addCut(job, "hatch", "outline", SHOP.cutters);
    Object.assign(job.cuts[1], { cutter: job.cuts[0].cutter, stop: { what: "paint", note: "two coats" } });
    const b = build(checkBoard(job));
    const cuts = b.cuts.map((c) => ({
      name: c.cut.name,
      cutter: c.cut.cutter,
      spindle: 10000,
      toolpath: c.toolpath,
      stop: c.cut.stop && stopWords(c.cut.stop),
    }));
    const head = { job: "j", zero: "z", from: "f" };
    const files = writePrograms(cuts, dialectNamed("mm-per-cutter"), zeroPoint(job.stock), head);
    expect(files.length).toBe(2);
    expect(files[1].text).toContain("(stop: Paint: two coats)");
    const [one] = writePrograms(cuts, dialectNamed("inch-toolchange"), zeroPoint(job.stock), head);
    expect(one.text).toMatch(/M5\n\(stop: Paint: two coats\)\nM0\nM3 S10000/);
  });
});

describe("bad settings", () => {
  for (const [kind, own, code] of [
    ["pocket", { stepover: 99 }, "stepover-too-wide"],
    ["hatch", { depth: 9 }, "cutter-too-wide"],
    ["profile", { tabsAt: "here" }, "bad-setting"],
    ["plasma", {}, "narrower-than-kerf"],
  ] as const)
    it(`${kind}: one finding, ${code}, and the rest of the job is still there`, () => {
      const job = start();
      const id = addCut(job, kind, "outline", SHOP.cutters);
      const c = job.cuts.find((q) => q.id === id)!;
      Object.assign(c.settings, own);
      if (kind === "plasma") Object.assign(c, { cutter: cutterOf("torch:40"), settings: { side: "inside", lead: 5 } });
      if (kind === "hatch") c.cutter = cutterOf("v:150:60");
      const found = inspect({ build: build(job) }).map((f) => f.code);
      expect(found.filter((f) => f === code).length).toBeGreaterThan(0);
      expect(build(job).cuts[0].toolpath.kind.length).toBeGreaterThan(10);
    });
});

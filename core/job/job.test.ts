import { Kept } from "../kept.ts";
import { onePicture } from "./tools.ts";
import { productIn } from "../testing/building.ts";
import { describe, expect, it } from "vitest";
import { feedsFor } from "../cutters/feeds.ts";
import { inspect } from "../inspect/inspect.ts";
import { profileOf } from "../cutters/profile.ts";
import { sweep } from "../proof/sweep.ts";
import type { Raster } from "../picture/raster.ts";
import { buildJob } from "./build.ts";
import { type BoardJob, zeroPoint, ZEROS } from "./document.ts";
import { outcomeById, OUTCOMES } from "./outcomes.ts";
import { documentOf } from "./boards.ts";
import { checkBoard, checkJob } from "./schema.ts";
import type { LooseJob } from "../testing/loose.ts";
import { ROUTER, SHOP, begun, cutterNamed, cutterOf, materialNamed } from "../testing/shop.ts";

/** A picture of a thick ring beside a thin stroke, 600 × 400. */
function picture(): Raster {
  const [width, height] = [600, 400];
  const data = new Uint8Array(4 * width * height).fill(255);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const r = Math.hypot(x - 200, y - 200);
      const d = Math.max(Math.min(150 - r, r - 70), Math.min(x - 420.2, 426.2 - x, y - 60, 340 - y));
      data.fill(Math.round(255 * Math.max(0, Math.min(1, 0.5 - d / 2))), 4 * (y * width + x), 4 * (y * width + x) + 3);
    }
  return { width, height, data };
}
const raster = picture();
const asset = { sha: "a".repeat(64), name: "ring.png", width: 600, height: 400 };
const make = (outcome: string, edit: (j: BoardJob) => void = () => {}) => {
  const job = begun(
    outcome,
    asset,
    { width: 150, height: 100, thickness: 12 },
    outcomeById(outcome).takes?.clear ? { clear: [cutterNamed("flat3")] } : {},
  );
  edit(job);
  return checkBoard(job);
};
const build = (job: BoardJob, kept = new Kept()) => buildJob(job, { files: onePicture(raster), cells: 40_000 }, kept);
const codes = (job: BoardJob) => inspect({ build: build(job) }).map((f) => f.code);

/** The same build with one more move across the stock, at a depth. */
function withStrayMove(b: ReturnType<typeof build>): ReturnType<typeof build> {
  const c = b.cuts[b.cuts.length - 1];
  const t = c.toolpath;
  const more = (a: Float64Array, v: number[]) => Float64Array.from([...a, ...v]);
  const toolpath = {
    kind: Uint8Array.from([...t.kind, 0, 1, 1]),
    x: more(t.x, [10, 10, 140]),
    y: more(t.y, [10, 10, 90]),
    z: more(t.z, [5, -1, -1]),
    cx: more(t.cx, [0, 0, 0]),
    cy: more(t.cy, [0, 0, 0]),
    feed: more(t.feed, [1000, 300, 900]),
  };
  const proof = { ...b.proof, z: b.proof.z.slice(), by: b.proof.by.slice() };
  sweep(proof, toolpath, profileOf(c.cut.cutter), b.cuts.length, t.kind.length, toolpath.kind.length);
  return { ...b, proof, cuts: [...b.cuts.slice(0, -1), { ...c, toolpath }] };
}

describe("a cut where nothing may be cut", () => {
  for (const outcome of ["sign", "raised", "cutout"])
    it(`is never planned, and stops the programs if it ever were: ${outcome}`, () => {
      const b = build(make(outcome));
      expect(inspect({ build: b }).map((f) => f.code)).not.toContain("cut-outside");
      const stray = inspect({ build: withStrayMove(b) }).find((f) => f.code === "cut-outside");
      expect(stray?.severity).toBe("stop");
      expect(stray?.message).toMatch(/do not run the program/);
    });
});

describe("every cut of every outcome", () => {
  for (const { id } of OUTCOMES)
    it(`begins above the stock, and ends there: ${id}`, () => {
      for (const c of build(make(id)).cuts) {
        const t = c.toolpath;
        if (t.kind.length === 0) continue;
        expect([t.kind[0], t.z[0] > 0, t.z[t.z.length - 1] > 0]).toEqual([0, true, true]);
      }
    });
});

describe("a job from picture to proof", () => {
  it("carved: the ring is cut and its middle stands", () => {
    const b = build(make("sign"));
    expect(b.problem).toBeNull();
    const at = (x: number, y: number) =>
      b.proof.z[Math.floor(y / b.proof.cell) * b.proof.width + Math.floor(x / b.proof.cell)];
    const { place } = productIn(b, "raster");
    const on = (px: number, py: number) => at(place.x0 + px * place.scale, place.y1 - py * place.scale);
    const { floor } = b.cuts.find((c) => c.id === "carve")!.values;
    expect(on(310, 200)).toBeCloseTo(-Number(floor), 5);
    expect(on(200, 200)).toBe(0);
    expect(b.cuts.map((c) => c.cut.kind)).toEqual(["clear", "vcarve"]);
    expect(b.seconds).toBeGreaterThan(b.cuts[0].seconds + b.cuts[1].seconds);
  });

  it("raised: the same art stands and the rest is cut", () => {
    const b = build(make("raised"));
    const at = (x: number, y: number) =>
      b.proof.z[Math.floor(y / b.proof.cell) * b.proof.width + Math.floor(x / b.proof.cell)];
    const { place } = productIn(b, "raster");
    expect(at(place.x0 + 310 * place.scale, place.y1 - 200 * place.scale)).toBe(0);
    expect(at(place.x0 + 370 * place.scale, place.y1 - 200 * place.scale)).toBeCloseTo(-3, 5);
  });

  it("is the same whether computed afresh or from what is kept", () => {
    const kept = new Kept();
    build(make("sign"), kept);
    const changed = make("sign", (j) => (j.cuts[1].settings.floor = 2));
    expect(build(changed, kept).proof.z).toEqual(build(changed).proof.z);
  });

  it("keeps settings and says where it broke when the picture holds no ink", () => {
    const job = make("sign", (j) => (j.makings[2].settings.specks = 100000));
    const b = build(job);
    expect(b.problem!.code).toBe("no-ink");
    expect(b.job).toBe(job);
  });
});

describe("inspection", () => {
  it("finds nothing wrong with a plain sign", () =>
    expect(codes(make("sign")).filter((c) => c !== "lost-detail")).toEqual([]));
  it("stops a floor through the stock, and warns of one that leaves little", () => {
    expect(codes(make("sign", (j) => (j.cuts[1].settings.floor = 12)))[0]).toBe("floor-through-stock");
    expect(codes(make("sign", (j) => (j.cuts[1].settings.floor = 11.5)))).toContain("floor-leaves-little");
  });
  it("stops art off the stock and warns of art near its edge", () => {
    expect(codes(make("sign", (j) => (j.makings[0].settings.x = 80)))).toContain("art-off-stock");
    expect(codes(make("sign", (j) => (j.makings[0].settings.width = 149)))).not.toContain("art-off-stock");
    expect(codes(make("sign", (j) => (j.makings[0].settings.x = -10)))).toContain("art-near-edge");
  });
  it("warns of wide strokes without a floor", () => {
    expect(codes(make("sign", (j) => (j.cuts[1].settings.limited = false)))).toContain("no-floor-past-cutter");
    expect(
      codes(
        make("sign", (j) => {
          j.cuts[1].settings.limited = false;
          j.stock.thickness = 9;
          j.cuts[1].cutter = cutterNamed("v60");
        }),
      ),
    ).toContain("no-floor-through-stock");
  });
  it("measures strokes that would only be scratched", () => {
    const f = inspect({ build: build(make("sign", (j) => (j.makings[0].settings.width = 30))) }).find(
      (q) => q.code === "lost-detail",
    )!;
    // the stroke is 6 × 280 px at 0.05 mm/px: 4.2 mm²
    expect(Number(/^[\d.]+/.exec(f.message)![0])).toBeCloseTo(4.2, 0);
  });
  it("warns of a coarse picture with the width that would do", () => {
    const f = inspect({
      build: build(
        make("sign", (j) => {
          j.stock.width = 400;
          j.stock.height = 300;
          j.makings[0].settings.width = 200;
        }),
      ),
    }).find((q) => q.code === "coarse-picture")!;
    expect(f.cure!.value).toBe(150);
  });
  it("knows programs that are older than the job", () =>
    expect(inspect({ build: build(make("sign")), revision: 5, written: 4 }).map((f) => f.code)).toContain(
      "program-older",
    ));
  it("stops a raised sign whose art reaches its border", () =>
    expect(codes(make("raised", (j) => (j.makings[0].settings.x = -30)))).toContain("ink-outside-border"));
});

describe("the document's schema", () => {
  const bad: [string, (j: LooseJob) => void, RegExp][] = [
    ["another format", (j) => (j.format = "x"), /not an Oaken Bit job/],
    ["a newer version", (j) => (j.version = 99), /newer version/],
    ["an unknown step", (j) => (j.boards[0].cuts[0].kind = "teleport"), /"teleport", which this version/],
    ["an unknown setting", (j) => (j.boards[0].cuts[1].settings.magic = 1), /Carve.*magic/],
    ["a setting out of range", (j) => (j.boards[0].cuts[1].settings.floor = -1), /floor must be >= 0.01/],
    ["a missing making", (j) => (j.boards[0].cuts[0].reads = { art: "nothing" }), /reads "nothing"/],
    ["no thickness", (j) => (j.boards[0].stock.thickness = 0), /thickness/],
    ["a twice-used id", (j) => (j.boards[0].cuts[1].id = "clear"), /twice/],
    ["a number that is none", (j) => (j.boards[0].stock.width = "NaN"), /width must be number/],
  ];
  for (const [name, edit, says] of bad)
    it(`refuses ${name} with a sentence`, () => {
      const j = structuredClone(documentOf(make("sign"))) as unknown as LooseJob;
      edit(j);
      expect(() => checkJob(j, SHOP)).toThrow(says);
    });
  it("knows every work zero", () => {
    const job = make("sign");
    expect(ZEROS.length).toBe(18);
    expect(zeroPoint({ ...job.stock, zero: "back-right-bed" })).toEqual({ x: 150, y: 100, z: -12 });
    expect(zeroPoint({ ...job.stock, zero: "centre-centre-top" })).toEqual({ x: 75, y: 50, z: 0 });
  });
});

describe("cutters and feeds", () => {
  for (const spec of [
    "v:0:10",
    "v:180:10",
    "flat:0",
    "flat:-3",
    "v:60",
    "banana:3",
    "taper:5:5:6",
    "flat:3x",
    "nonesuch",
  ])
    it(`refuses ${spec}`, () => expect(() => cutterOf(spec)).toThrow(/cutter|rack|misses|length/i));
  it("feed = speed × flutes × chip, within every limit, each with a reason", () => {
    const [cutter, material] = [cutterNamed("flat6"), materialNamed("oak")];
    const f = feedsFor({ cutter, material, machine: { ...ROUTER, feedMost: 1e6 } }, { depth: 3, width: 6 });
    expect(f.spindle.value).toBeCloseTo((380 * 1000) / (Math.PI * 6), -2);
    expect(f.feed.value).toBeCloseTo(f.spindle.value * 2 * 0.0115 * 6, -2);
    const weak = feedsFor({ cutter, material, machine: { ...ROUTER, power: 20 } }, { depth: 3, width: 6 });
    expect(weak.feed.reason).toMatch(/held by 20 W/);
    expect((weak.feed.value / 60) * 3 * 6 * 0.055).toBeLessThanOrEqual(20.1);
  });
});

import { onePicture } from "../job/tools.ts";
import { Kept } from "../kept.ts";
import { built, productIn } from "../testing/building.ts";
import { describe, expect, it } from "vitest";
import { buildJob } from "../job/build.ts";
import type { BoardJob } from "../job/document.ts";
import { duplicateCut, moveCut } from "../job/edit.ts";
import { checkBoard } from "../job/schema.ts";
import { Problem } from "../problem.ts";
import type { Raster } from "../picture/raster.ts";
import type { Finding } from "./finding.ts";
import { inspect } from "./inspect.ts";
import type { FindingCase } from "../testing/findings.ts";
import { begun, cutterNamed, cutterOf } from "../testing/shop.ts";

const [W, H] = [600, 400];
/** A thick ring with a speck beside it, drawn by distances: soft edges a pixel wide. */
function picture(more: (x: number, y: number) => number = () => -1): Raster {
  const data = new Uint8Array(4 * W * H).fill(255);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const r = Math.hypot(x - 250, y - 200);
      const d = Math.max(Math.min(150 - r, r - 70), more(x, y));
      data.fill(Math.round(255 * Math.max(0, Math.min(1, 0.5 - d))), 4 * (y * W + x), 4 * (y * W + x) + 3);
    }
  return { width: W, height: H, data };
}
const plain = picture();
const asset = { sha: "c".repeat(64), name: "ring.png", width: W, height: H };
/** On stock of 150 × 100 × 12 mm the ring is 80 mm across, its stroke about 21 mm wide. */
function job(outcome: string, edit: (j: BoardJob) => void, clear = true): BoardJob {
  const j = begun(
    outcome,
    asset,
    { width: 150, height: 100, thickness: 12 },
    clear && ["sign", "raised"].includes(outcome) ? { clear: [cutterNamed("flat3")] } : {},
  );
  edit(j);
  return checkBoard(j);
}
const find = (j: BoardJob, raster = plain, more: { revision?: number; written?: number } = {}): Finding[] =>
  inspect({ build: built(j, raster, { cells: 60_000 }), ...more });
const set = (id: string, settings: Record<string, string | number | boolean>) => (j: BoardJob) =>
  void Object.assign([...j.makings, ...j.cuts].find((p) => p.id === id)!.settings, settings);

/** The ring 87 mm across, 6.5 mm from the stock's edge, and the cutter that cuts it out. */
const cutWideBy = (cutter: string) => (j: BoardJob) => {
  j.cuts[0].cutter = cutterOf(cutter);
  set("picture", { width: 174 })(j);
};

interface Case extends FindingCase {
  raster?: Raster;
  bare?: boolean;
}
const CASES: readonly Case[] = [
  {
    what: "a floor deeper than the stock",
    outcome: "sign",
    edit: set("carve", { floor: 14 }),
    code: "floor-through-stock",
    severity: "stop",
    says: /14 mm deep; the stock is 12 mm thick/,
  },
  {
    what: "a floor that leaves next to nothing",
    outcome: "sign",
    edit: set("carve", { floor: 11.5 }),
    code: "floor-leaves-little",
    severity: "warning",
    says: /only 0\.5 mm/,
  },
  {
    what: "a pocket through the stock",
    outcome: "pocket",
    edit: set("pocket", { depth: 12.5 }),
    code: "floor-through-stock",
    severity: "stop",
    says: /12\.5 mm deep/,
  },
  {
    what: "no depth limit on strokes so wide that the cutter would come out below",
    outcome: "sign",
    edit: (j) => {
      set("carve", { limited: false })(j);
      j.stock.thickness = 6;
    },
    code: "no-floor-through-stock",
    severity: "stop",
    says: /no depth limit.*6 mm stock/,
    bare: true,
  },
  {
    what: "no depth limit and a cutter lower than the stroke wants",
    outcome: "sign",
    edit: (j) => {
      set("carve", { limited: false })(j);
      j.cuts[0].cutter = cutterOf("v:60:8");
    },
    code: "no-floor-past-cutter",
    severity: "warning",
    says: /the cutter is only 6\.93 mm high/,
    bare: true,
  },
  {
    what: "deeper than the cutter's edge",
    outcome: "pocket",
    edit: (j) => {
      set("pocket", { depth: 9 })(j);
      j.cuts[0].cutter = { ...cutterOf("flat:3"), fluteLength: 6 };
    },
    code: "deeper-than-cutter",
    severity: "warning",
    says: /edge is 6 mm long/,
  },
  {
    what: "art beyond the stock",
    outcome: "sign",
    edit: set("picture", { width: 260 }),
    code: "art-off-stock",
    severity: "stop",
    says: /beyond the \w+ edge/,
  },
  {
    what: "art nearer to the edge than the margin",
    outcome: "sign",
    edit: (j) => {
      j.stock.margin = 25;
      set("picture", { width: 140 })(j);
    },
    code: "art-near-edge",
    severity: "warning",
    says: /the margin is 25 mm/,
  },
  {
    what: "a picture coarse for its size",
    outcome: "sign",
    edit: (j) => {
      Object.assign(j.stock, { width: 400, height: 300 });
      set("picture", { width: 240 })(j);
    },
    code: "coarse-picture",
    severity: "warning",
    says: /2\.5 pixels in a millimetre/,
  },
  {
    what: "strokes that are a scratch",
    outcome: "sign",
    edit: () => {},
    code: "lost-detail",
    severity: "note",
    says: /only scratches them/,
    raster: picture((x, y) => Math.min(0.55 - Math.abs(x - 470), 170 - Math.abs(y - 200))),
  },
  {
    what: "specks that were dropped",
    outcome: "sign",
    edit: set("outline", { specks: 6 }),
    code: "dropped-specks",
    severity: "note",
    says: /1 speck or pinhole under 6 mm²/,
    raster: picture((x, y) => 5 - Math.hypot(x - 500, y - 90)),
  },
  {
    what: "a piece cut free with nothing to hold it",
    outcome: "cutout",
    edit: set("cut", { tabs: 0 }),
    code: "piece-comes-loose",
    severity: "warning",
    says: /free with no tab/,
  },
  {
    what: "a cut-out that leaves a sliver of stock beside it",
    outcome: "cutout",
    edit: cutWideBy("flat:6"),
    code: "broken-rim",
    severity: "warning",
    says: /leaves 0\.\d+ mm of stock at the (near|far) edge/,
  },
  {
    what: "a cut-out that runs out at the stock's edge",
    outcome: "cutout",
    edit: cutWideBy("flat:10"),
    code: "broken-rim",
    severity: "warning",
    says: /runs out at the (near|far) edge/,
  },
  {
    what: "the same cut twice",
    outcome: "pocket",
    edit: (j) => void duplicateCut(j, "pocket"),
    code: "duplicate-cut",
    severity: "warning",
    says: /exactly what Pocket has cut/,
  },
  {
    what: "clearing after carving",
    outcome: "sign",
    edit: (j) => moveCut(j, "clear", 1),
    code: "wrong-order",
    severity: "warning",
    says: /comes after it/,
  },
  {
    what: "corners out of a pocket cutter's reach",
    outcome: "pocket",
    edit: (j) => void (j.cuts[0].cutter = cutterOf("flat:12")),
    code: "out-of-reach",
    severity: "note",
    says: /Add a rest cut/,
    raster: picture((x, y) => 60 - Math.max(Math.abs(x - 500), Math.abs(y - 200))),
  },
  {
    what: "a plunge with a cutter that does not cut at its centre",
    outcome: "pocket",
    edit: (j) => {
      set("pocket", { entry: "plunge" })(j);
      j.cuts[0].cutter.centreCutting = false;
    },
    code: "plunge-not-used",
    severity: "note",
    says: /does not cut at its centre/,
  },
  {
    what: "a floor whose clearing cut is switched off",
    outcome: "sign",
    edit: (j) => {
      j.cuts.find((c) => c.kind === "clear")!.on = false;
    },
    code: "v-scrapes-floor",
    severity: "warning",
    says: /scrapes/,
  },
];

describe("inspection", () => {
  it("finds nothing to stop or warn of in a sound job of each kind", () => {
    for (const outcome of ["sign", "raised", "cutout", "pocket", "engrave"])
      expect(
        find(job(outcome, () => {})).filter((f) => f.severity !== "note"),
        outcome,
      ).toEqual([]);
  });

  it("says where an outline was mended, and stops a path with a number that is none", () => {
    const j = job("pocket", () => {});
    const build = built(j, plain, { cells: 60_000 });
    productIn(build, "shapes").mendedAt = [
      { x: 40, y: 30 },
      { x: 40, y: 30 },
    ];
    expect(inspect({ build }).find((f) => f.code === "outline-mended")).toMatchObject({
      severity: "note",
      at: { x: 40, y: 30 },
    });
    build.cuts[0].toolpath.x[3] = NaN;
    expect(inspect({ build })[0]).toMatchObject({ code: "not-a-number", severity: "stop" });
  });

  for (const c of CASES)
    it(`says so: ${c.what}`, () => {
      const j = job(c.outcome, c.edit, !c.bare);
      const all = find(j, c.raster);
      const f = all.find((q) => q.code === c.code);
      expect(f, `found ${all.map((q) => `${q.code}: ${q.message}`).join("; ")}`).toBeDefined();
      expect(f!.severity).toBe(c.severity);
      expect(f!.message).toMatch(c.says);
      // A sentence that a person can act on.
      expect(f!.message).toMatch(/^[A-Z0-9].*\.$/s);
      if (f!.at)
        expect([f!.at.x >= -1, f!.at.x <= j.stock.width + 1, f!.at.y >= -1, f!.at.y <= j.stock.height + 1]).toEqual([
          true,
          true,
          true,
          true,
        ]);
      if (f!.cut) expect(j.cuts.some((q) => q.id === f!.cut)).toBe(true);
      // A cure that is offered at one click is one.
      if (f!.cure?.value !== undefined) {
        set(f!.cure.id, { [f!.cure.field]: f!.cure.value })(j);
        expect(find(checkBoard(j), c.raster).map((q) => q.code)).not.toContain(c.code);
      }
    });

  it("puts what stops the programs first, then warnings, then notes", () => {
    const all = find(
      job("sign", (j) => {
        set("carve", { floor: 14 })(j);
        set("picture", { width: 160 })(j);
        set("outline", { specks: 6 })(j);
      }),
      picture((x, y) => 5 - Math.hypot(x - 500, y - 90)),
    );
    const grade = all.map((f) => ["stop", "warning", "note"].indexOf(f.severity));
    expect(new Set(grade).size).toBeGreaterThan(1);
    expect(grade).toEqual([...grade].sort());
  });

  it("knows programs older than the job, and says nothing when none were written", () => {
    const j = job("sign", () => {});
    expect(find(j, plain, { revision: 5, written: 3 }).find((f) => f.code === "program-older")!.message).toMatch(
      /revision 3.*revision 5/,
    );
    expect(find(j, plain, { revision: 5, written: 5 }).map((f) => f.code)).not.toContain("program-older");
    expect(find(j, plain, { revision: 5 }).map((f) => f.code)).not.toContain("program-older");
  });

  it("of a job that cannot be built begins with why", () => {
    const j = job("sign", () => {});
    const [first] = inspect({
      build: buildJob(
        j,
        {
          files: {
            ...onePicture(plain),
            picture: () => {
              throw new Problem("no-asset", "The picture is gone.");
            },
          },
          cells: 1000,
        },
        new Kept(),
      ),
    });
    expect(first).toEqual({ code: "no-asset", severity: "stop", message: "The picture is gone." });
  });
});

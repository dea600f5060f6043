import { built, productIn } from "@oaken/core/testing/building";
import { beforeAll, describe, expect, it } from "vitest";
import { isSound } from "@oaken/core/geometry/sound";
import { inspect } from "@oaken/core/inspect/inspect";
import { OUTCOMES } from "@oaken/core/job/outcomes";
import { readProgram } from "@oaken/core/output/gcode/reader";
import { writePrograms } from "@oaken/core/output/gcode/writer";
import type { Raster } from "@oaken/core/picture/raster";
import { decodePicture } from "@oaken/files/decode";
import { HARD_PICTURES, posy } from "./hard.ts";
import { chooseAll } from "@oaken/core/job/choose";
import type { Tried } from "@oaken/core/job/sets";
import { onePicture } from "@oaken/core/job/tools";
import { describeCutters } from "@oaken/core/cutters/profile";
import { estimateWith, toPlan } from "@oaken/core/testing/choosing";
import { begun, dialectNamed, SHOP } from "@oaken/core/testing/shop";

const job = (outcome: string, name: string, width: number, r: Raster) => {
  const stock = {
    width: width + 30,
    height: (width * r.height) / r.width + 30,
    thickness: outcome === "plasma" ? 3 : 18,
  };
  const j = begun(outcome, { sha: "a".repeat(64), name, width: r.width, height: r.height }, stock);
  j.makings[0].settings.width = width;
  return j;
};
/** What says that a cutter is too wide for this picture is no fault of ours. */
const FAIR = new Set(["cutter-too-wide"]);

for (const p of HARD_PICTURES)
  describe(`${p.name}, as people's pictures are`, () => {
    let raster: Raster;
    beforeAll(async () => {
      raster = await decodePicture(await p.picture(), p.name);
    });
    for (const o of OUTCOMES)
      it(`as ${o.id}: what it is made from is sound, nothing stops it, its programs can be read`, () => {
        const build = built(job(o.id, p.name, p.width, raster), raster, { cells: 120_000, quick: true });
        expect(build.problem).toBeNull();
        for (const { product } of build.makings.values()) {
          if (product.is === "shapes") expect([product.mendedAt, isSound(product.ink)]).toEqual([[], true]);
          if (product.is === "heights") expect(product.field.z.every(Number.isFinite)).toBe(true);
        }
        const stops = inspect({ build }).filter((f) => f.severity === "stop" && !FAIR.has(f.code));
        expect(stops.map((f) => f.message)).toEqual([]);
        const cuts = build.cuts.map((c) => ({
          name: c.cut.name,
          cutter: c.cut.cutter,
          spindle: c.values.spindle as number,
          toolpath: c.toolpath,
        }));
        for (const q of writePrograms(
          cuts,
          dialectNamed("mm-per-cutter"),
          { x: 0, y: 0, z: 0 },
          { job: p.name, zero: "front left", from: "a test" },
        )) {
          const { toolpath: t } = readProgram(q.text, o.id === "plasma");
          expect(t.kind.length).toBeGreaterThan(2);
          for (const v of [t.x, t.y, t.z, t.feed]) expect(v.every(Number.isFinite)).toBe(true);
        }
      });
  });

it("the page keeps the dots of its letters and its dotted line", async () => {
  const p = HARD_PICTURES[1];
  const raster = await decodePicture(await p.picture(), p.name);
  const j = job("engrave", p.name, p.width, raster);
  const pieces = (specks?: number): number => {
    if (specks !== undefined) j.makings[2].settings.specks = specks;
    const build = built(j, raster, { cells: 10_000, quick: true });
    return productIn(build, "shapes").traced!.result.shape.parent.length;
  };
  const byItself = pieces();
  // Nine pixels for everything, as it once was: the dotted line alone is 22 pieces.
  const nine = pieces(9 / (raster.width / p.width) ** 2);
  expect(byItself).toBeGreaterThan(nine + 22);
});

it("choosing for the page plans no set that promises next to nothing over one with fewer cutters", async () => {
  const p = HARD_PICTURES[1];
  const raster = await decodePicture(await p.picture(), p.name);
  const { job: page, planning } = toPlan("pocket", raster, { width: 300, height: 200, thickness: 18 });
  const [{ tried }] = chooseAll(page, SHOP.cutters, onePicture(raster), planning.kept).choices;
  const planned = tried.filter((t) => t.isPlanned);
  for (const more of planned)
    for (const fewer of planned.filter((t) => t.cutters.length < more.cutters.length)) {
      const [told, other] = [fewer, more].map((t) => estimateWith(page, planning, t.cutters));
      expect(other, describeCutters(more.cutters)).toBeLessThan(told / 1.01);
    }
  // One set of one and one of two are all but as fast.
  const taken = estimateWith(page, planning, tried[0].cutters);
  const isAsGood = (t: Tried) => Math.abs(estimateWith(page, planning, t.cutters) / taken - 1) < 0.01;
  expect(tried.some((t) => t.cutters.length > tried[0].cutters.length && isAsGood(t))).toBe(true);
});

it("blended edges cost hardly more than hard ones: nodes, machining time and lines", async () => {
  // Both at one ink level: which colours count as ink is another question.
  const made = await Promise.all(
    [true, false].map(async (blended) => {
      const raster = await decodePicture(await posy(blended), "posy.png");
      const j = job("sign", "posy.png", 120, raster);
      j.makings[2].settings.ink = 0.2;
      const build = built(j, raster, { cells: 10_000, quick: true });
      return {
        nodes: productIn(build, "shapes").traced!.result.nodes,
        seconds: build.seconds,
        moves: build.cuts.reduce((s, c) => s + c.toolpath.kind.length, 0),
      };
    }),
  );
  const [blended, hard] = made;
  expect(blended.nodes).toBeLessThan(1.5 * hard.nodes);
  expect(blended.seconds).toBeLessThan(1.5 * hard.seconds);
  expect(blended.moves).toBeLessThan(1.5 * hard.moves);
});

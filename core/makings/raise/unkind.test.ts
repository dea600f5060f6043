import "../../testing/ready.ts";
import { describe, expect, it } from "vitest";
import { between } from "../../height/field.ts";
import { graphOf } from "../../job/build.ts";
import { addMaking } from "../../job/edit.ts";
import { onePicture } from "../../job/tools.ts";
import { insideRegion } from "../../geometry/rings.ts";
import { Kept } from "../../kept.ts";
import { Problem } from "../../problem.ts";
import { distanceToRings, seeded } from "../../testing/random.ts";
import { begun } from "../../testing/shop.ts";
import { unkind } from "../../testing/unkind.ts";

/** How many pictures, and the first seed. */
const PICTURES = Number(process.env.OAKEN_PICTURES ?? 12);
const SEED = Number(process.env.OAKEN_SEED ?? 1);
/** Places of each that are looked at. */
const PLACES = 40;
/** Distances are told this exactly, mm. */
const EXACT = 0.003;

describe(`bodies, textures and blends of ${PICTURES} unkind pictures from seed ${SEED}`, () => {
  it("a body is as high as a place lies inside the outline, and whatever is made of it is a surface", () => {
    let made = 0;
    for (let seed = SEED; seed < SEED + PICTURES; seed++) {
      const random = seeded(seed);
      const size = () => 16 + Math.floor(60 * random());
      const { name, raster } = unkind(random, size(), size(), false);
      const asset = { sha: "0".repeat(64), name: "unkind.png", width: raster.width, height: raster.height };
      const job = begun("rounded", asset, { width: 60, height: 60, thickness: 12 });
      const form = ["round", "slope", "hollow"][Math.floor(3 * random())];
      const radius = 0.5 + 5 * random();
      const body = job.makings.find((m) => m.kind === "raise")!;
      body.settings = { form, radius, angle: 10 + 70 * random(), depth: 40, tall: "level", margin: 1 };
      const texture = addMaking(job, "texture", body.id);
      job.makings.find((m) => m.id === texture)!.settings = { tile: 7 + 20 * random(), soft: 3 * random() };
      job.makings.find((m) => m.id === texture)!.reads.over = "outline";
      const blend = addMaking(job, "blend", body.id, texture);
      const what = `seed ${seed}: ${name}, ${form}`;
      const graph = graphOf(job, onePicture(raster), new Kept());
      try {
        graph.made(blend);
      } catch (e) {
        if (!(e instanceof Problem)) throw new Error(`${what}: ${(e as Error).stack}`);
        expect(["one-tone", "no-ink"], what).toContain(e.code);
        continue;
      }
      made++;
      const field = (id: string) => graph.upstream(id, "heights")!.product.field;
      for (const id of [body.id, texture, blend])
        expect(
          field(id).z.every((v) => Number.isFinite(v) && v <= 1e-5),
          `${what}: ${id}`,
        ).toBe(true);
      const { ink } = graph.upstream("outline", "shapes")!.product;
      const f = field(body.id);
      const rise = Math.tan((Number(body.settings.angle) * Math.PI) / 180);
      for (let k = 0; k < PLACES; k++) {
        const [i, j] = [Math.floor(f.width * random()), Math.floor(f.height * random())];
        const [x, y] = [f.x0 + (i + 0.5) * f.cell, f.y0 + (j + 0.5) * f.cell];
        const d = insideRegion(ink, x, y) ? distanceToRings(ink, x, y) : 0;
        const r = Math.min(d, radius);
        const heights: Record<string, (v: number) => number> = {
          round: (v) => Math.sqrt(Math.max(0, radius ** 2 - (radius - Math.min(v, radius)) ** 2)),
          slope: () => d * rise,
          hollow: () => radius - Math.sqrt(radius ** 2 - r ** 2),
        };
        // How far the form rises within what distances are told to.
        const give = Math.abs(heights[form](r + EXACT) - heights[form](Math.max(0, r - EXACT))) + EXACT * (1 + rise);
        const found = between(f, i, j) + 40;
        expect(Math.abs(found - Math.min(40, heights[form](r))), `${what} at ${x}, ${y}`).toBeLessThan(give + 1e-4);
      }
    }
    expect(made).toBeGreaterThan(0.6 * PICTURES);
  }, 120_000);
});

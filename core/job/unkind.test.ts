import "../testing/ready.ts";
import { describe, expect, it } from "vitest";
import { ringArea, ringCount, type Rings } from "../geometry/rings.ts";
import { asRead } from "../geometry/shape.ts";
import { unsoundPlaces } from "../geometry/sound.ts";
import { Problem } from "../problem.ts";
import type { Settings } from "../settings/fields.ts";
import { seeded } from "../testing/random.ts";
import { unkind } from "../testing/unkind.ts";
import { graphOf } from "./build.ts";
import { onePicture } from "./tools.ts";
import { Kept } from "../kept.ts";
import { begun } from "../testing/shop.ts";

/** Refusals that a person can do something about: there is nothing to trace, or nothing is left of it. */
const HONEST = new Set(["one-tone", "no-ink", "nothing-left"]);

/** Settings as people may leave them, drawn at random: most of them by themselves. */
function settings(random: () => number): { tone: Settings; outline: Settings } {
  const now = (share: number): boolean => random() < share;
  const between = (a: number, b: number): number => a + (b - a) * random();
  const geometric = (a: number, b: number): number => a * (b / a) ** random();
  const tone: Settings = {};
  const outline: Settings = { trace: now(0.6) ? "ink" : now(0.5) ? "colours" : "centre" };
  if (now(0.2)) tone.even = geometric(1, 40);
  if (now(0.2)) tone.smooth = between(0.1, 2);
  if (now(0.5)) outline.hold = geometric(0.002, 5);
  // By hand the level falls onto whole greys, where plateaus lie.
  if (now(0.4)) outline.ink = Math.round(between(20, 235)) / 255;
  if (now(0.2)) outline.specks = geometric(0.001, 5);
  if (now(0.15)) outline.grow = between(-1, 1);
  if (now(0.1)) outline.close = between(0.05, 2);
  if (now(0.1)) outline.round = between(0.05, 1);
  if (now(0.1)) outline.bridges = between(0.2, 2);
  if (now(0.1)) outline.nodesMost = Math.round(geometric(20, 2000));
  if (outline.trace === "colours") outline.colours = 2 + Math.floor(7 * random());
  return { tone, outline };
}

/** Traces picture number `seed`, whatever it is. @returns the ink that cuts read; null where it was honestly refused */
function traced(
  seed: number,
): { name: string; ink: Rings; shape: Rings; mended: number } | { name: string; refused: string } {
  const random = seeded(seed);
  const size = (): number => 16 + Math.floor(84 * random() ** 2);
  const s = settings(random);
  const { name, raster } = unkind(random, size(), size(), s.outline.trace === "colours" || random() < 0.1);
  const perMm = 0.5 * 40 ** random();
  const [width, height] = [raster.width / perMm, raster.height / perMm];
  const asset = { sha: "0".repeat(64), name: "unkind.png", width: raster.width, height: raster.height };
  const job = begun("engrave", asset, { width: width + 30, height: height + 30 });
  job.makings[0].settings.width = width;
  job.makings[1].settings = s.tone;
  job.makings[2].settings = s.outline;
  const pixels = `${raster.width} × ${raster.height}, ${perMm.toFixed(2)} px/mm`;
  const what = `seed ${seed}: ${name}, ${pixels}, ${JSON.stringify(s)}`;
  try {
    const { ink, shape, mendedAt } = graphOf(job, onePicture(raster), new Kept()).upstream(
      "outline",
      "shapes",
    )!.product;
    return { name: what, ink, shape: asRead(shape), mended: mendedAt.length };
  } catch (e) {
    if (!(e instanceof Problem)) return { name: what, refused: (e as Error).stack ?? "an error" };
    return { name: what, refused: e.code };
  }
}

/** How many pictures, and the first seed; OAKEN_SEED moves it, OAKEN_PICTURES asks for more. */
const PICTURES = Number(process.env.OAKEN_PICTURES ?? 3000);
const SEED = Number(process.env.OAKEN_SEED ?? 1);
const PARTS = 20;
const MOST_SHOWN = 5;

describe(`outlines of ${PICTURES} unkind pictures from seed ${SEED}`, () => {
  for (let part = 0; part < PARTS; part++)
    it(`are sound as traced, and none refused that has ink (${part + 1} of ${PARTS})`, () => {
      const from = SEED + Math.floor((part * PICTURES) / PARTS);
      const to = SEED + Math.floor(((part + 1) * PICTURES) / PARTS);
      let traceable = 0;
      const wrong: string[] = [];
      for (let seed = from; seed < to; seed++) {
        const t = traced(seed);
        if ("refused" in t) {
          if (!HONEST.has(t.refused)) wrong.push(`${t.name}: refused as ${t.refused}`);
          continue;
        }
        traceable++;
        const empty = Array.from({ length: ringCount(t.ink) }, (_, k) => k).filter(
          (k) => t.ink.starts[k + 1] === t.ink.starts[k] || ringArea(t.ink, k) === 0,
        );
        if (unsoundPlaces(t.ink).length > 0) wrong.push(`${t.name}: not sound`);
        if (t.mended > 0) wrong.push(`${t.name}: traced unsound, in ${t.mended} places`);
        if (empty.length > 0) wrong.push(`${t.name}: contours ${empty.join()} are empty`);
      }
      expect(wrong.slice(0, MOST_SHOWN), `${wrong.length} of ${to - from}`).toEqual([]);
      expect(traceable).toBeGreaterThan(0.6 * (to - from));
    });
});

import { type Contours, contoursAt } from "../outline/contours.ts";
import { fitOutline, type Outline } from "../outline/outline.ts";
import { contrast, findInkLevel, histogram, toGrey } from "../picture/tone.ts";
import type { Grey, Raster } from "../picture/raster.ts";
import { tileRange, type TileRange } from "../picture/tiles.ts";
import { flatten } from "../geometry/shape.ts";
import type { Rings } from "../geometry/rings.ts";
import { Problem, type Progress } from "../problem.ts";
import { resolve, type Resolved, type Settings } from "../settings/fields.ts";
import type { JobDocument, JobNode } from "./document.ts";
import { hash, type Derived } from "./hash.ts";
import { outlineFields } from "./nodes/outline.ts";
import { pictureFields, placement } from "./nodes/picture.ts";
import { toneFields } from "./nodes/tone.ts";

/** Chords of curves that cuts read stay this close, mm. */
export const FLATTEN = 0.002;

export interface ToneResult {
  key: string;
  grey: Grey;
  tiles: TileRange;
  bins: Uint32Array;
  found: number;
  contrast: number;
}

/** What a picture's chain came to, with the reasons for its settings. */
export interface ChainResult {
  key: string;
  picture: JobNode;
  tone: JobNode;
  outline: JobNode;
  resolved: Record<string, Record<string, Resolved>>;
  values: Record<string, Settings>;
  place: ReturnType<typeof placement>;
  toneResult: ToneResult;
  contours: Contours;
  result: Outline;
  ink: Rings;
  timings: { tone: number; outline: number };
}

/**
 * Greys of a picture through its tone step.
 */
export function toneOf(raster: Raster, sha: string, own: Settings, cache: Derived): ToneResult {
  const { values } = resolve(toneFields, own, {});
  const key = hash(`${sha}|${JSON.stringify(values)}`);
  return cache.get("tone", key, () => {
    const grey = toGrey(raster, { invert: values.invert as boolean });
    const bins = histogram(grey);
    return { key, grey, tiles: tileRange(grey), bins, found: findInkLevel(bins), contrast: contrast(bins) };
  }, 2);
}

/** Least contrast that can hold a shape: below it a picture is one flat tone with noise. */
const LEAST_CONTRAST = 0.04;

/**
 * Follows a chain from an outline node down to its picture and computes it.
 * @throws Problem `one-tone` or `no-ink` where the picture holds nothing to trace
 */
export function chainOf(job: JobDocument, outlineId: string, raster: Raster, cache: Derived, progress: Progress, now: () => number): ChainResult {
  const byId = (id: string) => job.nodes.find((n) => n.id === id)!;
  const outline = byId(outlineId);
  const tone = byId(outline.reads[0]);
  const picture = byId(tone.reads[0]);
  const t0 = now();
  const toneResult = toneOf(raster, picture.asset!.sha, tone.settings, cache);
  const t1 = now();
  const p = resolve(pictureFields, picture.settings, { stock: job.stock, width: raster.width, height: raster.height });
  const place = placement(p.values, raster.width, raster.height);
  const o = resolve(outlineFields, outline.settings, { found: toneResult.found, scale: place.scale });
  const t = resolve(toneFields, tone.settings, {});
  if (toneResult.contrast < LEAST_CONTRAST && !(toneResult.contrast > 0 && hasInk(toneResult.bins))) throw oneTone(toneResult.bins, raster);
  const contourKey = hash(`${toneResult.key}|${o.values.ink}`);
  const contours = cache.get("contours", contourKey, () => contoursAt(toneResult.grey, o.values.ink as number, toneResult.tiles));
  const key = hash(`${contourKey}|${JSON.stringify(o.values)}|${place.scale}|${place.x0}|${place.y1}`);
  const result = cache.get("outline", key, () =>
    fitOutline(contours, place, { hold: o.values.hold as number, specks: o.values.specks as number, pinholes: o.values.pinholes as number, cornerAngle: ((o.values.corner as number) * Math.PI) / 180 }, progress),
  );
  if (result.shape.parent.length === 0)
    throw new Problem(
      "no-ink",
      result.dropped > 0
        ? `At this ink level there are only specks: ${result.dropped} pieces, all smaller than ${o.values.specks} mm². Move the ink level, or keep smaller specks.`
        : "At this ink level no ink is found. Move the ink level towards the picture's greys, or invert the picture.",
    );
  const ink = cache.get("ink", key, () => flatten(result.shape, FLATTEN));
  return {
    key,
    picture,
    tone,
    outline,
    resolved: { [picture.id]: p.resolved, [tone.id]: t.resolved, [outline.id]: o.resolved },
    values: { [picture.id]: p.values, [tone.id]: t.values, [outline.id]: o.values },
    place,
    toneResult,
    contours,
    result,
    ink,
    timings: { tone: t1 - t0, outline: now() - t1 },
  };
}

/** A few dark strokes on a large sheet may fall outside the middle 99 % of greys: look for them before calling it one tone. */
function hasInk(bins: Uint32Array): boolean {
  let lo = 0;
  let hi = 255;
  while (lo < 255 && bins[lo] === 0) lo++;
  while (hi > 0 && bins[hi] === 0) hi--;
  return hi - lo > 64;
}

function oneTone(bins: Uint32Array, raster: Raster): Problem {
  let most = 0;
  for (let i = 1; i < 256; i++) if (bins[i] > bins[most]) most = i;
  let clear = true;
  for (let i = 3; i < raster.data.length && clear; i += 4) clear = raster.data[i] === 0;
  const what = clear ? "wholly transparent" : most > 240 ? "all white" : most < 15 ? "all black" : "all one tone";
  return new Problem("one-tone", `The picture is ${what}: there is nothing in it to trace. Use a picture with dark and light parts.`);
}

import { mended } from "../geometry/mend.ts";
import { asRead } from "../geometry/shape.ts";
import { unsoundPlaces } from "../geometry/sound.ts";
import type { Rings } from "../geometry/rings.ts";
import type { ClearanceOf } from "../geometry/morph.ts";
import { type Lines } from "../outline/centre.ts";
import type { Outline } from "../outline/outline.ts";
import { framed, framedSize, type PictureBox } from "../picture/frame.ts";
import type { Grey, Raster } from "../picture/raster.ts";
import { contrast, findInkLevel, histogram, toGrey } from "../picture/tone.ts";
import { Problem, type Progress } from "../problem.ts";
import { resolve, type Resolved, type Settings } from "../settings/fields.ts";
import type { JobDocument, JobNode } from "./document.ts";
import { artOf } from "./art.ts";
import { hash, type Derived } from "./hash.ts";
import { outlineFields } from "./nodes/outline.ts";
import { frameOf, pictureFields, placement } from "./nodes/picture.ts";
import { toneFields, toneSettings } from "./nodes/tone.ts";
import type { ColourResult } from "./colours.ts";
import { outlineContext, traceOutline, type Traced } from "./trace.ts";

export interface ToneResult {
  key: string;
  grey: Grey;
  bins: Uint32Array;
  found: number;
  contrast: number;
}

/** The picture and tone behind an outline, with where the pixels lie. */
export interface PictureResult {
  picture: JobNode;
  tone: JobNode;
  outline: JobNode;
  /** the picture as framed */
  raster: Raster;
  /** tells framed pictures apart */
  rasterKey: string;
  place: ReturnType<typeof placement>;
  /** what width and place are measured over, pixels of the raster; null for the whole picture */
  art: PictureBox | null;
  toneResult: ToneResult;
  values: Record<string, Settings>;
  resolved: Record<string, Record<string, Resolved>>;
}

/** What a picture's chain came to, with the reasons for its settings. */
export interface ChainResult extends PictureResult {
  key: string;
  result: Outline;
  ink: Rings;
  /** where the outline was not sound before it was mended, mm */
  mendedAt: readonly { x: number; y: number }[];
  /** the centre line of every stroke, where that was asked for */
  lines: Lines | null;
  colours: ColourResult | null;
  bridges: Traced["bridges"];
  /** points of the edge before fitting, x, y by turns, mm */
  edge: Float64Array;
  /** how closely the fit holds, mm: wider than asked where nodes were limited */
  held: number;
  timings: { tone: number; outline: number };
}

/**
 * The outline that a part of a job is about: itself, the first one traced from it, or the one a cut works on; else the
 * first there is.
 */
export function outlineOf(job: JobDocument, part: string): string | undefined {
  const outlines = job.nodes.filter((n) => n.kind === "outline");
  const reads = (id: string, from: string): boolean =>
    id === from || (job.nodes.find((n) => n.id === id)?.reads.some((r) => reads(r, from)) ?? false);
  const cut = job.cuts.find((c) => c.id === part);
  const wanted = cut ? (job.cuts.find((c) => c.id === cut.target) ?? cut).reads[0] : part;
  return (outlines.find((o) => o.id === wanted) ?? outlines.find((o) => reads(o.id, wanted)) ?? outlines[0])?.id;
}

/** The picture that a step of a chain is made from, itself if it is one. */
export function pictureUnder(job: JobDocument, id: string): JobNode | undefined {
  const node = job.nodes.find((n) => n.id === id);
  return node?.kind === "picture" || node?.reads[0] === undefined ? node : pictureUnder(job, node.reads[0]);
}

/** The content's name of the picture that an outline is traced from. @throws Problem `no-picture` */
export function pictureBehind(job: JobDocument, outlineId: string): string {
  const picture = pictureUnder(job, outlineId);
  if (!picture?.asset) throw new Problem("no-picture", "This job has no picture yet. Drop one on the page.");
  return picture.asset.sha;
}

/** What following a chain to its picture takes. */
interface Following {
  job: JobDocument;
  full: Raster;
  cache: Derived;
  progress: Progress;
  /** for a preview: a smaller copy of the framed picture */
  coarse: Raster | null;
}

/**
 * Follows a chain from an outline node to its picture, frames it and works out its tone.
 * @param coarse for a preview: a smaller copy of the framed picture
 */
export function pictureOf(
  job: JobDocument,
  outlineId: string,
  full: Raster,
  cache: Derived,
  progress: Progress,
  coarse: Raster | null = null,
): PictureResult {
  const following = { job, full, cache, progress, coarse };
  return placedOver(following, outlineId, artMeasured(following, outlineId));
}

/**
 * The picture behind an outline, its width and place being those of `art`, pixels of the raster; null for all of it.
 */
function placedOver(f: Following, outlineId: string, art: PictureBox | null): PictureResult {
  const { job, full, cache, progress, coarse } = f;
  const byId = (id: string) => job.nodes.find((n) => n.id === id)!;
  const outline = byId(outlineId);
  const tone = byId(outline.reads[0]);
  const picture = byId(tone.reads[0]);
  const frame = frameOf(picture.settings);
  const size = framedSize(full.width, full.height, frame);
  const shrunk = coarse ? coarse.width / size.width : 1;
  const p = resolve(pictureFields, picture.settings, {
    stock: job.stock,
    ...size,
    art: art && scaled(art, 1 / shrunk),
  });
  const rasterKey = hash(`${picture.asset!.sha}|${coarse?.width ?? ""}|${JSON.stringify(frame)}`);
  const raster = coarse ?? cache.get("framed", rasterKey, () => framed(full, frame), 2);
  const place = placement(p.values, raster.width, raster.height, art);
  const t = resolve(toneFields, tone.settings, { scale: place.scale * shrunk });
  const settings = toneSettings(t.values, { scale: place.scale });
  const key = hash(`${rasterKey}|${JSON.stringify(settings)}`);
  const toneResult = cache.get(
    "tone",
    key,
    () => {
      const grey = toGrey(raster, settings, progress);
      const bins = histogram(grey);
      return { key, grey, bins, found: findInkLevel(bins), contrast: contrast(bins) };
    },
    2,
  );
  const values = { [picture.id]: p.values, [tone.id]: t.values };
  const resolved = { [picture.id]: p.resolved, [tone.id]: t.resolved };
  return { picture, tone, outline, raster, rasterKey, place, art, toneResult, values, resolved };
}

/** Rounds in which the art and its scale are found from each other, and how still it then is, px. */
const ROUNDS = 4;
const STILL = 0.01;

/**
 * The art of a picture that is measured over it, in pixels of its raster; null where the whole picture counts. Specks,
 * smoothing and evening out are given in mm, so that what is art hangs a little on how large it becomes: it is looked
 * for again at the scale that it leads to.
 */
function artMeasured(f: Following, outlineId: string): PictureBox | null {
  const { job, cache, coarse } = f;
  const picture = pictureUnder(job, outlineId)!;
  if (picture.settings.measured !== "art") return null;
  const chain = job.nodes.filter((n) => pictureUnder(job, n.id) === picture);
  const outlines = chain.filter((n) => n.kind === "outline");
  const key = hash(JSON.stringify([coarse?.width ?? "", job.stock, chain]));
  return cache.get("art", key, () => {
    let art: PictureBox | null = null;
    for (let round = 0; round < ROUNDS; round++) {
      const found: PictureBox | null = artOf(outlines, (id) => placedOver(f, id, art), cache);
      const isStill = art && found && farthestEdge(art, found) < STILL;
      art = found;
      if (!art || isStill) break;
    }
    return art;
  });
}

const farthestEdge = (a: PictureBox, b: PictureBox): number =>
  Math.max(
    Math.abs(a.x - b.x),
    Math.abs(a.y - b.y),
    Math.abs(a.x + a.width - b.x - b.width),
    Math.abs(a.y + a.height - b.y - b.height),
  );

const scaled = (b: PictureBox, k: number): PictureBox => ({
  x: b.x * k,
  y: b.y * k,
  width: b.width * k,
  height: b.height * k,
});

/** Least contrast that can hold a shape: below it a picture is one flat tone with noise. */
const LEAST_CONTRAST = 0.04;

/**
 * Computes a chain down to the ink that cuts read.
 * @throws Problem `one-tone` or `no-ink` where the picture holds nothing to trace
 */
export function chainOf(
  job: JobDocument,
  outlineId: string,
  full: Raster,
  cache: Derived,
  clearance: ClearanceOf,
  progress: Progress,
  now: () => number,
): ChainResult {
  const t0 = now();
  const p = pictureOf(job, outlineId, full, cache, (s) => progress(0.3 * s));
  const t1 = now();
  const { outline, toneResult, place } = p;
  const o = resolve(outlineFields, outline.settings, outlineContext(p, cache));
  if (
    o.values.trace !== "colours" &&
    toneResult.contrast < LEAST_CONTRAST &&
    !(toneResult.contrast > 0 && hasInk(toneResult.bins))
  )
    throw oneTone(toneResult.bins, p.raster);
  const base = o.values.trace === "colours" ? p.rasterKey : toneResult.key;
  const auto = { hold: !o.resolved.hold.set, specks: !o.resolved.specks.set && !o.resolved.pinholes.set };
  const key = hash(
    `${base}|${JSON.stringify(o.values)}|${JSON.stringify(auto)}|${place.scale}|${place.x0}|${place.y1}`,
  );
  const traced = cache.get("outline", key, () =>
    traceOutline(p, o.values, auto, cache, clearance, (s) => progress(0.3 + 0.7 * s)),
  );
  const { result } = traced;
  if (result.shape.parent.length === 0)
    throw new Problem(
      "no-ink",
      result.dropped > 0
        ? `At this ink level there are only specks: ${result.dropped} pieces, all smaller than ` +
            `${o.values.specks} mm². Move the ink level, or keep smaller specks.`
        : "No ink is found with these settings. Move the ink level towards the picture's greys, invert the " +
            "picture, or keep more of it.",
    );
  const { ink, mended: mendedAt } = cache.get("ink", key, () => soundInk(asRead(result.shape)));
  return {
    ...p,
    key,
    resolved: { ...p.resolved, [outline.id]: o.resolved },
    values: { ...p.values, [outline.id]: o.values },
    ...traced,
    ink,
    mendedAt,
    timings: { tone: t1 - t0, outline: now() - t1 },
  };
}

/** Ink that cuts can trust: where it crosses or touches itself it is mended, and said where. */
function soundInk(ink: Rings): { ink: Rings; mended: { x: number; y: number }[] } {
  const places = unsoundPlaces(ink);
  return places.length === 0 ? { ink, mended: [] } : { ink: mended(ink), mended: places };
}

/**
 * A few dark strokes on a large sheet may fall outside the middle 99 % of greys: look for them before calling it one
 * tone.
 */
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
  return new Problem(
    "one-tone",
    `The picture is ${what}: there is nothing in it to trace. Use a picture with dark and light parts.`,
  );
}

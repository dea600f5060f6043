import { execFileSync } from "node:child_process";
import { mkdtemp, readFile, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import ImageTracer from "imagetracerjs";
import potrace from "potrace";
import { ringsFrom } from "@oaken/core/geometry/rings";
import { SegmentGrid } from "@oaken/core/geometry/segmentgrid";
import { contourCount, flatten, type Shape } from "@oaken/core/geometry/shape";
import { ringArea, ringCount } from "@oaken/core/geometry/rings";
import { traceArcs } from "@oaken/core/outline/colours/arcs";
import { joinCorners, labelPixels, mergeSpecks } from "@oaken/core/outline/colours/labels";
import { findColours } from "@oaken/core/outline/colours/palette";
import { colourShape, fitArcs } from "@oaken/core/outline/colours/shapes";
import { contoursAt } from "@oaken/core/outline/contours";
import { edgeNoise } from "@oaken/core/outline/noise";
import { fitOutline, keepLarge, type Outline } from "@oaken/core/outline/outline";
import { warmUp } from "@oaken/core/outline/warm";
import type { Grey, Raster } from "@oaken/core/picture/raster";
import { shrunk } from "@oaken/core/picture/shrink";
import { findInkLevel, histogram, toGrey } from "@oaken/core/picture/tone";
import { decodePicture } from "@oaken/files/decode";
import { logoSvg, loopsOf, medal, pictureOfTruth, type Truth, TRUTHS } from "../demo/truth.ts";
import { median, ms, row } from "./measure.ts";
import sharp from "sharp";

const MEGAPIXELS = [0.3, 4, 12];
/** A multiple of three, so that the height comes out whole. */
const widthFor = (mp: number) => 3 * Math.round(Math.sqrt(mp * 1.5e6) / 3);
/** How often each tracer has its turn, and how often it runs then: what one leaves to clear up slows the other's first run. */
const TURNS = 5;
const IN_A_ROW = 3;
/** Ink level of pictures rendered in black on white. */
const LEVEL = 0.5;
/** Smallest piece kept by both, px². */
const SPECKS = 10;

/** Outlines against the registry's tracers, on pictures whose true edges are known. */
export async function benchOutline(): Promise<void> {
  await cold();
  await drag();
  for (const mp of MEGAPIXELS) await blackAndWhite(mp);
  await edges();
  await growth();
  await colours();
  await lighting();
  await preview();
}

/** Pixels that a fit may stray, and mm a pixel: what 4 megapixels are on a board a quarter of a metre wide. */
const HOLD = 0.23;
const SCALE = 0.1;
const placed = (g: Grey) => ({ scale: SCALE, x0: 0, y1: SCALE * g.height });
const settings = (hold: number) => ({ hold: SCALE * hold, specks: SPECKS * SCALE ** 2, pinholes: SPECKS * SCALE ** 2, cornerAngle: 0.7 });
const fit = (g: Grey, level = findInkLevel(histogram(g))): Outline => fitOutline(contoursAt(g, level), placed(g), settings(HOLD));

async function drag(): Promise<void> {
  console.log("\nInk level moved on 4 megapixels");
  for (const t of TRUTHS) {
    const grey = toGrey(await decodePicture(await pictureOfTruth(t, widthFor(4)), t.name), {});
    const data = grey.data as Uint8Array;
    let sink = 0;
    const plain = median(9, (k) => {
      const cut = 120 + k;
      let n = 0;
      for (let i = 0; i < data.length; i++) if (data[i] < cut) n++;
      sink += n;
    });
    let points = 0;
    const time = median(21, (k) => (points = contoursAt(grey, 0.35 + 0.015 * k).xy.length / 2));
    row(t.name, ms(time), `${(time / plain).toFixed(1)} × one plain pass over the pixels, ${ms(plain)} (at most 25 ×) · ${points} points`);
    if (sink === 0) throw new Error("nothing was measured");
  }
}

async function blackAndWhite(mp: number): Promise<void> {
  console.log(`\nBlack and white at ${mp} megapixels, the ink level given to both: time, mean distance from the true edge, nodes; the registry's potrace beside it`);
  for (const t of TRUTHS) {
    const width = widthFor(mp);
    const bytes = await pictureOfTruth(t, width);
    const grey = toGrey(await decodePicture(bytes, t.name), {});
    const k = width / t.width;
    let o = fit(grey, LEVEL);
    const png = await sharp(bytes).png({ compressionLevel: 1 }).toBuffer();
    // By turns, and the fastest of each: what else the machine does only ever adds.
    let ours = Infinity;
    let theirs = { time: Infinity, nodes: 0, path: "" };
    for (let turn = 0; turn < (mp > 4 ? 2 : TURNS); turn++) {
      for (let k = 0; k < IN_A_ROW; k++) ours = Math.min(ours, median(1, () => (o = fit(grey, LEVEL))));
      for (let k = 0; k < IN_A_ROW; k++) {
        const once = await potraceOf(png);
        if (once.time < theirs.time) theirs = once;
      }
    }
    const truth = edgeOf(t, k);
    const mine = deviation(flattened(o.shape, grey.height), truth);
    const other = deviation(loopsOf(theirs.path, 0.02).map((l) => l), truth);
    row(t.name, `${ms(ours)} / ${ms(theirs.time)}`, `${(theirs.time / ours).toFixed(1)} × faster (at least 4 at 4 MP) · ${mine.toFixed(3)} / ${other.toFixed(3)} px: ${(mine / other).toFixed(2)} of it (at most 0.5) · ${o.nodes} / ${theirs.nodes} nodes`);
  }
}

/** Edges as files bring them, at one megapixel: with the hold that the picture gives by itself, against the library's defaults. */
async function edges(): Promise<void> {
  console.log("\nEdges blended, dithered, compressed, upscaled and clean, at 1 megapixel: nodes and mean distance from the true edge, ours / registry's potrace");
  const width = widthFor(1);
  const kinds: [string, (b: Buffer) => Promise<Buffer>][] = [
    ["clean", async (b) => b],
    ["two greys", (b) => sharp(b).greyscale().threshold(128).png().toBuffer()],
    ["through six greys", (b) => sharp(b).greyscale().png({ palette: true, colours: 6, dither: 0 }).toBuffer()],
    ["dithered to eight greys", (b) => sharp(b).greyscale().png({ palette: true, colours: 8, dither: 1 }).toBuffer()],
    ["JPEG of quality 30", (b) => sharp(b).jpeg({ quality: 30 }).toBuffer()],
    ["upscaled twofold", async (b) => sharp(await sharp(b).resize({ width: Math.round(width / 2) }).png().toBuffer()).resize({ width, kernel: "cubic" }).png().toBuffer()],
  ];
  for (const [name, spoil] of kinds) {
    let [nodes, theirNodes, off, theirOff] = [0, 0, 0, 0];
    for (const t of TRUTHS.slice(0, 3)) {
      const bytes = await spoil(await pictureOfTruth(t, width));
      const grey = toGrey(await decodePicture(bytes, t.name), {});
      const contours = contoursAt(grey, LEVEL);
      const keep = keepLarge(contours, 1, SPECKS, SPECKS);
      const hold = Math.max(OF_PIXEL, OF_NOISE * edgeNoise(contours, (k) => keep[k] === 1));
      const o = fitOutline(contours, placed(grey), { ...settings(hold), faint: true });
      const other = await potraceOf(await sharp(bytes).toColourspace("b-w").png().toBuffer());
      const truth = edgeOf(t, width / t.width);
      nodes += o.nodes;
      theirNodes += other.nodes;
      off += deviation(flattened(o.shape, grey.height), truth) / 3;
      theirOff += deviation(loopsOf(other.path, 0.02).map((l) => l), truth) / 3;
    }
    row(name, `${nodes} / ${theirNodes}`, `${(nodes / theirNodes).toFixed(2)} of its nodes (at most 1.2) · ${off.toFixed(3)} / ${theirOff.toFixed(3)} px: ${(off / theirOff).toFixed(2)} of its distance (at most 1)`);
  }
}

/** As the outline's hold is found by itself: a share of a pixel, or so many spreads of the edge's noise. */
const OF_PIXEL = 0.3;
const OF_NOISE = 3;

/** Processes of their own in which each tracer runs for the first time; what they print is read. */
async function cold(): Promise<void> {
  console.log("\nThe first run in a fresh process on 2,000 px, and the tenth; ours is warmed while a picture is decoded, as the application and the command line do");
  for (const t of TRUTHS) {
    const folder = await mkdtemp(join(tmpdir(), "oaken-cold-"));
    const file = join(folder, "picture.png");
    await writeFile(file, await sharp(await pictureOfTruth(t, 2001)).png().toBuffer());
    const run = (who: string): number[] => JSON.parse(execFileSync(process.execPath, [process.argv[1], "--once", who, file], { encoding: "utf8" }).trim().split("\n").pop()!) as number[];
    const [plain, warmed, theirs] = ["plain", "warmed", "library"].map(run);
    await rm(folder, { recursive: true });
    row(t.name, `${ms(warmed[0])} / ${ms(theirs[0])}`, `cold, ${(warmed[0] / warmed[9]).toFixed(1)} × the tenth (asked 2.5 at most); ${ms(plain[0])} without warming; tenth ${ms(warmed[9])} / ${ms(theirs[9])}`);
  }
}

/** What `cold` runs in a process of its own: one tracer ten times on a picture; prints the times, ms. */
export async function onceInProcess(who: string, file: string): Promise<void> {
  const bytes = await readFile(file);
  const times: number[] = [];
  if (who === "library") {
    for (let k = 0; k < 10; k++) times.push((await potraceOf(bytes)).time);
  } else {
    const decoding = decodePicture(bytes, file);
    if (who === "warmed") warmUp();
    const grey = toGrey(await decoding, {});
    for (let k = 0; k < 10; k++) {
      const t0 = performance.now();
      fit(grey, LEVEL);
      times.push(performance.now() - t0);
    }
  }
  console.log(JSON.stringify(times));
}

/** The true edge in pixels. */
const edgeOf = (t: Truth, k: number) => new SegmentGrid(ringsFrom(t.loops.map((l) => l.map(([x, y]) => [x * k, y * k] as [number, number]))));

/** Curves as polygons in pixels with y down again. */
function flattened(s: Shape, height: number): [number, number][][] {
  const r = flatten(s, 0.02 * SCALE);
  return Array.from({ length: contourCount(s) }, (_, q) => {
    const out: [number, number][] = [];
    for (let i = r.starts[q]; i < r.starts[q + 1]; i++) out.push([r.xy[2 * i] / SCALE, height - r.xy[2 * i + 1] / SCALE]);
    return out;
  });
}

/** Mean distance from the true edge along the curves, weighted by length; pixels. */
function deviation(loops: readonly [number, number][][], truth: SegmentGrid): number {
  let sum = 0;
  let total = 0;
  for (const l of loops)
    l.forEach(([x, y], i) => {
      const [u, v] = l[(i + 1) % l.length];
      const len = Math.hypot(u - x, v - y);
      const parts = Math.max(1, Math.ceil(len / 4));
      for (let q = 0; q < parts; q++) {
        const f = (q + 0.5) / parts;
        sum += (truth.distance(x + f * (u - x), y + f * (v - y), 8) * len) / parts;
      }
      total += len;
    });
  return sum / total;
}

async function potraceOf(png: Buffer): Promise<{ time: number; nodes: number; path: string }> {
  const p = new potrace.Potrace({ threshold: LEVEL * 256, turdSize: SPECKS });
  await new Promise<void>((done, failed) => p.loadImage(png, (e: Error | null) => (e ? failed(e) : done())));
  const t0 = performance.now();
  const path = / d="([^"]*)"/.exec(p.getPathTag())![1];
  const time = performance.now() - t0;
  // A curve has one node; a corner of two lines has two.
  const nodes = (path.match(/C/g) ?? []).length + [...path.matchAll(/L ([^CMLZ]*)/g)].reduce((s, m) => s + m[1].trim().split(/[\s,]+/).length / 2, 0);
  return { time, nodes, path };
}

async function growth(): Promise<void> {
  console.log("\nCost as pictures grow (lettering): n·log n would add 10 % for each fourfold");
  let before = 0;
  for (const mp of [1, 4, 16]) {
    const grey = toGrey(await decodePicture(await pictureOfTruth(TRUTHS[2], widthFor(mp)), "lettering.png"), {});
    const held = process.memoryUsage().arrayBuffers;
    let o = fit(grey);
    const grown = process.memoryUsage().arrayBuffers - held;
    const time = median(3, () => (o = fit(grey)));
    row(`${mp} megapixels`, ms(time), `${before ? `${(time / before).toFixed(1)} × for 4 × the pixels · ` : ""}${o.nodes} nodes · at most ${(Math.max(0, grown) / grey.data.length).toFixed(1)} bytes a pixel allocated (under 12)`);
    before = time;
  }
}

async function colours(): Promise<void> {
  console.log("\nFive colours at 4 megapixels");
  const r = await decodePicture(await sharp(logoSvg(widthFor(4))).png().toBuffer(), "logo.png");
  let nodes = 0;
  let off = 0;
  const once = () => {
    const { swatches, table } = findColours(r, 5);
    const labels = labelPixels(r, swatches, table);
    mergeSpecks(labels, SPECKS);
    joinCorners(labels);
    const f = fitArcs(traceArcs(labels, r, swatches), { scale: 1, x0: 0, y1: r.height }, HOLD, 0.7);
    const shapes = swatches.map((_, l) => colourShape(f, swatches.map((_, q) => q === l)));
    nodes = shapes.reduce((s, x) => s + x.kinds.length, 0);
    // Together the colours fill what all of them as one shape fill, or there is a gap or an overlap.
    off = Math.abs(shapes.reduce((s, x) => s + areaOf(x), 0) / areaOf(colourShape(f, swatches.map(() => true))) - 1);
  };
  let svg = "";
  let [ours, theirs] = [Infinity, Infinity];
  for (let turn = 0; turn < TURNS; turn++) {
    ours = Math.min(ours, median(1, once));
    theirs = Math.min(theirs, median(1, () => (svg = ImageTracer.imagedataToSVG({ width: r.width, height: r.height, data: r.data as unknown as Uint8ClampedArray }, { numberofcolors: 5, pathomit: SPECKS }))));
  }
  row("picture to shapes, ours / registry's imagetracerjs", `${ms(ours)} / ${ms(theirs)}`, `${(theirs / ours).toFixed(1)} × faster (at least 5) · ${nodes} / ${(svg.match(/[LQ]/g) ?? []).length} nodes`);
  row("gaps and overlaps between neighbours", `${(100 * off).toExponential(1)} %`, "of the picture (under 0.001 %)");
}

function areaOf(s: Shape): number {
  const rings = flatten(s, 0.01);
  let area = 0;
  for (let k = 0; k < ringCount(rings); k++) area += ringArea(rings, k);
  return area;
}

async function lighting(): Promise<void> {
  console.log("\nLow-contrast medal under uneven light: share of the true ink found, and false ink against it");
  const m = await medal(1400);
  const r = await decodePicture(m.picture, "medal.png");
  const plain = toGrey(r, {});
  let best = { hit: 0, wrong: 1, score: -1 };
  for (let level = 1; level < 255; level++) {
    const s = score(plain, level, m.ink);
    if (s.wrong < 0.05 && s.hit > best.hit) best = { ...s, score: 0 };
  }
  row("one level for all, the best with under 5 % false", `${(100 * best.hit).toFixed(1)} %`, "(cannot reach 70 %)");
  const even = toGrey(r, { even: 70 });
  const s = score(even, findInkLevel(histogram(even)) * 255, m.ink);
  row("lighting evened out, level found by itself", `${(100 * s.hit).toFixed(1)} %`, `with ${(100 * s.wrong).toFixed(1)} % false (at least 90 % with under 5 %)`);
}

function score(g: Grey, level: number, ink: Uint8Array): { hit: number; wrong: number } {
  let [hit, wrong, all] = [0, 0, 0];
  for (let i = 0; i < ink.length; i++) {
    const is = g.data[i] < level;
    all += ink[i];
    if (is && ink[i]) hit++;
    else if (is) wrong++;
  }
  return { hit: hit / all, wrong: wrong / all };
}

async function preview(): Promise<void> {
  console.log("\nTone sliders on 12 megapixels");
  const r: Raster = await decodePicture(await pictureOfTruth(TRUTHS[3], widthFor(12)), "scan.jpg");
  const small = shrunk(r, 500_000);
  const time = median(9, (k) => toGrey(small, { red: 0.2 + 0.01 * k, black: 0.05, sharpen: 0.5 }));
  row("preview of channels, levels and sharpening", ms(time), `${(1000 / time).toFixed(0)} a second (at least 20)`);
  row("the same at full size", ms(median(1, (k) => toGrey(r, { red: 0.2 + 0.01 * k, black: 0.05, sharpen: 0.5 }))));
}


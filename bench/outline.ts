import ImageTracer from "imagetracerjs";
import sharp from "sharp";
import { ringArea, ringCount } from "@oaken/core/geometry/rings";
import { flatten, type Shape } from "@oaken/core/geometry/shape";
import { traceArcs } from "@oaken/core/outline/colours/arcs";
import { joinCorners, labelPixels, mergeSpecks } from "@oaken/core/outline/colours/labels";
import { findColours } from "@oaken/core/outline/colours/palette";
import { colourShape, fitArcs } from "@oaken/core/outline/colours/shapes";
import { contoursAt } from "@oaken/core/outline/contours";
import { edgeNoise } from "@oaken/core/outline/noise";
import { fitOutline, keepLarge } from "@oaken/core/outline/outline";
import type { Grey, Raster } from "@oaken/core/picture/raster";
import { shrunk } from "@oaken/core/picture/shrink";
import { findInkLevel, histogram, toGrey } from "@oaken/core/picture/tone";
import { decodePicture } from "@oaken/files/decode";
import { logoSvg, loopsOf, medal, pictureOfTruth, TRUTHS } from "../demo/truth.ts";
import { benchCold } from "./cold.ts";
import { median, ms, row } from "./measure.ts";
import {
  deviation,
  edgeOf,
  fit,
  flattened,
  HOLD,
  LEVEL,
  placed,
  potraceOf,
  settings,
  SPECKS,
  widthFor,
} from "./edge.ts";

const MEGAPIXELS = [0.3, 4, 12];
/**
 * How often each tracer has its turn, and how often it runs then: what one leaves to clear up slows the other's first
 * run.
 */
const TURNS = 5;
const IN_A_ROW = 3;

/** Outlines against the registry's tracers, on pictures whose true edges are known. */
export async function benchOutline(): Promise<void> {
  await benchCold();
  await drag();
  for (const mp of MEGAPIXELS) await blackAndWhite(mp);
  await edges();
  await growth();
  await colours();
  await lighting();
  await preview();
}

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
    row(
      t.name,
      ms(time),
      `${(time / plain).toFixed(1)} × one plain pass over the pixels, ${ms(plain)} (at most 25 ×) · ` +
        `${points} points`,
    );
    if (sink === 0) throw new Error("nothing was measured");
  }
}

async function blackAndWhite(mp: number): Promise<void> {
  console.log(
    `\nBlack and white at ${mp} megapixels, the ink level given to both: time, mean distance from the true ` +
      "edge, nodes; the registry's potrace beside it",
  );
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
      for (let k = 0; k < IN_A_ROW; k++)
        ours = Math.min(
          ours,
          median(1, () => (o = fit(grey, LEVEL))),
        );
      for (let k = 0; k < IN_A_ROW; k++) {
        const once = await potraceOf(png);
        if (once.time < theirs.time) theirs = once;
      }
    }
    const truth = edgeOf(t, k);
    const mine = deviation(flattened(o.shape, grey.height), truth);
    const other = deviation(loopsOf(theirs.path, 0.02), truth);
    row(
      t.name,
      `${ms(ours)} / ${ms(theirs.time)}`,
      `${(theirs.time / ours).toFixed(1)} × faster (at least 4 at 4 MP) · ${mine.toFixed(3)} / ` +
        `${other.toFixed(3)} px: ${(mine / other).toFixed(2)} of it (at most 0.5) · ${o.nodes} / ${theirs.nodes} ` +
        "nodes",
    );
  }
}

/**
 * Edges as files bring them, at one megapixel: with the hold that the picture gives by itself, against the library's
 * defaults.
 */
async function edges(): Promise<void> {
  console.log(
    "\nEdges blended, dithered, compressed, upscaled and clean, at 1 megapixel: nodes and mean distance from the " +
      "true edge, ours / registry's potrace",
  );
  const width = widthFor(1);
  const kinds: [string, (b: Buffer) => Promise<Buffer>][] = [
    ["clean", async (b) => b],
    ["two greys", (b) => sharp(b).greyscale().threshold(128).png().toBuffer()],
    ["through six greys", (b) => sharp(b).greyscale().png({ palette: true, colours: 6, dither: 0 }).toBuffer()],
    ["dithered to eight greys", (b) => sharp(b).greyscale().png({ palette: true, colours: 8, dither: 1 }).toBuffer()],
    ["JPEG of quality 30", (b) => sharp(b).jpeg({ quality: 30 }).toBuffer()],
    [
      "upscaled twofold",
      async (b) =>
        sharp(
          await sharp(b)
            .resize({ width: Math.round(width / 2) })
            .png()
            .toBuffer(),
        )
          .resize({ width, kernel: "cubic" })
          .png()
          .toBuffer(),
    ],
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
      theirOff += deviation(loopsOf(other.path, 0.02), truth) / 3;
    }
    row(
      name,
      `${nodes} / ${theirNodes}`,
      `${(nodes / theirNodes).toFixed(2)} of its nodes (at most 1.2) · ${off.toFixed(3)} / ${theirOff.toFixed(3)} ` +
        `px: ${(off / theirOff).toFixed(2)} of its distance (at most 1)`,
    );
  }
}

/** As the outline's hold is found by itself: a share of a pixel, or so many spreads of the edge's noise. */
const OF_PIXEL = 0.3;
const OF_NOISE = 3;

async function growth(): Promise<void> {
  console.log("\nCost as pictures grow (lettering): n·log n would add 10 % for each fourfold");
  let before = 0;
  for (const mp of [1, 4, 16]) {
    const grey = toGrey(await decodePicture(await pictureOfTruth(TRUTHS[2], widthFor(mp)), "lettering.png"), {});
    const held = process.memoryUsage().arrayBuffers;
    let o = fit(grey);
    const grown = process.memoryUsage().arrayBuffers - held;
    const time = median(3, () => (o = fit(grey)));
    row(
      `${mp} megapixels`,
      ms(time),
      `${before ? `${(time / before).toFixed(1)} × for 4 × the pixels · ` : ""}${o.nodes} nodes · at most ` +
        `${(Math.max(0, grown) / grey.data.length).toFixed(1)} bytes a pixel allocated (under 12)`,
    );
    before = time;
  }
}

async function colours(): Promise<void> {
  console.log("\nFive colours at 4 megapixels");
  const r = await decodePicture(
    await sharp(logoSvg(widthFor(4)))
      .png()
      .toBuffer(),
    "logo.png",
  );
  let nodes = 0;
  let off = 0;
  const once = () => {
    const { swatches, table } = findColours(r, 5);
    const labels = labelPixels(r, swatches, table);
    mergeSpecks(labels, SPECKS);
    joinCorners(labels);
    const f = fitArcs(traceArcs(labels, r, swatches), { scale: 1, x0: 0, y1: r.height }, HOLD, 0.7);
    const shapes = swatches.map((_, l) =>
      colourShape(
        f,
        swatches.map((_, q) => q === l),
      ),
    );
    nodes = shapes.reduce((s, x) => s + x.kinds.length, 0);
    // Together the colours fill what all of them as one shape fill, or there is a gap or an overlap.
    off = Math.abs(
      shapes.reduce((s, x) => s + areaOf(x), 0) /
        areaOf(
          colourShape(
            f,
            swatches.map(() => true),
          ),
        ) -
        1,
    );
  };
  let svg = "";
  let [ours, theirs] = [Infinity, Infinity];
  for (let turn = 0; turn < TURNS; turn++) {
    ours = Math.min(ours, median(1, once));
    theirs = Math.min(
      theirs,
      median(
        1,
        () =>
          (svg = ImageTracer.imagedataToSVG(
            { width: r.width, height: r.height, data: r.data as unknown as Uint8ClampedArray },
            { numberofcolors: 5, pathomit: SPECKS },
          )),
      ),
    );
  }
  row(
    "picture to shapes, ours / registry's imagetracerjs",
    `${ms(ours)} / ${ms(theirs)}`,
    `${(theirs / ours).toFixed(1)} × faster (at least 5) · ${nodes} / ${(svg.match(/[LQ]/g) ?? []).length} nodes`,
  );
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
  row(
    "lighting evened out, level found by itself",
    `${(100 * s.hit).toFixed(1)} %`,
    `with ${(100 * s.wrong).toFixed(1)} % false (at least 90 % with under 5 %)`,
  );
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

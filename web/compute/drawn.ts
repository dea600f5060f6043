import { profileOf, SCRATCH } from "@oaken/core/cutters/profile";
import { strokeLength } from "@oaken/core/geometry/clearance/strokes";
import { type BuildResult, finished } from "@oaken/core/job/build";
import { mainHeights } from "@oaken/core/job/drawings";
import type { Made } from "@oaken/core/job/graph";
import { clearance } from "@oaken/core/job/tools";
import type { Kept } from "@oaken/core/kept";
import { isFramed, measuredSize } from "@oaken/core/makings/picture/picture";
import { heightAt, rangeOf } from "@oaken/core/height/field";
import { newSurface, usualCell } from "@oaken/core/proof/surface";
import type { GreyProduct, HeightsProduct, RasterProduct, ShapesProduct } from "@oaken/core/makings/product";
import { outlineFigures } from "@oaken/core/outline/figures";
import type { Raster } from "@oaken/core/picture/raster";
import { shrunk } from "@oaken/core/picture/shrink";
import { shadingOf } from "@oaken/core/proof/shading";
import type {
  Built,
  DrawnGrey,
  DrawnHeights,
  DrawnOutline,
  DrawnProduct,
  DrawnRaster,
  DrawnShapes,
  DrawnSurface,
  DrawnTone,
  Packed,
} from "./messages.ts";
import type { Sender } from "./parcels.ts";

/** Pixels of a framed picture as the stage shows it. */
const PICTURE_PIXELS = 1_500_000;

/** Longest side of the tone's picture, pixels: sharp enough to judge on the stage. */
const TONE_SIDE = 900;

/**
 * A build as the page draws it, on its way there.
 * @param transfer is given the buffers that go over instead of being copied
 */
export function packed(
  r: BuildResult,
  { final, findings, took }: Pick<Built, "final" | "findings" | "took">,
  kept: Kept,
  sender: Sender,
  transfer: Transferable[],
): Packed {
  const resolved: Built["resolved"] = {};
  const makings: Packed["makings"] = {};
  for (const [id, made] of r.makings) {
    resolved[id] = made.resolved;
    const product = drawnProduct(r, made, kept);
    makings[id] = sender.parcel(product, () => product);
  }
  for (const c of r.cuts) resolved[c.id] = c.resolved;
  const surface = sender.parcel(r.lost?.map ?? r.proof.z, () => {
    const s = drawnSurface(r);
    transfer.push(s.z.buffer, s.by.buffer, s.shading.data.buffer, ...(s.lost ? [s.lost.buffer] : []));
    return s;
  });
  const whole: Packed = {
    makings,
    job: r.job,
    final,
    problem: r.problem,
    resolved,
    cuts: r.cuts.map((c, i) => ({
      id: c.id,
      on: c.cut.on,
      seconds: c.seconds,
      minZ: c.figures.minZ,
      paths: sender.parcel(c.timed, () => ({ toolpath: c.toolpath, moveSeconds: c.moveSeconds })),
      facts: c.facts,
      marks: c.marks ?? [],
      left: r.lost?.cuts[i] ?? null,
    })),
    surface,
    litho: mainHeights(r)?.litho ?? null,
    seconds: r.seconds,
    findings,
    took,
  };
  sender.sent();
  return whole;
}

/** The proof in arrays of its own: the worker goes on from those that it keeps. */
function drawnSurface(r: BuildResult): DrawnSurface {
  const shown = finished(r);
  const { cell, width, height, by } = r.proof;
  return {
    cell,
    width,
    height,
    z: shown.z.slice(),
    by: by.slice(),
    shading: shadingOf(shown),
    lost: r.lost?.map.slice() ?? null,
  };
}

/** Drawn products that are kept: those of a job with many makings. */
const MOST_DRAWN = 24;

/** What a making gives, as the page draws it; the same object for the same product. */
function drawnProduct(r: BuildResult, { making, product }: Made, kept: Kept): DrawnProduct {
  if (product.is === "raster")
    return kept.of("drawn-raster", [product, isFramed(making.settings)], drawnRaster, MOST_DRAWN);
  if (product.is === "grey") return kept.of("drawn-grey", [product], drawnGrey, MOST_DRAWN);
  if (product.is === "heights") return drawnHeights(r, product, kept);
  const main = r.job.cuts.find((c) => c.on && !c.target && c.reads.art === making.id)?.cutter;
  const shapes = (from: ShapesProduct, least: number) => drawnShapes(from, outlineOf(from, least, kept));
  return kept.of("drawn-shapes", [product, leastStroke(main)], shapes, MOST_DRAWN);
}

function drawnRaster(product: RasterProduct, framed: boolean): DrawnRaster {
  const { x0, y0, width, height } = product.place;
  const { raster } = product;
  return {
    is: "raster",
    place: { x0, y0, width, height },
    measured: measuredSize(product),
    framed: raster.width > 0 && framed ? smallPicture(raster) : null,
    pixels: { width: raster.width, height: raster.height },
  };
}

const drawnGrey = (product: GreyProduct): DrawnGrey => ({
  is: "grey",
  bins: product.bins,
  tone: smallTone(product.grey),
});

function drawnShapes(product: ShapesProduct, outline: DrawnOutline): DrawnShapes {
  const colours = product.traced?.colours;
  return {
    is: "shapes",
    outline,
    isTraced: product.traced !== null,
    colours:
      colours?.swatches.map((s, i) => ({
        hex: s.hex,
        share: s.share,
        kept: colours.kept[i],
        ground: i === colours.ground,
      })) ?? null,
  };
}

/** Cells of a wanted surface as the stage shows it. */
const WANTED_CELLS = 300_000;

function drawnHeights({ job, proof }: BuildResult, product: HeightsProduct, kept: Kept): DrawnHeights {
  const { width, height, thickness } = job.stock;
  const cell = Math.max(proof.cell, usualCell(width, height, WANTED_CELLS));
  return kept.of("drawn-heights", [product, width, height, thickness, cell], (made, w, h, t, c): DrawnHeights => {
    const s = newSurface(w, h, c, t);
    for (let k = 0; k < s.z.length; k++)
      s.z[k] = heightAt(made.field, ((k % s.width) + 0.5) * c, (Math.floor(k / s.width) + 0.5) * c);
    // Whatever lies below the stock's top counts as cut: it is shown in the colour of fresh wood.
    const by = Uint8Array.from(s.z, (z) => (z < 0 ? 1 : 0));
    const surface = { cell: c, width: s.width, height: s.height, z: s.z, by, shading: shadingOf(s), lost: null };
    return { is: "heights", ...rangeOf(made.field), surface };
  });
}

export function smallTone(g: {
  width: number;
  height: number;
  data: Uint8Array | Uint16Array;
  max: number;
}): DrawnTone {
  const k = Math.max(1, Math.max(g.width, g.height) / TONE_SIDE);
  const width = Math.max(1, Math.round(g.width / k));
  const height = Math.max(1, Math.round(g.height / k));
  const grey = new Uint8ClampedArray(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      // Mean of a few samples of the block: enough for a thumbnail.
      let sum = 0;
      for (let q = 0; q < 9; q++) {
        const sx = Math.min(g.width - 1, Math.floor((x + ((q % 3) + 0.5) / 3) * k));
        const sy = Math.min(g.height - 1, Math.floor((y + (Math.floor(q / 3) + 0.5) / 3) * k));
        sum += g.data[sy * g.width + sx];
      }
      grey[y * width + x] = (sum / 9 / g.max) * 255;
    }
  return { width, height, grey };
}

/** The framed picture small enough to draw: its own pixels are in the worker only. */
function smallPicture(r: Raster): { width: number; height: number; rgba: Uint8ClampedArray } {
  const s = shrunk(r, PICTURE_PIXELS);
  const shift = s.data instanceof Uint16Array ? 8 : 0;
  const rgba = new Uint8ClampedArray(s.data.length);
  for (let i = 0; i < rgba.length; i++) rgba[i] = s.data[i] >> shift;
  return { width: s.width, height: s.height, rgba };
}

/** Strokes narrower than this are lost on a cutter, mm. */
function leastStroke(cutter: BuildResult["job"]["cuts"][number]["cutter"] | undefined): number {
  if (!cutter) return 0;
  const isPointed = cutter.kind !== "flat" && cutter.kind !== "ball" && cutter.kind !== "torch";
  return isPointed ? 2 * profileOf(cutter).r(SCRATCH) : cutter.diameter;
}

/**
 * What the stage marks on shapes: pieces, thin strokes, bridges, nodes.
 * @param least strokes narrower than this are marked, mm
 */
function outlineOf({ shape, ink, lines, traced }: ShapesProduct, least: number, kept: Kept): DrawnOutline {
  const clear = clearance(ink, kept);
  const { axis } = clear;
  const thin: number[] = [];
  for (let e = 0; e < axis.a.length; e++) {
    const [i, j] = [axis.a[e], axis.b[e]];
    if (Math.max(axis.d[i], axis.d[j]) < least / 2 && strokeLength(clear, e) > 0)
      thin.push(axis.x[i], axis.y[i], axis.x[j], axis.y[j]);
  }
  const nodeAt = new Float32Array(2 * shape.kinds.length);
  for (let i = 0; i < shape.kinds.length; i++) nodeAt.set([shape.nodes[6 * i + 4], shape.nodes[6 * i + 5]], 2 * i);
  return {
    rings: { xy: Float32Array.from(ink.xy), starts: ink.starts },
    lines: lines && { xy: Float32Array.from(lines.xy), starts: lines.starts },
    pieces: shape.parent.length,
    nodes: shape.kinds.length,
    maxDeviation: traced?.result.maxDeviation ?? 0,
    dropped: traced?.result.dropped ?? 0,
    droppedAt: traced?.result.droppedAt ?? new Float64Array(0),
    figures: outlineFigures(shape, ink, clear, traced?.edge ?? new Float64Array(0)),
    bridges: traced?.bridges ?? [],
    nodeAt,
    thin: Float32Array.from(thin),
  };
}

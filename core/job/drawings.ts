import { boundsOf } from "../geometry/rings.ts";
import type { Planned } from "../cuts/kind.ts";
import type { HeightsProduct, ProductOf } from "../makings/product.ts";
import { writeDxf } from "../output/dxf.ts";
import { writeSvg } from "../output/svg.ts";
import type { BuildResult } from "./build.ts";
import { type Made, upstreamOf } from "./graph.ts";

/** Shapes with where the picture lies that they were made from, or where they lie themselves; mm. */
export interface Drawn {
  made: Made & { product: ProductOf<"shapes"> };
  art: { x: number; y: number; width: number; height: number };
}

/** The first shapes that a cut works on; the first there are where none does. Null where there are none. */
export function mainShapes({ job, makings }: Pick<BuildResult, "job" | "makings">): Drawn | null {
  const all = [...makings.values()].filter((m): m is Drawn["made"] => m.product.is === "shapes");
  const made = all.find((m) => job.cuts.some((c) => c.reads.art === m.making.id)) ?? all[0];
  if (!made) return null;
  const picture = upstreamOf(job, made.making.id, (n) => makings.get(n.id)?.product.is === "raster");
  const product = picture && makings.get(picture.id)!.product;
  if (product?.is === "raster") {
    const { x0, y0, width, height } = product.place;
    return { made, art: { x: x0, y: y0, width, height } };
  }
  const b = boundsOf(made.product.ink.xy);
  return { made, art: { x: b.minX, y: b.minY, width: b.maxX - b.minX, height: b.maxY - b.minY } };
}

/** The first surface that a cut works on; null where there is none. */
export function mainHeights({ job, makings }: Pick<BuildResult, "job" | "makings">): HeightsProduct | null {
  for (const { on, reads } of job.cuts) {
    const product = makings.get(reads.art)?.product;
    if (on && product?.is === "heights") return product;
  }
  return null;
}

/** The first cut that draws tones, with where its picture lies, mm; null where there is none. */
export function mainTones({ cuts, makings }: Pick<BuildResult, "cuts" | "makings">): Toned | null {
  for (const { cut, tones } of cuts) {
    const product = makings.get(cut.reads.art)?.product;
    if (!cut.on || !tones || product?.is !== "grey") continue;
    const { x0, y0, width, height } = product.picture.place;
    return { tones, art: { x: x0, y: y0, width, height } };
  }
  return null;
}
export interface Toned {
  tones: NonNullable<Planned["tones"]>;
  art: Drawn["art"];
}

/** The main shapes as drawings: SVG and DXF, mm. */
export function drawingFiles(build: Pick<BuildResult, "job" | "makings">): { name: string; text: string }[] {
  const main = mainShapes(build);
  if (!main) return [];
  const { art } = main;
  const { shape, lines } = main.made.product;
  return [
    { name: "outline.svg", text: writeSvg(shape, art, lines) },
    { name: "outline.dxf", text: writeDxf(shape, art.x, art.y, build.job.drawing, lines) },
  ];
}

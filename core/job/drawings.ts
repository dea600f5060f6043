import { boundsOf } from "../geometry/rings.ts";
import type { ProductOf } from "../makings/product.ts";
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
  const made = all.find((m) => job.cuts.some((c) => c.reads[0] === m.making.id)) ?? all[0];
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

import "./ready.ts";
import { type BuildOptions, buildJob, type BuildResult } from "../job/build.ts";
import type { BoardJob } from "../job/document.ts";
import { onePicture } from "../job/tools.ts";
import { Kept } from "../kept.ts";
import type { Gives, ProductOf } from "../makings/product.ts";
import type { Raster } from "../picture/raster.ts";

/** A job of one picture, built as a first time. */
export const built = (job: BoardJob, raster: Raster, options: Omit<BuildOptions, "files"> = {}): BuildResult =>
  buildJob(job, { files: onePicture(raster), ...options }, new Kept());

/** The first product of a kind in a build, or that of a making. @throws Error where there is none */
export function productIn<G extends Gives>(build: BuildResult, gives: G, id?: string): ProductOf<G> {
  for (const m of build.makings.values())
    if (m.product.is === gives && (id === undefined || m.making.id === id)) return m.product as ProductOf<G>;
  throw new Error(`nothing gives ${gives}`);
}

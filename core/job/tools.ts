import { type Clearance, clearanceOf } from "../geometry/clearance/clearance.ts";
import type { Rings } from "../geometry/rings.ts";
import { type Kept, nameAs } from "../kept.ts";
import type { Tools } from "../makings/kind.ts";
import type { Raster } from "../picture/raster.ts";
import { noProgress } from "../problem.ts";

/** How a job comes by the files of its makings. */
export interface Files {
  /** a picture by its content's name, decoded */
  picture(sha: string): Raster;
  /** a drawing by its content's name */
  drawing(sha: string): string;
  /** a solid's file by its content's name */
  solid(sha: string): Uint8Array;
}

/** Files of a job that has one picture and nothing else. */
export const onePicture = (raster: Raster): Files => ({
  picture: () => raster,
  drawing: () => "",
  solid: () => new Uint8Array(0),
});

/** What makings may use. */
export const toolsOf = (files: Files, kept: Kept): Tools => ({
  kept,
  clearance: (r) => clearance(r, kept),
  progress: noProgress,
  picture: (sha) => nameAs(files.picture(sha), `picture|${sha}`),
  drawing: (sha) => files.drawing(sha),
  solid: (sha) => files.solid(sha),
});

/** Clearance inside a region, made once. */
export const clearance = (r: Rings, kept: Kept): Clearance => kept.of("clearance", [r], clearanceOf);

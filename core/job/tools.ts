import { type Clearance, clearanceOf } from "../geometry/clearance/clearance.ts";
import type { Rings } from "../geometry/rings.ts";
import { type Face, type FaceId, faceIdOf } from "../lettering/face.ts";
import { type Kept, nameAs } from "../kept.ts";
import type { Tools } from "../makings/kind.ts";
import { makingKind } from "../makings/register.ts";
import type { Raster } from "../picture/raster.ts";
import { noProgress } from "../problem.ts";
import type { JobMaking } from "./document.ts";

/** How a job comes by the files of its makings. */
export interface Files {
  /** a picture by its content's name, decoded */
  picture(sha: string): Raster;
  /** a drawing by its content's name */
  drawing(sha: string): string;
  /** a solid's file by its content's name */
  solid(sha: string): Uint8Array;
  /** a typeface that a making sets words in */
  face(id: FaceId): Face;
}

/** The faces that a job's makings set words in. */
export const facesIn = (makings: readonly JobMaking[]): ReadonlySet<FaceId> =>
  new Set(makings.flatMap((m) => makingKind(m.kind).faces?.(m.settings) ?? []));

/** Files of a job that has one picture and nothing else. */
export const onePicture = (raster: Raster): Files => ({
  picture: () => raster,
  drawing: () => "",
  solid: () => new Uint8Array(0),
  face: noFace,
});

/** For jobs that set no words. */
export const noFace = (id: FaceId): Face => {
  throw new Error(`The face "${id}" was not loaded.`);
};

/** What makings may use. */
export const toolsOf = (files: Files, kept: Kept): Tools => ({
  kept,
  clearance: (r) => clearance(r, kept),
  progress: noProgress,
  picture: (sha) => nameAs(files.picture(sha), `picture|${sha}`),
  drawing: (sha) => files.drawing(sha),
  solid: (sha) => files.solid(sha),
  face: (id) => files.face(faceIdOf(id)),
});

/** Clearance inside a region, made once. */
export const clearance = (r: Rings, kept: Kept): Clearance => kept.of("clearance", [r], clearanceOf);

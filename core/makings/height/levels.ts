import type { HeightField } from "../../height/field.ts";
import type { Levels } from "../../height/levels.ts";
import { fieldsFor } from "../../settings/list.ts";
import type { Asking, BoardSize } from "../kind.ts";
import type { GreyProduct, Placed, Takes } from "../product.ts";

/** What surfaces are made from: a picture in greys. */
export const FROM_TONE = { from: { gives: "grey", label: "Tone" } } as const satisfies Takes;

/** What the automatic values of such a surface look at. */
export interface ToneContext {
  board: BoardSize;
  /** mm per pixel */
  scale: number;
}
export const toneContext = ({ reads: { from }, board }: Asking<typeof FROM_TONE>): ToneContext => ({
  board,
  scale: from.picture.place.scale,
});

/** Noise finer than so many mm taken out, edges kept. */
export const smoothField = (pixels: number) =>
  fieldsFor<ToneContext>().length("smooth", "Smooth, keeping edges", {
    help: "Takes out noise finer than this, which would become roughness.",
    min: 0,
    max: 50,
    step: 0.05,
    slider: true,
    auto: (c) => ({
      value: Math.round(pixels * c.scale * 100) / 100,
      reason: pixels === 1 ? "one pixel" : `${pixels} pixels, about the noise of a picture`,
    }),
  });

/** A length on the board as a radius in samples. */
export const radiusIn = (levels: Levels, place: Placed, mm: number): number =>
  Math.round((mm * levels.width) / place.width / 2);

/** Samples that a height has at most: more is finer than any cutter on a board of a metre. */
export const MOST_SAMPLES = 12e6;

/** A tone's greys as numbers from 0 to 1, row 0 at the top as in the picture; fewer where there are too many. */
export function levelsOf({ grey }: GreyProduct): Levels {
  const { width: W, height: H, data, max } = grey;
  const k = Math.max(1, Math.ceil(Math.sqrt((W * H) / MOST_SAMPLES)));
  const width = Math.max(1, Math.floor(W / k));
  const height = Math.max(1, Math.floor(H / k));
  const v = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let q = 0; q < k; q++) for (let p = 0; p < k; p++) sum += data[(y * k + q) * W + x * k + p];
      v[y * width + x] = sum / (k * k * max);
    }
  return { width, height, v };
}

/** Heights in the picture's rows as a field on the board, whose rows begin at the front. */
export function laidOut({ width, height, v }: Levels, place: Placed): HeightField {
  const z = new Float32Array(v.length);
  for (let y = 0; y < height; y++) z.set(v.subarray(y * width, (y + 1) * width), (height - 1 - y) * width);
  return { x0: place.x0, y0: place.y0, cell: place.width / width, width, height, z };
}

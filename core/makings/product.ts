import type { Rings } from "../geometry/rings.ts";
import type { HeightField } from "../height/field.ts";
import type { Shape } from "../geometry/shape.ts";
import type { Lines } from "../outline/centre.ts";
import type { Placement } from "../outline/outline.ts";
import type { PictureBox } from "../picture/frame.ts";
import type { Grey, Raster } from "../picture/raster.ts";
import type { Traced } from "./outline/trace.ts";

/** Where a picture lies on the board, mm: its scale in mm per pixel, its corners, its size. */
export interface Placed extends Placement {
  y0: number;
  width: number;
  height: number;
}

/** A picture as framed, where it lies on the board. */
export interface RasterProduct {
  is: "raster";
  raster: Raster;
  place: Placed;
  /** what width and place are measured over, pixels of the raster; null for the whole picture */
  art: PictureBox | null;
  /** pixels of this raster for one of the framed picture: less than 1 in a preview */
  shrunk: number;
}

/** A picture in greys, with what its greys tell. */
export interface GreyProduct {
  is: "grey";
  grey: Grey;
  /** how many pixels have each of 256 greys */
  bins: Uint32Array;
  /** ink level found in them, 0…1 */
  found: number;
  contrast: number;
  /** the picture it was made from, with its colours and its place */
  picture: RasterProduct;
}

/** Closed shapes on the board, mm. */
export interface ShapesProduct {
  is: "shapes";
  /** lines, arcs and cubics, as drawings are written */
  shape: Shape;
  /** as cuts read them: flattened, sound */
  ink: Rings;
  /** centre lines of the strokes, where they were asked for */
  lines: Lines | null;
  /** how closely the shapes hold to what they were made from, mm; 0 where they are exact */
  held: number;
  /** where they were not sound before they were mended, mm */
  mendedAt: readonly { x: number; y: number }[];
  /** what a drawing held besides, in words, where it was left out */
  leftOut?: readonly string[];
  /** letters of words that their face does not have, each once */
  unwritten?: readonly string[];
  /** how they were found in a picture, where they were */
  traced: Traced | null;
}

/** A surface wanted on the board. */
export interface HeightsProduct {
  is: "heights";
  field: HeightField;
  /** the picture that it was made from, where it was */
  picture: RasterProduct | null;
  /** of a sheet that is to glow: its light law, T = exp(−t/λ), and its thicknesses, mm */
  litho: Litho | null;
  /** what a file held besides, in words, where it was left out */
  leftOut?: readonly string[];
}

export interface Litho {
  law: "light" | "straight";
  lambda: number;
  thin: number;
  thick: number;
  /** seen from the side that is not cut */
  mirrored: boolean;
}

/** What a making gives and a cut or another making takes. Add a kind of product and the views that draw it. */
export type Product = RasterProduct | GreyProduct | ShapesProduct | HeightsProduct;
export type Gives = Product["is"];

/** What each kind of product is, in a sentence. */
export const GIVES: Record<Gives, string> = {
  raster: "a picture",
  grey: "greys",
  shapes: "shapes",
  heights: "a height",
};
/** What is made to be cut by itself; other products are on the way there, and are kept only for what reads them. */
export const ENDS: ReadonlySet<Gives> = new Set(["shapes", "heights"]);
export type ProductOf<G extends Gives> = Extract<Product, { is: G }>;

/** A named input: what it must be given, and whether it may be left out. */
export interface Take<G extends Gives = Gives> {
  gives: G;
  label: string;
  optional?: boolean;
}
export type Takes = Record<string, Take>;

/** The products behind named inputs. */
export type Reading<R extends Takes> = {
  [K in keyof R]: "optional" extends keyof R[K] ? ProductOf<R[K]["gives"]> | null : ProductOf<R[K]["gives"]>;
};

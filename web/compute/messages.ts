import type { Finding } from "@oaken/core/inspect/finding";
import type { SheetParts } from "@oaken/core/job/sheet";
import type { Cutter } from "@oaken/core/cutters/profile";
import type { Choice } from "@oaken/core/job/choose";
import type { BoardJob } from "@oaken/core/job/document";
import type { Shading } from "@oaken/core/proof/shading";
import type { OutlineFigures } from "@oaken/core/outline/figures";
import type { Mark } from "@oaken/core/cuts/kind";
import type { Litho } from "@oaken/core/makings/product";
import type { LostDetail } from "@oaken/core/proof/lost";
import type { Resolved } from "@oaken/core/settings/fields";
import type { PathFigures, Toolpath } from "@oaken/core/toolpath/toolpath";
import type { Parcel } from "./parcels.ts";

/** A build, and which it is: numbers grow, and one that is no longer the newest may be given up. */
export interface BuildAsk {
  seq: number;
  job: BoardJob;
  revision?: number;
  written?: number;
  quick?: boolean;
}

/** Outlines and greys for a slider that moves. */
export interface Previewed {
  rings: DrawnRings | null;
  tone: DrawnTone | null;
  took: number;
}

export type Progressing = (step: string, share: number) => void;

/** What a bench's worker does for the page: one thing after another, in the order in which it is asked. */
export interface BenchWork {
  /** @param stop holds the number of the newest build: older ones are given up */
  listen(stop: SharedArrayBuffer | null): void;
  /**
   * The first proof, a coarse one where a finer one follows; null where it was given up.
   * @param progress hears how far each step is, 0 to 1
   */
  build(ask: BuildAsk, progress: Progressing): Promise<Packed | null>;
  /** The finer proof of the last build; null where that is another one, is fine already, or was given up. */
  refine(seq: number, progress: Progressing): Promise<Packed | null>;
  preview(job: BoardJob, part: string): Promise<Previewed>;
  /** The surface after a move of the last build; null where nothing is built. */
  scrub(cut: number, move: number): Promise<DrawnSurface | null>;
  outputs(job: BoardJob, writing: Writing): Promise<WrittenBoard>;
  sheet(job: BoardJob, writing: Writing, programs: SheetParts["programs"]): Promise<Uint8Array>;
  /** The lit proof of the last build as PNG, at most `side` pixels long. */
  thumb(side: number): Promise<Uint8Array>;
  choose(job: BoardJob, target: string, rack: readonly Cutter[]): Promise<Choice | null>;
  /** Builds a job that nobody has asked for yet; `halt` tells when to leave that off, see HALT. */
  ahead(job: string, halt: SharedArrayBuffer): Promise<void>;
}

/** How a board's files are to be written. */
export interface Writing {
  /** revision and time */
  from: string;
  /** the day, such as 2026-11-27 */
  date: string;
  /** what names begin with, where a job has more than one board */
  prefix: string;
  /** a program round the bounds */
  frame?: "through" | "stops";
  /** the surface too as a solid, and as a TIFF of 16 bits */
  solid?: boolean;
  tiff?: boolean;
  /** cells of the proof that findings and pictures come from; as fine as one looks at it when not given */
  cells?: number;
}

/** A grey picture for drawing. */
export interface DrawnTone {
  width: number;
  height: number;
  grey: Uint8ClampedArray;
}

/** Closed polygons for drawing: x, y by turns in mm. */
export interface DrawnRings {
  xy: Float32Array;
  starts: Int32Array;
}

export interface DrawnSurface {
  cell: number;
  width: number;
  height: number;
  z: Float32Array;
  by: Uint8Array;
  shading: Shading;
  /** how high stock stands above what was asked for, in steps of LOST_STEP mm */
  lost: Uint8Array | null;
}

/** A cut's moves and how long each takes, s. */
export interface DrawnPaths {
  toolpath: Toolpath;
  moveSeconds: Float64Array;
}

export interface DrawnCut extends DrawnPaths {
  id: string;
  on: boolean;
  seconds: number;
  minZ: number;
  facts: Record<string, number>;
  marks: readonly Mark[];
  /** of the shape, what the cutter leaves standing: mm² and mm */
  left: LostDetail | null;
}

/** A picture as the page draws it. */
export interface DrawnRaster {
  is: "raster";
  /** where it lies, mm */
  place: { x0: number; y0: number; width: number; height: number };
  /** what width and place are given of, mm */
  measured: { width: number; height: number };
  /** the picture as framed, where framing changed it */
  framed: { width: number; height: number; rgba: Uint8ClampedArray } | null;
  /** pixels of the framed picture */
  pixels: { width: number; height: number };
}

export interface DrawnGrey {
  is: "grey";
  bins: Uint32Array;
  tone: DrawnTone;
}

export interface DrawnShapes {
  is: "shapes";
  outline: DrawnOutline;
  /** whether they were found in a picture */
  isTraced: boolean;
  colours: { hex: string; share: number; kept: boolean; ground: boolean }[] | null;
}

export interface DrawnHeights {
  is: "heights";
  /** lowest and highest, mm */
  low: number;
  high: number;
  /** the wanted surface over the board, as a proof of it would be */
  surface: DrawnSurface;
}

/** What a making gives, as the page draws it. */
export type DrawnProduct = DrawnRaster | DrawnGrey | DrawnShapes | DrawnHeights;

/** What the selection is about: its picture, greys, shapes, height; null for each that is not there. */
export interface Shown {
  heights: DrawnHeights | null;
  raster: DrawnRaster | null;
  grey: DrawnGrey | null;
  shapes: DrawnShapes | null;
}

export interface DrawnOutline {
  rings: DrawnRings;
  /** centre lines, open */
  lines: DrawnRings | null;
  pieces: number;
  nodes: number;
  maxDeviation: number;
  dropped: number;
  droppedAt: Float64Array;
  figures: OutlineFigures;
  bridges: { x0: number; y0: number; x1: number; y1: number }[];
  /** corners and joints of the fitted curves: x, y by turns */
  nodeAt: Float32Array;
  /** axis of strokes narrower than the first cutter can use: x0, y0, x1, y1 by turns */
  thin: Float32Array;
}

/** A finished build as the page needs it. */
export interface Built {
  job: BoardJob;
  /** false when a finer proof follows */
  final: boolean;
  problem: { code: string; message: string } | null;
  resolved: Record<string, Record<string, Resolved>>;
  makings: Record<string, DrawnProduct>;
  shown: Shown;
  cuts: DrawnCut[];
  surface: DrawnSurface;
  /** of a sheet that is to glow: its light law */
  litho: Litho | null;
  seconds: number;
  findings: Finding[];
  took: number;
}

/** A finished build on its way: what the page has already does not travel again. */
export interface Packed extends Omit<Built, "makings" | "shown" | "cuts" | "surface"> {
  makings: Record<string, Parcel<DrawnProduct>>;
  cuts: (Omit<DrawnCut, keyof DrawnPaths> & { paths: Parcel<DrawnPaths> })[];
  surface: Parcel<DrawnSurface>;
}

export interface WrittenFile {
  name: string;
  kind: "program" | "drawing" | "height map" | "picture" | "solid";
  bytes: Uint8Array;
  /** of a program: its lines, which of the job's cuts it holds, how long those take, and their bounds, mm */
  program?: { lines: number; cuts: string[]; seconds: number; box: PathBox };
}

export type PathBox = Pick<PathFigures, "minX" | "maxX" | "minY" | "maxY" | "minZ">;

/** All that one board's job writes, and what was found in it. */
export interface WrittenBoard {
  files: WrittenFile[];
  findings: Finding[];
  /** of everything that is cut, mm; null where nothing is */
  bounds: { x0: number; y0: number; x1: number; y1: number } | null;
  /** the shapes that are cut */
  rings: DrawnRings | null;
}

import type { Finding } from "@oaken/core/inspect/finding";
import type { JobDocument } from "@oaken/core/job/document";
import type { Shading } from "@oaken/core/proof/light";
import type { OutlineFigures } from "@oaken/core/outline/figures";
import type { Mark } from "@oaken/core/cuts/kind";
import type { LostDetail } from "@oaken/core/proof/lost";
import type { Resolved } from "@oaken/core/settings/fields";
import type { Toolpath } from "@oaken/core/toolpath/toolpath";

/** What the page asks of a worker. `seq` grows; an answer to an older one may never come. */
export type Ask =
  | { type: "build"; seq: number; job: JobDocument; revision?: number; written?: number; quick?: boolean }
  | { type: "trace"; seq: number; job: JobDocument; part: string }
  | { type: "scrub"; seq: number; cut: number; move: number }
  | { type: "outputs"; seq: number; job: JobDocument; from: string }
  | { type: "thumb"; seq: number; side: number }
  | { type: "listen"; stop: SharedArrayBuffer | null };

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

export interface DrawnCut {
  id: string;
  on: boolean;
  resolved: Record<string, Resolved>;
  seconds: number;
  minZ: number;
  toolpath: Toolpath;
  moveSeconds: Float64Array;
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

/** What a making gives, as the page draws it. */
export type DrawnProduct = DrawnRaster | DrawnGrey | DrawnShapes;

/** What the selection is about: its picture, its greys, its shapes; null for each that is not there. */
export interface Shown {
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
  job: JobDocument;
  /** false when a finer proof follows */
  final: boolean;
  problem: { code: string; message: string } | null;
  resolved: Record<string, Record<string, Resolved>>;
  makings: Record<string, DrawnProduct>;
  shown: Shown;
  cuts: DrawnCut[];
  surface: DrawnSurface;
  seconds: number;
  findings: Finding[];
  took: number;
}

export interface WrittenFile {
  name: string;
  kind: "program" | "drawing" | "height map" | "picture";
  bytes: Uint8Array;
  /** of a program: how many lines it has, and which of the job's cuts it holds */
  program?: { lines: number; cuts: string[] };
}

/** What a worker answers. */
export type Answer =
  | { type: "progress"; seq: number; step: string; share: number }
  | { type: "built"; seq: number; built: Built }
  | { type: "traced"; seq: number; rings: DrawnRings | null; tone: DrawnTone | null; took: number }
  | { type: "surface"; seq: number; surface: DrawnSurface }
  | { type: "outputs"; seq: number; files: WrittenFile[] }
  | { type: "thumb"; seq: number; png: Uint8Array }
  | { type: "failed"; seq: number; message: string };

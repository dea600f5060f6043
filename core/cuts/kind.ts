import type { Cutter } from "../cutters/profile.ts";
import type { Machine } from "../cutters/feeds.ts";
import type { Material } from "../cutters/materials.ts";
import type { Clearance } from "../geometry/clearance/clearance.ts";
import type { Rings } from "../geometry/rings.ts";
import type { Lines } from "../outline/centre.ts";
import type { Progress } from "../problem.ts";
import type { Field, Settings } from "../settings/fields.ts";
import type { Toolpath } from "../toolpath/toolpath.ts";

/** The stock as measured: x right, y away, z = 0 its top. */
export interface Stock {
  width: number;
  height: number;
  thickness: number;
  margin: number;
}

/** What automatic values may look at: never the geometry, so that the slip fills before anything is computed. */
export interface CutContext {
  cutter: Cutter;
  stock: Stock;
  material: Material;
  machine: Machine;
  /** the cut this one prepares or finishes, with its settings resolved */
  target?: Peer;
  /** cuts that prepare this one, in order */
  helpers: Peer[];
  /** cuts with the same target that come before this one, in order */
  earlier: Peer[];
}

export interface Peer {
  id: string;
  kind: string;
  cutter: Cutter;
  settings: Settings;
}

/** What planning may use. Derived geometry is shared between cuts and cached: ask, do not compute. */
export interface CutInputs extends CutContext {
  /** the chosen shapes flattened: ink, in stock coordinates */
  ink: Rings;
  /** how closely the ink's edge is held, mm: finer than half of it nothing is worth cutting; 0 where it is exact */
  held: number;
  /** centre lines of the strokes, where the outline was traced that way */
  lines: Lines | null;
  /** the region a V-carve works in: the ink, or a border minus the ink; null where the border does not hold the ink */
  carveRegion(settings: Settings): Rings | null;
  /** clearance inside a region */
  clearance(region: Rings): Clearance;
  progress: Progress;
}

export interface Note {
  code: string;
  severity: "stop" | "warning" | "note";
  message: string;
  /** where on the stock, mm */
  at?: { x: number; y: number };
}

/**
 * The surface a cut is asked for: inside the region, d from its edge, z = −min(floor, d · slope), with upright walls
 * where slope is Infinity. What the proof leaves above it is lost detail or uncut stock.
 */
export interface Ideal {
  region: Rings;
  floor: number;
  slope: number;
  /** ridges this high are asked for, mm */
  ridge: number;
}

/**
 * A place of a cut that a person may want to move: where a tab stands, where a torch pierces, where a hole is drilled.
 */
export interface Mark {
  kind: "tab" | "pierce" | "drill";
  x: number;
  y: number;
}

export interface Planned {
  toolpath: Toolpath;
  marks?: Mark[];
  notes: Note[];
  /** what a person wants to know of this cut beyond its time */
  facts: Record<string, number>;
  /** what the cut is to leave behind, where that can be said */
  ideal?: Ideal;
  /** where the cut may open the stock's top: everything else must stay; not given where it has no such bounds */
  within?: Rings;
}

/**
 * A kind of cut. Add one by writing a folder that exports this and a line in `register.ts`.
 * Every kind has `feed`, `plunge` and `spindle` among its fields; the program needs them.
 */
export interface CutKind {
  kind: string;
  title: string;
  /** one line for the slip and the run strip */
  summary(settings: Settings, cutter: Cutter): string;
  fields: readonly Field<CutContext>[];
  /** cutter kinds it can use */
  cutters: readonly Cutter["kind"][];
  plan(inputs: CutInputs, settings: Settings): Planned;
}

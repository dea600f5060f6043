import type { Cutter } from "../cutters/profile.ts";
import type { Machine } from "../cutters/machine.ts";
import type { Material } from "../cutters/materials.ts";
import type { Clearance } from "../geometry/clearance/clearance.ts";
import type { StrokeWidths } from "../geometry/clearance/strokes.ts";
import type { Rings } from "../geometry/rings.ts";
import type { Kept } from "../kept.ts";
import type { Reading, Take, Takes } from "../makings/product.ts";
import type { Progress } from "../problem.ts";
import type { Asked } from "../proof/asked.ts";
import type { Field, Settings } from "../settings/fields.ts";
import type { FieldList } from "../settings/list.ts";
import type { Toolpath } from "../toolpath/toolpath.ts";

/** The stock as measured: x right, y away, z = 0 its top. */
export interface Stock {
  width: number;
  height: number;
  thickness: number;
  margin: number;
  /** how thick its paint is; 0 where it is bare or that is not known */
  coat: number;
  /** how high above its top rapids pass over everything that stands on it */
  travel: number;
}

/**
 * What automatic values may look at: never the geometry itself, so that the slip fills before anything is computed; of
 * the shapes only how wide their strokes are, where a kind asks for that and it is known already.
 */
export interface CutContext {
  /** of the shapes that a kind which `seesStrokes` works on */
  strokes?: StrokeWidths;
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
export interface CutInputs<R extends Takes = Takes> extends CutContext {
  /** what it reads, by the names that its kind gives */
  reads: Reading<R>;
  /** clearance inside a region */
  clearance(region: Rings): Clearance;
  /** keeps what several cuts derive from the same things */
  kept: Kept;
  /** for a first look: cuts that say so need be no finer than this, mm; null for the real thing */
  grain: number | null;
  progress: Progress;
}

export interface Note {
  code: string;
  severity: "stop" | "warning" | "note";
  message: string;
  /** where on the stock, mm */
  at?: { x: number; y: number };
  /** a kind of cut that would help, and what adding it is called */
  helper?: { kind: string; label: string };
  /** it hangs on the cutter: other ones of the rack may do */
  hangsOnCutter?: true;
}

/**
 * A place of a cut that a person may want to move: where a tab stands, where a torch pierces, where a hole is drilled.
 */
export interface Mark {
  kind: "tab" | "pierce" | "drill";
  x: number;
  y: number;
}

/** What a cut separates from the stock. */
export interface Freed {
  pieces: number;
  /** what holds them until a person takes them out; null where nothing does. A torch's pieces drop onto the slats. */
  heldBy: "tabs" | "skin" | "slats" | null;
  /** the longer side of the smallest one, mm, where that is told */
  smallest?: number;
}

export interface Planned {
  toolpath: Toolpath;
  marks?: Mark[];
  notes: Note[];
  /** what a person wants to know of this cut beyond its time */
  facts: Record<string, number>;
  /** what the cut is to leave behind, where that can be said */
  asked?: Asked;
  /** where the cut may open the stock's top: everything else must stay; not given where it has no such bounds */
  within?: Rings;
  /** what it separates from the stock; not given where it stays in one */
  freed?: Freed;
  /** of a cut that draws tones: the least and the largest share that it bares of the surface, by light; mm apart */
  tones?: { least: number; most: number; spacing: number };
  /** of a first look: its moves stand for so many times as many */
  standsFor?: number;
}

/** What a cut means to do, whatever its settings are called: rules, tools and the command line ask this. */
export interface Intent {
  /** how deep it may go, mm below the stock's top; null for as deep as the shapes are wide */
  depth: number | null;
  /** it is to go through the stock */
  through: boolean;
}

/** How a cut helps another. */
export interface Helps {
  /** the kind that it helps */
  kind: string;
  comes: "before" | "after";
  /** the slip's word for it on the cut that it helps */
  label: string;
  /** what goes wrong on the other side */
  wrongSide(own: string, helped: string): string;
}

/** Settings by what they are for, so that findings can offer a cure and the command line a short name. */
export interface Handles {
  /** how deep it may go */
  depth?: string;
  /** the switch that lets it go as deep as it likes, or through: its value then */
  unlimited?: { field: string; value: boolean };
  /** how it gets down into solid stock */
  entry?: string;
  /** what holds its pieces, and how many are usual */
  tabs?: { field: string; usual: number };
  /** a second set of lines across the first: its value then */
  crossed?: { field: string; value: string };
  /** what it carves away round the shapes */
  border?: { field: string; width: string };
  /** places moved by hand, by the marks that show them */
  marks?: Partial<Record<Mark["kind"], string>>;
}

/** Every cut has these: the program needs them. */
export interface Rates {
  feed: number;
  plunge: number;
  spindle: number;
}

/** A cutter and settings with which a cut can be planned on any shapes. */
export interface Sample {
  cutter: string;
  settings?: Settings;
  /** the cut that it helps, where it only helps another */
  helps?: { kind: string; cutter: string };
  /** two points are a line to it: it cuts along edges and not what they enclose */
  followsLines?: boolean;
}

/**
 * A kind of cut. Add one by writing a folder that exports this and a line in `register.ts`.
 */
export interface CutKind<S = Settings, R extends Takes = Takes> {
  kind: string;
  title: string;
  /** what it does, for someone who has not used it */
  about: string;
  /** tells the settings' type, and holds nothing */
  readonly settings?: S;
  /** one line for the slip and the run strip */
  summary(settings: S, cutter: Cutter): string;
  fields: readonly Field<CutContext>[];
  /** cutter kinds it can use, the usual one first */
  cutters: readonly Cutter["kind"][];
  /** what it works on; a cut that helps another works on what that one does */
  reads: R;
  helps?: Helps;
  handles: Handles;
  intent(settings: S, context: CutContext): Intent;
  /** whether its automatic values hang on how wide the strokes of its art are, by what was set on it */
  seesStrokes?(own: Settings): boolean;
  /** it cuts out what its shapes hold: words beside them are not more of the same */
  cutsOut?: true;
  /** a first look at it may be coarser, since the whole takes long */
  isGrainy?: boolean;
  /** with which every test of all kinds can plan one */
  sample: Sample;
  plan(inputs: CutInputs<R>, settings: S): Planned;
  /**
   * How long it would take, found without planning it, s; Infinity where it could not do all of it. Not given
   * where only planning tells.
   */
  estimate?(inputs: CutInputs<R>, settings: S): number;
  /**
   * What that comes to at least after the cuts before it, told in no time, s: sets of cutters that are too slow by this
   * alone are looked at no further.
   */
  atLeast?(inputs: CutInputs<R>, settings: S): number;
  /** What it leaves of what it is to take, after the cuts that help it: cutters are chosen by this and by time. */
  left?(inputs: CutInputs<R>, settings: S): Left;
}

/** What cutters leave of what they were to take. */
export interface Left {
  /** that no cutter reaches, or that too much is left of for the next; mm² */
  area: number;
  /** pieces or holes that are not cut at all */
  missing: number;
  /** as much area as nobody would change a cutter for, mm² */
  spare: number;
}

/** A kind of cut, its settings' type taken from its fields. */
export function defineCut<S extends Rates, R extends Takes>(
  kind: Omit<CutKind<S, R>, "fields"> & { fields: FieldList<CutContext, S> },
): CutKind<S, R> {
  return { ...kind, fields: kind.fields.all };
}

/** Closed shapes: what most cuts are about. */
export const SHAPES = { gives: "shapes", label: "Shapes" } as const satisfies Take;
export const ART = { art: SHAPES } as const;

/** A wanted surface: what roughing and finishing are about. */
export const HEIGHT = { gives: "heights", label: "Height" } as const satisfies Take;
export const HEIGHT_ART = { art: HEIGHT } as const;

/** A picture in greys: what tones are drawn from. */
export const TONE_ART = { art: { gives: "grey", label: "Tone" } } as const satisfies Takes;

/** The settings of a peer, where it is of that kind. */
export const settingsOf = <S>(kind: { kind: string; settings?: S }, peer: Peer | undefined): S | null =>
  peer?.kind === kind.kind ? (peer.settings as S) : null;

/** What planning on shapes may use. */
export type ArtInputs = CutInputs<typeof ART>;

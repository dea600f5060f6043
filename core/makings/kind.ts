import type { Material } from "../cutters/materials.ts";
import type { ClearanceOf } from "../geometry/morph.ts";
import type { Kept } from "../kept.ts";
import type { Face, FaceId } from "../lettering/face.ts";
import type { PictureBox } from "../picture/frame.ts";
import type { Raster } from "../picture/raster.ts";
import type { Rings } from "../geometry/rings.ts";
import type { Progress } from "../problem.ts";
import type { Field, Settings } from "../settings/fields.ts";
import type { FieldList } from "../settings/list.ts";
import type { Gives, ProductOf, Reading, Takes } from "./product.ts";

/** A file that a making stands for, by the SHA-256 of its content; a picture's size in pixels, a drawing's in mm. */
export interface Asset {
  sha: string;
  name: string;
  width: number;
  height: number;
}

/** The board that a making's automatic size and place are for, mm. */
export interface BoardSize {
  width: number;
  height: number;
  margin: number;
  thickness: number;
  material: Material;
  /** what is kept free inside the margin at the front, for words that stand there below it */
  foot: number;
}

/** What makings may use besides what they are given: none of it changes a result. */
export interface Tools {
  kept: Kept;
  clearance: ClearanceOf;
  progress: Progress;
  /** a picture by its content's name, decoded */
  picture(sha: string): Raster;
  /** a drawing by its content's name */
  drawing(sha: string): string;
  /** a solid's file by its content's name */
  solid(sha: string): Uint8Array;
  /** a typeface that ships with the application */
  face(id: string): Face;
}

/** What a making is given: all of it is part of its key. */
export interface Given<R extends Takes = Takes> {
  reads: Reading<R>;
  asset: Asset | null;
  /** what other makings find in a picture whose size is measured over that, pixels of its raster */
  art: PictureBox | null;
  /** for a preview: at most so many pixels of a picture; null for all of them */
  preview: number | null;
}

/** What the automatic values of a making may look at. */
export interface Asking<R extends Takes = Takes> extends Given<R> {
  own: Settings;
  board: BoardSize;
  /** whose piece it is, where that is known */
  person: string | null;
}

/** Which settings a person set: some makings look closer where they choose by themselves. */
export type IsSet = (key: string) => boolean;

/** Settings of a making by what they are for. */
export interface MakingHandles {
  /** how wide it is on the board */
  width?: string;
  /** how deep the surface goes that it gives */
  depth?: string;
  /** how thin, and how thick, a sheet stays that is to glow */
  thin?: string;
  thick?: string;
  /** how wide its flat rim is, and what switches that on where it is one border of several */
  rim?: { width: string; field?: string; value?: string };
}

/** A kind of making. Add one by writing a folder that exports this and a line in `register.ts`. */
export interface MakingKind<S = Settings, C = unknown, R extends Takes = Takes, G extends Gives = Gives> {
  kind: string;
  title: string;
  /** what it does, for someone who chooses what to make next */
  about: string;
  reads: R;
  gives: G;
  /** what it gives is looked at with a lamp behind it */
  glows?: true;
  /** the file that it stands for, where it does */
  file?: "picture" | "drawing" | "solid";
  /** how much it takes at the board's front below what it reads first, by what was set on it, mm */
  foot?(own: Settings, board: Pick<BoardSize, "height">): number;
  /** the faces that it sets words in */
  faces?(own: Settings): readonly FaceId[];
  /** tells the settings' type, and holds nothing */
  readonly settings?: S;
  fields: readonly Field<C>[];
  handles: MakingHandles;
  /** what automatic values look at; may be costly, so it works things out when it is asked for them */
  context(asking: Asking<R>, tools: Tools): C;
  /** @throws Problem where nothing can be made */
  make(given: Given<R>, settings: S, isSet: IsSet, tools: Tools): ProductOf<G>;
  /** where its size may be measured over what others find in it: whether these settings ask for that */
  isMeasured?(own: Settings): boolean;
  /** what it finds in the picture that it comes from, pixels of its raster; null where nothing */
  finds?(asking: Asking<R>, tools: Tools): PictureBox | null;
  /** what it would give, roughly, in a few hundredths of a second, while a slider moves */
  rough?(asking: Asking<R>, tools: Tools): Pick<Rings, "xy" | "starts"> | null;
}

/** A kind of making, its settings' type taken from its fields. */
export function defineMaking<S, C, R extends Takes, G extends Gives>(
  kind: Omit<MakingKind<S, C, R, G>, "fields"> & { fields: FieldList<C, S> },
): MakingKind<S, C, R, G> {
  return { ...kind, fields: kind.fields.all };
}

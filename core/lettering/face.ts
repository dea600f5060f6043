import type { Curve } from "../geometry/curve.ts";

/** A letter, or several that the face joins in one, on a baseline; em. */
export interface Letter {
  /** its outlines, from its own origin on */
  curves: readonly Curve[];
  /** where its origin lies on the line, and how far above the baseline */
  x: number;
  y: number;
  /** how far it takes the line on */
  width: number;
}

/** Words in a face along a baseline that begins at 0; em. */
export interface LaidLine {
  letters: readonly Letter[];
  width: number;
  /** letters that the face does not have, each once */
  missing: readonly string[];
}

/** What a typeface's files say of it: lengths in em, y up from the baseline. */
export interface Face {
  /** height of a capital letter */
  capital: number;
  /** from one baseline to the next */
  pitch: number;
  /** lays a line of text out, kerned and joined as the face wants it */
  lay(text: string): LaidLine;
}

/** The faces that ship with the application, by what they are good for; their files are named in `files/faces.ts`. */
export const FACES = [
  { value: "plain", label: "Plain: reads from afar" },
  { value: "capitals", label: "Capitals, as cut in stone" },
  { value: "book", label: "Book: fine serifs" },
  { value: "slab", label: "Slab: sturdy serifs" },
  { value: "narrow", label: "Narrow: long words" },
  { value: "rounded", label: "Rounded: even strokes" },
  { value: "hand", label: "Handwriting, joined" },
  { value: "stencil", label: "Stencil: nothing drops out" },
] as const;

export type FaceId = (typeof FACES)[number]["value"];

/** The face of lettering that names none. */
export const USUAL_FACE: FaceId = "plain";

/** A face's id from a setting that may say anything. */
export const faceIdOf = (setting: unknown): FaceId => FACES.find((f) => f.value === setting)?.value ?? USUAL_FACE;

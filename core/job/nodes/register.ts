import type { Field } from "../../settings/fields.ts";
import { outlineFields, type OutlineContext } from "./outline.ts";
import { pictureFields, type PictureContext } from "./picture.ts";
import { type ToneContext, toneFields } from "./tone.ts";

/** A kind of node in a picture's chain: its fields, and of which kinds the nodes are that it reads, in order. */
export interface NodeKind {
  kind: string;
  title: string;
  reads: readonly string[];
  fields: readonly Field<never>[];
}

/** Every kind of node in a picture's chain; one line each. */
export const NODES: readonly NodeKind[] = [
  { kind: "picture", title: "Picture", reads: [], fields: pictureFields as readonly Field<PictureContext>[] as never },
  { kind: "tone", title: "Tone", reads: ["picture"], fields: toneFields as readonly Field<ToneContext>[] as never },
  {
    kind: "outline",
    title: "Outline",
    reads: ["tone"],
    fields: outlineFields as readonly Field<OutlineContext>[] as never,
  },
];
/** The kind of node that cuts read. */
export const CUT_READS = "outline";

import type { Field } from "../../settings/fields.ts";
import { outlineFields, type OutlineContext } from "./outline.ts";
import { pictureFields, type PictureContext } from "./picture.ts";
import { type ToneContext, toneFields } from "./tone.ts";

/** Every kind of node in a picture's chain; one line each. */
export const NODES: readonly { kind: string; title: string; fields: readonly Field<never>[] }[] = [
  { kind: "picture", title: "Picture", fields: pictureFields as readonly Field<PictureContext>[] as never },
  { kind: "tone", title: "Tone", fields: toneFields as readonly Field<ToneContext>[] as never },
  { kind: "outline", title: "Outline", fields: outlineFields as readonly Field<OutlineContext>[] as never },
];

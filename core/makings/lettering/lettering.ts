import { type FaceId, faceIdOf } from "../../lettering/face.ts";
import { defineMaking } from "../kind.ts";
import { fields, footOf } from "./fields.ts";
import { later } from "../../later.ts";

export const reads = { beside: { gives: "shapes", label: "Shapes above", optional: true } } as const;

const work = later(() => import("./make.ts"));

/** Words, set in a face. */
export const lettering = defineMaking({
  kind: "lettering",
  title: "Lettering",
  about: "words below them, in a face that ships with Oaken Bit",
  reads,
  gives: "shapes",
  fields,
  handles: {},
  foot: footOf,
  faces: ({ face }): FaceId[] => [faceIdOf(face)],
  context: work("context"),
  make: work("make"),
});

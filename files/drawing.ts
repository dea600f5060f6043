import { Problem } from "@oaken/core/problem";
import { pictureKind } from "./decoder/kinds.ts";

/** Largest drawing taken exactly, bytes: more than any that a person drew. */
const MOST_BYTES = 20 * 1024 * 1024;

/**
 * The text of an SVG drawing.
 * @throws Problem `not-a-drawing` where the file is anything else, `file-too-large`
 */
export function drawingOf(bytes: Uint8Array, name: string): string {
  if (pictureKind(bytes, name, bytes.length) !== "svg")
    throw new Problem("not-a-drawing", `${name} is not an SVG drawing. Add it as a picture, and it will be traced.`);
  if (bytes.length > MOST_BYTES)
    throw new Problem(
      "file-too-large",
      `${name} has ${Math.round(bytes.length / 2 ** 20)} MB; drawings are taken up to ${MOST_BYTES / 2 ** 20} MB. ` +
        "Simplify it where it was drawn.",
    );
  return new TextDecoder().decode(bytes);
}

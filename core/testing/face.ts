import { readFileSync } from "node:fs";
import type { Face } from "../lettering/face.ts";
import { readFace } from "../lettering/read.ts";

/** A font file of a package, such as "cinzel-latin-600". */
export const fontFile = (family: string, rest: string): Uint8Array =>
  readFileSync(
    new URL(`../../node_modules/@fontsource/${family}/files/${family}-${rest}-normal.woff`, import.meta.url),
  );

let plain: Face | undefined;

/** A face for tests that set words. */
export const plainFace = (): Face =>
  (plain ??= readFace([
    fontFile("atkinson-hyperlegible-next", "latin-600"),
    fontFile("atkinson-hyperlegible-next", "latin-ext-600"),
  ]));

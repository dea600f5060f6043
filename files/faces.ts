import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { Face, FaceId } from "@oaken/core/lettering/face";
import { readFace } from "@oaken/core/lettering/read";

const require = createRequire(import.meta.url);

/** The font files of each face, as their packages name them. */
const FILES: Record<FaceId, readonly string[]> = {
  plain: weights("atkinson-hyperlegible-next", 600),
  capitals: weights("cinzel", 600),
  book: weights("eb-garamond", 500),
  slab: weights("zilla-slab", 600),
  narrow: weights("oswald", 500),
  rounded: weights("fredoka", 500),
  hand: weights("dancing-script", 600),
  stencil: ["@fontsource/stardos-stencil/files/stardos-stencil-latin-700-normal.woff"],
};

function weights(family: string, weight: number): string[] {
  return ["latin", "latin-ext"].map((part) => `@fontsource/${family}/files/${family}-${part}-${weight}-normal.woff`);
}

const known = new Map<FaceId, Face>();

/** A face that ships with the application, read once. */
export function faceOf(id: FaceId): Face {
  let face = known.get(id);
  if (!face) known.set(id, (face = readFace(FILES[id].map((file) => readFileSync(require.resolve(file))))));
  return face;
}

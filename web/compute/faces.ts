import type { Face, FaceId } from "@oaken/core/lettering/face";
import { bytesOf } from "./fonts.ts";

/** The font files of each face; written out, since the bundler takes along only what it can read here. */
const FILES: Record<FaceId, readonly URL[]> = {
  plain: [
    new URL(
      "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-600-normal.woff",
      import.meta.url,
    ),
    new URL(
      "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-600-normal.woff",
      import.meta.url,
    ),
  ],
  capitals: [
    new URL("@fontsource/cinzel/files/cinzel-latin-600-normal.woff", import.meta.url),
    new URL("@fontsource/cinzel/files/cinzel-latin-ext-600-normal.woff", import.meta.url),
  ],
  book: [
    new URL("@fontsource/eb-garamond/files/eb-garamond-latin-500-normal.woff", import.meta.url),
    new URL("@fontsource/eb-garamond/files/eb-garamond-latin-ext-500-normal.woff", import.meta.url),
  ],
  slab: [
    new URL("@fontsource/zilla-slab/files/zilla-slab-latin-600-normal.woff", import.meta.url),
    new URL("@fontsource/zilla-slab/files/zilla-slab-latin-ext-600-normal.woff", import.meta.url),
  ],
  narrow: [
    new URL("@fontsource/oswald/files/oswald-latin-500-normal.woff", import.meta.url),
    new URL("@fontsource/oswald/files/oswald-latin-ext-500-normal.woff", import.meta.url),
  ],
  rounded: [
    new URL("@fontsource/fredoka/files/fredoka-latin-500-normal.woff", import.meta.url),
    new URL("@fontsource/fredoka/files/fredoka-latin-ext-500-normal.woff", import.meta.url),
  ],
  hand: [
    new URL("@fontsource/dancing-script/files/dancing-script-latin-600-normal.woff", import.meta.url),
    new URL("@fontsource/dancing-script/files/dancing-script-latin-ext-600-normal.woff", import.meta.url),
  ],
  stencil: [new URL("@fontsource/stardos-stencil/files/stardos-stencil-latin-700-normal.woff", import.meta.url)],
};

const known = new Map<FaceId, Promise<Face>>();

/** A face that ships with the application, fetched and read once; what reads fonts is loaded with the first. */
export function loadFace(id: FaceId): Promise<Face> {
  let face = known.get(id);
  if (!face) {
    known.set(id, (face = load(id)));
    face.catch(() => known.delete(id));
  }
  return face;
}

async function load(id: FaceId): Promise<Face> {
  const [{ readFace }, files] = await Promise.all([import("@oaken/core/lettering/read"), bytesOf(FILES[id])]);
  return readFace(files);
}

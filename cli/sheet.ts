import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { BuildResult } from "@oaken/core/job/build";
import { setupSheet, type SheetParts } from "@oaken/core/job/sheet";
import { encodePng } from "@oaken/files/encode";

const require = createRequire(import.meta.url);
const FONT = "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next";
const font = (name: string): Uint8Array => readFileSync(require.resolve(`${FONT}-${name}-normal.woff`));

/** The setup sheet of a board, in the fonts that ship with the application. */
export const sheetOf = (build: BuildResult, parts: Omit<SheetParts, "fonts" | "png">): Promise<Uint8Array> =>
  setupSheet(build, {
    ...parts,
    png: ({ width, height, data }) => encodePng(data, width, height),
    fonts: {
      regular: [font("latin-400"), font("latin-ext-400")],
      bold: [font("latin-600"), font("latin-ext-600")],
    },
  });

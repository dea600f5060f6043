import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import opentype from "opentype.js";

const require = createRequire(import.meta.url);
const file = require.resolve("@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-600-normal.woff");
const bytes = readFileSync(file);
const font = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));

/** A line of lettering as SVG path data, centred on x with its baseline at y; `track` widens the gaps, px. */
export function lettering(text: string, x: number, y: number, size: number, track = 0): string {
  const widths = [...text].map((c) => font.getAdvanceWidth(c, size) + track);
  let at = x - (widths.reduce((a, b) => a + b, 0) - track) / 2;
  return [...text]
    .map((c, i) => {
      const d = font.getPath(c, at, y, size).toPathData(2);
      at += widths[i];
      return d;
    })
    .join("");
}

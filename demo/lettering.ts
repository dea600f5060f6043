import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import opentype from "opentype.js";

const require = createRequire(import.meta.url);
const file =
  require.resolve("@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-600-normal.woff");
const bytes = readFileSync(file);
const font = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));

/** A line of lettering as SVG path data, centred on x with its baseline at y; `track` widens the gaps, px. */
export function lettering(text: string, x: number, y: number, size: number, track = 0): string {
  const widths = [...text].map((c) => font.getAdvanceWidth(c, size) + track);
  let at = x - (widths.reduce((a, b) => a + b, 0) - track) / 2;
  return [...text]
    .map((c, i) => {
      const d = pathData(font.getPath(c, at, y, size).commands);
      at += widths[i];
      return d;
    })
    .join("");
}

/** Path data written here: the font reader's own rounding makes NaN of coordinates next to nothing. */
function pathData(commands: readonly opentype.PathCommand[]): string {
  const n = (...v: number[]) => v.map((q) => q.toFixed(2)).join(" ");
  return commands
    .map((c) =>
      c.type === "Z"
        ? "Z"
        : c.type === "C"
          ? `C${n(c.x1, c.y1, c.x2, c.y2, c.x, c.y)}`
          : c.type === "Q"
            ? `Q${n(c.x1, c.y1, c.x, c.y)}`
            : `${c.type}${n(c.x, c.y)}`,
    )
    .join("");
}

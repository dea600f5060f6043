import { useEffect, useRef } from "react";
import { formatLength } from "@oaken/core/units";
import type { DrawnSurface } from "../../compute/messages.ts";
import { SmallPicture } from "./small-picture.tsx";
import type { ProductView } from "./view.ts";

/** A surface wanted on the board. */
export const heightsView: ProductView<"heights"> = {
  about({ drawn, isBuilt, unit }) {
    if (!drawn) return isBuilt ? "no surface" : "…";
    return `${formatLength(drawn.high - drawn.low, unit)} ${unit} deep`;
  },
  figures({ drawn, say }) {
    if (!drawn) return "";
    return say(`${formatLength(-drawn.high)} mm to ${formatLength(-drawn.low)} mm below the top`);
  },
  Thumbnail: (seen) =>
    seen.isBuilt ? <Lit surface={seen.drawn?.surface ?? null} /> : <SmallPicture doc={seen.doc} making={seen.making} />,
  Above: () => null,
};

/** Pixels of the small picture, twice over for sharp screens. */
const WIDE = 96;
const HIGH = 72;

/** The surface from above: lighter where it is high and where it faces the light. */
function Lit({ surface }: { surface: DrawnSurface | null }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const g = ref.current?.getContext("2d");
    if (!g || !surface) return;
    const { width, height, z } = surface;
    const low = z.reduce((a, b) => Math.min(a, b), -1e-6);
    const pixels = new ImageData(WIDE, HIGH);
    const k = Math.max(width / WIDE, height / HIGH);
    const at = (i: number, j: number) => z[Math.min(height - 1, j) * width + Math.min(width - 1, i)];
    for (let y = 0; y < HIGH; y++)
      for (let x = 0; x < WIDE; x++) {
        const i = Math.round(width / 2 + (x - WIDE / 2) * k);
        const j = Math.round(height / 2 - (y - HIGH / 2) * k);
        if (i < 0 || j < 0 || i >= width || j >= height) continue;
        const here = at(i, j);
        const rise = (at(i + 2, j) - here + here - at(i, j + 2)) / -low;
        const v = 150 + 90 * (1 - here / low) - 260 * rise;
        pixels.data.set([v, v * 0.93, v * 0.8, 255], 4 * (y * WIDE + x));
      }
    g.putImageData(pixels, 0, 0);
  }, [surface]);
  return <canvas ref={ref} width={WIDE} height={HIGH} className="h-full w-full" />;
}

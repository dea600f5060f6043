import { useEffect, useRef } from "react";
import { litFromTheSide } from "@oaken/core/height/lit";
import { formatLength } from "@oaken/core/units";
import type { DrawnSurface } from "../../compute/messages.ts";
import { KeepHeight } from "./keep-height.tsx";
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
  Beside: KeepHeight,
};

/** Pixels of the small picture, twice over for sharp screens. */
const WIDE = 96;
const HIGH = 72;

/** The surface from above: lighter where it is high and where it faces the light. */
function Lit({ surface }: { surface: DrawnSurface | null }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!surface) return;
    const pixels = new ImageData(litFromTheSide(surface, WIDE, HIGH), WIDE, HIGH);
    ref.current?.getContext("2d")?.putImageData(pixels, 0, 0);
  }, [surface]);
  return <canvas ref={ref} width={WIDE} height={HIGH} className="h-full w-full" />;
}

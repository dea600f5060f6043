import { useEffect, useRef } from "react";
import { makingKind } from "@oaken/core/makings/register";
import type { DrawnTone } from "../../compute/messages.ts";
import { Histogram } from "../histogram.tsx";
import { SmallPicture } from "./small-picture.tsx";
import type { ProductView } from "./view.ts";

/** A picture in greys. */
export const greyView: ProductView<"grey"> = {
  about({ doc, making, resolved }) {
    const isInverted = resolved?.invert?.value === true;
    // Ink is what an outline is made from.
    const isTraced = doc.makings.some((n) => makingKind(n.kind).gives === "shapes" && n.reads.from === making.id);
    if (isTraced) return isInverted ? "light parts are ink" : "dark parts are ink";
    return isInverted ? "light for dark" : "in greys";
  },
  figures: () => "",
  Thumbnail: (seen) =>
    seen.isBuilt ? (
      <TonePicture tone={seen.drawn?.tone ?? null} />
    ) : (
      <SmallPicture doc={seen.doc} making={seen.making} />
    ),
  Above: () => <Histogram />,
};

function TonePicture({ tone }: { tone: DrawnTone | null }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!tone || !ref.current) return;
    const rgba = new Uint8ClampedArray(4 * tone.grey.length);
    tone.grey.forEach((g, i) => rgba.set([g, g, g, 255], 4 * i));
    ref.current.getContext("2d")!.putImageData(new ImageData(rgba, tone.width, tone.height), 0, 0);
  }, [tone]);
  return (
    <canvas ref={ref} width={tone?.width ?? 1} height={tone?.height ?? 1} className="h-full w-full object-cover" />
  );
}

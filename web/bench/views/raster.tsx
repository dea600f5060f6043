import { formatLength } from "@oaken/core/units";
import { PictureTools } from "../tools/picture-tools.tsx";
import { SmallPicture } from "./small-picture.tsx";
import type { ProductView } from "./view.ts";

/** A picture as it lies on the board. */
export const rasterView: ProductView<"raster"> = {
  about({ making, drawn, unit }) {
    if (!drawn) return `${making.asset?.width} × ${making.asset?.height} px`;
    const { width, height } = drawn.measured;
    return `${formatLength(width, unit)} × ${formatLength(height, unit)} ${unit}`;
  },
  figures: ({ making }) => `${making.asset?.width} × ${making.asset?.height} pixels`,
  Thumbnail: (seen) => <SmallPicture doc={seen.doc} making={seen.making} />,
  Above: ({ part }) => <PictureTools part={part} />,
};

import { PictureTools } from "../tools/picture-tools.tsx";
import { SmallPicture } from "./small-picture.tsx";
import type { ProductView } from "./view.ts";

const size = (mm: { width: number; height: number }) => `${mm.width.toFixed(2)} × ${mm.height.toFixed(2)} mm`;

/** A picture as it lies on the board. */
export const rasterView: ProductView<"raster"> = {
  about: ({ making, drawn, say }) =>
    drawn ? say(size(drawn.measured)) : `${making.asset?.width} × ${making.asset?.height} px`,
  figures: ({ making }) => `${making.asset?.width} × ${making.asset?.height} pixels`,
  Thumbnail: (seen) => <SmallPicture doc={seen.doc} making={seen.making} />,
  Above: ({ part }) => <PictureTools part={part} />,
};

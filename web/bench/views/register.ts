import type { JobMaking } from "@oaken/core/job/document";
import type { Gives } from "@oaken/core/makings/product";
import { makingKind } from "@oaken/core/makings/register";
import { greyView } from "./grey.tsx";
import { heightsView } from "./heights.tsx";
import { rasterView } from "./raster.tsx";
import { shapesView } from "./shapes.tsx";
import type { ProductView } from "./view.ts";

/** How each kind of product is seen; one line each. */
const VIEWS: { [G in Gives]: ProductView<G> } = {
  raster: rasterView,
  grey: greyView,
  shapes: shapesView,
  heights: heightsView,
};

/** How a making is seen: by what it gives. */
export const viewOf = (making: JobMaking): ProductView => VIEWS[makingKind(making.kind).gives] as ProductView;

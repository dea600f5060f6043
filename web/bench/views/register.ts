import type { JobNode } from "@oaken/core/job/document";
import type { Gives } from "@oaken/core/makings/product";
import { makingKind } from "@oaken/core/makings/register";
import { greyView } from "./grey.tsx";
import { rasterView } from "./raster.tsx";
import { shapesView } from "./shapes.tsx";
import type { ProductView } from "./view.ts";

/** How each kind of product is seen; one line each. */
const VIEWS: { [G in Gives]: ProductView<G> } = { raster: rasterView, grey: greyView, shapes: shapesView };

/** How a making is seen: by what it gives. */
export const viewOf = (making: JobNode): ProductView => VIEWS[makingKind(making.kind).gives] as ProductView;

import type { BuildResult } from "../job/build.ts";
import type { Made } from "../job/graph.ts";
import type { Gives, ProductOf } from "../makings/product.ts";

/** A making that gives a kind of product. */
export type Giving<G extends Gives> = Made & { product: ProductOf<G> };

/** Everything made that is of a kind, in the job's order. */
export const productsOf = <G extends Gives>(build: BuildResult, gives: G): Giving<G>[] =>
  [...build.makings.values()].filter((m): m is Giving<G> => m.product.is === gives);

export const shapesOf = (build: BuildResult): Giving<"shapes">[] => productsOf(build, "shapes");

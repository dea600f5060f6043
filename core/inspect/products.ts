import type { BuildResult } from "../job/build.ts";
import { type Made, upstreamOf } from "../job/graph.ts";
import type { Gives, ProductOf } from "../makings/product.ts";

/** A making that gives a kind of product. */
export type Giving<G extends Gives> = Made & { product: ProductOf<G> };

/** Everything made that is of a kind, in the job's order. */
export const productsOf = <G extends Gives>(build: BuildResult, gives: G): Giving<G>[] =>
  [...build.makings.values()].filter((m): m is Giving<G> => m.product.is === gives);

export const shapesOf = (build: BuildResult): Giving<"shapes">[] => productsOf(build, "shapes");

/** The making, at or above one, whose setting says how wide it is, and the setting. */
export function sizedBy({ job, makings }: BuildResult, id: string): { id: string; field: string } | undefined {
  const sized = upstreamOf(job, id, (n) => makings.get(n.id)?.kind.handles.width !== undefined);
  return sized && { id: sized.id, field: makings.get(sized.id)!.kind.handles.width! };
}

import { boundsOf } from "../../geometry/rings.ts";
import { formatLength } from "../../units.ts";
import type { BuildResult } from "../../job/build.ts";
import type { StockSettings } from "../../job/document.ts";
import type { Finding, Rule } from "../finding.ts";
import { nearestEdge } from "../edges.ts";
import { type Giving, shapesOf, sizedBy } from "../products.ts";

/** Sizes are rounded to this, mm. */
const ROUNDED = 0.01;

/** Art that leaves the stock, or comes nearer to its edge than the margin. */
export const offStock: Rule = ({ build }) =>
  shapesOf(build)
    .filter(({ making }) => isCut(build, making.id))
    .flatMap((made) => check(made, sizedBy(build, made.making.id), build.job.stock));

/** Whether shapes are for cuts: some are only there to be combined. */
const isCut = ({ job }: BuildResult, id: string): boolean =>
  job.cuts.some((c) => Object.values(c.reads).includes(id)) ||
  !job.makings.some((n) => Object.values(n.reads).includes(id));

function check({ product: { ink, held } }: Giving<"shapes">, cure: Finding["cure"], stock: StockSettings): Finding[] {
  if (ink.xy.length === 0) return [];
  const { edge, gap, at } = nearestEdge(boundsOf(ink.xy), stock);
  const { margin } = stock;
  if (gap < -0.005) {
    const how = `The art reaches ${formatLength(-gap)} mm beyond the ${edge} edge of the stock.`;
    return [{ code: "art-off-stock", severity: "stop", message: `${how} Make it smaller or move it.`, cure, at }];
  }
  // Art that fills the stock ends at the margin to within what its outline may stray, and a hundredth of rounding.
  if (gap < margin - held - ROUNDED) {
    const how =
      `The art comes within ${formatLength(Math.max(0, gap))} mm of the ${edge} edge; the margin is ` +
      `${formatLength(margin)} mm.`;
    return [{ code: "art-near-edge", severity: "warning", message: `${how} Make it smaller or move it.`, cure, at }];
  }
  return [];
}

import { formatLength } from "../../units.ts";
import { nearestEdge } from "../edges.ts";
import type { Finding, Rule } from "../finding.ts";
import { shapesOf, sizedBy } from "../products.ts";

/** Waste narrower than this beside a cut through the stock breaks away while it is cut, mm. */
const BREAKS = 2;

/** Cuts through the stock so near to its edge that the waste round them is no frame any more. */
export const brokenRim: Rule = ({ build }) => {
  const art = shapesOf(build).at(-1);
  const cure = art && sizedBy(build, art.making.id);
  return build.cuts.flatMap((c): Finding[] => {
    if (!c.cut.on || !c.intent.through || c.toolpath.kind.length === 0) return [];
    const { edge, gap, at } = nearestEdge(c.figures, build.job.stock);
    const rim = gap - c.cut.cutter.diameter / 2;
    if (rim >= BREAKS) return [];
    const how =
      rim > 0
        ? `${c.cut.name} leaves ${formatLength(rim)} mm of stock at the ${edge} edge, which breaks away`
        : `${c.cut.name} runs out at the ${edge} edge of the stock, so that the waste round it comes apart`;
    const message = `${how} and holds nothing. Make the art smaller, move it, or take larger stock.`;
    return [{ code: "broken-rim", severity: "warning", message, cut: c.id, ...(cure && { cure }), at }];
  });
};

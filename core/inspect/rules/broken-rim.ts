import { formatLength } from "../../units.ts";
import type { CutResult } from "../../job/plan.ts";
import type { StockSettings } from "../../job/document.ts";
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
    const { edge, rim, at } = thinnestRim(c, build.job.stock);
    if (rim >= BREAKS) return [];
    const how =
      rim > 0
        ? `${c.cut.name} leaves ${formatLength(rim)} mm of stock at the ${edge} edge, which breaks away`
        : `${c.cut.name} runs out at the ${edge} edge of the stock, so that the waste round it comes apart`;
    const message = `${how} and holds nothing. Make the art smaller, move it, or take larger stock.`;
    return [{ code: "broken-rim", severity: "warning", message, cut: c.id, ...(cure && { cure }), at }];
  });
};

/** The edge of the stock that a cut comes nearest to, what it leaves there, mm, and where. */
function thinnestRim({ cut, figures }: CutResult, { width, height }: StockSettings) {
  const { minX, minY, maxX, maxY } = figures;
  const radius = cut.cutter.diameter / 2;
  const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2];
  const rims = [
    { edge: "left", rim: minX - radius, at: { x: 0, y } },
    { edge: "right", rim: width - maxX - radius, at: { x: width, y } },
    { edge: "near", rim: minY - radius, at: { x, y: 0 } },
    { edge: "far", rim: height - maxY - radius, at: { x, y: height } },
  ];
  return rims.reduce((p, q) => (q.rim < p.rim ? q : p));
}

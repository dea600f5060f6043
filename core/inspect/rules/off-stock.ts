import { boundsOf } from "../../geometry/rings.ts";
import { formatLength } from "../../units.ts";
import type { ChainResult } from "../../job/chain.ts";
import type { StockSettings } from "../../job/document.ts";
import type { Finding, Rule } from "../finding.ts";

/** Art that leaves the stock, or comes nearer to its edge than the margin. */
export const offStock: Rule = ({ build }) => [...build.chains.values()].flatMap((c) => check(c, build.job.stock));

function check(chain: ChainResult, { width, height, margin }: StockSettings): Finding[] {
  if (chain.ink.xy.length === 0) return [];
  const b = boundsOf(chain.ink.xy);
  const gaps: [string, number, { x: number; y: number }][] = [
    ["left", b.minX, { x: 0, y: (b.minY + b.maxY) / 2 }],
    ["right", width - b.maxX, { x: width, y: (b.minY + b.maxY) / 2 }],
    ["near", b.minY, { x: (b.minX + b.maxX) / 2, y: 0 }],
    ["far", height - b.maxY, { x: (b.minX + b.maxX) / 2, y: height }],
  ];
  const worst = gaps.reduce((p, q) => (q[1] < p[1] ? q : p));
  const cure = { id: chain.picture.id, field: "width" };
  if (worst[1] < -0.005) return [{ code: "art-off-stock", severity: "stop", message: `The art reaches ${formatLength(-worst[1])} mm beyond the ${worst[0]} edge of the stock. Make it smaller or move it.`, cure, at: worst[2] }];
  if (worst[1] < margin - 0.005)
    return [{ code: "art-near-edge", severity: "warning", message: `The art comes within ${formatLength(Math.max(0, worst[1]))} mm of the ${worst[0]} edge; the margin is ${formatLength(margin)} mm. Make it smaller or move it.`, cure, at: worst[2] }];
  return [];
}

import type { Box } from "../geometry/rings.ts";
import type { StockSettings } from "../job/document.ts";

/** The edge of the stock that something comes nearest to, how far from it, less than 0 beyond it, and where; mm. */
export function nearestEdge({ minX, minY, maxX, maxY }: Box, { width, height }: StockSettings) {
  const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2];
  const edges = [
    { edge: "left", gap: minX, at: { x: 0, y } },
    { edge: "right", gap: width - maxX, at: { x: width, y } },
    { edge: "near", gap: minY, at: { x, y: 0 } },
    { edge: "far", gap: height - maxY, at: { x, y: height } },
  ];
  return edges.reduce((p, q) => (q.gap < p.gap ? q : p));
}

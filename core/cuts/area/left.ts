import { inset, type Clearance } from "../../geometry/clearance/clearance.ts";
import { boundsOf, ringCount, type Rings } from "../../geometry/rings.ts";
import { spans } from "../../geometry/scanlines.ts";
import type { CutInputs } from "../kind.ts";
import { hypot } from "../../hypot.ts";

/** Lines that are looked along, across the longer side of a region. */
const LINES = 500;

/** What a cutter that goes up to a region's edge does not reach, mm²; kept: several sets of cutters ask for it. */
export const leftIn = ({ kept, clearance }: Pick<CutInputs, "kept" | "clearance">, region: Rings, radius: number) =>
  kept.of("left-area", [region, radius], (of, r) => leftArea(of, clearance(of), r, r), KEPT);
/** Numbers: many cost nothing. */
const KEPT = 200;

/**
 * The area of a region that a round cutter does not reach when its centre keeps `from` mm off the edge, mm²: what its
 * opening leaves of the region (J. Serra, "Image Analysis and Mathematical Morphology", 1982). Measured along parallel
 * lines: exact along each, since the reached part is the centres' region with a disc round every point of its edges.
 */
export function leftArea(region: Rings, c: Clearance, from: number, radius: number): number {
  if (ringCount(region) === 0) return 0;
  const { minX, minY, maxX, maxY } = boundsOf(region.xy);
  const spacing = Math.max(maxX - minX, maxY - minY) / LINES;
  const first = minY + spacing / 2;
  const reached = Array.from({ length: Math.ceil((maxY - minY) / spacing) }, (): [number, number][] => []);
  if (from < c.widest) {
    const { rings } = inset(c, from);
    for (const { row, x0, x1 } of spans(rings, 0, spacing, first)) reached[row]?.push([x0, x1]);
    for (let k = 0; k < ringCount(rings); k++)
      for (let i = rings.starts[k]; i < rings.starts[k + 1]; i++) {
        const j = i + 1 < rings.starts[k + 1] ? i + 1 : rings.starts[k];
        const [ax, ay, bx, by] = [rings.xy[2 * i], rings.xy[2 * i + 1], rings.xy[2 * j], rings.xy[2 * j + 1]];
        const low = Math.max(0, Math.ceil((Math.min(ay, by) - radius - first) / spacing));
        const high = Math.min(reached.length - 1, Math.floor((Math.max(ay, by) + radius - first) / spacing));
        for (let row = low; row <= high; row++) {
          const part = roundEdge(ax, ay, bx, by, radius, first + row * spacing);
          if (part) reached[row].push(part);
        }
      }
  }
  for (const parts of reached) parts.sort((p, q) => p[0] - q[0]);
  let area = 0;
  for (const { row, x0, x1 } of spans(region, 0, spacing, first))
    area += spacing * uncovered(reached[row] ?? [], x0, x1);
  return area;
}

/** The stretch of the line at height y that lies within `radius` of an edge; null where none does. */
function roundEdge(ax: number, ay: number, bx: number, by: number, radius: number, y: number): [number, number] | null {
  let [low, high] = [Infinity, -Infinity];
  const add = (x: number) => {
    low = Math.min(low, x);
    high = Math.max(high, x);
  };
  const disc = (cx: number, cy: number) => {
    const half = radius * radius - (y - cy) ** 2;
    if (half < 0) return;
    add(cx - Math.sqrt(half));
    add(cx + Math.sqrt(half));
  };
  disc(ax, ay);
  disc(bx, by);
  const length = hypot(bx - ax, by - ay);
  // The two sides of the band beside the edge.
  if (length > 0 && by !== ay)
    for (const side of [radius / length, -radius / length]) {
      const f = (y - (ay + side * (bx - ax))) / (by - ay);
      if (f >= 0 && f <= 1) add(ax - side * (by - ay) + f * (bx - ax));
    }
  return low < high ? [low, high] : null;
}

/** How much of a stretch no part covers; the parts are in the order of their beginnings. */
function uncovered(parts: readonly [number, number][], x0: number, x1: number): number {
  let at = x0;
  let open = 0;
  for (const [low, high] of parts) {
    if (low >= x1) break;
    if (low > at) open += low - at;
    at = Math.max(at, high);
  }
  return open + Math.max(0, x1 - Math.min(x1, Math.max(at, x0)));
}

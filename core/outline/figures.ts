import type { Clearance } from "../geometry/clearance/clearance.ts";
import type { Rings } from "../geometry/rings.ts";
import { SegmentGrid } from "../geometry/segmentgrid.ts";
import { ARC, type Shape } from "../geometry/shape.ts";
import { type Piece, piecesOf } from "./pieces.ts";

/** What a person wants to know of an outline before cutting it; lengths in mm. */
export interface OutlineFigures {
  pieces: Piece[];
  /** islands of stock inside the ink: they fall out where the ink is cut through */
  loose: number;
  /** narrowest stroke anywhere */
  thinnest: number;
  meanDeviation: number;
  maxDeviation: number;
  nodes: number;
  arcs: number;
}

/** Deviations larger than this count as this: a piece that was dropped has no line to be near to. */
const FAR = 5;

/** @param edge points of the edge before fitting, x, y by turns */
export function outlineFigures(shape: Shape, ink: Rings, clearance: Clearance, edge: Float64Array): OutlineFigures {
  const pieces = piecesOf(ink, clearance);
  const grid = new SegmentGrid(ink);
  let sum = 0;
  let worst = 0;
  for (let i = 0; i < edge.length; i += 2) {
    const d = grid.distance(edge[i], edge[i + 1], FAR);
    sum += d;
    worst = Math.max(worst, d);
  }
  let arcs = 0;
  for (const k of shape.kinds) if (k === ARC) arcs++;
  const strokes = pieces.filter((p) => !p.hole && p.thinnest > 0).map((p) => p.thinnest);
  return {
    pieces,
    loose: pieces.filter((p) => p.hole).length,
    thinnest: strokes.length > 0 ? Math.min(...strokes) : 0,
    meanDeviation: edge.length > 0 ? sum / (edge.length / 2) : 0,
    maxDeviation: worst,
    nodes: shape.kinds.length,
    arcs,
  };
}

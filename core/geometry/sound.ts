import { crossingEdges, type Edges } from "./crossing.ts";
import { ringCount, type Rings } from "./rings.ts";

/** A place at which rings are not sound, mm, and one of the rings concerned. */
export interface UnsoundPlace {
  ring: number;
  x: number;
  y: number;
}

/**
 * Where rings are not sound. They are sound when no two edges that are not neighbours share a point, neighbours share
 * no more than their common point, and every ring encloses an area. Signs are exact; rings without points count as not
 * there, and points that repeat the one before as one point.
 */
export function unsoundPlaces(r: Rings): UnsoundPlace[] {
  const { edges, lost } = closedEdges(r);
  const pairs = crossingEdges(edges);
  const places = lost;
  for (const i of pairs) {
    const j = edges.next[i];
    const [x, y] = [(edges.xy[2 * i] + edges.xy[2 * j]) / 2, (edges.xy[2 * i + 1] + edges.xy[2 * j + 1]) / 2];
    places.push({ ring: edges.run[i], x, y });
  }
  return places;
}

/** Whether rings are sound: see {@link unsoundPlaces}. */
export const isSound = (r: Rings): boolean => unsoundPlaces(r).length === 0;

/**
 * Every ring's edges without points that repeat the one before; and where rings are less than a triangle, whose edges
 * are left out.
 */
export function closedEdges(r: Rings): { edges: Edges; lost: UnsoundPlace[] } {
  const total = r.xy.length / 2;
  const xy = new Float64Array(2 * total);
  const next = new Int32Array(total).fill(-1);
  const run = new Int32Array(total);
  const lost: UnsoundPlace[] = [];
  let at = 0;
  for (let k = 0; k < ringCount(r); k++) {
    const from = at;
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const [x, y] = [r.xy[2 * i], r.xy[2 * i + 1]];
      if (at > from && xy[2 * at - 2] === x && xy[2 * at - 1] === y) continue;
      xy[2 * at] = x;
      xy[2 * at + 1] = y;
      run[at++] = k;
    }
    while (at > from + 1 && xy[2 * at - 2] === xy[2 * from] && xy[2 * at - 1] === xy[2 * from + 1]) at--;
    if (at === from) continue;
    if (at - from < 3) {
      lost.push({ ring: k, x: xy[2 * from], y: xy[2 * from + 1] });
      at = from;
      continue;
    }
    for (let i = from; i < at; i++) next[i] = i + 1 < at ? i + 1 : from;
  }
  return { edges: { xy: xy.subarray(0, 2 * at), next: next.subarray(0, at), run: run.subarray(0, at) }, lost };
}

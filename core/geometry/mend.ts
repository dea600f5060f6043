/// <reference path="./clipper-lib.d.ts" />
import clipper, { type IntPoint } from "clipper-lib";
import { crossingEdges, type Edges } from "./crossing.ts";
import { nesting } from "./nesting.ts";
import { ringArea, ringCount, type Rings } from "./rings.ts";
import { squaredDistance } from "./segmentcells.ts";
import { closedEdges, isSound } from "./sound.ts";
import { hypot } from "../hypot.ts";

/**
 * The library counts in whole numbers: so many to a millimetre keep products of two of them exact on boards of several
 * metres.
 */
const PER_MM = 1e4;
/** Rings that touch are drawn apart by this much at first, mm, and twice as much each time that was not enough. */
const APART = 0.0004;
/** How often it is tried before rings that still touch are left out. */
const TRIES = 10;

/**
 * What is inside rings: where the winding number is not zero; where it is above zero, for rings whose direction can be
 * trusted; where it is odd, whatever their direction.
 */
export type Winding = "non-zero" | "positive" | "even-odd";

/**
 * The region that rings enclose as sound rings: doubled and crossing lines are one outline, and what met in a point or
 * along a line stands less than a thousandth of a millimetre apart.
 * @param r outer rings counter-clockwise, holes clockwise; mm
 * @param winding what is inside
 */
export function mended(r: Rings, winding: Winding = "non-zero"): Rings {
  let rings = union(r, winding);
  for (let attempt = 0; attempt < TRIES; attempt++) {
    const edges = closedEdges(rings).edges;
    const pairs = crossingEdges(edges);
    if (pairs.length === 0) return rings;
    rings = union(drawnApart(edges, pairs, APART * 2 ** attempt, ringCount(rings)), "positive");
  }
  return withoutTouching(rings);
}

/**
 * Rings that our own ways made, outer ones and holes turned as they should be: mended only where they are not sound.
 */
export const soundOf = (r: Rings): Rings => (isSound(r) ? r : mended(r, "positive"));

/** Union by the library (B. Vatti, "A generic solution to polygon clipping", CACM 35, 1992), with nesting. */
function union(r: Rings, winding: Winding): Rings {
  const paths: IntPoint[][] = [];
  for (let k = 0; k < ringCount(r); k++) {
    const path: IntPoint[] = [];
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++)
      path.push({ X: Math.round(r.xy[2 * i] * PER_MM), Y: Math.round(r.xy[2 * i + 1] * PER_MM) });
    if (path.length > 2) paths.push(path);
  }
  const done: IntPoint[][] = [];
  const work = new clipper.Clipper();
  work.StrictlySimple = true;
  work.AddPaths(paths, clipper.PolyType.ptSubject, true);
  const { pftPositive, pftNonZero, pftEvenOdd } = clipper.PolyFillType;
  const rule = { positive: pftPositive, "non-zero": pftNonZero, "even-odd": pftEvenOdd }[winding];
  if (paths.length > 0) work.Execute(clipper.ClipType.ctUnion, done, rule, rule);
  const starts = new Int32Array(done.length + 1);
  done.forEach((p, k) => (starts[k + 1] = starts[k] + p.length));
  const xy = new Float64Array(2 * starts[done.length]);
  let at = 0;
  for (const path of done)
    for (const p of path) {
      xy[at++] = p.X / PER_MM;
      xy[at++] = p.Y / PER_MM;
    }
  const out: Rings = { xy, starts, parent: new Int32Array(done.length).fill(-1) };
  out.parent = nesting(out);
  return out;
}

/** Points that lie on another edge moved a little way into their own ring's ink, which is on the left. */
function drawnApart({ xy, next, run }: Edges, pairs: Int32Array, by: number, count: number): Rings {
  const prev = new Int32Array(next.length);
  for (let i = 0; i < next.length; i++) if (next[i] >= 0) prev[next[i]] = i;
  const moving = new Set<number>();
  for (let q = 0; q < pairs.length; q += 2) {
    const [i, o] = [pairs[q], pairs[q + 1]];
    for (const [point, edge] of [
      [i, o],
      [next[i], o],
      [o, i],
      [next[o], i],
    ])
      if (pointToEdge(xy, point, edge, next[edge]) < by * by) moving.add(point);
  }
  const moved = xy.slice();
  for (const i of moving) {
    const [px, py] = direction(xy, prev[i], i);
    const [qx, qy] = direction(xy, i, next[i]);
    // Into the ink, or back along the edges where they turn right round.
    let [x, y] = [-py - qy, px + qx];
    if (hypot(x, y) < 1e-3) [x, y] = [-px, -py];
    const length = hypot(x, y);
    moved[2 * i] += (by * x) / length;
    moved[2 * i + 1] += (by * y) / length;
  }
  const starts = new Int32Array(count + 1);
  for (let i = 0; i < next.length; i++) if (next[i] >= 0) starts[run[i] + 1]++;
  for (let k = 0; k < count; k++) starts[k + 1] += starts[k];
  return { xy: moved, starts, parent: new Int32Array(count).fill(-1) };
}

function direction(xy: Float64Array, a: number, b: number): [number, number] {
  const [dx, dy] = [xy[2 * b] - xy[2 * a], xy[2 * b + 1] - xy[2 * a + 1]];
  const length = hypot(dx, dy) || 1;
  return [dx / length, dy / length];
}

/** Squared distance of point p from edge a–b, mm². */
const pointToEdge = (xy: Float64Array, p: number, a: number, b: number): number =>
  squaredDistance(xy[2 * p], xy[2 * p + 1], xy[2 * a], xy[2 * a + 1], xy[2 * b], xy[2 * b + 1]);

/** The same without the smaller ring of any two that still meet. */
function withoutTouching(r: Rings): Rings {
  const gone = new Set<number>();
  const { edges } = closedEdges(r);
  const pairs = crossingEdges(edges);
  for (let q = 0; q < pairs.length; q += 2) {
    const [a, b] = [edges.run[pairs[q]], edges.run[pairs[q + 1]]];
    if (gone.has(a) || gone.has(b)) continue;
    gone.add(Math.abs(ringArea(r, a)) < Math.abs(ringArea(r, b)) ? a : b);
  }
  const xy: number[] = [];
  const starts = [0];
  for (let k = 0; k < ringCount(r); k++) {
    if (gone.has(k)) continue;
    xy.push(...r.xy.subarray(2 * r.starts[k], 2 * r.starts[k + 1]));
    starts.push(xy.length / 2);
  }
  const out: Rings = {
    xy: Float64Array.from(xy),
    starts: Int32Array.from(starts),
    parent: new Int32Array(starts.length - 1).fill(-1),
  };
  out.parent = nesting(out);
  return out;
}

import Flatbush from "flatbush";
import { retraced } from "../../geometry/retrace.ts";
import { type Trail, trails } from "../../geometry/trail.ts";
import type { CutAxis } from "./axis.ts";
import { hypot } from "../../hypot.ts";
import { type Link, LONGEST_LINK } from "./trails.ts";

/**
 * Lifting, travelling and coming down again takes one and a half seconds or more: ways run twice in this many are
 * quicker.
 */
const LIFT_SECONDS = 1;
/** A stroke that comes down to a floor ends at the foot of its walls: nearer to it than this, mm, is there. */
const MEETS = 0.03;
/** Places that are tried to link the end of a run over the floor to, nearest first. */
const TRIED = 4;
/** For an end that has no way to a foot: farther than any, mm. */
const FAR = 1e9;

/** What a carve's point has to run along. */
export interface Ways {
  axis: CutAxis;
  /** closed trails along the foot of every wall, at the floor's depth */
  feet: readonly Trail[];
  floor: number;
  /** mm/min */
  feed: number;
}

/** What it has to run along over open floor, at the floor's depth, and how it may get there. */
export interface OverFloor {
  /** those nearer to the walls first */
  runs: readonly Trail[];
  link: Link;
}

/** A graph that grows: nodes x, y, z and edges between them. */
interface Network {
  x: number[];
  y: number[];
  z: number[];
  a: number[];
  b: number[];
}

/**
 * The strokes of a carve and the feet of its walls as few trails: strokes that end at a foot are joined to it, runs
 * over the floor that was left beside it are linked to it, and short ways that lead nowhere else are run out and back
 * rather than lifted for. Trails begin at the stock's top where they can.
 */
export function joinedTrails({ axis, feet, floor, feed }: Ways, over?: OverFloor): Trail[] {
  const net: Network = { x: [...axis.x], y: [...axis.y], z: [...axis.z], a: [...axis.a], b: [...axis.b] };
  const feetFrom = net.x.length;
  for (const t of feet) addTrail(net, t);
  joinToFeet(net, feetFrom, floor);
  if (over && over.runs.length > 0) linkRuns(net, feetFrom, over, LONGEST_LINK * floor);
  const { x, y, z, a, b } = net;
  for (const e of retraced(net, (LIFT_SECONDS * feed) / 60)) {
    a.push(a[e]);
    b.push(b[e]);
  }
  return trails(x, y, z, a, b, true);
}

/** Adds a trail, closed where its last point is its first. @returns its first node; the others follow */
function addTrail({ x, y, z, a, b }: Network, t: Trail): number {
  const first = x.length;
  const last = t.x.length - 1;
  const closed = last > 2 && t.x[0] === t.x[last] && t.y[0] === t.y[last];
  const n = closed ? last : last + 1;
  for (let i = 0; i < n; i++) {
    x.push(t.x[i]);
    y.push(t.y[i]);
    z.push(t.z[i]);
    if (!closed && i === last) break;
    a.push(first + i);
    b.push(i + 1 < n ? first + i + 1 : first);
  }
  return first;
}

/** Strokes' ends at the floor's depth are joined to the point of the foot that lies there. */
function joinToFeet(net: Network, feetFrom: number, floor: number): void {
  const { x, y, z, a, b } = net;
  if (x.length === feetFrom) return;
  const feet = indexed(net, nodesFrom(net, feetFrom));
  for (let i = 0; i < feetFrom; i++) {
    if (z[i] > -floor + 1e-9) continue;
    const [near] = feet.neighbors(x[i], y[i], 1, MEETS);
    if (near === undefined) continue;
    a.push(i);
    b.push(feetFrom + near);
  }
}

/**
 * Adds runs over open floor as rows that begin and end at a foot: from the run nearest to a foot on, each end is linked
 * to the nearest end of a run that is not in a row yet, as long as that is nearer than going by the feet.
 * @param feetFrom the first node of the feet, after which nothing else was added; there are some where there is floor
 * @param reach links are no longer than this, mm
 */
function linkRuns(net: Network, feetFrom: number, { runs, link }: OverFloor, reach: number): void {
  const { x, y, z, a, b } = net;
  const feet = indexed(net, nodesFrom(net, feetFrom));
  const begins = runs.map((t) => addTrail(net, t));
  /** Nodes of the ends of run k: 2k and 2k + 1. */
  const ends = runs.flatMap((_, k) => [begins[k], (begins[k + 1] ?? x.length) - 1]);
  const others = indexed(net, ends);
  const free = new Uint8Array(runs.length).fill(1);
  const isLinked = (i: number, j: number) => link(x[i], y[i], z[i], x[j], y[j], z[j]);
  const way = (i: number, j: number) => hypot(x[j] - x[i], y[j] - y[i]);
  const join = (i: number | undefined, j: number) => {
    if (i === undefined) return;
    a.push(i);
    b.push(j);
  };
  /** Of each end, the node of a foot that it can be linked to, and how far that is. */
  const footOf = ends.map((i) => {
    const near = feet.neighbors(x[i], y[i], TRIED).map((k) => feetFrom + k);
    return near.find((k) => isLinked(i, k));
  });
  const toFoot = footOf.map((foot, e) => (foot === undefined ? FAR : way(ends[e], foot)));
  /** The end of a free run that a row goes on to from an end. */
  const nextFrom = (out: number): number | undefined => {
    const here = ends[out];
    return others
      .neighbors(x[here], y[here], TRIED, reach, (e) => free[e >> 1] === 1)
      .find((e) => way(here, ends[e]) < toFoot[out] + toFoot[e] && isLinked(here, ends[e]));
  };
  for (const begin of [...ends.keys()].sort((p, q) => toFoot[p] - toFoot[q])) {
    if (!free[begin >> 1]) continue;
    join(footOf[begin], ends[begin]);
    let out = begin;
    for (let at: number | undefined = begin; at !== undefined; at = nextFrom(out)) {
      if (at !== begin) join(ends[out], ends[at]);
      free[at >> 1] = 0;
      out = at ^ 1;
    }
    join(footOf[out], ends[out]);
  }
}

const nodesFrom = ({ x }: Network, from: number): number[] =>
  Array.from({ length: x.length - from }, (_, k) => from + k);

/** Some nodes, to be found by nearness. */
function indexed({ x, y }: Network, nodes: readonly number[]): Flatbush {
  const index = new Flatbush(nodes.length);
  for (const i of nodes) index.add(x[i], y[i], x[i], y[i]);
  index.finish();
  return index;
}

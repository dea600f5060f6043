import Flatbush from "flatbush";
import { type Clearance, inset } from "../../geometry/clearance/clearance.ts";
import { nesting } from "../../geometry/nesting.ts";
import { boundsOf, complement, insideRing, ringArea, ringCount, type Rings } from "../../geometry/rings.ts";
import type { ArtInputs, Note } from "../kind.ts";

export type Side = "outside" | "inside" | "on";

/** One contour's path, the waste on its left. */
export interface ContourLoop {
  xy: Float64Array;
  start: number;
  end: number;
  /**
   * index of the outline's ring it follows; where two stand closer than the cutter is wide, one path follows both and
   * names one
   */
  ring: number;
  /** what is inside this loop comes loose when it is cut through */
  frees: boolean;
}

export interface ContourLoops {
  loops: ContourLoop[];
  /** where the cut may open the stock */
  waste: Rings;
  /** clearance of the waste; null where the cut follows the line itself */
  clearance: Clearance | null;
  /** rings that no path could be found for: the cutter is too wide */
  missed: number[];
  /** pieces that stay joined, since the cutter does not fit between them: one ring of each such group */
  joined: number[];
}

/**
 * Beyond the art the plan looks this many cutter diameters and lead lengths: room for every outside path and every way
 * onto it. At least so many mm, then twice that and so on: cutters that are tried against each other share the waste
 * and its clearance.
 */
const ROOM = 3;
const LEAD_ROOM = 2;
const LEAST_ROOM = 60;

/** The paths `away` mm to the chosen side of every contour. */
export function contourLoops(inputs: ArtInputs, s: { side: Side; lead: number }, away: number): ContourLoops {
  const { ink } = inputs.reads.art;
  const n = ringCount(ink);
  const nest = nestDepths(ink.parent);
  if (s.side === "on") {
    const loops = Array.from({ length: n }, (_, k) => ({
      xy: ink.xy,
      start: ink.starts[k],
      end: ink.starts[k + 1],
      ring: k,
      frees: ringArea(ink, k) > 0,
    })).filter((l) => l.end - l.start > 2);
    return { loops, waste: ink, clearance: null, missed: [], joined: [] };
  }
  const room = ROOM * inputs.cutter.diameter + 2 * away + LEAD_ROOM * s.lead;
  const waste = s.side === "inside" ? ink : wasteRound(inputs, room);
  const clearance = inputs.clearance(waste);
  const { rings: found, follows } = inset(clearance, away);
  const rings = withoutDoubles(found);
  const loops: ContourLoop[] = [];
  const reached = new Uint8Array(n);
  for (let k = 0; k < ringCount(rings); k++) {
    const ring = follows[k];
    // The frame is no contour, and a path of less than three points goes round nothing.
    if (ring >= n || rings.starts[k + 1] - rings.starts[k] < 3) continue;
    reached[ring] = 1;
    // The waste lies on a loop's left: clockwise loops go round pieces, counter-clockwise ones lie in openings.
    const round = ringArea(rings, k) < 0;
    loops.push({
      xy: rings.xy,
      start: rings.starts[k],
      end: rings.starts[k + 1],
      ring,
      frees: s.side === "inside" ? !round : round,
    });
  }
  const missed: number[] = [];
  for (let k = 0; k < n; k++) if (!reached[k] && (nest[k] % 2 === 1) === (s.side === "outside")) missed.push(k);
  return { loops, waste, clearance, missed, joined: s.side === "outside" ? joinedPieces(ink, nest, loops) : [] };
}

/** All round the ink, at least `room` mm beyond it; kept. */
function wasteRound({ reads, kept }: ArtInputs, room: number): Rings {
  const doublings = Math.ceil(Math.log2(Math.max(1, room / LEAST_ROOM)));
  return kept.of("waste", [reads.art.ink, LEAST_ROOM * 2 ** doublings], complement);
}

/** Points nearer together than this carry no direction, mm. */
const DOUBLE = 1e-4;

/** The same rings without points on top of each other, which would read as corners. */
function withoutDoubles(r: Rings): Rings {
  const xy: number[] = [];
  const starts = new Int32Array(r.starts.length);
  for (let k = 0; k < ringCount(r); k++) {
    const from = xy.length;
    for (let i = r.starts[k]; i < r.starts[k + 1]; i++) {
      const [x, y] = [r.xy[2 * i], r.xy[2 * i + 1]];
      if (xy.length > from && Math.abs(x - xy[xy.length - 2]) + Math.abs(y - xy[xy.length - 1]) < DOUBLE) continue;
      xy.push(x, y);
    }
    while (
      xy.length > from + 2 &&
      Math.abs(xy[from] - xy[xy.length - 2]) + Math.abs(xy[from + 1] - xy[xy.length - 1]) < DOUBLE
    )
      xy.length -= 2;
    starts[k + 1] = xy.length / 2;
  }
  return { xy: Float64Array.from(xy), starts, parent: r.parent };
}

/** How many rings lie around each. */
function nestDepths(parent: Int32Array): Int32Array {
  const depth = new Int32Array(parent.length);
  for (let k = 0; k < parent.length; k++) for (let p = parent[k]; p >= 0; p = parent[p]) depth[k]++;
  return depth;
}

/** The paths as rings, in their order. */
function ringsOfLoops(loops: readonly ContourLoop[]): Rings {
  const starts = new Int32Array(loops.length + 1);
  loops.forEach((l, i) => (starts[i + 1] = starts[i] + l.end - l.start));
  const xy = new Float64Array(2 * starts[loops.length]);
  loops.forEach((l, i) => xy.set(l.xy.subarray(2 * l.start, 2 * l.end), 2 * starts[i]));
  return { xy, starts, parent: new Int32Array(loops.length).fill(-1) };
}

/**
 * Pieces of ink that share the path round them with another piece: one ring of every group but the one that the path is
 * named for.
 */
function joinedPieces(ink: Rings, nest: Int32Array, loops: readonly ContourLoop[]): number[] {
  if (loops.length === 0) return [];
  const paths = ringsOfLoops(loops);
  const index = new Flatbush(loops.length);
  const area = loops.map((_, i) => Math.abs(ringArea(paths, i)));
  loops.forEach((_, i) => {
    const b = boundsOf(paths.xy, paths.starts[i], paths.starts[i + 1]);
    index.add(b.minX, b.minY, b.maxX, b.maxY);
  });
  index.finish();
  const taken = new Set<number>();
  const joined: number[] = [];
  for (let k = 0; k < ringCount(ink); k++) {
    if (nest[k] % 2 === 1 || ink.starts[k + 1] - ink.starts[k] < 3) continue;
    const [x, y] = [ink.xy[2 * ink.starts[k]], ink.xy[2 * ink.starts[k] + 1]];
    const around = index.search(x, y, x, y).filter((i) => insideRing(paths, i, x, y));
    const path = around.sort((i, j) => area[i] - area[j])[0];
    if (path === undefined) continue;
    if (taken.has(path)) joined.push(k);
    taken.add(path);
  }
  return joined;
}

/**
 * The order to cut contours in: a path only after every path inside it, since what it frees may move, and among those
 * that may be next always the nearest. @returns indices into `loops`
 */
export function contourOrder(loops: readonly ContourLoop[], x: number, y: number): number[] {
  const above = nesting(ringsOfLoops(loops));
  const waiting = new Int32Array(loops.length);
  for (const p of above) if (p >= 0) waiting[p]++;
  const left = new Set(loops.keys());
  const out: number[] = [];
  while (left.size > 0) {
    let best = -1;
    let near = Infinity;
    for (const i of left) {
      if (waiting[i] > 0) continue;
      const l = loops[i];
      const d = (l.xy[2 * l.start] - x) ** 2 + (l.xy[2 * l.start + 1] - y) ** 2;
      if (d < near) [near, best] = [d, i];
    }
    left.delete(best);
    out.push(best);
    if (above[best] >= 0) waiting[above[best]]--;
    [x, y] = [loops[best].xy[2 * loops[best].start], loops[best].xy[2 * loops[best].start + 1]];
  }
  return out;
}

/**
 * What is said of pieces that stay joined to their neighbours.
 * @param joined contours of the ink
 * @param cutter in words, with its size
 */
export function joinedNote(ink: Rings, joined: readonly number[], cutter: string): Note {
  const first = 2 * ink.starts[joined[0]];
  const which =
    joined.length === 1
      ? "A piece stays joined to its neighbour"
      : `${joined.length} pieces stay joined to their neighbours`;
  return {
    code: "pieces-joined",
    severity: "warning",
    message: `${which}: the ${cutter} does not fit between them. Use a narrower one, or move them apart.`,
    at: { x: ink.xy[first], y: ink.xy[first + 1] },
  };
}

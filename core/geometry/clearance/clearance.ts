import { components } from "../nesting.ts";
import type { Rings } from "../rings.ts";
import { type Boundary, boundaryOf, pointsOf } from "./boundary.ts";
import { type Axis, axisOf } from "./graph.ts";
import { insetRings } from "./inset.ts";
import { pruneAxis } from "./prune.ts";

/**
 * The clearance of a region Ω: its medial axis with the distance to the boundary at every node. V-carve paths, insets
 * at any distance, rest regions and thinnest strokes all come from this one structure.
 */
export interface Clearance {
  boundary: Boundary;
  /** the whole medial axis, every blunt corner's branch included */
  axis: Axis;
  /** 1 for edges of the axis that matter (branches into blunt corners cut off) */
  kept: Uint8Array;
  /** largest clearance anywhere, mm */
  widest: number;
  /** largest clearance next to each boundary ring, mm */
  widestAt: Float64Array;
}

/** What leaving out a blunt corner's branch may lose at the wall, mm. */
export const BRANCH_LOSS = 0.002;
/**
 * @param region closed polygons that do not cross, the region on the left of each edge; mm
 * @param loss largest wall error that pruned branches may leave, mm
 */
export function clearanceOf(region: Rings, loss = BRANCH_LOSS): Clearance {
  const boundary = boundaryOf(region);
  const rings = boundary.starts.length - 1;
  if (rings === 0) {
    const none = new Float64Array(0);
    const no = new Int32Array(0);
    return {
      boundary,
      axis: { x: none, y: none, d: none, a: no, b: no, left: no, right: no },
      kept: new Uint8Array(0),
      widest: 0,
      widestAt: none,
    };
  }
  // Inside one connected piece the nearest boundary is always its own: pieces are worked one at a time.
  const axis = joinAxes(
    components({ xy: pointsOf(boundary), starts: boundary.starts, parent: nothing }).map((piece) =>
      axisOf(boundary, piece),
    ),
  );
  const kept = pruneAxis(axis, loss);
  const widestAt = new Float64Array(rings);
  let widest = 0;
  for (let e = 0; e < axis.a.length; e++) {
    const d = Math.max(axis.d[axis.a[e]], axis.d[axis.b[e]]);
    if (d > widest) widest = d;
    for (const side of [axis.left[e], axis.right[e]]) {
      const r = boundary.ring[side];
      if (d > widestAt[r]) widestAt[r] = d;
    }
  }
  return { boundary, axis, kept, widest, widestAt };
}

/** The same clearance with the branches pruned that change the wall by no more than `loss` mm. */
export const withLoss = (c: Clearance, loss: number): Clearance => ({ ...c, kept: pruneAxis(c.axis, loss) });

const nothing = new Int32Array(0);

function joinAxes(parts: readonly Axis[]): Axis {
  let nodes = 0;
  let edges = 0;
  for (const p of parts) {
    nodes += p.x.length;
    edges += p.a.length;
  }
  const all: Axis = {
    x: new Float64Array(nodes),
    y: new Float64Array(nodes),
    d: new Float64Array(nodes),
    a: new Int32Array(edges),
    b: new Int32Array(edges),
    left: new Int32Array(edges),
    right: new Int32Array(edges),
  };
  let n = 0;
  let m = 0;
  for (const p of parts) {
    all.x.set(p.x, n);
    all.y.set(p.y, n);
    all.d.set(p.d, n);
    for (let e = 0; e < p.a.length; e++) {
      all.a[m + e] = p.a[e] + n;
      all.b[m + e] = p.b[e] + n;
    }
    all.left.set(p.left, m);
    all.right.set(p.right, m);
    n += p.x.length;
    m += p.a.length;
  }
  return all;
}

/** Chords of inset arcs stay this close to the arc, mm. */
export const INSET_TOLERANCE = 0.002;

/** Curves at a distance inside a region, and a boundary ring that each follows. */
export interface Inset {
  rings: Rings;
  follows: Int32Array;
}

/** Insets that were read lately, of each axis: choosing, clearing and finishing ask for the same ones. */
const lately = new WeakMap<Axis, Map<string, Inset>>();
/** How many of them, and how many points, are held at most for an axis. */
const MOST_INSETS = 64;
const MOST_POINTS = 500_000;

/**
 * The curves at distance `rho` inside the region, the region beyond on their left; `follows` names a boundary ring of
 * each. Not to be changed: the next who asks is given the same.
 */
export function inset(c: Clearance, rho: number, tolerance = INSET_TOLERANCE): Inset {
  let held = lately.get(c.axis);
  if (!held) lately.set(c.axis, (held = new Map()));
  const key = `${rho} ${tolerance}`;
  const found = held.get(key) ?? insetRings(c.boundary, c.axis, c.widestAt, rho, tolerance);
  // The newest last.
  held.delete(key);
  held.set(key, found);
  let points = 0;
  for (const { rings } of held.values()) points += rings.xy.length / 2;
  for (const [oldest, { rings }] of held) {
    if ((points <= MOST_POINTS && held.size <= MOST_INSETS) || held.size === 1) break;
    held.delete(oldest);
    points -= rings.xy.length / 2;
  }
  return found;
}

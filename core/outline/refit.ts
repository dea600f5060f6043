import type { Shape } from "../geometry/shape.ts";
import { resampled } from "../geometry/morph.ts";
import { ringCount, type Rings } from "../geometry/rings.ts";
import type { Contours } from "./contours.ts";
import { fitOutline, type Outline, type OutlineSettings } from "./outline.ts";

/** Polygons fitted anew with lines, arcs and cubics, as if they had been traced at `spacing` mm. */
export function refitted(r: Rings, spacing: number, s: OutlineSettings): Outline {
  const dense = resampled(r, spacing);
  const n = ringCount(dense);
  const hole = new Uint8Array(n);
  for (let k = 0; k < n; k++) for (let p = dense.parent[k]; p >= 0; p = dense.parent[p]) hole[k] ^= 1;
  // A contour's parents come before it.
  const depth = Array.from({ length: n }, (_, k) => {
    let d = 0;
    for (let p = dense.parent[k]; p >= 0; p = dense.parent[p]) d++;
    return d;
  });
  const order = Array.from({ length: n }, (_, k) => k).sort((a, b) => depth[a] - depth[b]);
  const at = new Int32Array(n);
  order.forEach((k, i) => (at[k] = i));
  const starts = new Int32Array(n + 1);
  const xy = new Float64Array(dense.xy.length);
  order.forEach((k, i) => {
    const from = dense.starts[k];
    const count = dense.starts[k + 1] - from;
    starts[i + 1] = starts[i] + count;
    // Contours are kept in pixels with y down: one pixel is one spacing here.
    for (let q = 0; q < count; q++) {
      xy[2 * (starts[i] + q)] = dense.xy[2 * (from + q)] / spacing;
      xy[2 * (starts[i] + q) + 1] = -dense.xy[2 * (from + q) + 1] / spacing;
    }
  });
  const c: Contours = {
    xy,
    starts,
    parent: Int32Array.from(order, (k) => (dense.parent[k] < 0 ? -1 : at[dense.parent[k]])),
    hole: Uint8Array.from(order, (k) => hole[k]),
  };
  return fitOutline(c, { scale: spacing, x0: 0, y1: 0 }, { ...s, noise: 0 });
}

/**
 * How often the hold is widened to come under a limit of nodes, by how much at least, and at most where it is far off.
 */
const WIDENINGS = 24;
const WIDENING = 1.35;
const WIDEST = 4;
/** Widening that spares less than this share of the nodes so often in a row spares no more: corners are left. */
const SPARES = 0.02;
const IN_VAIN = 3;

/** The closest fit with at most `most` nodes: holds ever wider until it is met, or as near as rounds allow. */
export function reduced(
  fit: (hold: number) => Outline,
  hold: number,
  most: number,
): { outline: Outline; hold: number } {
  let outline = fit(hold);
  let vain = 0;
  for (let k = 0; k < WIDENINGS && most > 0 && outline.nodes > most && vain < IN_VAIN; k++) {
    const before = outline.nodes;
    hold *= Math.max(WIDENING, Math.min(WIDEST, Math.sqrt(before / most)));
    outline = fit(hold);
    vain = outline.nodes > (1 - SPARES) * before ? vain + 1 : 0;
  }
  return { outline, hold };
}

/** Only some of a shape's contours. */
export function pick(s: Shape, keep: readonly boolean[]): Shape {
  const n = s.parent.length;
  const index = new Int32Array(n).fill(-1);
  let count = 0;
  for (let k = 0; k < n; k++) if (keep[k]) index[k] = count++;
  const kinds: number[] = [];
  const nodes: number[] = [];
  const origin: number[] = [];
  const starts = [0];
  const parent: number[] = [];
  for (let k = 0; k < n; k++) {
    if (!keep[k]) continue;
    for (let i = s.starts[k]; i < s.starts[k + 1]; i++) {
      kinds.push(s.kinds[i]);
      for (let q = 0; q < 6; q++) nodes.push(s.nodes[6 * i + q]);
    }
    origin.push(s.origin[2 * k], s.origin[2 * k + 1]);
    starts.push(kinds.length);
    let p = s.parent[k];
    while (p >= 0 && index[p] < 0) p = s.parent[p];
    parent.push(p < 0 ? -1 : index[p]);
  }
  return {
    kinds: Uint8Array.from(kinds),
    nodes: Float64Array.from(nodes),
    origin: Float64Array.from(origin),
    starts: Int32Array.from(starts),
    parent: Int32Array.from(parent),
  };
}

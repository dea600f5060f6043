import { ARC, CUBIC, eachSegment, flatten, LINE, type Shape, ShapeBuilder } from "../../geometry/shape.ts";
import { nesting } from "../../geometry/nesting.ts";
import { noProgress, type Progress } from "../../problem.ts";
import { crossingPolylines } from "../crossing.ts";
import { findCorners } from "../corners.ts";
import { fitContour, fitOpen } from "../fit.ts";
import type { Placement } from "../outline.ts";
import { type Arcs } from "./arcs.ts";

/** Every border fitted once, as an open or closed run of segments; both neighbours use the very same. mm */
export interface FittedArcs {
  arcs: Arcs;
  /** contour k is arc k; open arcs end where their last segment ends */
  shape: Shape;
  maxDeviation: number;
}

const CORNER_ARM = 4;
/** How often arcs that cross after fitting are fitted again at half the hold, before their own points serve. */
const REFITS = 3;

/** Fits every arc within `hold` mm of its points. */
export function fitArcs(arcs: Arcs, place: Placement, hold: number, cornerAngle: number, progress: Progress = noProgress): FittedArcs {
  const n = arcs.closed.length;
  const points = Array.from({ length: n }, (_, k) => {
    const out = new Float64Array(2 * (arcs.starts[k + 1] - arcs.starts[k]));
    for (let i = arcs.starts[k], o = 0; i < arcs.starts[k + 1]; i++, o += 2) {
      out[o] = place.x0 + arcs.xy[2 * i] * place.scale;
      out[o + 1] = place.y1 - arcs.xy[2 * i + 1] * place.scale;
    }
    return out;
  });
  const holds = new Float64Array(n).fill(hold);
  for (let round = 0; ; round++) {
    const b = new ShapeBuilder();
    let worst = 0;
    for (let k = 0; k < n; k++) {
      if ((k & 63) === 0) progress(k / n);
      const xy = points[k];
      const m = xy.length / 2;
      if (holds[k] === 0 || m < 3) {
        b.begin(xy[0], xy[1], -1);
        for (let i = 1; i < m + arcs.closed[k]; i++) b.line(xy[2 * (i % m)], xy[2 * (i % m) + 1]);
      } else if (arcs.closed[k]) worst = Math.max(worst, fitContour(xy, m, findCorners(xy, m, CORNER_ARM, cornerAngle), -1, holds[k], b));
      else worst = Math.max(worst, fitOpen(xy, m, findCorners(xy, m, CORNER_ARM, cornerAngle, false), -1, holds[k], b));
    }
    const shape = b.take();
    const crossed = round > REFITS ? [] : crossingPolylines(flatten(shape, Math.max(0.002, hold / 8)), shape.origin, arcs.closed);
    if (crossed.length === 0) return { arcs, shape, maxDeviation: worst };
    for (const k of crossed) holds[k] = round === REFITS ? 0 : holds[k] / 2;
  }
}

/** The outline of some of the colours together: borders between two of them vanish. `keep[l]` for every label. */
export function colourShape(f: FittedArcs, keep: ArrayLike<boolean>): Shape {
  const { arcs, shape } = f;
  const kept = (l: number): boolean => l < keep.length && keep[l];
  /** arc and whether it is walked backwards, so that what is kept lies on the left */
  const ways: { k: number; back: boolean }[] = [];
  const leaving = new Map<number, number[]>();
  for (let k = 0; k < arcs.closed.length; k++) {
    const l = kept(arcs.left[k]);
    if (l === kept(arcs.right[k])) continue;
    const back = !l;
    if (!arcs.closed[k]) {
      const j = back ? arcs.to[k] : arcs.from[k];
      leaving.set(j, [...(leaving.get(j) ?? []), ways.length]);
    }
    ways.push({ k, back });
  }
  const out = new ShapeBuilder();
  const used = new Uint8Array(ways.length);
  for (let w = 0; w < ways.length; w++) {
    if (used[w]) continue;
    const loop: number[] = [];
    let at = w;
    for (;;) {
      used[at] = 1;
      loop.push(at);
      const { k, back } = ways[at];
      if (arcs.closed[k]) break;
      const end = back ? arcs.from[k] : arcs.to[k];
      // Where two pieces of it meet at a corner, keep to the pixel on the left: turn left if there is a way.
      const heading = back ? (arcs.leaves[k] + 2) % 4 : arcs.arrives[k];
      const next = (leaving.get(end) ?? [])
        .filter((q) => !used[q] || q === w)
        .sort((p, q) => turn(heading, first(arcs, ways[p])) - turn(heading, first(arcs, ways[q])))[0];
      if (next === undefined || next === w) break;
      at = next;
    }
    emit(out, shape, loop.map((q) => ways[q]));
  }
  const s = out.take();
  return { ...s, parent: nesting(flatten(s, 0.02)) };
}

const first = (arcs: Arcs, w: { k: number; back: boolean }): number => (w.back ? (arcs.arrives[w.k] + 2) % 4 : arcs.leaves[w.k]);
/** 0 for a left turn, 1 straight on, 2 right, 3 back, directions being right, down, left, up. */
const turn = (from: number, to: number): number => (to - from + 5) % 4;

function emit(out: ShapeBuilder, s: Shape, ways: readonly { k: number; back: boolean }[]): void {
  let begun = false;
  for (const { k, back } of ways) {
    const segments: { kind: number; x0: number; y0: number; at: number }[] = [];
    eachSegment(s, k, (kind, x0, y0, at) => segments.push({ kind, x0, y0, at }));
    if (back) segments.reverse();
    for (const { kind, x0, y0, at } of segments) {
      const n = s.nodes;
      const [x1, y1] = [n[at + 4], n[at + 5]];
      if (!begun) {
        begun = true;
        if (back) out.begin(x1, y1, -1);
        else out.begin(x0, y0, -1);
      }
      const [ex, ey] = back ? [x0, y0] : [x1, y1];
      if (kind === LINE) out.line(ex, ey);
      else if (kind === ARC) out.arc(n[at], n[at + 1], back ? -n[at + 2] : n[at + 2], ex, ey);
      else if (kind === CUBIC) back ? out.cubic(n[at + 2], n[at + 3], n[at], n[at + 1], ex, ey) : out.cubic(n[at], n[at + 1], n[at + 2], n[at + 3], ex, ey);
    }
  }
}


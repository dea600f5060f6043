import { asRead, type Shape, ShapeBuilder } from "../../geometry/shape.ts";
import { nesting } from "../../geometry/nesting.ts";
import { noProgress, type Progress } from "../../problem.ts";
import type { Course } from "../course.ts";
import { fitCourses } from "../courses.ts";
import { edgeNoise, smoothed } from "../noise.ts";
import type { Placement } from "../outline.ts";
import type { Arcs } from "./arcs.ts";
import { draw, reversed, type Segment, segmentsOf, shortened } from "./joints.ts";

/** Every border fitted once, as an open or closed run of segments; both neighbours use the very same. mm */
export interface FittedArcs {
  arcs: Arcs;
  /** contour k is arc k; open arcs end where their last segment ends */
  shape: Shape;
  maxDeviation: number;
  /** mm a pixel */
  pixel: number;
}

/**
 * Fits every arc within `hold` mm of its points, all of them sound together but for the junctions that they share.
 */
export function fitArcs(
  arcs: Arcs,
  place: Placement,
  hold: number,
  cornerAngle: number,
  progress: Progress = noProgress,
): FittedArcs {
  const noise = edgeNoise(arcs) * place.scale;
  const courses = Array.from(arcs.closed, (closed, k): Course => {
    const raw = new Float64Array(2 * (arcs.starts[k + 1] - arcs.starts[k]));
    for (let i = arcs.starts[k], o = 0; i < arcs.starts[k + 1]; i++, o += 2) {
      raw[o] = place.x0 + arcs.xy[2 * i] * place.scale;
      raw[o + 1] = place.y1 - arcs.xy[2 * i + 1] * place.scale;
    }
    return { raw, smooth: smoothed(raw, closed === 1, noise, place.scale, hold), closed: closed === 1, hold };
  });
  const { shape, maxDeviation } = fitCourses(courses, cornerAngle, progress);
  return { arcs, shape, maxDeviation, pixel: place.scale };
}

/** The outline of some of the colours together: borders between two of them vanish. `keep[l]` for every label. */
export function colourShape(f: FittedArcs, keep: ArrayLike<boolean>): Shape {
  const { arcs } = f;
  const kept = (l: number): boolean => l < keep.length && keep[l];
  const ways: Way[] = [];
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
  const loops: Way[][] = [];
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
    loops.push(loop.map((q) => ways[q]));
  }
  const out = new ShapeBuilder();
  // One way out of a junction for each time that the outline passes it.
  for (const loop of loops) emit(out, f, loop, (j) => leaving.get(j)!.length > 1);
  const s = out.take();
  return { ...s, parent: nesting(asRead(s)) };
}

/** An arc, and whether it is walked backwards so that what is kept lies on the left. */
interface Way {
  k: number;
  back: boolean;
}

const first = (arcs: Arcs, w: Way): number => (w.back ? (arcs.arrives[w.k] + 2) % 4 : arcs.leaves[w.k]);
/** 0 for a left turn, 1 straight on, 2 right, 3 back, directions being right, down, left, up. */
const turn = (from: number, to: number): number => (to - from + 5) % 4;

/**
 * Borders that meet at a place which the outline passes twice end this much before it, px, and are joined straight
 * across.
 */
const BEFORE = 0.25;

/** Draws one loop; `twice` says whether the outline passes a junction more than once: there it would touch itself. */
function emit(
  out: ShapeBuilder,
  { arcs, shape, pixel }: FittedArcs,
  ways: readonly Way[],
  twice: (junction: number) => boolean,
): void {
  const segments: Segment[] = [];
  for (const { k, back } of ways) {
    const own = segmentsOf(shape, k, back);
    if (!arcs.closed[k]) {
      if (twice(back ? arcs.to[k] : arcs.from[k])) own[0] = reversed(shortened(reversed(own[0]), BEFORE * pixel));
      if (twice(back ? arcs.from[k] : arcs.to[k])) own[own.length - 1] = shortened(own[own.length - 1], BEFORE * pixel);
    }
    segments.push(...own);
  }
  out.begin(segments[0].x0, segments[0].y0, -1);
  segments.forEach((p, i) => {
    draw(out, p);
    const next = segments[(i + 1) % segments.length];
    if (next.x0 !== p.x1 || next.y0 !== p.y1) out.line(next.x0, next.y0);
  });
}

import type { Rings } from "../../geometry/rings.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { thin } from "../../geometry/thin.ts";
import { backwards, type Trail } from "../../geometry/trail.ts";
import { cutAlong } from "../../toolpath/loops.ts";
import { type BeginCost, type Ends, shortOrder } from "../../toolpath/order.ts";
import type { ToolpathWriter } from "../../toolpath/toolpath.ts";
import { FLOOR_TOLERANCE } from "./rest.ts";
import { hypot } from "../../hypot.ts";

/** How far thinned carving moves may be from the medial axis, mm. */
const THIN = 0.002;
/**
 * Ways over the floor longer than this many times its depth are lifted over: mostly to a trail that begins at the
 * stock's top.
 */
export const LONGEST_LINK = 3;
/** Ways may come so much nearer to a wall than its foot, mm. */
const LINK_SLACK = 0.002;
/** Coming down into stock takes as long as this much more way at rapid speed. */
const PLUNGE_COST = 4;

/** How far a round cutter opens the stock's top at a height z, mm. */
export type Opened = (z: number) => number;

/** Whether the cutter may go straight from one place to another, both at depth. */
export type Link = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number) => boolean;

/** Shallower than this the cutter is as good as out, mm. */
const SHALLOW = 0.1;

/**
 * Short links at depth: nowhere nearer to a wall than the cutter is wide at the deeper of the two ends.
 * @param radius the cutter's at a depth, mm
 */
export function clearLinks(region: Rings, radius: (depth: number) => number, floor: number): Link {
  const edges = new SegmentGrid(region);
  return (x0, y0, z0, x1, y1, z1) => {
    const depth = -Math.min(z0, z1);
    // Before the first move there is no place to come from, and NaN compares false.
    if (depth < SHALLOW || !(hypot(x1 - x0, y1 - y0) <= LONGEST_LINK * floor)) return false;
    const rho = radius(depth);
    return edges.isClear(x0, y0, x1, y1, rho - LINK_SLACK);
  };
}

/**
 * Cuts trails in an order that travels little; stays down where one begins at the end of another, or where the floor
 * between them is open.
 */
export function carveTrails(
  w: ToolpathWriter,
  parts: readonly Trail[],
  link: Link,
  floor: number,
  opened?: Opened,
): void {
  const ends = parts.map((t): Ends => {
    const last = t.x.length - 1;
    return { x0: t.x[0], y0: t.y[0], z0: t.z[0], x1: t.x[last], y1: t.y[last], z1: t.z[last] };
  });
  // Corners begin at the stock's top: coming down there costs nothing, and the way in carves.
  const begin: BeginCost = (way, z, z1) =>
    way < 1e-6 || (z < -SHALLOW && z1 < -SHALLOW && way <= LONGEST_LINK * floor) ? 0 : PLUNGE_COST * -z1;
  for (const { index, reverse } of shortOrder(ends, begin)) {
    const t = reverse ? backwards(parts[index]) : parts[index];
    const [x, y, z] = [t.x[0], t.y[0], t.z[0]];
    // Before the first move the writer's position is NaN, and NaN compares false: the cutter counts as not there.
    const there = hypot(x - w.x, y - w.y, z - w.z) <= 1e-6;
    if (!there && link(w.x, w.y, w.z, x, y, z)) w.to(x, y, z);
    else if (!there) {
      w.above(x, y);
      w.plunge(z);
    }
    carve(w, t, opened);
  }
}

/** Along one trail, from above its beginning. */
export function carveAlone(w: ToolpathWriter, t: Trail): void {
  w.above(t.x[0], t.y[0]);
  w.plunge(t.z[0]);
  carve(w, t);
}

/** Along a trail from its beginning: level stretches in lines and arcs, the rest in lines. */
function carve(w: ToolpathWriter, t: Trail, opened?: Opened): void {
  const last = t.x.length - 1;
  for (let from = 0, to; from < last; from = to) {
    const level = t.z[from + 1] === t.z[from];
    to = from + 1;
    while (to < last && (t.z[to + 1] === t.z[to]) === level) to++;
    if (level) cutAlong(w, t.x, t.y, from, to, t.z[from], FLOOR_TOLERANCE);
    else for (const i of thin(t.x, t.y, t.z, from, to, THIN, opened).slice(1)) w.to(t.x[i], t.y[i], t.z[i]);
  }
}

import { newFoot, walkToFoot } from "./boundary.ts";
import type { Clearance } from "./clearance.ts";
import type { Axis } from "./graph.ts";

/** Numbers of each edge of an axis in its feet. */
export const FEET = 8;
/** Where in them the feet of its first node begin, on the left and on the right; those of its second follow. */
export const SIDES = [0, 4] as const;

const held = new WeakMap<Axis, Float64Array>();

/**
 * Where the boundary is nearest to both ends of every edge of an axis, on both sides of it; mm. Found once: what
 * measures the ground between an axis and its boundary begins with them.
 * @returns for edge e from {@link FEET}·e on: x, y of its first and of its second node's foot on the left, then those
 * on the right
 */
export function feetOf({ axis, boundary }: Clearance): Float64Array {
  const known = held.get(axis);
  if (known) return known;
  const { a, b, x, y, left, right } = axis;
  const feet = new Float64Array(FEET * a.length);
  const foot = newFoot();
  let n = 0;
  const add = (side: number, node: number) => {
    walkToFoot(boundary, side, x[node], y[node], foot);
    feet[n++] = foot.x;
    feet[n++] = foot.y;
  };
  for (let e = 0; e < a.length; e++) {
    add(left[e], a[e]);
    add(left[e], b[e]);
    add(right[e], a[e]);
    add(right[e], b[e]);
  }
  held.set(axis, feet);
  return feet;
}

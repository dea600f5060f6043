import { hypot } from "../hypot.ts";

/**
 * Closed polygons as flat arrays: `xy` holds x, y by turns, ring k the points starts[k] … starts[k+1]−1 (the last
 * joins the first). Outer rings run counter-clockwise, holes clockwise; `parent` is the ring directly around, or −1.
 * Lengths in mm, y away from the operator.
 */
export interface Rings {
  xy: Float64Array;
  starts: Int32Array;
  parent: Int32Array;
}

export interface Box {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

export const emptyRings = (): Rings => ({
  xy: new Float64Array(0),
  starts: new Int32Array(1),
  parent: new Int32Array(0),
});

export const ringCount = (r: Rings): number => r.starts.length - 1;

/** Signed area of ring k in mm²: positive when counter-clockwise. */
export function ringArea(r: Rings, k: number): number {
  const { xy } = r;
  const e = r.starts[k + 1];
  let sum = 0;
  let x0 = xy[2 * e - 2];
  let y0 = xy[2 * e - 1];
  for (let i = r.starts[k]; i < e; i++) {
    const x1 = xy[2 * i];
    const y1 = xy[2 * i + 1];
    sum += x0 * y1 - x1 * y0;
    x0 = x1;
    y0 = y1;
  }
  return sum / 2;
}

/** Area of the region in mm², holes taken off. */
export function regionArea(r: Rings): number {
  let sum = 0;
  for (let k = 0; k < ringCount(r); k++) sum += ringArea(r, k);
  return sum;
}

export function boundsOf(xy: Float64Array, from = 0, to = xy.length / 2): Box {
  const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (let i = from; i < to; i++) {
    const x = xy[2 * i];
    const y = xy[2 * i + 1];
    if (x < box.minX) box.minX = x;
    if (x > box.maxX) box.maxX = x;
    if (y < box.minY) box.minY = y;
    if (y > box.maxY) box.maxY = y;
  }
  return box;
}

/** The numbers of all rings. */
export const ringIndices = (r: Rings): number[] => Array.from({ length: ringCount(r) }, (_, k) => k);

/** Whether (x, y) lies inside ring k, by counting crossings of a ray to the right. */
export function insideRing(r: Rings, k: number, x: number, y: number): boolean {
  const { xy } = r;
  const e = r.starts[k + 1];
  let inside = false;
  let x0 = xy[2 * e - 2];
  let y0 = xy[2 * e - 1];
  for (let i = r.starts[k]; i < e; i++) {
    const x1 = xy[2 * i];
    const y1 = xy[2 * i + 1];
    if (y0 > y !== y1 > y && x < x0 + ((y - y0) / (y1 - y0)) * (x1 - x0)) inside = !inside;
    x0 = x1;
    y0 = y1;
  }
  return inside;
}

/** Whether (x, y) lies in the region (even–odd over all rings). */
export function insideRegion(r: Rings, x: number, y: number): boolean {
  let inside = false;
  for (let k = 0; k < ringCount(r); k++) if (insideRing(r, k, x, y)) inside = !inside;
  return inside;
}

/** Rings from plain arrays of [x, y]; outer rings and holes as the caller orients them. */
export function ringsFrom(
  loops: readonly (readonly (readonly [number, number])[])[],
  parent?: readonly number[],
): Rings {
  const starts = new Int32Array(loops.length + 1);
  loops.forEach((l, k) => (starts[k + 1] = starts[k] + l.length));
  const xy = new Float64Array(2 * starts[loops.length]);
  let at = 0;
  for (const l of loops)
    for (const [x, y] of l) {
      xy[at++] = x;
      xy[at++] = y;
    }
  return { xy, starts, parent: Int32Array.from(parent ?? loops.map(() => -1)) };
}

/**
 * The same region seen from outside: every ring turned round, inside a frame `margin` mm beyond its bounds (the last
 * ring).
 */
export function complement(r: Rings, margin: number): Rings {
  const n = ringCount(r);
  const total = r.starts[n];
  const box = boundsOf(r.xy);
  const xy = new Float64Array(2 * total + 8);
  for (let k = 0; k < n; k++)
    for (let i = r.starts[k], j = r.starts[k + 1] - 1; i < r.starts[k + 1]; i++, j--) {
      xy[2 * i] = r.xy[2 * j];
      xy[2 * i + 1] = r.xy[2 * j + 1];
    }
  const x0 = box.minX - margin;
  const x1 = box.maxX + margin;
  const y0 = box.minY - margin;
  const y1 = box.maxY + margin;
  xy.set([x0, y0, x1, y0, x1, y1, x0, y1], 2 * total);
  const starts = new Int32Array(n + 2);
  starts.set(r.starts);
  starts[n + 1] = total + 4;
  const parent = new Int32Array(n + 1);
  for (let k = 0; k < n; k++) parent[k] = r.parent[k] < 0 ? n : r.parent[k];
  parent[n] = -1;
  return { xy, starts, parent };
}

/** Length of closed curve k, mm. */
export function ringLength({ xy, starts }: Rings, k: number): number {
  let sum = 0;
  for (let i = starts[k]; i < starts[k + 1]; i++) {
    const j = i + 1 < starts[k + 1] ? i + 1 : starts[k];
    sum += hypot(xy[2 * j] - xy[2 * i], xy[2 * j + 1] - xy[2 * i + 1]);
  }
  return sum;
}

/** Length of all of them, mm. */
export function ringsLength(r: Rings): number {
  let sum = 0;
  for (let k = 0; k < ringCount(r); k++) sum += ringLength(r, k);
  return sum;
}

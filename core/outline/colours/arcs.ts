import { GrowingF64, GrowingI32 } from "../../growing.ts";
import type { Raster } from "../../picture/raster.ts";
import { checkBusy } from "../courses.ts";
import type { Labels } from "./labels.ts";
import type { Swatch } from "./palette.ts";

/** What lies beyond the picture. */
export const OUTSIDE = 255;

/**
 * The borders between colours, each kept once: from one junction of three or more colours to the next, or closed.
 * Points in pixels, y down; `left` and `right` are the labels on either side as seen on screen walking along it.
 */
export interface Arcs {
  /** x, y by turns */
  xy: Float64Array;
  starts: Int32Array;
  closed: Uint8Array;
  left: Uint8Array;
  right: Uint8Array;
  /** junction at the beginning and at the end, −1 for closed ones */
  from: Int32Array;
  to: Int32Array;
  /** direction in which the arc leaves its beginning and reaches its end: 0 right, 1 down, 2 left, 3 up */
  leaves: Uint8Array;
  arrives: Uint8Array;
}

// Steps along pixel edges, from corner (x, y): right, down, left, up.
const DX = [1, 0, -1, 0];
const DY = [0, 1, 0, -1];

/**
 * Traces every border of a label map along pixel edges and puts each point where the blend between its two colours is
 * half and half, so that edges are good to parts of a pixel.
 * @throws Problem `too-busy` as soon as there are more points than anyone could cut
 */
export function traceArcs(l: Labels, r: Raster, swatches: readonly Swatch[]): Arcs {
  const { width: W, height: H, data } = l;
  const at = (x: number, y: number): number => (x < 0 || y < 0 || x >= W || y >= H ? OUTSIDE : data[y * W + x]);
  /** Labels left and right of the edge that leaves corner (x, y) in direction d. */
  const sides = (x: number, y: number, d: number): [number, number] =>
    d === 0
      ? [at(x, y - 1), at(x, y)]
      : d === 1
        ? [at(x, y), at(x - 1, y)]
        : d === 2
          ? [at(x - 1, y), at(x - 1, y - 1)]
          : [at(x - 1, y - 1), at(x, y - 1)];
  const across = new Uint8Array((W + 1) * (H + 1));
  const down = new Uint8Array((W + 1) * (H + 1));
  const visited = (x: number, y: number, d: number): boolean =>
    (d === 0
      ? across[y * (W + 1) + x]
      : d === 2
        ? across[y * (W + 1) + x - 1]
        : d === 1
          ? down[y * (W + 1) + x]
          : down[(y - 1) * (W + 1) + x]) === 1;
  const visit = (x: number, y: number, d: number): void => {
    if (d === 0) across[y * (W + 1) + x] = 1;
    else if (d === 2) across[y * (W + 1) + x - 1] = 1;
    else if (d === 1) down[y * (W + 1) + x] = 1;
    else down[(y - 1) * (W + 1) + x] = 1;
  };
  const isBorder = (x: number, y: number, d: number): boolean => {
    const [a, b] = sides(x, y, d);
    return a !== b;
  };
  const degree = (x: number, y: number): number => {
    const [a, b, c, d] = [at(x - 1, y - 1), at(x, y - 1), at(x, y), at(x - 1, y)];
    return (a !== b ? 1 : 0) + (b !== c ? 1 : 0) + (c !== d ? 1 : 0) + (d !== a ? 1 : 0);
  };

  const point = crossingPoint(l, r, swatches);
  const xy = new GrowingF64(1 << 14);
  const starts = new GrowingI32();
  const out = {
    closed: [] as number[],
    left: [] as number[],
    right: [] as number[],
    from: [] as number[],
    to: [] as number[],
    leaves: [] as number[],
    arrives: [] as number[],
  };
  const junctions = new Map<number, number>();
  const junctionOf = (x: number, y: number): number => {
    const key = y * (W + 1) + x;
    let j = junctions.get(key);
    if (j === undefined) junctions.set(key, (j = junctions.size));
    return j;
  };
  const p = new Float64Array(2);
  const walk = (x0: number, y0: number, d0: number, fromJunction: boolean): void => {
    starts.push(xy.length / 2);
    const [left, right] = sides(x0, y0, d0);
    let [x, y, d] = [x0, y0, d0];
    if (fromJunction) {
      junctionPoint(at, point, x, y, p);
      xy.push2(p[0], p[1]);
    }
    for (;;) {
      visit(x, y, d);
      point(x, y, d, left, right, p);
      xy.push2(p[0], p[1]);
      x += DX[d];
      y += DY[d];
      if (degree(x, y) > 2) break;
      if (x === x0 && y === y0) break;
      // Straight on, or the one turn there is.
      for (const t of [d, (d + 1) % 4, (d + 3) % 4])
        if (isBorder(x, y, t)) {
          d = t;
          break;
        }
    }
    const isJunction = degree(x, y) > 2;
    if (isJunction) {
      junctionPoint(at, point, x, y, p);
      xy.push2(p[0], p[1]);
    }
    out.closed.push(isJunction ? 0 : 1);
    out.left.push(left);
    out.right.push(right);
    out.from.push(isJunction ? junctionOf(x0, y0) : -1);
    out.to.push(isJunction ? junctionOf(x, y) : -1);
    out.leaves.push(d0);
    out.arrives.push(d);
    checkBusy(xy.length / 2);
  };

  for (let y = 0; y <= H; y++)
    for (let x = 0; x <= W; x++) {
      // Inside one colour, the usual case, nothing meets.
      if (x > 0 && y > 0 && x < W && y < H) {
        const i = y * W + x;
        const c = data[i];
        if (data[i - 1] === c && data[i - W] === c && data[i - W - 1] === c) continue;
      }
      if (degree(x, y) <= 2) continue;
      for (let d = 0; d < 4; d++) if (isBorder(x, y, d) && !visited(x, y, d)) walk(x, y, d, true);
    }
  for (let y = 0; y <= H; y++)
    for (let x = 0; x < W; x++)
      if ((y === 0 || y === H || data[(y - 1) * W + x] !== data[y * W + x]) && across[y * (W + 1) + x] === 0)
        walk(x, y, 0, false);
  starts.push(xy.length / 2);
  return {
    xy: xy.take(),
    starts: starts.take(),
    closed: Uint8Array.from(out.closed),
    left: Uint8Array.from(out.left),
    right: Uint8Array.from(out.right),
    from: Int32Array.from(out.from),
    to: Int32Array.from(out.to),
    leaves: Uint8Array.from(out.leaves),
    arrives: Uint8Array.from(out.arrives),
  };
}

type Point = (x: number, y: number, d: number, left: number, right: number, p: Float64Array) => void;

/** Where the border crosses the line between the two pixels on either side of an edge. */
function crossingPoint(l: Labels, r: Raster, swatches: readonly Swatch[]): Point {
  const { width: W, height: H } = l;
  const shift = r.data instanceof Uint16Array ? 8 : 0;
  const share = (x: number, y: number, a: number, b: number): number => {
    const o = 4 * (y * W + x);
    const alpha = (r.data[o + 3] >> shift) / 255;
    const [p, q] = [swatches[a].rgb, swatches[b].rgb];
    let dot = 0;
    let len = 0;
    for (let k = 0; k < 3; k++) {
      const v = (r.data[o + k] >> shift) * alpha + 255 * (1 - alpha);
      dot += (v - p[k]) * (q[k] - p[k]);
      len += (q[k] - p[k]) ** 2;
    }
    return Math.max(0, Math.min(1, len > 0 ? dot / len : 0));
  };
  return (x, y, d, left, right, p) => {
    const horizontal = d === 0 || d === 2;
    // The edge's middle, and the pixels before and after it: above and below, or left and right.
    const ex = horizontal ? (d === 0 ? x : x - 1) : x;
    const ey = horizontal ? y : d === 1 ? y : y - 1;
    const [bx, by] = horizontal ? [ex, ey - 1] : [ex - 1, ey];
    p[0] = horizontal ? ex + 0.5 : ex;
    p[1] = horizontal ? ey : ey + 0.5;
    if (left === OUTSIDE || right === OUTSIDE || bx < 0 || by < 0 || ex >= W || ey >= H) return;
    const before = l.data[by * W + bx];
    const after = l.data[ey * W + ex];
    const s0 = share(bx, by, before, after);
    const s1 = share(ex, ey, before, after);
    const t = s1 - s0 > 0.02 ? Math.max(0.02, Math.min(0.98, (0.5 - s0) / (s1 - s0))) : 0.5;
    if (horizontal) p[1] += t - 0.5;
    else p[0] += t - 0.5;
  };
}

/** A junction lies in the middle of the borders that meet there. */
function junctionPoint(
  at: (x: number, y: number) => number,
  point: Point,
  x: number,
  y: number,
  p: Float64Array,
): void {
  const labels = [at(x - 1, y - 1), at(x, y - 1), at(x, y), at(x - 1, y)];
  // Edges up, right, down, left lie between neighbours of that round.
  const directions = [3, 0, 1, 2];
  let [sx, sy, n] = [0, 0, 0];
  let edgeOfPicture = false;
  for (let k = 0; k < 4; k++) {
    const a = labels[k];
    const b = labels[(k + 1) % 4];
    if (a === OUTSIDE || b === OUTSIDE) edgeOfPicture = true;
    if (a === b) continue;
    point(x, y, directions[k], a, b, p);
    sx += p[0];
    sy += p[1];
    n++;
  }
  p[0] = edgeOfPicture ? x : sx / n;
  p[1] = edgeOfPicture ? y : sy / n;
}

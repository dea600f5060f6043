import Flatbush from "flatbush";
import { orient2d } from "robust-predicates";
import { ringCount, type Rings } from "./rings.ts";

/** Distance to closed rings, by an index over their edges. */
export class SegmentGrid {
  private index: Flatbush | null = null;
  private a: Int32Array;
  private b: Int32Array;
  constructor(readonly rings: Rings) {
    const n = rings.xy.length / 2;
    this.a = new Int32Array(n);
    this.b = new Int32Array(n);
    if (n === 0) return;
    this.index = new Flatbush(n);
    const { xy } = rings;
    for (let k = 0; k < ringCount(rings); k++)
      for (let i = rings.starts[k]; i < rings.starts[k + 1]; i++) {
        const j = i + 1 < rings.starts[k + 1] ? i + 1 : rings.starts[k];
        this.a[i] = i;
        this.b[i] = j;
        this.index.add(
          Math.min(xy[2 * i], xy[2 * j]),
          Math.min(xy[2 * i + 1], xy[2 * j + 1]),
          Math.max(xy[2 * i], xy[2 * j]),
          Math.max(xy[2 * i + 1], xy[2 * j + 1]),
        );
      }
    this.index.finish();
  }
  /** Distance to the nearest edge, or `most` when none is that near. */
  distance(x: number, y: number, most: number): number {
    let best = most * most;
    const { xy } = this.rings;
    this.index?.search(x - most, y - most, x + most, y + most, (i) => {
      best = Math.min(
        best,
        squaredDistance(x, y, xy[2 * this.a[i]], xy[2 * this.a[i] + 1], xy[2 * this.b[i]], xy[2 * this.b[i] + 1]),
      );
      return false;
    });
    return Math.sqrt(best);
  }
  /** Whether the way from (x0, y0) to (x1, y1) crosses no edge and comes nowhere nearer to one than `least`. */
  isClear(x0: number, y0: number, x1: number, y1: number, least: number): boolean {
    const least2 = least * least;
    const { xy } = this.rings;
    let clear = true;
    const blocks = (ax: number, ay: number, bx: number, by: number, i: number): boolean => {
      const [px, py, qx, qy] = [xy[2 * this.a[i]], xy[2 * this.a[i] + 1], xy[2 * this.b[i]], xy[2 * this.b[i] + 1]];
      if (
        orient2d(ax, ay, bx, by, px, py) * orient2d(ax, ay, bx, by, qx, qy) < 0 &&
        orient2d(px, py, qx, qy, ax, ay) * orient2d(px, py, qx, qy, bx, by) < 0
      )
        return true;
      // Segments that do not cross are nearest at an end of one of them.
      return (
        squaredDistance(ax, ay, px, py, qx, qy) < least2 ||
        squaredDistance(bx, by, px, py, qx, qy) < least2 ||
        squaredDistance(px, py, ax, ay, bx, by) < least2 ||
        squaredDistance(qx, qy, ax, ay, bx, by) < least2
      );
    };
    // Piece by piece: the box round a long slanting way holds far more edges than lie along it.
    const pieces = Math.max(1, Math.min(64, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / Math.max(least, 1))));
    for (let k = 0; k < pieces && clear; k++) {
      const [ax, ay] = [x0 + ((x1 - x0) * k) / pieces, y0 + ((y1 - y0) * k) / pieces];
      const [bx, by] = [x0 + ((x1 - x0) * (k + 1)) / pieces, y0 + ((y1 - y0) * (k + 1)) / pieces];
      this.index?.search(
        Math.min(ax, bx) - least,
        Math.min(ay, by) - least,
        Math.max(ax, bx) + least,
        Math.max(ay, by) + least,
        (i) => {
          if (clear && blocks(ax, ay, bx, by, i)) clear = false;
          return false;
        },
      );
    }
    return clear;
  }
}

/** Squared distance of (x, y) from the line between a and b, mm². */
export function squaredDistance(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const dx = bx - ax;
  const dy = by - ay;
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  return (x - ax - t * dx) ** 2 + (y - ay - t * dy) ** 2;
}

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
        this.index.add(Math.min(xy[2 * i], xy[2 * j]), Math.min(xy[2 * i + 1], xy[2 * j + 1]), Math.max(xy[2 * i], xy[2 * j]), Math.max(xy[2 * i + 1], xy[2 * j + 1]));
      }
    this.index.finish();
  }
  /** Distance to the nearest edge, or `most` when none is that near. */
  distance(x: number, y: number, most: number): number {
    let best = most * most;
    const { xy } = this.rings;
    this.index?.search(x - most, y - most, x + most, y + most, (i) => {
      best = Math.min(best, squaredDistance(x, y, xy[2 * this.a[i]], xy[2 * this.a[i] + 1], xy[2 * this.b[i]], xy[2 * this.b[i] + 1]));
      return false;
    });
    return Math.sqrt(best);
  }
  /** Least distance between the way from (x0, y0) to (x1, y1) and any edge, 0 where they cross; `most` when none is that near. */
  distanceOfWay(x0: number, y0: number, x1: number, y1: number, most: number): number {
    let best = most * most;
    const { xy } = this.rings;
    this.index?.search(Math.min(x0, x1) - most, Math.min(y0, y1) - most, Math.max(x0, x1) + most, Math.max(y0, y1) + most, (i) => {
      const [ax, ay, bx, by] = [xy[2 * this.a[i]], xy[2 * this.a[i] + 1], xy[2 * this.b[i]], xy[2 * this.b[i] + 1]];
      if (orient2d(x0, y0, x1, y1, ax, ay) * orient2d(x0, y0, x1, y1, bx, by) < 0 && orient2d(ax, ay, bx, by, x0, y0) * orient2d(ax, ay, bx, by, x1, y1) < 0) best = 0;
      // Segments that do not cross are nearest at an end of one of them.
      else best = Math.min(best, squaredDistance(x0, y0, ax, ay, bx, by), squaredDistance(x1, y1, ax, ay, bx, by), squaredDistance(ax, ay, x0, y0, x1, y1), squaredDistance(bx, by, x0, y0, x1, y1));
      return best === 0;
    });
    return Math.sqrt(best);
  }
}

function squaredDistance(x: number, y: number, ax: number, ay: number, bx: number, by: number): number {
  const dx = bx - ax;
  const dy = by - ay;
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  return (x - ax - t * dx) ** 2 + (y - ay - t * dy) ** 2;
}

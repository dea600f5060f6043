import Flatbush from "flatbush";
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
      const ax = xy[2 * this.a[i]];
      const ay = xy[2 * this.a[i] + 1];
      const dx = xy[2 * this.b[i]] - ax;
      const dy = xy[2 * this.b[i] + 1] - ay;
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
      const d2 = (x - ax - t * dx) ** 2 + (y - ay - t * dy) ** 2;
      if (d2 < best) best = d2;
      return false;
    });
    return Math.sqrt(best);
  }
}

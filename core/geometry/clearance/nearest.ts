import { type Boundary, type Foot, newFoot, walkToFoot } from "./boundary.ts";
import type { Samples } from "./samples.ts";

/** Samples looked at round a place: more are equally far only round the middle of a circle, where any one serves. */
const MOST = 32;

/**
 * Finds the nearest boundary point by walking over the triangulation towards ever nearer samples (each sample of a
 * Delaunay triangulation has a nearer neighbour unless it is the nearest), then along the chains of the near ones.
 */
export class Nearest {
  private seen: Int32Array = new Int32Array(0);
  private stamp = 0;
  private queue = new Int32Array(MOST + 64);
  private trial = newFoot();
  constructor(
    private b: Boundary,
    private s: Samples,
  ) {}

  /** Fills `out` with the foot of (x, y), searching from sample `start`. */
  find(start: number, x: number, y: number, out: Foot): void {
    const { s } = this;
    const { tri } = s;
    const { corner, twin, leaving, xy } = tri;
    if (this.seen.length < tri.count) this.seen = new Int32Array(2 * tri.count);
    let i = start;
    let best = (xy[2 * i] - x) ** 2 + (xy[2 * i + 1] - y) ** 2;
    for (let moved = true; moved;) {
      moved = false;
      const first = leaving[i];
      let e = first;
      do {
        const j = corner[e % 3 === 2 ? e - 2 : e + 1];
        const d = (xy[2 * j] - x) ** 2 + (xy[2 * j + 1] - y) ** 2;
        if (d < best) {
          best = d;
          i = j;
          moved = true;
        }
        e = twin[e % 3 === 0 ? e + 2 : e - 1];
      } while (e >= 0 && e !== first);
    }
    out.d = Infinity;
    const stamp = ++this.stamp;
    const { seen, queue } = this;
    seen[i] = stamp;
    queue[0] = i;
    let length = 1;
    for (let q = 0; q < length; q++) {
      const k = queue[q];
      if (s.edge[k] < 0) continue;
      this.reach(s.edge[k], x, y, out);
      // A convex vertex has a chain on either side that walking from the other does not find.
      if (s.t[k] === 0) this.reach(this.b.prev[s.edge[k]], x, y, out);
      if (length >= MOST) continue;
      const limit = out.d * out.d;
      const first = leaving[k];
      let e = first;
      do {
        const j = corner[e % 3 === 2 ? e - 2 : e + 1];
        if (seen[j] !== stamp) {
          seen[j] = stamp;
          const d = (xy[2 * j] - x) ** 2 + (xy[2 * j + 1] - y) ** 2;
          // Boundary as near as d² − gap²/4 may hide beside a sample whose neighbours are gap away.
          if (d < limit || (s.edge[j] >= 0 && d - this.gap2(j) / 4 < limit)) queue[length++] = j;
        }
        e = twin[e % 3 === 0 ? e + 2 : e - 1];
      } while (e >= 0 && e !== first && length < queue.length);
    }
  }

  /** Square of the longer gap from sample j to its neighbours along the boundary. */
  private gap2(j: number): number {
    const { next, prev, tri } = this.s;
    const { xy } = tri;
    const n = next[j];
    const p = prev[j];
    return Math.max(
      (xy[2 * n] - xy[2 * j]) ** 2 + (xy[2 * n + 1] - xy[2 * j + 1]) ** 2,
      (xy[2 * p] - xy[2 * j]) ** 2 + (xy[2 * p + 1] - xy[2 * j + 1]) ** 2,
    );
  }

  private reach(edge: number, x: number, y: number, out: Foot): void {
    const f = this.trial;
    walkToFoot(this.b, edge, x, y, f);
    if (f.d >= out.d) return;
    out.edge = f.edge;
    out.t = f.t;
    out.x = f.x;
    out.y = f.y;
    out.d = f.d;
    out.vertex = f.vertex;
  }
}

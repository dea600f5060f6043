import type Delaunator from "delaunator";
import { type Boundary, type Foot, newFoot, walkToFoot } from "./boundary.ts";
import type { Samples } from "./samples.ts";

/** Samples looked at round a place: more are equally far only round the middle of a circle, where any one serves. */
const MOST = 32;

/**
 * Finds the nearest boundary point by walking over the triangulation towards ever nearer samples (each sample of a
 * Delaunay triangulation has a nearer neighbour unless it is the nearest), then along the chains of the near ones.
 * @returns a function (boundary, sample to start from, x, y, foot to fill)
 */
export function nearestSample(s: Samples, d: Delaunator<Float64Array>) {
  const { triangles, halfedges } = d;
  const incoming = new Int32Array(s.edge.length).fill(-1);
  for (let e = 0; e < triangles.length; e++) {
    const to = triangles[e % 3 === 2 ? e - 2 : e + 1];
    // On the hull start from the half-edge without a partner, so that going round meets every neighbour.
    if (halfedges[e] === -1 || incoming[to] === -1) incoming[to] = e;
  }
  const { xy } = s;
  const trial = newFoot();
  const reach = (b: Boundary, edge: number, x: number, y: number, out: Foot) => {
    walkToFoot(b, edge, x, y, trial);
    if (trial.d < out.d) Object.assign(out, trial);
  };
  /** The longer of the gaps to a sample's neighbours: boundary as near as away² − gap²/4 may hide beside it. */
  const gap = new Float64Array(s.edge.length);
  for (let i = 0; i < gap.length; i++) {
    const j = s.next[i];
    const g = Math.hypot(s.xy[2 * j] - s.xy[2 * i], s.xy[2 * j + 1] - s.xy[2 * i + 1]);
    gap[i] = Math.max(gap[i], g);
    gap[j] = Math.max(gap[j], g);
  }
  const seen = new Int32Array(s.edge.length);
  const queue: number[] = [];
  let stamp = 0;
  const away = (i: number, x: number, y: number) => Math.hypot(xy[2 * i] - x, xy[2 * i + 1] - y);

  /** Calls visit with every neighbour of sample i. */
  const around = (i: number, visit: (j: number) => void) => {
    const first = incoming[i];
    let e = first;
    if (e < 0) return;
    do {
      visit(triangles[e]);
      const out = e % 3 === 2 ? e - 2 : e + 1;
      if (triangles[out] !== i) return;
      e = halfedges[out];
    } while (e !== -1 && e !== first);
  };

  return (b: Boundary, start: number, x: number, y: number, out: Foot): void => {
    let i = start;
    let best = away(i, x, y);
    for (let moved = true; moved; ) {
      moved = false;
      around(i, (j) => {
        const dj = away(j, x, y);
        if (dj < best) {
          best = dj;
          i = j;
          moved = true;
        }
      });
    }
    out.d = Infinity;
    stamp++;
    seen[i] = stamp;
    queue.length = 0;
    queue.push(i);
    for (let q = 0; q < queue.length; q++) {
      const k = queue[q];
      reach(b, s.edge[k], x, y, out);
      // A convex vertex has a chain on either side that walking from the other does not find.
      if (s.t[k] === 0) reach(b, b.prev[s.edge[k]], x, y, out);
      if (queue.length < MOST)
        around(k, (j) => {
          if (seen[j] === stamp) return;
          seen[j] = stamp;
          const dj = away(j, x, y);
          if (dj * dj - (gap[j] * gap[j]) / 4 < out.d * out.d) queue.push(j);
        });
    }
  };
}

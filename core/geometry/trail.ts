import { picked } from "../growing.ts";
import { hypot } from "../hypot.ts";

/** A path through space, one number an axis a point. */
export interface Trail {
  x: Float64Array;
  y: Float64Array;
  z: Float64Array;
}

/** The same trail run the other way. */
export const backwards = (t: Trail): Trail => ({
  x: t.x.slice().reverse(),
  y: t.y.slice().reverse(),
  z: t.z.slice().reverse(),
});

/** Length of a trail, mm. */
export function trailLength(t: Trail): number {
  let sum = 0;
  for (let i = 1; i < t.x.length; i++)
    sum += Math.sqrt((t.x[i] - t.x[i - 1]) ** 2 + (t.y[i] - t.y[i - 1]) ** 2 + (t.z[i] - t.z[i - 1]) ** 2);
  return sum;
}

/**
 * Covers every edge of a graph once with as few trails as there are pairs of odd nodes (Euler): each trail starts at an
 * odd node while there is one, and goes straight on where it can.
 * @param edgeA @param edgeB node indices of each edge
 * @param fromHigh whether as many trails as can be shall begin at high ends: the highest begin first, and end where an
 * odd number of edges meet deeper, so that no trail is left to begin there
 */
export function trails(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  z: ArrayLike<number>,
  edgeA: ArrayLike<number>,
  edgeB: ArrayLike<number>,
  fromHigh = false,
): Trail[] {
  const n = x.length;
  const m = edgeA.length;
  const left = new Int32Array(n);
  for (let e = 0; e < m; e++) {
    left[edgeA[e]]++;
    left[edgeB[e]]++;
  }
  const first = new Int32Array(n + 1);
  for (let i = 0; i < n; i++) first[i + 1] = first[i] + left[i];
  const fill = first.slice(0, n);
  const incident = new Int32Array(2 * m);
  for (let e = 0; e < m; e++) {
    incident[fill[edgeA[e]]++] = e;
    incident[fill[edgeB[e]]++] = e;
  }
  const used = new Uint8Array(m);
  const all: number[][] = [];
  const follow = (nodes: number[], ends: boolean) => {
    const start = nodes[nodes.length - 1];
    let at = start;
    let dx = 0;
    let dy = 0;
    for (;;) {
      let best = -1;
      let bestTo = -1;
      let straight = -Infinity;
      for (let k = first[at]; k < first[at + 1]; k++) {
        const e = incident[k];
        if (used[e]) continue;
        const to = edgeA[e] === at ? edgeB[e] : edgeA[e];
        const ex = x[to] - x[at];
        const ey = y[to] - y[at];
        const len = hypot(ex, ey);
        const s = len > 0 ? (dx * ex + dy * ey) / len : 1;
        if (s > straight) {
          straight = s;
          best = e;
          bestTo = to;
        }
      }
      if (best < 0) break;
      used[best] = 1;
      left[at]--;
      left[bestTo]--;
      const len = hypot(x[bestTo] - x[at], y[bestTo] - y[at]);
      if (len > 0) {
        dx = (x[bestTo] - x[at]) / len;
        dy = (y[bestTo] - y[at]) / len;
      }
      nodes.push(bestTo);
      at = bestTo;
      if (ends && at !== start && left[at] % 2 === 0 && z[at] < z[start]) break;
    }
  };
  const begin = (i: number, ends: boolean) => {
    const nodes = [i];
    follow(nodes, ends);
    all.push(nodes);
  };
  const odd: number[] = [];
  for (let i = 0; i < n; i++) if (left[i] % 2 === 1) odd.push(i);
  if (fromHigh) odd.sort((i, j) => z[j] - z[i]);
  for (const i of odd) while (left[i] % 2 === 1) begin(i, fromHigh);
  // What is left are loops: taken along by a trail that passes them, else from anywhere.
  const takeLoops = (k: number) => {
    // A loop taken along may pass further ones.
    while (all[k].some((i) => left[i] > 0)) {
      const nodes = all[k];
      all[k] = [];
      for (const i of nodes) {
        all[k].push(i);
        while (left[i] > 0) follow(all[k], false);
      }
    }
  };
  for (let k = 0; k < all.length; k++) takeLoops(k);
  for (let i = 0; i < n; i++)
    while (left[i] > 0) {
      begin(i, false);
      takeLoops(all.length - 1);
    }
  return all.map((nodes) => ({
    x: picked(x, nodes),
    y: picked(y, nodes),
    z: picked(z, nodes),
  }));
}

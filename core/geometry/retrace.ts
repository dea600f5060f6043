/** A graph in space: nodes x, y, z and edges between them, as node indices. */
export interface Graph {
  x: ArrayLike<number>;
  y: ArrayLike<number>;
  z: ArrayLike<number>;
  a: ArrayLike<number>;
  b: ArrayLike<number>;
}

/**
 * Which edges to run twice, so that fewer trails cover the whole graph: a trail begins and ends at nodes where an odd number of
 * edges meet, and running the way between two such nodes once more makes both even. Free ends are paired first, nearest first (the Chinese
 * postman's problem, M. Guan 1962, settled greedily); of every connected piece two stay, its highest to begin at and one to end at.
 * @param most ways longer than this are not run twice, mm: lifting the cutter is quicker
 * @returns edges, each as often as it is to be run once more
 */
export function retraced(g: Graph, most: number): number[] {
  const n = g.x.length;
  const near = neighbours(g);
  const odd = new Uint8Array(n);
  for (let i = 0; i < n; i++) odd[i] = (near.first[i + 1] - near.first[i]) % 2;
  const piece = pieces(g);
  const highest = new Int32Array(n).fill(-1);
  for (let i = 0; i < n; i++) if (odd[i] && (highest[piece[i]] < 0 || g.z[i] > g.z[highest[piece[i]]])) highest[piece[i]] = i;
  for (const i of highest) if (i >= 0) odd[i] = 0;
  const left = new Int32Array(n);
  for (let i = 0; i < n; i++) if (odd[i]) left[piece[i]]++;
  /** Free ends choose first: whoever takes the junction that one hangs on leaves it without any near by. */
  const free = (w: Way): number => (near.first[w.from + 1] - near.first[w.from] === 1 ? 1 : 0);
  const again: number[] = [];
  for (let any = true; any; ) {
    any = false;
    const pairs: Way[] = [];
    for (let i = 0; i < n; i++) if (odd[i] && left[piece[i]] > 1) pairs.push(...nearestOdd(g, near, odd, i, most));
    pairs.sort((p, q) => free(q) - free(p) || p.length - q.length);
    for (const { from, to, edges } of pairs) {
      if (!odd[from] || !odd[to] || left[piece[from]] <= 1) continue;
      odd[from] = odd[to] = 0;
      left[piece[from]] -= 2;
      again.push(...edges);
      any = true;
    }
  }
  return again;
}

interface Way {
  from: number;
  to: number;
  length: number;
  edges: number[];
}

interface Neighbours {
  /** edges of node i are edge[first[i]] … edge[first[i + 1] − 1] */
  first: Int32Array;
  edge: Int32Array;
}

function neighbours({ x, a, b }: Graph): Neighbours {
  const n = x.length;
  const first = new Int32Array(n + 1);
  for (let e = 0; e < a.length; e++) {
    first[a[e] + 1]++;
    first[b[e] + 1]++;
  }
  for (let i = 0; i < n; i++) first[i + 1] += first[i];
  const fill = first.slice(0, n);
  const edge = new Int32Array(2 * a.length);
  for (let e = 0; e < a.length; e++) {
    edge[fill[a[e]]++] = e;
    edge[fill[b[e]]++] = e;
  }
  return { first, edge };
}

/** One node of each node's connected piece, the same for all of the piece. */
function pieces({ x, a, b }: Graph): Int32Array {
  const root = Int32Array.from({ length: x.length }, (_, i) => i);
  const find = (i: number): number => {
    while (root[i] !== i) i = root[i] = root[root[i]];
    return i;
  };
  for (let e = 0; e < a.length; e++) root[find(a[e])] = find(b[e]);
  return Int32Array.from(root, (_, i) => find(i));
}

const lengthOf = ({ x, y, z }: Graph, i: number, j: number): number => Math.hypot(x[i] - x[j], y[i] - y[j], z[i] - z[j]);

/** The way from an odd node to the nearest other one, where there is one within `most` mm: E. Dijkstra 1959. */
function nearestOdd(g: Graph, { first, edge }: Neighbours, odd: Uint8Array, from: number, most: number): Way[] {
  const reached = new Map<number, { length: number; edge: number; before: number }>([[from, { length: 0, edge: -1, before: -1 }]]);
  const done = new Set<number>();
  // Pieces of axis are short and few lie within reach: looking through what is open costs less than a heap.
  const open = new Set([from]);
  while (open.size > 0) {
    let at = -1;
    let length = Infinity;
    for (const i of open) {
      const l = reached.get(i)!.length;
      if (l < length) [at, length] = [i, l];
    }
    if (length > most) return [];
    open.delete(at);
    done.add(at);
    if (at !== from && odd[at]) {
      const edges: number[] = [];
      for (let i = at; i !== from; i = reached.get(i)!.before) edges.push(reached.get(i)!.edge);
      return [{ from, to: at, length, edges }];
    }
    for (let k = first[at]; k < first[at + 1]; k++) {
      const e = edge[k];
      const to = g.a[e] === at ? g.b[e] : g.a[e];
      if (done.has(to)) continue;
      const next = length + lengthOf(g, at, to);
      const known = reached.get(to);
      if (known && known.length <= next) continue;
      reached.set(to, { length: next, edge: e, before: at });
      open.add(to);
    }
  }
  return [];
}

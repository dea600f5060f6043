import { Groups } from "./groups.ts";
import FlatQueue from "flatqueue";
import { hypot } from "../hypot.ts";

/** A graph in space: nodes x, y, z and edges between them, as node indices. */
export interface Graph {
  x: ArrayLike<number>;
  y: ArrayLike<number>;
  z: ArrayLike<number>;
  a: ArrayLike<number>;
  b: ArrayLike<number>;
}

/**
 * Which edges to run twice, so that fewer trails cover the whole graph: a trail begins and ends at nodes where an odd
 * number of edges meet, and running the way between two such nodes once more makes both even. Free ends are paired
 * first, nearest first (the Chinese postman's problem, M. Guan 1962, settled greedily); of every connected piece two
 * stay, its highest to begin at and one to end at.
 * @param most ways longer than this are not run twice, mm: lifting the cutter is quicker
 * @returns edges, each as often as it is to be run once more
 */
export function retraced(g: Graph, most: number): number[] {
  const chains = chainsOf(g);
  const { nodes, odd, piece } = chains;
  const highest = new Map<number, number>();
  for (let i = 0; i < nodes.length; i++) {
    const known = highest.get(piece[i]);
    if (odd[i] && (known === undefined || g.z[nodes[i]] > g.z[nodes[known]])) highest.set(piece[i], i);
  }
  for (const i of highest.values()) odd[i] = 0;
  const left = new Int32Array(nodes.length);
  for (let i = 0; i < nodes.length; i++) if (odd[i]) left[piece[i]]++;
  /** Free ends choose first: whoever takes the junction that one hangs on leaves it without any near by. */
  const free = (w: Way): number => (chains.first[w.from + 1] - chains.first[w.from] === 1 ? 1 : 0);
  const again: number[] = [];
  const search = new Search(chains);
  let open = Array.from(nodes.keys()).filter((i) => odd[i] && left[piece[i]] > 1);
  for (let any = true; any;) {
    any = false;
    const pairs: Way[] = [];
    for (const i of open) {
      const way = search.nearestOdd(i, most);
      if (way) pairs.push(way);
    }
    pairs.sort((p, q) => free(q) - free(p) || p.length - q.length);
    for (const { from, to, chains: used } of pairs) {
      if (!odd[from] || !odd[to] || left[piece[from]] <= 1) continue;
      odd[from] = odd[to] = 0;
      left[piece[from]] -= 2;
      for (const c of used) again.push(...chains.edges[c]);
      any = true;
    }
    // Whoever found nobody within reach finds nobody later either: others only go.
    open = pairs.map((w) => w.from).filter((i) => odd[i] && left[piece[i]] > 1);
  }
  return again;
}

interface Way {
  from: number;
  to: number;
  length: number;
  chains: number[];
}

/** The graph with every run of nodes that neither branch nor end drawn together into one chain. */
interface Chains {
  /** the graph's nodes that are left: ends and branchings */
  nodes: Int32Array;
  /** 1 where an odd number of edges meet */
  odd: Uint8Array;
  /** one node of each connected piece, the same for all of the piece */
  piece: Int32Array;
  /** chain c joins nodes from[c] and to[c], is length[c] mm long and made of edges[c] of the graph */
  from: number[];
  to: number[];
  length: number[];
  edges: number[][];
  /** chains of node i are chain[first[i]] … chain[first[i + 1] − 1] */
  first: Int32Array;
  chain: Int32Array;
}

function chainsOf(g: Graph): Chains {
  const { x, y, z, a, b } = g;
  const n = x.length;
  const near = incidence(n, a, b);
  const degree = (i: number): number => near.first[i + 1] - near.first[i];
  const nodes: number[] = [];
  const index = new Int32Array(n).fill(-1);
  for (let i = 0; i < n; i++)
    if (degree(i) !== 0 && degree(i) !== 2) {
      index[i] = nodes.length;
      nodes.push(i);
    }
  const out = { from: [] as number[], to: [] as number[], length: [] as number[], edges: [] as number[][] };
  const passed = new Uint8Array(a.length);
  nodes.forEach((start, k) => {
    for (let q = near.first[start]; q < near.first[start + 1]; q++) {
      let e = near.item[q];
      if (passed[e]) continue;
      const edges: number[] = [];
      let length = 0;
      let at = start;
      for (;;) {
        passed[e] = 1;
        edges.push(e);
        const next = a[e] === at ? b[e] : a[e];
        length += hypot(x[next] - x[at], y[next] - y[at], z[next] - z[at]);
        at = next;
        if (index[at] >= 0) break;
        // Two edges meet here: on by the other one.
        const f = near.first[at];
        e = near.item[f] === e ? near.item[f + 1] : near.item[f];
      }
      out.from.push(k);
      out.to.push(index[at]);
      out.length.push(length);
      out.edges.push(edges);
    }
  });
  const count = nodes.length;
  const pieces = new Groups(count);
  for (let c = 0; c < out.from.length; c++) pieces.join(out.to[c], out.from[c]);
  const { first, item } = incidence(count, out.from, out.to);
  return {
    ...out,
    nodes: Int32Array.from(nodes),
    odd: Uint8Array.from(nodes, (i) => degree(i) % 2),
    piece: Int32Array.from({ length: count }, (_, i) => pieces.find(i)),
    first,
    chain: item,
  };
}

/** The edges at each node: item[first[i]] … item[first[i + 1] − 1]. */
function incidence(n: number, a: ArrayLike<number>, b: ArrayLike<number>): { first: Int32Array; item: Int32Array } {
  const first = new Int32Array(n + 1);
  for (let e = 0; e < a.length; e++) {
    first[a[e] + 1]++;
    first[b[e] + 1]++;
  }
  for (let i = 0; i < n; i++) first[i + 1] += first[i];
  const fill = first.slice(0, n);
  const item = new Int32Array(2 * a.length);
  for (let e = 0; e < a.length; e++) {
    item[fill[a[e]]++] = e;
    item[fill[b[e]]++] = e;
  }
  return { first, item };
}

/** Shortest ways over chains: E. Dijkstra 1959. */
class Search {
  private length: Float64Array;
  private by: Int32Array;
  private queue = new FlatQueue<number>();
  constructor(private c: Chains) {
    this.length = new Float64Array(c.nodes.length).fill(Infinity);
    this.by = new Int32Array(c.nodes.length);
  }

  /** The way from an odd node to the nearest other one; null where none is within `most` mm. */
  nearestOdd(from: number, most: number): Way | null {
    const { c, length, by, queue } = this;
    const reached = [from];
    length[from] = 0;
    queue.clear();
    queue.push(from, 0);
    let found: Way | null = null;
    while (queue.length > 0 && !found) {
      const far = queue.peekValue()!;
      const at = queue.pop()!;
      if (far > length[at] || far > most) continue;
      if (at !== from && c.odd[at]) {
        found = { from, to: at, length: far, chains: this.wayBack(from, at) };
        break;
      }
      for (let k = c.first[at]; k < c.first[at + 1]; k++) {
        const chain = c.chain[k];
        const to = c.from[chain] === at ? c.to[chain] : c.from[chain];
        const next = far + c.length[chain];
        if (next >= length[to] || next > most) continue;
        if (length[to] === Infinity) reached.push(to);
        length[to] = next;
        by[to] = chain;
        queue.push(to, next);
      }
    }
    for (const i of reached) length[i] = Infinity;
    return found;
  }

  private wayBack(from: number, to: number): number[] {
    const { c, by } = this;
    const out: number[] = [];
    for (let i = to; i !== from;) {
      const chain = by[i];
      out.push(chain);
      i = c.from[chain] === i ? c.to[chain] : c.from[chain];
    }
    return out;
  }
}

import Flatbush from "flatbush";
import { PointGrid } from "../geometry/pointgrid.ts";

/** A trail's two ends, and how deep each is where that matters. */
export interface Ends {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  z0?: number;
  z1?: number;
  /** to be run from its first end only */
  oneWay?: boolean;
}

/** What it costs to begin at an end beside the way there, in mm of way: from (z, at distance `way`) to z1. */
export type BeginCost = (way: number, z: number, z1: number) => number;

/** A trail of an order, and whether to run it backwards. */
export interface Placed {
  index: number;
  reverse: boolean;
}

/**
 * An order that travels little: always the nearest open end next, trails turned round where that is nearer.
 * @param x @param y where the cutter comes from, mm; NaN where it is nowhere yet, and any trail may be the first
 * @param cost added to the way, so that of two ends the easier one to begin at is taken
 * @returns indices, with whether to run each backwards
 */
export function nearestOrder(ends: readonly Ends[], x = 0, y = 0, cost: BeginCost = () => 0): Placed[] {
  const n = ends.length;
  // Both ends of every trail, 2i and 2i + 1.
  const px = new Float64Array(2 * n);
  const py = new Float64Array(2 * n);
  const pz = new Float64Array(2 * n);
  ends.forEach((e, i) => {
    px.set([e.x0, e.x1], 2 * i);
    py.set([e.y0, e.y1], 2 * i);
    pz.set([e.z0 ?? 0, e.z1 ?? 0], 2 * i);
  });
  const left = new PointGrid(px, py);
  ends.forEach((e, i) => e.oneWay && left.remove(2 * i + 1));
  const out: Placed[] = [];
  // Nothing is nearest to NaN.
  if (Number.isNaN(x + y)) [x, y] = [0, 0];
  let z = Infinity;
  for (let k = 0; k < n; k++) {
    const best = left.cheapest(x, y, (i, way) => way + cost(way, z, pz[i]));
    const other = best ^ 1;
    out.push({ index: best >> 1, reverse: (best & 1) === 1 });
    left.remove(best);
    left.remove(other);
    [x, y, z] = [px[other], py[other], pz[other]];
  }
  return out;
}

/** An order that travels little: nearest first, then bettered. */
export const shortOrder = (ends: readonly Ends[], cost: BeginCost = () => 0): Placed[] =>
  betterOrder(ends, nearestOrder(ends, 0, 0, cost), cost);

/** Trails so near to an end are looked at as neighbours of it, as many as this. */
const NEIGHBOURS = 6;
/** Trails moved together, at most, and how often all are looked at. */
const CHAIN = 3;
const ROUNDS = 8;
/** Gains smaller than this are none, mm. */
const GAIN = 1e-6;

/**
 * An order bettered by moving short chains of trails, either way round, to where they cost less (I. Or, "Traveling
 * salesman-type combinatorial problems", 1976): what the nearest end passed by is fetched back to where it belongs.
 * @param cost added to the way between one trail's end and the next one's beginning, as for {@link nearestOrder}
 */
export function betterOrder(ends: readonly Ends[], order: readonly Placed[], cost: BeginCost = () => 0): Placed[] {
  const n = order.length;
  if (n < 3) return [...order];
  const index = new Flatbush(2 * n);
  for (const e of ends) {
    index.add(e.x0, e.y0, e.x0, e.y0);
    index.add(e.x1, e.y1, e.x1, e.y1);
  }
  index.finish();
  // The neighbours of every end, asked once.
  const near: (number[] | undefined)[] = [];
  const nearTo = (t: number, far: boolean): number[] =>
    (near[2 * t + (far ? 1 : 0)] ??= index.neighbors(
      far ? ends[t].x1 : ends[t].x0,
      far ? ends[t].y1 : ends[t].y0,
      NEIGHBOURS,
    ));
  // Trails in a ring that begins and ends at `head`, which is nowhere.
  const head = n;
  const next = new Int32Array(n + 1);
  const prev = new Int32Array(n + 1);
  const reverse = new Uint8Array(n + 1);
  let last = head;
  for (const o of order) {
    next[last] = o.index;
    prev[o.index] = last;
    reverse[o.index] = o.reverse ? 1 : 0;
    last = o.index;
  }
  next[last] = head;
  prev[head] = last;
  /** Cost from the end of trail a to the beginning of b, each run the way told. */
  const join = (a: number, aBack: number, b: number, bBack: number): number => {
    if (a === head || b === head) return 0;
    const [p, q] = [ends[a], ends[b]];
    const x = (aBack ? p.x0 : p.x1) - (bBack ? q.x1 : q.x0);
    const y = (aBack ? p.y0 : p.y1) - (bBack ? q.y1 : q.y0);
    const way = Math.sqrt(x * x + y * y);
    return way + cost(way, (aBack ? p.z0 : p.z1) ?? 0, (bBack ? q.z1 : q.z0) ?? 0);
  };
  const now = (a: number, b: number) => join(a, reverse[a], b, reverse[b]);
  // Trails to look at again: all at first, then those beside a change.
  const waiting = new Uint8Array(n + 1).fill(1);
  const chain: number[] = [];
  /** Moves the chain to where it costs least, if that is less than where it is. */
  const move = (): boolean => {
    const [first, end] = [chain[0], chain[chain.length - 1]];
    const [before, after] = [prev[first], next[end]];
    const [into, outOf] = [now(before, first), now(end, after)];
    const loose = into + outOf - now(before, after);
    if (loose <= GAIN) return false;
    // Costs inside the chain, as it is and turned round.
    let [inside, turned] = [0, 0];
    for (let k = 1; k < chain.length; k++) {
      inside += now(chain[k - 1], chain[k]);
      turned += join(chain[k], 1 - reverse[chain[k]], chain[k - 1], 1 - reverse[chain[k - 1]]);
    }
    const turns = chain.every((t) => !ends[t].oneWay);
    let best = loose + inside - GAIN;
    let place = -1;
    let back = false;
    const consider = (t: number) => {
      if (chain.includes(t)) return;
      const u = next[t] === first ? after : next[t];
      const open = now(t, u);
      const straight = now(t, first) + inside + now(end, u) - open;
      if (straight < best) {
        best = straight;
        place = t;
        back = false;
      }
      if (!turns) return;
      const round =
        join(t, reverse[t], end, 1 - reverse[end]) + turned + join(first, 1 - reverse[first], u, reverse[u]) - open;
      if (round < best) {
        best = round;
        place = t;
        back = true;
      }
    };
    // One of the new ways must be shorter than the longer of the two left, or there is nothing to gain.
    const most = Math.max(into, outOf);
    for (let side = 0; side < 2; side++) {
      const t = side === 0 ? first : end;
      const far = (side === 0) === (reverse[t] === 1);
      const x = far ? ends[t].x1 : ends[t].x0;
      const y = far ? ends[t].y1 : ends[t].y0;
      for (const e of nearTo(t, far)) {
        const o = ends[e >> 1];
        const dx = (e & 1 ? o.x1 : o.x0) - x;
        const dy = (e & 1 ? o.y1 : o.y0) - y;
        if (dx * dx + dy * dy >= most * most) break;
        consider(e >> 1);
        const p = prev[e >> 1];
        if (p !== head) consider(p === end ? before : p);
      }
    }
    if (place < 0) return false;
    next[before] = after;
    prev[after] = before;
    const run = back ? [...chain].reverse() : chain;
    const to = next[place];
    let at = place;
    for (const t of run) {
      if (back) reverse[t] = 1 - reverse[t];
      next[at] = t;
      prev[t] = at;
      at = t;
    }
    next[at] = to;
    prev[to] = at;
    for (const t of [before, after, place, to, first, end]) waiting[t] = waiting[prev[t]] = 1;
    return true;
  };
  for (let round = 0, any = true; round < ROUNDS && any; round++) {
    any = false;
    for (let t = 0; t < n; t++) {
      if (!waiting[t]) continue;
      waiting[t] = 0;
      for (let length = 1; length <= CHAIN; length++) {
        chain.length = 0;
        for (let k = 0, u = t; k < length && u !== head; k++, u = next[u]) chain.push(u);
        if (chain.length === length && move()) any = true;
      }
    }
  }
  const out: Placed[] = [];
  for (let t = next[head]; t !== head; t = next[t]) out.push({ index: t, reverse: reverse[t] === 1 });
  return out;
}

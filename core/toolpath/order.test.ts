import { describe, expect, it } from "vitest";
import { trails } from "../geometry/trail.ts";
import { seeded } from "../testing/random.ts";
import { type BeginCost, betterOrder, type Ends, nearestOrder, type Placed, shortOrder } from "./order.ts";

describe("order of trails", () => {
  const random = seeded(8);
  const ends = Array.from({ length: 300 }, () => ({
    x0: 200 * random(),
    y0: 200 * random(),
    x1: 200 * random(),
    y1: 200 * random(),
  }));
  it("runs each once, always going to the nearest open end", () => {
    const order = nearestOrder(ends);
    expect(new Set(order.map((o) => o.index)).size).toBe(ends.length);
    const left = new Set(ends.map((_, i) => i));
    let [x, y] = [0, 0];
    for (const { index, reverse } of order) {
      const e = ends[index];
      const [bx, by, ex, ey] = reverse ? [e.x1, e.y1, e.x0, e.y0] : [e.x0, e.y0, e.x1, e.y1];
      let least = Infinity;
      for (const i of left)
        least = Math.min(least, Math.hypot(ends[i].x0 - x, ends[i].y0 - y), Math.hypot(ends[i].x1 - x, ends[i].y1 - y));
      expect(Math.hypot(bx - x, by - y)).toBeCloseTo(least, 9);
      left.delete(index);
      [x, y] = [ex, ey];
    }
  });
  it("begins anywhere where the cutter is nowhere yet, and leaves none out", () => {
    const order = nearestOrder(ends, NaN, NaN);
    expect(order.map((o) => o.index).sort((a, b) => a - b)).toEqual(ends.map((_, i) => i));
  });
  it("never turns round what runs one way only, and weighs what beginning costs", () => {
    const oneWay = nearestOrder(ends.map((e) => ({ ...e, oneWay: true })));
    expect(oneWay.every((o) => !o.reverse)).toBe(true);
    // A deep end nearby or a shallow one farther off: the cost decides.
    const two = [{ x0: 1, y0: 0, z0: -5, x1: 4, y1: 0, z1: -0.1 }];
    expect(nearestOrder(two)[0].reverse).toBe(false);
    expect(nearestOrder(two, 0, 0, (_, __, z) => -2 * z)[0].reverse).toBe(true);
  });
  const wayOf = (order: readonly Placed[], of: readonly Ends[], cost: BeginCost = () => 0) =>
    order.slice(1).reduce((sum, o, k) => {
      const [a, b] = [of[order[k].index], of[o.index]];
      const [ax, ay, az] = order[k].reverse ? [a.x0, a.y0, a.z0] : [a.x1, a.y1, a.z1];
      const [bx, by, bz] = o.reverse ? [b.x1, b.y1, b.z1] : [b.x0, b.y0, b.z0];
      const way = Math.hypot(bx - ax, by - ay);
      return sum + way + cost(way, az ?? 0, bz ?? 0);
    }, 0);
  it("is bettered: each still once, never longer, and most random orders by a twentieth or more", () => {
    const shorter: number[] = [];
    for (let round = 0; round < 12; round++) {
      const some = Array.from({ length: 40 + 20 * round }, (): Ends => ({
        x0: 100 * random(),
        y0: 100 * random(),
        z0: -5 * random(),
        x1: 100 * random(),
        y1: 100 * random(),
        z1: -5 * random(),
        oneWay: random() < 0.2,
      }));
      const cost: BeginCost = (way, _, z) => (way < 3 ? 0 : -2 * z);
      const nearest = nearestOrder(some, 0, 0, cost);
      const better = betterOrder(some, nearest, cost);
      expect(new Set(better.map((o) => o.index)).size).toBe(some.length);
      expect(better.every((o) => !(some[o.index].oneWay && o.reverse))).toBe(true);
      const [before, after] = [wayOf(nearest, some, cost), wayOf(better, some, cost)];
      expect(after).toBeLessThanOrEqual(before + 1e-9);
      shorter.push(after / before);
    }
    expect(shorter.sort((a, b) => a - b)[6]).toBeLessThan(0.95);
  });
  it("fetches back what the nearest end passed by", () => {
    // A row of holes with one beside it that is always a little farther than the next in the row.
    const at = (x: number, y: number): Ends => ({ x0: x, y0: y, x1: x, y1: y });
    const holes = [...Array.from({ length: 20 }, (_, i) => at(5 * i, 0)), at(10, 5.5)];
    const order = shortOrder(holes);
    expect(wayOf(nearestOrder(holes), holes)).toBeGreaterThan(150);
    expect(wayOf(order, holes)).toBeLessThan(105);
  });
  it("leaves one or two trails as they are", () => {
    expect(shortOrder([])).toEqual([]);
    expect(
      shortOrder(ends.slice(0, 2))
        .map((o) => o.index)
        .sort(),
    ).toEqual([0, 1]);
  });
});

describe("trails through a graph", () => {
  const random = seeded(31);
  /** A random tree: node i > 0 hangs on an earlier one. Heights fall towards the root. */
  const tree = (n: number) => {
    const parent = Array.from({ length: n }, (_, i) =>
      i === 0 ? -1 : Math.floor(random() * Math.min(i, 8)) + Math.max(0, i - 8),
    );
    const degree = new Array(n).fill(0);
    const [a, b]: number[][] = [[], []];
    for (let i = 1; i < n; i++) {
      a.push(i);
      b.push(parent[i]);
      degree[i]++;
      degree[parent[i]]++;
    }
    const z = degree.map((d) => (d === 1 ? 0 : -1 - random()));
    return { x: degree.map(() => random()), y: degree.map(() => random()), z, a, b, degree };
  };
  for (const fromHigh of [false, true])
    it(`cover every edge once with as few as can be${fromHigh ? ", and hardly any begins deep" : ""}`, () => {
      for (let round = 0; round < 20; round++) {
        const g = tree(5 + Math.floor(60 * random()));
        // A ring beside the tree, met at one node, must not need a trail of its own.
        const first = g.x.length;
        for (let k = 0; k < 4; k++) {
          g.x.push(random());
          g.y.push(random());
          g.z.push(-3);
          g.a.push(k === 0 ? 0 : first + k - 1);
          g.b.push(first + k);
        }
        g.a.push(first + 3);
        g.b.push(0);
        const key = new Map(g.x.map((x, i) => [x, i]));
        const all = trails(g.x, g.y, g.z, g.a, g.b, fromHigh);
        const edges = all.flatMap((t) =>
          Array.from(t.x.slice(1), (x, i) => [key.get(x)!, key.get(t.x[i])!].sort((p, q) => p - q).join("-")),
        );
        expect(edges.sort()).toEqual(g.a.map((p, i) => [p, g.b[i]].sort((q, r) => q - r).join("-")).sort());
        const odd = g.degree.filter((d) => d % 2 === 1).length;
        expect(all.length).toBe(odd / 2);
        if (fromHigh) expect(all.filter((t) => t.z[0] < 0 && t.z[t.z.length - 1] < 0)).toEqual([]);
      }
    });
});

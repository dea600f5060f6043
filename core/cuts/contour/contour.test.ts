import { describe, expect, it } from "vitest";
import { nesting } from "../../geometry/nesting.ts";
import { ringsFrom, type Rings } from "../../geometry/rings.ts";
import { SegmentGrid } from "../../geometry/segmentgrid.ts";
import { circle, seeded, star } from "../../testing/random.ts";
import { unroll } from "../../toolpath/loops.ts";
import { planOn } from "../../testing/cutting.ts";
import { RAPID } from "../../toolpath/toolpath.ts";
import { Bending, begunAt, nearestPlace, placeOn } from "./gentle.ts";
import { leadFrom, leadPoints, type LeadRules, placeLead } from "./leads.ts";
import { type ContourLoop, contourOrder } from "./loops.ts";
import { placeTabs, tabLimit, tabsFromPlaces } from "./tabs.ts";

const loopOf = (points: [number, number][]) => unroll(Float64Array.from(points.flat()), 0, points.length, 0, false);
/** A rectangle 60 × 20 with all its turning at the corners. */
const long = loopOf([
  [20, 40],
  [80, 40],
  [80, 60],
  [20, 60],
]);

describe("places on a loop", () => {
  it("are found by distance along it, with its direction, past its end too", () => {
    expect(placeOn(long, 30)).toMatchObject({ x: 50, y: 40, ux: 1, uy: 0, piece: 0 });
    expect(placeOn(long, 70)).toMatchObject({ x: 80, y: 50, ux: 0, uy: 1, piece: 1 });
    expect(placeOn(long, 160 + 30)).toMatchObject({ x: 50, y: 40 });
    expect(nearestPlace(long, 50, 33)).toMatchObject({ s: 30, d: 7 });
  });
  it("a loop begun at one keeps its length and its points", () => {
    const again = begunAt(long, placeOn(long, 70));
    expect([again.x[0], again.y[0], again.s[again.s.length - 1]]).toEqual([80, 50, 160]);
    expect([...again.x].filter((x, i) => x === 20 && again.y[i] === 40)).toHaveLength(1);
  });
  it("bending is nought along straights, and counts corners by their turn", () => {
    const b = new Bending(long);
    expect(b.near(30, 5)).toBe(0);
    expect(b.near(60, 5)).toBeCloseTo(Math.PI / 2, 9);
    expect(b.near(0, 5)).toBeCloseTo(Math.PI / 2, 9);
    expect(b.near(158, 5)).toBeGreaterThan(1);
  });
});

describe("tabs", () => {
  it("stand on straights, as many as fit, never over a corner", () => {
    for (const count of [1, 2, 4, 7]) {
      const tabs = placeTabs(long, count, 8);
      expect(tabs.length).toBe(Math.min(count, 10));
      for (const t of tabs)
        for (const corner of [0, 60, 80, 140, 160])
          if (count <= 4) expect(Math.abs(t.at - corner)).toBeGreaterThan(3.9);
    }
    expect(placeTabs(long, 40, 8).length).toBe(10);
    expect(
      placeTabs(
        loopOf([
          [0, 0],
          [3, 0],
          [3, 3],
          [0, 3],
        ]),
        4,
        8,
      ),
    ).toEqual([]);
  });
  it("limit the depth over their width and fall away at their slope", () => {
    const tabs = tabsFromPlaces(long, [[50, 30]]);
    expect(tabs[0].at).toBe(30);
    const limit = (s: number, slope: number) => tabLimit(tabs, 160, 4, -8, -10, s, slope);
    expect([limit(30, 1), limit(34, 1), limit(35, 1), limit(36, 1), limit(36.1, 1)]).toEqual([-8, -8, -9, -10, -10]);
    expect(limit(34.2, 20)).toBe(-10);
    expect(limit(190, 1)).toBe(-8);
  });
});

describe("leads", () => {
  const part = ringsFrom([
    [
      [20, 40],
      [80, 40],
      [80, 60],
      [20, 60],
    ],
  ]);
  // Round the part's outside with the waste on the left: clockwise, 1 mm away.
  const outside = loopOf([
    [19, 39],
    [19, 61],
    [81, 61],
    [81, 39],
  ]);
  const rules: LeadRules = { shape: "arc", reach: 6, edges: new SegmentGrid(part), away: 1, width: 100, height: 100 };
  it("come onto the gentlest run from the waste, tangent to it, never nearer to the part than the path", () => {
    const lead = placeLead(outside, rules)!;
    expect(Math.min(Math.abs(lead.place.y - 61), Math.abs(lead.place.y - 39))).toBeLessThan(1e-9);
    expect(lead.place.x > 30 && lead.place.x < 70).toBe(true);
    const way = leadPoints(lead, 40);
    for (const [x, y] of way) expect(rules.edges.distance(x, y, 50)).toBeGreaterThan(0.99);
    const [[x0, y0], [x1, y1]] = way.slice(-2);
    expect(((x1 - x0) * lead.place.ux + (y1 - y0) * lead.place.uy) / Math.hypot(x1 - x0, y1 - y0)).toBeGreaterThan(
      0.998,
    );
    expect(Math.hypot(way[0][0] - lead.place.x, way[0][1] - lead.place.y)).toBeCloseTo(6 * Math.SQRT2, 6);
  });
  it("shrink, then move, before they touch a neighbour or leave the sheet", () => {
    const crowd = ringsFrom([
      [
        [20, 40],
        [80, 40],
        [80, 60],
        [20, 60],
      ],
      [
        [10, 64.5],
        [90, 64.5],
        [90, 90],
        [10, 90],
      ],
    ]);
    const near = placeLead(outside, { ...rules, edges: new SegmentGrid(crowd) })!;
    for (const [x, y] of leadPoints(near, 60)) expect(rules.edges.distance(x, y, 50)).toBeGreaterThan(0.99);
    for (const [x, y] of leadPoints(near, 60)) expect(new SegmentGrid(crowd).distance(x, y, 50)).toBeGreaterThan(0.99);
    const small = placeLead(outside, { ...rules, height: 63 })!;
    expect(small.y0).toBeLessThanOrEqual(63);
    // A closed slot hardly wider than the kerf has room for none.
    const slot = ringsFrom([
      [
        [19.5, 38.5],
        [81.5, 38.5],
        [81.5, 61.5],
        [18.5, 61.5],
        [18.5, 38.5],
      ],
      [
        [20, 40],
        [20, 60],
        [80, 60],
        [80, 40],
      ],
    ]);
    expect(placeLead(outside, { ...rules, edges: new SegmentGrid(slot), width: 82, height: 62 })).toBeNull();
  });
  it("go where a hand puts them, and nowhere through a part", () => {
    const line: LeadRules = { ...rules, shape: "line" };
    expect(leadFrom(outside, 50, 70, line)).toMatchObject({ x0: 50, y0: 70, centre: null });
    expect(leadFrom(outside, 50, 50, line)).toBeNull();
    expect(leadFrom(outside, 50, 130, line)).toBeNull();
  });
});

describe("the order of contours", () => {
  it("what is inside first, then the nearest, whatever order they came in", () => {
    for (let seed = 1; seed <= 6; seed++) {
      const random = seeded(seed);
      const loops: [number, number][][] = [];
      for (let i = 0; i < 9; i++) {
        const [x, y] = [20 + 40 * (i % 3), 20 + 40 * Math.floor(i / 3)];
        loops.push(star(random, 12, 14, 18, x, y), circle(x, y, 6, 24, true), circle(x, y, 2, 16));
      }
      const shuffled = loops
        .map((l) => ({ l, at: random() }))
        .sort((a, b) => a.at - b.at)
        .map((q) => q.l);
      const r = ringsFrom(shuffled);
      r.parent = nesting(r);
      const contours: ContourLoop[] = shuffled.map((_, k) => ({
        xy: r.xy,
        start: r.starts[k],
        end: r.starts[k + 1],
        ring: k,
        frees: true,
      }));
      const order = contourOrder(contours, 0, 0);
      expect([...order].sort((a, b) => a - b)).toEqual(shuffled.map((_, k) => k));
      const when = new Map(order.map((k, i) => [k, i]));
      for (let k = 0; k < shuffled.length; k++)
        if (r.parent[k] >= 0) expect(when.get(k)!, `seed ${seed}`).toBeLessThan(when.get(r.parent[k])!);
      const travel = (o: readonly number[]) =>
        o
          .slice(1)
          .reduce(
            (sum, k, i) =>
              sum +
              Math.hypot(
                r.xy[2 * r.starts[k]] - r.xy[2 * r.starts[o[i]]],
                r.xy[2 * r.starts[k] + 1] - r.xy[2 * r.starts[o[i]] + 1],
              ),
            0,
          );
      expect(travel(order)).toBeLessThan(0.7 * travel(shuffled.map((_, k) => k)));
    }
  });
});

describe("pieces closer together than the cutter is wide", () => {
  /** Two plates 1 mm apart, each with a hole. */
  const plates = (): Rings => {
    const box = (x: number): [number, number][] => [
      [x, 30],
      [x + 20, 30],
      [x + 20, 60],
      [x, 60],
    ];
    return ringsFrom([box(20), box(41), circle(30, 45, 5, 60, true), circle(51, 45, 5, 60, true)]);
  };
  for (const [kind, wide, narrow] of [
    ["profile", "flat:3", "flat:0.8"],
    ["plasma", "torch:1.5", "torch:0.8"],
  ] as const) {
    it(`${kind}: every hole is cut before the outside that frees what it is in`, () => {
      const { toolpath: t } = planOn(
        kind,
        plates(),
        wide,
        kind === "profile" ? { side: "outside", tabs: 0 } : { side: "outside" },
      );
      // The last move below the top near a hole comes before the first one along the shared outside.
      const low = kind === "plasma" ? 5 : 0;
      const at = (test: (x: number, y: number) => boolean): number[] =>
        Array.from(t.kind, (k, i) => (k !== RAPID && t.z[i] < low && test(t.x[i], t.y[i]) ? i : -1)).filter(
          (i) => i >= 0,
        );
      const holes = [30, 51].map((cx) => at((x, y) => Math.hypot(x - cx, y - 45) < 5));
      const outside = at((x, y) => x < 20 || x > 61 || y < 30 || y > 60);
      for (const hole of holes) {
        expect(hole.length).toBeGreaterThan(3);
        expect(Math.max(...hole)).toBeLessThan(Math.min(...outside));
      }
    });
    it(`${kind}: pieces that stay joined are told; ones that come apart are not`, () => {
      const codes = (cutter: string) => planOn(kind, plates(), cutter, { side: "outside" }).notes.map((n) => n.code);
      expect(codes(wide)).toContain("pieces-joined");
      expect(codes(narrow)).not.toContain("pieces-joined");
    });
  }
});

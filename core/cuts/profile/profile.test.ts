import { describe, expect, it } from "vitest";
import { mended } from "../../geometry/mend.ts";
import { insideRegion, ringsFrom } from "../../geometry/rings.ts";
import { circle, distanceToRings, seeded, star } from "../../testing/random.ts";
import { planOn, proofOf } from "../../testing/cutting.ts";
import { Span } from "../../testing/span.ts";
import { ARC_CCW, ARC_CW, figures, RAPID } from "../../toolpath/toolpath.ts";

describe("profile against its definition", () => {
  it("never touches the part, and takes all stock the cutter can reach beside it (random stars with a hole)", () => {
    for (let seed = 1; seed <= 6; seed++) {
      const region = ringsFrom([star(seeded(seed), 8 + seed, 22, 38, 50, 50), circle(50, 50, 9, 60, true)]);
      const plan = planOn("profile", region, "flat:4", { tabs: 0 });
      const s = proofOf([{ ...plan, cutter: "flat:4" }], 0.2);
      let touched = 0;
      let left = 0;
      for (let j = 0; j < s.height; j += 2)
        for (let i = 0; i < s.width; i += 2) {
          const x = (i + 0.5) * s.cell;
          const y = (j + 0.5) * s.cell;
          const z = s.z[j * s.width + i];
          const d = distanceToRings(region, x, y);
          const inside = insideRegion(region, x, y);
          if (inside && d > 0.01 && z < 0) touched++;
          // Beside a long straight run everything within the cutter's diameter is gone; count what is deep in the waste
          // strip.
          if (!inside && d > 0.1 && d < 3.9 && z > -20 && Math.hypot(x - 50, y - 50) > 40) left++;
        }
      expect(touched, `seed ${seed}`).toBe(0);
      expect(left, `seed ${seed}`).toBe(0);
    }
  });

  it("says of a tab by hand that it stands in a corner, and of none that stands on a run", () => {
    const codes = (tabsAt: string) =>
      planOn("profile", square, "flat:6", { tabsAt }).notes.map((n) => [n.code, n.at && Math.round(n.at.x / 10)]);
    expect(codes("50,30; 70,50; 30,48")).toEqual([]);
    expect(codes("50,30; 71,71")).toEqual([["tab-in-corner", 7]]);
  });

  const square = ringsFrom([
    [
      [30, 30],
      [70, 30],
      [70, 70],
      [30, 70],
    ],
  ]);

  it("goes through the stock and a little past, in steps no deeper than asked", () => {
    const { toolpath: t } = planOn("profile", square, "flat:6", { tabs: 0, stepdown: 3, past: 0.3 });
    expect(figures(t).minZ).toBeCloseTo(-20.3, 9);
    const levels = new Set([...t.z].filter((z) => z < 0).map((z) => z.toFixed(4)));
    expect([...levels].filter((z) => Number(z) === -20.3).length).toBe(1);
    for (let i = 1; i < t.kind.length; i++)
      if (t.kind[i] !== RAPID) expect(t.z[i - 1] - t.z[i]).toBeLessThanOrEqual(3 + 1e-9);
  });

  it("sinks along a round contour on arcs that fall evenly, at the angle asked", () => {
    const plate = ringsFrom([circle(50, 50, 30, 240), circle(50, 50, 9, 240, true)]);
    const { toolpath: t } = planOn("profile", plate, "flat:6", { tabs: 0, stepdown: 4, ramp: 2 });
    let [turned, straight, moves] = [0, 0, 0];
    for (let i = 1; i < t.kind.length; i++) {
      const down = t.z[i - 1] - t.z[i];
      if (t.kind[i] === RAPID || !(down > 1e-6) || !(t.z[i - 1] <= 0)) continue;
      moves++;
      if (t.kind[i] !== ARC_CW && t.kind[i] !== ARC_CCW) {
        straight += Math.hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1]);
        continue;
      }
      const [dx, dy] = [t.cx[i] - 50, t.cy[i] - 50];
      expect(Math.hypot(dx, dy)).toBeLessThan(0.02);
      const [from, to] = [i - 1, i].map((k) => Math.atan2(t.y[k] - t.cy[i], t.x[k] - t.cx[i]));
      const turn = t.kind[i] === ARC_CCW ? to - from : from - to;
      const full = 2 * Math.PI;
      const length = Math.hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]) * (((turn % full) + full) % full);
      expect(down / length).toBeCloseTo(Math.tan((2 * Math.PI) / 180), 4);
      turned += length;
    }
    // Down through 20.2 mm along the hole and along the outside.
    const all = (2 * 20.2) / Math.tan((2 * Math.PI) / 180);
    expect(turned + straight).toBeCloseTo(all, 0);
    // No more than what is left of an edge where a turn begins.
    expect(straight).toBeLessThan(0.01 * all);
    expect(moves).toBeLessThan(100);
  });

  it("leaves as many tabs as asked, as thick as asked, away from corners", () => {
    const plan = planOn("profile", square, "flat:6", { tabs: 4, tabHeight: 2, tabWidth: 6 });
    expect(plan.facts.tabs).toBe(4);
    const s = proofOf([{ ...plan, cutter: "flat:6" }], 0.25);
    // Along the middle of the kerf count stretches that stand.
    let tabs = 0;
    let high = -20;
    let standing = false;
    for (let k = 0; k < 4000; k++) {
      const side = Math.floor(k / 1000);
      const f = ((k % 1000) / 1000) * 40 + 30;
      const [x, y] = [
        [f, 27],
        [73, f],
        [100 - f, 73],
        [27, 100 - f],
      ][side];
      const z = s.z[Math.floor(y / s.cell) * s.width + Math.floor(x / s.cell)];
      if (z > -20 + 1e-6) {
        high = Math.max(high, z);
        if (!standing) tabs++;
        standing = true;
        expect(f).toBeGreaterThan(32);
        expect(f).toBeLessThan(68);
      } else standing = false;
    }
    expect(tabs).toBe(4);
    expect(high).toBeCloseTo(-18, 2);
  });

  it("cuts holes before the outside that holds them, and climbs round both", () => {
    const region = ringsFrom([
      [
        [20, 20],
        [80, 20],
        [80, 80],
        [20, 80],
      ],
      circle(50, 50, 15, 90, true),
    ]);
    const { toolpath: t } = planOn("profile", region, "flat:6", { tabs: 0 });
    const first = t.z.findIndex((z) => z < 0);
    expect(Math.hypot(t.x[first] - 50, t.y[first] - 50)).toBeLessThan(13);
    // Climb: clockwise round the part's outside, so the signed area of the last level is negative.
    const last: number[] = [];
    for (let i = 0; i < t.kind.length; i++)
      if (Math.abs(t.z[i] + 20.2) < 1e-9 && Math.hypot(t.x[i] - 50, t.y[i] - 50) > 20) last.push(t.x[i], t.y[i]);
    let area = 0;
    for (let i = 0; i < last.length; i += 2) {
      const j = (i + 2) % last.length;
      area += last[i] * last[j + 1] - last[j] * last[i + 1];
    }
    expect(area).toBeLessThan(0);
  });

  it("says which holes the cutter cannot enter", () => {
    const region = ringsFrom([
      [
        [20, 20],
        [80, 20],
        [80, 80],
        [20, 80],
      ],
      circle(50, 50, 2, 30, true),
    ]);
    expect(planOn("profile", region, "flat:6", {}).notes[0].message).toMatch(/1 hole is too narrow/);
  });
});

describe("profile, its other ways", () => {
  const ring = ringsFrom([circle(50, 50, 30, 120), circle(50, 50, 14, 90, true)]);

  it("inside: leaves what lies round the ink untouched, and frees the slug", () => {
    const plan = planOn("profile", ring, "flat:4", { side: "inside", tabs: 0 });
    const s = proofOf([{ ...plan, cutter: "flat:4" }], 0.25);
    const [untouched, through] = [new Span(), new Span()];
    for (let k = 0; k < s.z.length; k++) {
      const [x, y] = [((k % s.width) + 0.5) * 0.25, (Math.floor(k / s.width) + 0.5) * 0.25];
      const r = Math.hypot(x - 50, y - 50);
      if (r > 30.02 || r < 13.98) untouched.take(s.z[k], () => `${x}, ${y}`);
      // Both walls are cut through as wide as the cutter.
      if ((r > 26.2 && r < 29.8) || (r > 14.2 && r < 17.8)) through.take(s.z[k], () => `${x}, ${y}`);
    }
    expect(untouched.least, untouched.leastAt).toBe(0);
    expect(through.most, through.mostAt).toBeLessThan(-20);
  });

  it("on the line: the cutter's middle follows the outline", () => {
    const { toolpath: t } = planOn("profile", ring, "flat:4", { side: "on", through: false, depth: 1 });
    for (let i = 0; i < t.kind.length; i++)
      if (t.z[i] < 0)
        expect(
          Math.min(
            Math.abs(Math.hypot(t.x[i] - 50, t.y[i] - 50) - 30),
            Math.abs(Math.hypot(t.x[i] - 50, t.y[i] - 50) - 14),
          ),
        ).toBeLessThan(0.05);
  });

  it("keeps an onion skin under everything until all contours are cut, then takes it", () => {
    const two = ringsFrom([circle(25, 50, 12, 90), circle(75, 50, 12, 90)]);
    const { toolpath: t } = planOn("profile", two, "flat:4", { tabs: 0, skin: 0.5, past: 0.2 });
    const through = [...t.z].findIndex((z) => z < -19.8);
    const last = { left: -1, right: -1 };
    for (let i = 0; i < through; i++) if (Math.abs(t.z[i] + 19.7) < 1e-6) last[t.x[i] < 50 ? "left" : "right"] = i;
    expect(last.left).toBeGreaterThan(0);
    expect(last.right).toBeGreaterThan(0);
    expect(Math.min(...t.z)).toBeCloseTo(-20.2, 9);
  });

  it("leads in and out on an arc from the waste, touching nothing, at full depth in the last pass", () => {
    const plan = planOn("profile", ring, "flat:4", { lead: 3, tabs: 0 });
    const s = proofOf([{ ...plan, cutter: "flat:4" }], 0.25);
    const [untouched, through] = [new Span(), new Span()];
    for (let k = 0; k < s.z.length; k++) {
      const [x, y] = [((k % s.width) + 0.5) * 0.25, (Math.floor(k / s.width) + 0.5) * 0.25];
      const r = Math.hypot(x - 50, y - 50);
      if (r < 29.98 && r > 14.02) untouched.take(s.z[k], () => `${x}, ${y}`);
      if (r > 30.2 && r < 33.8) through.take(s.z[k], () => `${x}, ${y}`);
    }
    expect(untouched.least, untouched.leastAt).toBe(0);
    expect(through.most, through.mostAt).toBeLessThan(-20);
    expect(
      plan
        .marks!.filter((m) => m.kind === "pierce")
        .every((m) => Math.hypot(m.x - 50, m.y - 50) > 34 || Math.hypot(m.x - 50, m.y - 50) < 10),
    ).toBe(true);
  });

  it("puts tabs where they are set by hand, square ones with upright ends", () => {
    const square = ringsFrom([
      [
        [30, 30],
        [70, 30],
        [70, 70],
        [30, 70],
      ],
    ]);
    for (const tabShape of ["ramped", "square"]) {
      const plan = planOn("profile", square, "flat:6", { tabsAt: "40 25; 60 75", tabHeight: 2, tabWidth: 6, tabShape });
      expect(plan.facts.tabs).toBe(2);
      expect(plan.marks!.map((m) => [Math.round(m.x), Math.round(m.y)])).toEqual(
        expect.arrayContaining([
          [40, 27],
          [60, 73],
        ]),
      );
      const s = proofOf([{ ...plan, cutter: "flat:6" }], 0.25);
      const along = (x: number) => s.z[Math.floor(27 / 0.25) * s.width + Math.floor(x / 0.25)];
      expect(along(40)).toBeCloseTo(-18, 1);
      expect(along(42.5)).toBeCloseTo(-18, 1);
      expect(along(tabShape === "square" ? 44 : 46.5)).toBeLessThan(-20);
      expect(along(60)).toBeLessThan(-20);
    }
  });

  it("takes the last pass as a thin cut to size at full depth", () => {
    const square = ringsFrom([
      [
        [30, 30],
        [70, 30],
        [70, 70],
        [30, 70],
      ],
    ]);
    const { toolpath: t } = planOn("profile", square, "flat:6", { tabs: 0, lastPass: 0.4 });
    const at = (x: number) =>
      [...t.x]
        .map((v, i) => [v, t.z[i]])
        .filter(([v, z]) => Math.abs(v - x) < 1e-6 && z < 0)
        .map(([, z]) => z);
    // 26.6: the passes that leave 0.4; 27: the one that takes it, at the bottom only.
    expect(at(26.6).length).toBeGreaterThan(4);
    expect(Math.max(...at(27))).toBeLessThan(-15);
  });

  it("a last pass touches no part, where pieces crowd, holes have necks and corners are narrow", () => {
    let along = 0;
    let without = 0;
    for (let seed = 1; seed <= 16; seed++) {
      const random = seeded(300 + seed);
      const lastPass = 0.2 + 0.8 * random();
      // Pieces a little more or less than the cutter apart, one with a hole of two lobes.
      const gap = 2.4 + 2.4 * random();
      const pieces = [0, 1, 2, 3].map((k) =>
        star(random, 7 + (seed % 6), 9, 14, 34 + (k % 2) * (24 + gap), 34 + Math.floor(k / 2) * (24 + gap)),
      );
      const region = mended(
        ringsFrom([...pieces, circle(31, 34, 3 + random(), 40, true), circle(37, 34, 3, 40, true)]),
      );
      const plan = planOn("profile", region, "flat:3", { tabs: seed % 3, lastPass, lead: seed % 4 === 0 ? 1.5 : 0 });
      const s = proofOf([{ ...plan, cutter: "flat:3" }], 0.1);
      let touched = 0;
      for (let j = 0; j < s.height; j += 2)
        for (let i = 0; i < s.width; i += 2) {
          const [x, y] = [(i + 0.5) * s.cell, (j + 0.5) * s.cell];
          if (s.z[j * s.width + i] < 0 && insideRegion(region, x, y) && distanceToRings(region, x, y) > 0.01) touched++;
        }
      expect(touched, `seed ${seed}`).toBe(0);
      if (plan.notes.some((n) => n.code === "no-last-pass")) without++;
      else along++;
    }
    // Both come up: where there is room it is taken, where there is none that is said.
    expect(along).toBeGreaterThan(0);
    expect(without).toBeGreaterThan(0);
  });
});

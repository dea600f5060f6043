import { describe, expect, it } from "vitest";
import { profileOf } from "../../cutters/profile.ts";
import { ringsFrom, type Rings } from "../../geometry/rings.ts";
import { newSurface } from "../../proof/surface.ts";
import { nothingSwept, sweep } from "../../proof/sweep.ts";
import { planOn, proofOf } from "../../testing/cutting.ts";
import { blob, circle, seeded, star } from "../../testing/random.ts";
import { againstPocket } from "../../testing/reach.ts";
import { ARC_CCW, ARC_CW, RAPID, sweepOf, type Toolpath } from "../../toolpath/toolpath.ts";
import { engagedAngle } from "../area/even.ts";
import { cutterOf } from "../../testing/shop.ts";

const withIsland = (seed: number): Rings =>
  ringsFrom([star(seeded(seed), 7 + seed, 20, 42, 50, 50), circle(50 + seed, 48, 7, 60, true)]);
const dumbbell = ringsFrom([
  [
    [10, 30],
    [40, 30],
    [40, 46],
    [60, 46],
    [60, 30],
    [90, 30],
    [90, 70],
    [60, 70],
    [60, 54],
    [40, 54],
    [40, 70],
    [10, 70],
  ],
]);

describe("pocket against its definition", () => {
  for (const [way, seeds] of [
    ["rings", [1, 2, 3, 4]],
    ["lines", [1, 2, 3]],
    ["even", [1, 2, 3]],
  ] as const)
    for (const seed of seeds)
      it(
        `${way}, star ${seed} with an island: nothing outside, everything reachable at the floor, no rapid and ` +
          "no plunge through stock",
        () => {
          const region = withIsland(seed);
          const plan = planOn("pocket", region, "flat10", {
            way,
            depth: 5,
            stepdown: 3,
            stepover: 3,
            finish: seed % 2 ? 0 : 0.4,
            angle: 30,
          });
          expect(plan.notes.filter((n) => n.severity === "stop")).toEqual([]);
          const s = newSurface(100, 100, 0.25);
          const report = sweep(s, plan.toolpath, profileOf(cutterOf("flat10")), 1);
          const r = againstPocket(s, region, 5, 5, 0.3);
          expect(r.reachable).toBeGreaterThan(5000);
          expect({ outside: r.outside, deeper: r.deeper, left: r.left }).toEqual({ outside: 0, deeper: 0, left: 0 });
          expect(report.rapids, `rapid at move ${report.rapidAt}`).toBe(0);
          expect(report.plunges, `plunge at move ${report.plungeAt}`).toBe(0);
        },
      );

  it("goes down in steps no deeper than asked, entering by helix in the open and by ramp in a slot", () => {
    for (const entry of ["auto", "ramp", "helix"]) {
      const { toolpath: t } = planOn("pocket", dumbbell, "flat:6", { depth: 6, stepdown: 2, entry });
      for (let i = 1; i < t.kind.length; i++)
        if (t.kind[i] !== RAPID && (t.x[i] !== t.x[i - 1] || t.y[i] !== t.y[i - 1]))
          expect(t.z[i - 1] - t.z[i]).toBeLessThanOrEqual(2.5 + 1e-9);
      if (entry === "auto")
        expect([...t.kind].some((k, i) => i > 0 && (k === ARC_CCW || k === ARC_CW) && t.z[i] < t.z[i - 1])).toBe(true);
    }
  });

  it("finishes the walls with no more than the allowance left to take", () => {
    const plan = planOn("pocket", dumbbell, "flat:6", { depth: 3, stepdown: 3, finish: 0.4 });
    const without = planOn("pocket", dumbbell, "flat:6", { depth: 3, stepdown: 3, finish: 0, leave: 0.4 });
    const [a, b] = [proofOf([{ ...plan, cutter: "flat:6" }], 0.2), proofOf([{ ...without, cutter: "flat:6" }], 0.2)];
    let wall = 0;
    for (let k = 0; k < a.z.length; k++) if (a.z[k] < -2.9 && b.z[k] > -2.9) wall++;
    // A strip 0.4 mm wide along 2 × (30 + 40) + … of edge.
    expect(wall * 0.04).toBeGreaterThan(60);
    expect(wall * 0.04).toBeLessThan(130);
  });

  it("says so when the cutter fits nowhere, and when the stepover leaves ridges", () => {
    const small = ringsFrom([circle(50, 50, 2, 40)]);
    expect(planOn("pocket", small, "flat:6", {}).notes[0]).toMatchObject({ code: "cutter-too-wide", severity: "stop" });
    expect(planOn("pocket", dumbbell, "flat:6", { stepover: 6 }).notes[0]).toMatchObject({
      code: "stepover-too-wide",
      severity: "stop",
    });
  });
});

/** Up from 4 mm deep, over and down again on the router of the tests, its plunge included: at least so long, s. */
const LIFT_SECONDS = 1.6;

describe("rest of a pocket", () => {
  it("takes exactly what the larger cutter left, with no plunge into stock", () => {
    for (const seed of [1, 2, 3]) {
      const region = withIsland(seed);
      const big = planOn("pocket", region, "flat10", { depth: 4, stepdown: 4, stepover: 4, finish: 0 });
      const target = { id: "pocket", kind: "pocket", cutter: cutterOf("flat10"), settings: big.values };
      const small = planOn("rest", region, "flat:3", { stepover: 1.2 }, { target });
      const s = newSurface(100, 100, 0.2);
      sweep(s, big.toolpath, profileOf(cutterOf("flat10")), 1);
      const before = s.z.slice();
      const t = small.toolpath;
      const report = nothingSwept();
      let cutting = 0;
      // Over open ground a way at depth is worth it where lifting, travelling and plunging take longer.
      for (let i = 1; i < t.kind.length; i++) {
        const was = s.z.slice();
        sweep(s, t, profileOf(cutterOf("flat:3")), 2, i, i + 1, report);
        if (t.kind[i] === RAPID) continue;
        const length = Math.hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1]);
        if (s.z.some((z, k) => z < was[k] - 0.01)) cutting += length;
        else expect((60 * length) / t.feed[i], `seed ${seed}, move ${i}`).toBeLessThan(LIFT_SECONDS);
      }
      const r = againstPocket(s, region, 1.5, 4, 0.25);
      expect({ outside: r.outside, left: r.left }, `seed ${seed}`).toEqual({ outside: 0, left: 0 });
      expect(report.rapids).toBe(0);
      // It works where something is left, and hardly anywhere else.
      let took = 0;
      for (let k = 0; k < s.z.length; k++) if (s.z[k] < before[k] - 0.01) took++;
      expect(cutting, `seed ${seed}`).toBeLessThan((took * 0.04) / 0.4 + 60);
    }
  });
});

/** The share of a turn by which the cutter bites into stock, at every place along the moves. */
function largestBite(t: Toolpath, radius: number, from: number): number {
  const cell = 0.1;
  const side = 1000;
  const cut = new Uint8Array(side * side);
  const clear = (x: number, y: number) => {
    const r = radius / cell;
    for (let j = Math.max(0, Math.ceil(y / cell - r)); j <= Math.min(side - 1, Math.floor(y / cell + r)); j++) {
      const half = Math.sqrt(r * r - (j - y / cell) ** 2);
      for (let i = Math.max(0, Math.ceil(x / cell - half)); i <= Math.min(side - 1, Math.floor(x / cell + half)); i++)
        cut[j * side + i] = 1;
    }
  };
  let worst = 0;
  for (let i = 1; i < t.kind.length; i++) {
    const arc = t.kind[i] === ARC_CCW || t.kind[i] === ARC_CW;
    const r = arc ? Math.hypot(t.x[i] - t.cx[i], t.y[i] - t.cy[i]) : 0;
    const turn = arc ? sweepOf(t, i) : 0;
    const a0 = arc ? Math.atan2(t.y[i - 1] - t.cy[i], t.x[i - 1] - t.cx[i]) : 0;
    const steps = Math.max(
      1,
      Math.ceil((arc ? r * Math.abs(turn) : Math.hypot(t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1])) / 0.25),
    );
    for (let k = 1; k <= steps; k++) {
      const f = k / steps;
      const x = arc ? t.cx[i] + r * Math.cos(a0 + turn * f) : t.x[i - 1] + f * (t.x[i] - t.x[i - 1]);
      const y = arc ? t.cy[i] + r * Math.sin(a0 + turn * f) : t.y[i - 1] + f * (t.y[i] - t.y[i - 1]);
      if (t.z[i] >= 0) continue;
      if (i >= from && t.kind[i] !== RAPID) {
        let bite = 0;
        for (let q = 0; q < 180; q++) {
          const a = (q * Math.PI) / 90;
          const [u, v] = [
            Math.round((x + (radius + 0.05) * Math.cos(a)) / cell),
            Math.round((y + (radius + 0.05) * Math.sin(a)) / cell),
          ];
          // Only where the cutter is moving into counts: what it stands against sideways it cut before.
          if (u >= 0 && v >= 0 && u < side && v < side && !cut[v * side + u]) {
            const [dx, dy] = arc
              ? [-Math.sin(a0 + turn * f) * Math.sign(turn), Math.cos(a0 + turn * f) * Math.sign(turn)]
              : [t.x[i] - t.x[i - 1], t.y[i] - t.y[i - 1]];
            if (dx * Math.cos(a) + dy * Math.sin(a) > 0.02 * Math.hypot(dx, dy)) bite++;
          }
        }
        worst = Math.max(worst, bite / 180);
      }
      clear(x, y);
    }
  }
  return worst;
}

it("even load holds the engagement it states, where rings do not", () => {
  const region = ringsFrom([blob(seeded(5), 400, 34, 50, 50, 0.1)]);
  const settings = { depth: 3, stepdown: 3, stepover: 1.2, finish: 0 };
  const limit = engagedAngle(1.2, 3) / (2 * Math.PI);
  const bite = (way: string, of = region) => {
    const { toolpath: t } = planOn("pocket", of, "flat:6", { ...settings, way });
    // The helix down to the first floor is in solid stock by nature.
    const first = t.z.findIndex((z) => z <= -3 + 1e-9) + 3;
    return largestBite(t, 3, first);
  };
  const even = bite("even");
  expect(bite("rings")).toBeGreaterThan(1.6 * limit);
  // Samples every two degrees on a grid of 0.1 mm see a little more than there is.
  expect(even).toBeLessThan(limit + 0.05);
  // Sharp corners load it whatever is done: that is said.
  const sharp = ringsFrom([star(seeded(5), 11, 24, 44, 50, 50)]);
  expect(bite("even", sharp)).toBeGreaterThan(limit + 0.05);
  expect(planOn("pocket", sharp, "flat:6", { ...settings, way: "even" }).notes.map((n) => n.code)).toEqual([
    "load-in-narrows",
  ]);
});

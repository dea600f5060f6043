import { describe, expect, it } from "vitest";
import { MACHINES } from "../shop/first/machines.ts";
import { ROUTER, SHOP, materialNamed } from "../testing/shop.ts";
import { seeded } from "../testing/random.ts";
import { bendPerNewton, MOST_BEND, toothForce } from "./bending.ts";
import { chipAt, feedsFor, type Tooling, usualStepdown } from "./feeds.ts";
import { spindleSpeed } from "./machine.ts";
import type { Cutter } from "./profile.ts";
import { parseCutter } from "./rack.ts";

const ash = materialNamed("ash");
const flat = parseCutter("flat:6");
const on = (machine = ROUTER, cutter = flat, material = ash): Tooling => ({ cutter, material, machine });
/** A machine that holds nothing back. */
const STRONG = { ...ROUTER, feedMost: 1e6, plungeMost: 1e6, power: 1e9 };

describe("feeds", () => {
  it("are spindle × flutes × chip load at full engagement, and say so", () => {
    const f = feedsFor(on(STRONG), { depth: 2, width: 6 });
    const chip = Math.min(ash.chipMost, ash.chipPerDiameter * 6);
    expect(Math.abs(f.feed.value - f.spindle.value * flat.flutes * chip)).toBeLessThanOrEqual(5);
    expect(f.feed.reason).toMatch(/chip × 2 flutes/);
    expect(f.plunge.value).toBeLessThan(f.feed.value);
  });
  it("rise for thin chips and never beyond double", () => {
    const at = (width: number) => feedsFor(on(STRONG), { depth: 1, width }).feed.value;
    expect(at(0.6) / at(6)).toBeCloseTo(1 / (2 * Math.sqrt(0.1 * 0.9)), 2);
    expect(at(0.05) / at(6)).toBeLessThanOrEqual(2.001);
  });
  it("keep to the machine and name the limit that held", () => {
    expect(feedsFor(on({ ...ROUTER, power: 20 }), { depth: 6, width: 6 }).feed.reason).toMatch(/held by 20 W/);
    const slow = { ...ROUTER, feedMost: 300 };
    expect(feedsFor(on(slow), { depth: 1, width: 6 }).feed).toMatchObject({
      value: 300,
      reason: expect.stringMatching(/machine's most/),
    });
    for (const machine of MACHINES.filter((m) => m.power > 1))
      for (const material of SHOP.materials)
        for (const cutter of SHOP.cutters.filter((q) => q.kind !== "torch")) {
          const f = feedsFor({ cutter, material, machine }, { depth: 1, width: cutter.diameter / 2 });
          expect(f.spindle.value).toBeGreaterThanOrEqual(machine.spindleLeast);
          expect(f.spindle.value).toBeLessThanOrEqual(machine.spindleMost);
          expect(f.feed.value).toBeGreaterThan(0);
          expect(f.feed.value).toBeLessThanOrEqual(machine.feedMost);
          expect(f.plunge.value).toBeLessThanOrEqual(machine.plungeMost);
        }
  });
  it("of a point go by its width at depth", () => {
    const v = on(ROUTER, parseCutter("v:60:12"));
    const at = (depth: number) => feedsFor(v, { depth, width: 12 }).workingDiameter;
    expect(at(6)).toBeCloseTo(2 * 6 * Math.tan(Math.PI / 6), 6);
    expect(at(0.1)).toBe(1);
  });
  it("where the machine's largest feed holds, the spindle slows so that the chip stays", () => {
    const fast = feedsFor(on(STRONG), { depth: 2, width: 6 });
    const held = feedsFor(on({ ...STRONG, feedMost: fast.feed.value / 2 }), { depth: 2, width: 6 });
    expect(held.chip.value / fast.chip.value).toBeCloseTo(1, 1);
    expect(held.spindle.value).toBeLessThan(0.55 * fast.spindle.value);
    expect(held.spindle.reason).toMatch(/slowed from/);
  });
  it("follow a pace and a spindle speed that a person set", () => {
    const bite = { depth: 2, width: 6 };
    const usual = feedsFor(on(STRONG), bite);
    expect(feedsFor(on(STRONG), bite, { pace: 0.5 }).feed.value / usual.feed.value).toBeCloseTo(0.5, 2);
    const half = feedsFor(on(STRONG), bite, { spindle: usual.spindle.value / 2 });
    expect(half.feed.value / usual.feed.value).toBeCloseTo(0.5, 2);
    expect(half.chip.value).toBeCloseTo(usual.chip.value, 3);
  });
  it("a cutter that does not cut at its centre sinks slowest, and metal is entered slowly", () => {
    const share = (c: Cutter, m = ash) => {
      const f = feedsFor(on(STRONG, c, m), { depth: 0.1, width: c.diameter });
      return f.plunge.value / f.feed.value;
    };
    expect(share({ ...flat, centreCutting: false })).toBeLessThan(share(flat));
    expect(share(flat, materialNamed("brass"))).toBeLessThan(share(flat));
  });
  it("the chip at any feed is what the feed leaves for a tooth", () => {
    const random = seeded(77);
    for (let k = 0; k < 200; k++) {
      const [feed, spindle] = [100 + 5000 * random(), 5000 + 20000 * random()];
      const chip = chipAt(on(), { depth: 1, width: 6 }, { feed, spindle });
      expect(chip.value).toBeCloseTo(feed / spindle / 2, 9);
      expect(chip.rubs).toBeLessThan(chip.usual);
      expect(chip.breaks).toBeGreaterThanOrEqual(chip.usual);
    }
  });
});

describe("bending", () => {
  it("is a cantilever's: F·L³/3EI, eight times as far at twice the length, a sixteenth at twice the width", () => {
    const c = parseCutter("flat:3");
    const at = (more: Partial<Cutter>) => bendPerNewton({ ...c, ...more });
    expect(at({ reach: 24 }) / at({ reach: 12 })).toBeCloseTo(8, 6);
    expect(at({ diameter: 6 }) / at({})).toBeCloseTo(1 / 16, 6);
    // 1 N at the end of a carbide bar of 2.4 mm that stands out 12 mm.
    expect(at({ reach: 12 })).toBeCloseTo((12 ** 3 * 64) / (3 * 600_000 * Math.PI * 2.4 ** 4), 12);
  });
  it("slows long thin cutters and takes less at once, never past the limit where a chip can still be made", () => {
    const brass = materialNamed("brass");
    const short = parseCutter("flat:2");
    const long = { ...short, reach: 30 };
    const feed = (c: Cutter) => feedsFor(on(STRONG, c, brass), { depth: 0.3, width: 2 });
    expect(feed(long).feed.value).toBeLessThan(feed(short).feed.value);
    expect(feed(long).feed.reason).toMatch(/bends no more than/);
    expect(usualStepdown({ cutter: long, material: brass }).value).toBeLessThan(
      usualStepdown({ cutter: short, material: brass }).value,
    );
    for (const material of SHOP.materials)
      for (const cutter of SHOP.cutters.filter((c) => c.kind === "flat" || c.kind === "ball")) {
        const depth = usualStepdown({ cutter, material }).value;
        const { chip } = feedsFor(on(STRONG, cutter, material), { depth, width: cutter.diameter });
        const bend = bendPerNewton(cutter) * toothForce(material, chip.value, depth);
        expect(bend, `${cutter.name} in ${material.name}`).toBeLessThan(1.15 * MOST_BEND);
      }
  });
});

describe("default feeds", () => {
  it("neither rub nor break, whatever is cut with what on which machine; unless the machine is too weak for it", () => {
    const random = seeded(12);
    for (const machine of MACHINES.filter((m) => m.power > 1))
      for (const material of SHOP.materials)
        for (const cutter of SHOP.cutters.filter((c) => c.kind !== "torch")) {
          const tooling = { cutter, material, machine };
          const depth = usualStepdown(tooling).value * (0.2 + 0.8 * random());
          const bite = { depth, width: cutter.diameter * (0.02 + 0.98 * random()) };
          const f = feedsFor(tooling, bite);
          if (/held by/.test(f.feed.reason)) continue;
          const chip = chipAt(tooling, bite, { feed: f.feed.value, spindle: f.spindle.value });
          const what = `${cutter.name} in ${material.name} on ${machine.name}, ${JSON.stringify(bite)}`;
          expect(chip.value, what).toBeGreaterThan(0.95 * chip.rubs);
          expect(chip.value, what).toBeLessThan(1.05 * chip.breaks);
        }
  });
});

describe("a spindle's speed", () => {
  it("is what it can turn: within its range, or its step below", () => {
    expect(spindleSpeed(ROUTER, 1e9)).toBe(ROUTER.spindleMost);
    expect(spindleSpeed(ROUTER, 1)).toBe(ROUTER.spindleLeast);
    const stepped = { ...ROUTER, spindleSteps: [10000, 17000, 24000] };
    expect([5000, 10000, 16999, 17000, 30000].map((s) => spindleSpeed(stepped, s))).toEqual([
      10000, 10000, 10000, 17000, 24000,
    ]);
  });
});

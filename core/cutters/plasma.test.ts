import { describe, expect, it } from "vitest";
import { planOn } from "../testing/cutting.ts";
import { seeded } from "../testing/random.ts";
import { materialNamed, ROUTER } from "../testing/shop.ts";
import { feedsFor } from "./feeds.ts";
import { powerAt } from "./machine.ts";
import { plasmaFor } from "./plasma.ts";
import { parseCutter } from "./rack.ts";

const steel = materialNamed("steel");
const sheets = [
  [2, 5000, 1.2, 3, 0.3, 1.5, 40],
  [6, 1000, 2, 4, 0.7, 2.5, 80],
];

describe("a torch by its material's table", () => {
  it("has the figures of a row at its thickness, and those on the line between two rows", () => {
    const own = { ...steel, sheets };
    const at = (t: number) => {
      const { feed, pierceHeight, pierceDelay, cutHeight, kerf } = plasmaFor(own, t);
      return [feed, pierceHeight, pierceDelay, cutHeight].map((r) => r.value).concat(kerf!);
    };
    expect(at(2)).toEqual([5000, 3, 0.3, 1.5, 1.2]);
    expect(at(6)).toEqual([1000, 4, 0.7, 2.5, 2]);
    expect(at(4)).toEqual([3000, 3.5, 0.5, 2, 1.6]);
    expect(plasmaFor(own, 4).feed.reason).toBe("4 mm in the table of mild steel, 60 A");
  });

  it("beyond its rows it has the nearest ones, and says so", () => {
    const own = { ...steel, sheets: [...sheets].reverse() };
    expect(plasmaFor(own, 20).feed).toEqual({
      value: 1000,
      reason: "nearest thickness in the table of mild steel, 80 A",
    });
    expect(plasmaFor(own, 0.5).feed.value).toBe(5000);
  });

  it("a kerf far from the table's is asked about", () => {
    const square = {
      xy: Float64Array.of(20, 20, 70, 20, 70, 70, 20, 70),
      starts: Int32Array.of(0, 4),
      parent: Int32Array.of(-1),
    };
    const codes = (kerf: number) =>
      planOn("plasma", square, `torch:${kerf}`, {}, { material: steel }).notes.map((n) => n.code);
    expect(codes(1.6)).not.toContain("kerf-unlike-table");
    expect(codes(4)).toContain("kerf-unlike-table");
  });
});

describe("power by speed", () => {
  const machine = {
    ...ROUTER,
    power: 900,
    powerBySpeed: [
      [8000, 300],
      [16000, 900],
    ],
  };
  it("lies between its rows, and is the nearest beyond", () => {
    expect([4000, 8000, 12000, 20000].map((v) => powerAt(machine, v))).toEqual([300, 300, 600, 900]);
    expect(powerAt(ROUTER, 9000)).toBe(ROUTER.power);
  });
  it("holds it at whatever speed the spindle comes to, slowed for the machine's largest feed too", () => {
    const random = seeded(5);
    for (let k = 0; k < 300; k++) {
      // Much less power at low speed: a spindle slowed by half has less than half of it.
      const powerBySpeed = [
        [8000, 10],
        [24000, 900],
      ];
      const own = { ...machine, powerBySpeed, feedMost: 300 + 6000 * random() ** 2 };
      const tooling = {
        cutter: parseCutter(`flat:${3 + 9 * random()}`, []),
        material: materialNamed("oak"),
        machine: own,
      };
      const bite = { depth: 0.3 + 8 * random(), width: tooling.cutter.diameter };
      const { feed, spindle } = feedsFor(tooling, bite);
      const watts = (feed.value / 60) * bite.depth * bite.width * tooling.material.specificEnergy;
      // Slow feeds are rounded to fives.
      expect(watts).toBeLessThan(powerAt(own, spindle.value) * (1 + 5 / feed.value) + 1e-6);
    }
  });
  it("holds the feed where the spindle turns slowly, and says at which speed", () => {
    const tooling = { cutter: parseCutter("flat:12", []), material: materialNamed("oak"), machine };
    const { feed } = feedsFor(tooling, { depth: 20, width: 12 }, { spindle: 8000 });
    // removal rate × specific cutting energy keeps to the power there
    expect(((feed.value / 60) * 20 * 12 * tooling.material.specificEnergy) / 300).toBeLessThan(1.02);
    expect(feed.reason).toMatch(/held by 300 W at 8000\/min/);
  });
});

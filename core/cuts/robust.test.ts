import { describe, expect, it } from "vitest";
import { emptyRings, ringsFrom, type Rings } from "../geometry/rings.ts";
import { profileOf } from "../cutters/profile.ts";
import { newSurface } from "../proof/surface.ts";
import { sweep } from "../proof/sweep.ts";
import { planOn } from "../testing/cutting.ts";
import { circle, seeded, star } from "../testing/random.ts";
import type { Peer } from "./kind.ts";
import { CUTS } from "./register.ts";
import { cutterOf } from "../testing/shop.ts";
import { Span } from "../testing/span.ts";

type Loop = [number, number][];
const square: Loop = [
  [30, 30],
  [70, 30],
  [70, 70],
  [30, 70],
];
const random = seeded(11);

/** Outlines that no tracing of ours makes, but that may come from anywhere. */
const bad: [string, Rings][] = [
  ["nothing", emptyRings()],
  [
    "two points",
    ringsFrom([
      [
        [10, 10],
        [40, 40],
      ],
    ]),
  ],
  ["one point over and over", ringsFrom([Array.from({ length: 12 }, (): [number, number] => [50, 50])])],
  [
    "three points in a line",
    ringsFrom([
      [
        [10, 10],
        [40, 40],
        [70, 70],
      ],
    ]),
  ],
  ["a square with every point twice", ringsFrom([square.flatMap((p) => [p, p] as Loop)])],
  [
    "a square with a hair",
    ringsFrom([
      [
        [30, 30],
        [70, 30],
        [70, 50],
        [90, 50],
        [70, 50],
        [70, 70],
        [30, 70],
      ],
    ]),
  ],
  ["the same square twice", ringsFrom([square, square])],
  [
    "two squares sharing an edge",
    ringsFrom([
      square,
      [
        [70, 30],
        [90, 30],
        [90, 70],
        [70, 70],
      ],
    ]),
  ],
  [
    "two squares touching in a corner",
    ringsFrom([
      square,
      [
        [70, 70],
        [90, 70],
        [90, 90],
        [70, 90],
      ],
    ]),
  ],
  [
    "a bow tie",
    ringsFrom([
      [
        [30, 30],
        [70, 70],
        [70, 30],
        [30, 70],
      ],
    ]),
  ],
  [
    "a star that crosses itself",
    ringsFrom([
      Array.from({ length: 5 }, (_, k): [number, number] => [
        50 + 30 * Math.cos((4 * Math.PI * k) / 5),
        50 + 30 * Math.sin((4 * Math.PI * k) / 5),
      ]),
    ]),
  ],
  ["a hole without ink round it", ringsFrom([circle(50, 50, 20, 60, true)])],
  ["a hole larger than its ink", ringsFrom([square, circle(50, 50, 40, 60, true)])],
  ["a speck", ringsFrom([circle(50, 50, 0.004, 12)])],
  [
    "a sliver",
    ringsFrom([
      [
        [40, 50],
        [60, 50],
        [60, 50.0005],
      ],
    ]),
  ],
  [
    "scribble",
    ringsFrom([Array.from({ length: 40 }, (): [number, number] => [20 + 60 * random(), 20 + 60 * random()])]),
  ],
];
describe("outlines that are none", () => {
  for (const { kind, sample } of CUTS)
    it(`${kind}: plans something or says why not, ends, never leaves the stock's neighbourhood`, () => {
      const target: Peer | undefined = sample.helps && {
        id: "t",
        kind: sample.helps.kind,
        cutter: cutterOf(sample.helps.cutter),
        settings: {},
      };
      for (const [name, region] of bad) {
        const plan = planOn(kind, region, sample.cutter, {}, { target });
        const t = plan.toolpath;
        // Nothing to cut is nothing cut, not the frame that the plan looked at.
        if (/nothing|two points|over and over/.test(name) && !sample.followsLines)
          expect(t.kind.length, `${kind}, ${name}`).toBe(0);
        const [away, numbers] = [new Span(), new Span()];
        for (let i = 0; i < t.kind.length; i++) {
          numbers.take(t.x[i] + t.y[i] + t.z[i] + t.feed[i], () => `move ${i}`);
          away.take(Math.max(Math.abs(t.x[i] - 50), Math.abs(t.y[i] - 50)), () => `move ${i}`);
        }
        if (t.kind.length > 0)
          expect(Number.isFinite(numbers.most - numbers.least), `${kind}, ${name}: ${numbers.mostAt}`).toBe(true);
        expect(away.most, `${kind}, ${name}: ${away.mostAt}`).toBeLessThan(120);
        expect(t.kind.length, `${kind}, ${name}`).toBeLessThan(60_000);
        sweep(newSurface(100, 100, 1, 20), t, profileOf(cutterOf(sample.cutter)), 1);
      }
    });
});

describe("settings at their ends", () => {
  const region = ringsFrom([star(seeded(3), 9, 20, 40, 50, 50), circle(50, 50, 6, 40, true)]);
  const cases: [string, string, Record<string, number | string | boolean>, string[]][] = [
    ["pocket", "flat:4", { stepover: 0.01, depth: 0.01, stepdown: 0.005, finish: 0 }, []],
    ["pocket", "flat:90", {}, ["cutter-too-wide"]],
    ["pocket", "flat:4", { stepover: 100 }, ["stepover-too-wide"]],
    ["hatch", "v:60:80", { depth: 50, spacing: 100 }, ["cutter-too-wide"]],
    ["profile", "flat:200", {}, ["hole-too-small"]],
    ["profile", "flat:4", { tabs: 40, tabWidth: 50 }, ["tabs-do-not-fit"]],
    ["vcarve", "v:60:12", { floor: 0.01 }, []],
    ["plasma", "torch:150", { side: "inside" }, ["narrower-than-kerf"]],
    ["plasma", "torch:1.5", { lead: 50 }, []],
    ["drill", "drill:40", { most: 0.1 }, ["nothing-to-drill"]],
  ];
  for (const [kind, cutter, own, codes] of cases)
    it(`${kind} ${cutter} ${JSON.stringify(own)}: ${codes.join(", ") || "cuts"}`, () => {
      const plan = planOn(kind, region, cutter, own);
      expect(plan.notes.map((n) => n.code)).toEqual(expect.arrayContaining(codes));
      if (codes.length === 0) expect(plan.toolpath.kind.length).toBeGreaterThan(3);
      for (const n of plan.notes) expect(n.message).toMatch(/^[A-Z0-9].*\.$/);
    });
});

import { describe, expect, it } from "vitest";
import { machineIn } from "../shop/shop.ts";
import { materialNamed, SHOP } from "../testing/shop.ts";
import { usualStepover } from "../cuts/fields.ts";
import { feedsFor, usualStepdown } from "./feeds.ts";
import { parseCutter } from "./rack.ts";

/**
 * What experienced people set on a screw-driven bench router: usual practice in the trade, written down without the
 * formulas in view, so that neither a timid nor a bold default passes. Feeds in mm/min, speeds in 1/min, passes in mm.
 */
type Range = [least: number, most: number];
interface Usual {
  cutter: string;
  material: string;
  feed: Range;
  spindle: Range;
  stepdown: Range;
  /** of points and balls: how deep they go at once, mm */
  depth?: number;
}
const row = (
  cutter: string,
  material: string,
  feed: Range,
  spindle: Range,
  stepdown: Range,
  depth?: number,
): Usual => ({
  cutter,
  material,
  feed,
  spindle,
  stepdown,
  depth,
});

const USUAL: Usual[] = [
  row("flat:1", "ash", [300, 900], [16000, 24000], [0.25, 0.75]),
  row("flat:1", "mdf", [400, 1200], [16000, 24000], [0.3, 1]),
  row("flat:1", "brass", [100, 400], [15000, 24000], [0.05, 0.2]),
  row("flat:2", "maple", [700, 1500], [16000, 24000], [0.5, 1.5]),
  row("flat:2", "plywood", [800, 1800], [16000, 24000], [0.5, 1.5]),
  row("flat:2", "acrylic", [700, 1800], [14000, 24000], [0.4, 1.5]),
  row("flat:2", "aluminium", [300, 900], [15000, 24000], [0.15, 0.5]),
  row("flat:3", "pine", [1500, 3000], [15000, 24000], [1.5, 3]),
  row("flat:3", "lime", [1300, 2600], [15000, 24000], [1, 3]),
  row("flat:3", "ash", [1200, 2400], [15000, 24000], [1, 2.5]),
  row("flat:3", "oak", [1200, 2200], [15000, 24000], [1, 2.2]),
  row("flat:3", "maple", [1200, 2200], [15000, 24000], [1, 2.2]),
  row("flat:3", "walnut", [1200, 2400], [15000, 24000], [1, 2.5]),
  row("flat:3", "mdf", [1500, 3000], [15000, 24000], [1.2, 3]),
  row("flat:3", "plywood", [1300, 2500], [15000, 24000], [1, 2.5]),
  row("flat:3", "acrylic", [1000, 2400], [12000, 24000], [0.6, 2]),
  row("flat:3", "brass", [250, 700], [9000, 18000], [0.15, 0.6]),
  row("flat:3", "aluminium", [400, 1100], [12000, 22000], [0.2, 0.8]),
  row("flat:3", "steel", [80, 300], [4000, 9000], [0.05, 0.3]),
  row("flat:6", "pine", [3000, 6000], [15000, 24000], [3, 6]),
  row("flat:6", "lime", [2500, 5000], [15000, 24000], [2.5, 6]),
  row("flat:6", "ash", [2200, 4000], [14000, 24000], [2, 5]),
  row("flat:6", "oak", [2000, 3800], [14000, 24000], [2, 4.5]),
  row("flat:6", "walnut", [2200, 4000], [14000, 24000], [2, 5]),
  row("flat:6", "mdf", [2800, 6000], [15000, 24000], [2.5, 6]),
  row("flat:6", "plywood", [2200, 4500], [15000, 24000], [2, 5]),
  row("flat:6", "acrylic", [1500, 3200], [10000, 18000], [1.2, 4]),
  row("flat:6", "brass", [250, 900], [5000, 10000], [0.3, 1.2]),
  row("flat:6", "aluminium", [500, 1500], [8000, 16000], [0.4, 1.8]),
  row("flat:6", "steel", [150, 500], [3000, 7000], [0.1, 0.6]),
  row("flat:10", "ash", [2000, 4500], [10000, 18000], [3, 8]),
  row("flat:10", "pine", [3000, 6000], [11000, 18000], [4, 10]),
  row("flat:12", "mdf", [3000, 6000], [9000, 16000], [4, 10]),
  row("ball:3", "lime", [1500, 4000], [15000, 24000], [0.8, 3], 0.5),
  row("ball:3", "walnut", [1500, 3500], [15000, 24000], [0.8, 2.5], 0.5),
  row("ball:6", "pine", [3000, 6000], [15000, 24000], [2, 6], 1),
  row("v:60:12", "ash", [1500, 3200], [15000, 24000], [3, 8], 3),
  row("v:60:12", "oak", [1400, 3000], [15000, 24000], [3, 8], 3),
  row("v:60:12", "mdf", [2000, 4000], [15000, 24000], [3, 9], 3),
  row("v:60:12", "acrylic", [1200, 3000], [12000, 24000], [2, 6], 2),
  row("v:90:16", "maple", [1800, 3800], [12000, 24000], [3, 9], 3),
  row("v:90:16", "plywood", [2000, 4200], [12000, 24000], [3, 9], 3),
  row("v:30:6:0.2", "walnut", [700, 2000], [15000, 24000], [1.5, 5], 1),
  row("v:20:3:0.1", "brass", [100, 600], [10000, 24000], [0.1, 0.5], 0.2),
  row("v:20:3:0.1", "ash", [400, 1200], [15000, 24000], [0.5, 2], 0.3),
  row("taper:0.5:5:6", "lime", [1200, 2800], [15000, 24000], [0.5, 3], 0.5),
  row("taper:0.5:5:6", "maple", [1000, 2400], [15000, 24000], [0.5, 3], 0.5),
  row("taper:1:5:6", "walnut", [1500, 3500], [15000, 24000], [1, 3.5], 0.5),
];

/** How far apart the passes of a finishing cutter usually lie, as a share of its diameter or tip. */
const FINE = 0.1;

describe("default feeds lie where experienced people's do", () => {
  const machine = machineIn(SHOP, "bench-router");
  it("for at least forty pairs of cutter and material, every material but the sheet metals' hardest among them", () => {
    expect(USUAL.length).toBeGreaterThanOrEqual(40);
    const told = new Set(USUAL.map((u) => u.material));
    expect(SHOP.materials.map((m) => m.id).filter((id) => !told.has(id))).toEqual(["stainless"]);
  });
  for (const u of USUAL)
    it(`${u.cutter} in ${u.material}`, () => {
      const cutter = parseCutter(u.cutter);
      const material = materialNamed(u.material);
      const stepdown = usualStepdown({ cutter, material }).value;
      const depth = u.depth ?? stepdown;
      const isFinishing = cutter.kind === "ball" || cutter.kind === "taper";
      const fine = FINE * (cutter.kind === "taper" ? 2 * cutter.tipRadius! : cutter.diameter);
      const flat = cutter.kind === "flat" ? usualStepover(cutter, material).value : cutter.diameter;
      const width = isFinishing ? fine : flat;
      const { feed, spindle } = feedsFor({ cutter, material, machine }, { depth, width });
      const within = (value: number, [least, most]: Range) => value >= least && value <= most;
      expect(within(feed.value, u.feed), `feed ${feed.value}`).toBe(true);
      expect(within(spindle.value, u.spindle), `spindle ${spindle.value}`).toBe(true);
      expect(within(stepdown, u.stepdown), `stepdown ${stepdown}`).toBe(true);
    });
});

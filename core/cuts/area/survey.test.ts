import { describe, expect, it } from "vitest";
import { clearanceOf, inset } from "../../geometry/clearance/clearance.ts";
import { mended } from "../../geometry/mend.ts";
import { ringIndices, type Rings, ringsFrom, ringsLength } from "../../geometry/rings.ts";
import { Kept } from "../../kept.ts";
import { blob, circle, seeded, star } from "../../testing/random.ts";
import { ROUTER } from "../../testing/shop.ts";
import { moveSeconds } from "../../toolpath/time.ts";
import { RAPID, ToolpathWriter } from "../../toolpath/toolpath.ts";
import { Parts } from "./parts.ts";
import { liftSeconds, surveyIn } from "./survey.ts";

const surveyOf = (region: Rings) => surveyIn({ kept: new Kept(), clearance: (r) => clearanceOf(r) }, region);

/** Two discs of 20 and 12 mm across, joined by a bar. */
const joined = (bar: number): Rings =>
  mended(
    ringsFrom([
      circle(30, 50, 10, 200),
      circle(60, 50, 6, 200),
      [
        [30, 50 - bar / 2],
        [60, 50 - bar / 2],
        [60, 50 + bar / 2],
        [30, 50 + bar / 2],
      ],
    ]),
  );

describe("what rings inside a region would come to", () => {
  it("their length, added up over even steps, is that of the rings themselves", () => {
    for (let seed = 1; seed <= 12; seed++) {
      const random = seeded(seed);
      const loop =
        seed % 2 ? blob(random, 240, 15 + 20 * random(), 50, 50, 0.3 * random()) : star(random, 9, 14, 40, 50, 50);
      const region = mended(ringsFrom([loop, circle(50, 50, 3, 60, true)]));
      const c = clearanceOf(region);
      const survey = surveyOf(region);
      const step = c.widest / (12 + 10 * random());
      let [told, real] = [0, 0];
      for (let d = step * random(); d < c.widest; d += step) {
        told += survey.length(d);
        real += ringsLength(inset(c, d).rings);
      }
      expect(told / real, `seed ${seed}`).toBeGreaterThan(0.98);
      expect(told / real, `seed ${seed}`).toBeLessThan(1.02);
      expect(survey.length(c.widest)).toBe(0);
    }
  });

  it("how many curves there are: of two places joined by a neck one until the neck ends, then two, then one", () => {
    const survey = surveyOf(joined(4));
    expect([1, 3, 7, 11].map((d) => survey.curves(d))).toEqual([1, 2, 1, 0]);
  });

  it("pieces that end before a distance: those that no ring at that distance lies in", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const random = seeded(seed);
      // Discs of 2 to 12 mm in a row, most of which join or all but join.
      let x = 0;
      const discs = Array.from({ length: 8 }, () => {
        const r = 1 + 5 * random();
        x += r * (1 + 0.7 * random());
        const loop = circle(x, 50 + random(), r, 90);
        x += 0.6 * r;
        return loop;
      });
      const region = mended(ringsFrom(discs));
      const c = clearanceOf(region);
      const survey = surveyOf(region);
      const from = 0.8 * c.widest * random();
      const to = from + (c.widest - from) * random();
      const outer = new Parts(inset(c, from).rings);
      const within = inset(c, to).rings;
      const reached = new Set(ringIndices(within).map((k) => outer.ofRing(within, k)));
      expect(survey.ends(from, to), `seed ${seed}`).toBe(outer.count - reached.size);
      expect(survey.curves(from), `seed ${seed}`).toBe(outer.count);
    }
  });

  it("groups of rings: one for each place that rings close round, until the neck between two holds one", () => {
    const survey = surveyOf(joined(4));
    // Rings from 1 mm in, 2 mm apart: at 1 mm one goes round both, the next ones are parted by the neck of 2.
    expect(survey.groups(1, 2)).toBe(2);
    // Rings that begin beyond the neck are two groups whatever their step; beyond the smaller disc there is one.
    expect(survey.groups(3, 20)).toBe(2);
    expect(survey.groups(7, 1)).toBe(1);
    expect(survey.groups(11, 1)).toBe(0);
    // A bar as wide as the smaller disc has no neck.
    expect(surveyOf(joined(11.99)).groups(1, 2)).toBe(1);
  });

  it("a lift takes what the machine takes for one", () => {
    const w = new ToolpathWriter(1000, 300, ROUTER.rapid);
    w.above(0, 0);
    w.plunge(-3);
    w.above(40, 0);
    w.plunge(-3);
    const path = w.take();
    const seconds = moveSeconds(path, ROUTER);
    // From the first time down at depth to the second time down at the stock.
    const from = path.kind.findIndex((k, i) => k !== RAPID && path.z[i] === -3);
    let taken = 0;
    for (let i = from + 1; path.kind[i] === RAPID; i++) taken += seconds[i];
    expect(liftSeconds(ROUTER, 3, 40) / taken).toBeGreaterThan(0.9);
    expect(liftSeconds(ROUTER, 3, 40) / taken).toBeLessThan(1.1);
  });
});

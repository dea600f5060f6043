import { describe, expect, it } from "vitest";
import { cutterIn } from "../cutters/rack.ts";
import { type Cutter, describeCutters } from "../cutters/profile.ts";
import { Kept } from "../kept.ts";
import { estimateWith, lastOf, secondsWith, setsOfFlats, toPlan } from "../testing/choosing.ts";
import { begun, SHOP } from "../testing/shop.ts";
import { bowlsDrawn, drawn } from "../testing/drawn.ts";
import { seeded } from "../testing/random.ts";
import type { Raster } from "../picture/raster.ts";
import { chooseAll } from "./choose.ts";
import { setHelpers, takeCutters } from "./edit.ts";
import { isMore } from "./leaves.ts";
import { planCuts } from "./plan.ts";
import { totalSeconds } from "./prove.ts";
import { onePicture } from "./tools.ts";

const STOCK = { width: 150, height: 100, thickness: 18 };

/** Dark shapes on white, soft at their edges: bars, discs and rings of every size. */
function picture(seed: number): Raster {
  const random = seeded(seed);
  const [width, height] = [300, 200];
  const discs = Array.from({ length: 2 + Math.floor(7 * random()) }, () => ({
    x: width * (0.1 + 0.8 * random()),
    y: height * (0.15 + 0.7 * random()),
    r: 4 + 60 * random() ** 2,
    hollow: random() < 0.4 ? random() : 0,
    bar: random() < 0.4,
  }));
  const data = new Uint8Array(4 * width * height).fill(255);
  for (let k = 0; k < width * height; k++) {
    const [x, y] = [k % width, Math.floor(k / width)];
    let ink = 0;
    for (const d of discs) {
      const off = d.bar ? Math.max(Math.abs(x - d.x), 3 * Math.abs(y - d.y)) : Math.hypot(x - d.x, y - d.y);
      ink = Math.max(ink, Math.min(1, d.r - off, off - d.hollow * d.r + 1));
    }
    data.fill(255 * (1 - Math.max(0, ink)), 4 * k, 4 * k + 3);
  }
  return { width, height, data };
}

const FLATS = ["flat10", "flat6", "flat3", "flat2"].map((id) => cutterIn(SHOP.cutters, id));

describe("clearing cutters by themselves", () => {
  for (const outcome of ["sign", "raised"])
    it(`${outcome}: within 5 % of the fastest of all sets of up to two, on pictures of every character`, () => {
      const sets = setsOfFlats();
      const off: number[] = [];
      let others = 0;
      for (let seed = 1; seed <= 7; seed++) {
        const raster = picture(10 * seed + outcome.length);
        const { job, planning } = toPlan(outcome, raster, STOCK);
        const all = sets.map((set) => secondsWith(job, planning, set));
        const chosen = chooseAll(job, SHOP.cutters, onePicture(raster), planning.kept);
        const [{ tried }] = chosen.choices;
        const mine = totalSeconds(chosen.job, planCuts(chosen.job, planning));
        expect(tried[0].seconds, `seed ${seed}`).toBeCloseTo(mine, 6);
        expect(mine / Math.min(...all), `seed ${seed}`).toBeLessThan(1.05);
        if (mine < 0.8 * secondsWith(job, planning, [FLATS[2]])) others++;
        // Of sets that anybody would think of, times are told before they are planned.
        sets.forEach((set, i) => {
          if (all[i] < 2 * Math.min(...all)) off.push(estimateWith(job, planning, set) / all[i]);
        });
      }
      const near = off.filter((r) => Math.abs(r - 1) < 0.15).length;
      expect(near / off.length, off.join()).toBeGreaterThan(0.85);
      for (const r of off) expect(Math.abs(r - 1), off.join()).toBeLessThan(0.2);
      // One cutter for everything would often take much longer.
      expect(others).toBeGreaterThan(outcome === "raised" ? 4 : 0);
    });

  it("says of none that leaves as little that it is quicker than the one taken, when times are told too short", () => {
    const raster = picture(127);
    const { job, planning } = toPlan("sign", raster, STOCK);
    const [{ tried }] = chooseAll(job, SHOP.cutters, onePicture(raster), planning.kept).choices;
    const rivals = tried.slice(1).filter((t) => !isMore(t.left, tried[0].left));
    const promised = Math.min(...rivals.map((t) => estimateWith(job, planning, t.cutters)));
    expect(promised).toBeLessThan(0.95 * tried[0].seconds);
    // Fewer cutters are taken where they take 3 % longer.
    for (const t of rivals) expect(t.seconds).toBeGreaterThan(tried[0].seconds / 1.031);
  });

  it("takes no less time for the second of two than is told before anything is planned", () => {
    let said = 0;
    for (const outcome of ["sign", "raised", "pocket"])
      for (let seed = 1; seed <= 4; seed++) {
        const { job, planning } = toPlan(outcome, picture(100 * seed + outcome.length), STOCK);
        for (const set of setsOfFlats().filter((s) => s.length === 2)) {
          const { least, taken } = lastOf(job, planning, set);
          expect(least, `${outcome}, seed ${seed}, ${describeCutters(set)}`).toBeLessThan(taken + 0.01);
          if (least > 0.2 * taken) said++;
        }
      }
    // It says something.
    expect(said).toBeGreaterThan(20);
  });

  it("are none where there are none in the rack, and leave a job without a carve as it is", () => {
    const raster = picture(5);
    const { job, planning } = toPlan("sign", raster, STOCK);
    const files = onePicture(raster);
    const none = chooseAll(
      job,
      SHOP.cutters.filter((c) => c.kind !== "flat"),
      files,
      planning.kept,
    );
    expect(none.job.cuts.map((c) => c.id)).toEqual(["carve"]);
    expect(none.choices[0].reason).toMatch(/^none: /);
    const lines = toPlan("engrave", raster, STOCK);
    expect(chooseAll(lines.job, SHOP.cutters, files, lines.planning.kept)).toEqual({ job: lines.job, choices: [] });
  });

  it("are none whose flutes end above the floor", () => {
    const raster = picture(7);
    const { job, planning } = toPlan("raised", raster, { ...STOCK, thickness: 30 });
    job.cuts.find((c) => c.id === "carve")!.settings = { floor: 10 };
    const [{ tried }] = chooseAll(job, SHOP.cutters, onePicture(raster), planning.kept).choices;
    for (const t of tried) for (const c of t.cutters) expect(c.fluteLength).toBeGreaterThanOrEqual(10);
    expect(tried[0].cutters.length).toBeGreaterThan(0);
  });

  it("a picture without ink is left to say so itself", () => {
    const white: Raster = { width: 20, height: 20, data: new Uint8Array(1600).fill(255) };
    const asset = { sha: "0".repeat(64), name: "white.png", width: 20, height: 20 };
    const job = begun("sign", asset, STOCK);
    expect(chooseAll(job, SHOP.cutters, onePicture(white), new Kept())).toEqual({ job, choices: [] });
  });

  it("of the helpers that there were, the same cutters keep their settings, and stops stay", () => {
    const { job } = toPlan("sign", picture(3), STOCK);
    const carve = job.cuts.find((c) => c.id === "carve")!;
    setHelpers(job, carve, "clear", [FLATS[1], FLATS[2]]);
    job.cuts[1].settings = { stepover: 0.7 };
    job.cuts[0].stop = { what: "paint", note: "two coats" };
    setHelpers(job, carve, "clear", [FLATS[2]]);
    const paint = { what: "paint", note: "two coats" };
    expect(job.cuts.map((c) => [c.kind, c.cutter.id, c.settings, c.stop])).toEqual([
      ["clear", "flat3", { stepover: 0.7 }, paint],
      ["vcarve", "v60", {}, undefined],
    ]);
    // Without helpers it is done before the cut itself.
    setHelpers(job, carve, "clear", []);
    expect(job.cuts.map((c) => [c.kind, c.stop])).toEqual([["vcarve", paint]]);
  });
});

describe("a cut's own cutter, and those after it", () => {
  it("pocket: of all sets of up to two that leave as little, none is 5 % faster, fully planned", () => {
    const rack = FLATS.map((c) => ({ ...c, fluteLength: 30 }));
    for (let seed = 1; seed <= 3; seed++) {
      const raster = picture(40 + seed);
      const { job, planning } = toPlan("pocket", raster, STOCK);
      const { job: chosen, choices } = chooseAll(job, rack, onePicture(raster), planning.kept);
      const [{ tried }] = choices;
      const timed = (cutters: readonly Cutter[]) => {
        const own = structuredClone(job);
        takeCutters(own, own.cuts[0], { own: true, kind: "rest" }, cutters);
        return { own, seconds: totalSeconds(own, planCuts(own, planning)) };
      };
      const mine = timed(tried[0].cutters);
      expect(chosen.cuts).toEqual(mine.own.cuts);
      expect(tried[0].seconds).toBeCloseTo(mine.seconds, 6);
      const sets = [...rack.map((c) => [c]), ...rack.flatMap((a, i) => rack.slice(i + 1).map((b) => [a, b]))];
      const finest = Math.min(...tried[0].cutters.map((c) => c.diameter));
      // A finer last cutter leaves no more: its sets are as good.
      for (const set of sets.filter((s) => s[s.length - 1].diameter <= finest))
        expect(mine.seconds, `seed ${seed}: ${set.map((c) => c.id).join()}`).toBeLessThan(1.05 * timed(set).seconds);
      // What is quicker leaves more than anybody would want.
      for (const t of tried.filter((q) => q.seconds < tried[0].seconds / 1.05))
        expect(t.left.area).toBeGreaterThan(tried[0].left.area + t.left.spare / 2);
    }
  });

  it("cut-out: times are told before they are planned, ways down and over tabs too", () => {
    const off: number[] = [];
    // Down into holes hardly wider than the cutter it goes round and round, slowly.
    const sieve = drawn((x, y) => {
      const isPlate = x > 10 && x < 140 && y > 10 && y < 90;
      return isPlate && Math.hypot((x % 13) - 6.5, (y % 13) - 6.5) > 3.2 + (Math.floor(x / 13) % 3);
    });
    for (const raster of [sieve, ...[1, 2, 3, 4, 5, 6].map(picture)])
      for (const thickness of [6, 18]) {
        const { job, planning } = toPlan("cutout", raster, { ...STOCK, thickness });
        for (const flat of FLATS.slice(0, 2)) {
          const seconds = secondsWith(job, planning, [flat]);
          if (Number.isFinite(seconds)) off.push(estimateWith(job, planning, [flat]) / seconds);
        }
      }
    expect(off.length).toBeGreaterThan(12);
    for (const r of off) expect(Math.abs(r - 1), off.join()).toBeLessThan(0.15);
  });

  it("cut-out: none that would leave pieces joined, or a hole uncut, where a thinner one does not", () => {
    // Two plates 5 mm apart, one with a hole 4.4 mm wide.
    const raster = drawn((x, y) => {
      const isPlate = y > 20 && y < 80 && ((x > 20 && x < 70) || (x > 75 && x < 130));
      return isPlate && Math.hypot(x - 45, y - 50) > 2.2;
    });
    const { job, planning } = toPlan("cutout", raster, { ...STOCK, thickness: 6 });
    const [{ tried }] = chooseAll(job, SHOP.cutters, onePicture(raster), planning.kept).choices;
    expect(tried[0].cutters.map((c) => c.diameter)).toEqual([3]);
    const wide = tried.filter((t) => t.cutters[0].diameter > 5);
    expect(wide.length).toBeGreaterThan(0);
    for (const t of wide) expect(t.left.missing).toBeGreaterThan(0);
  });

  it("what was chosen by hand stays", () => {
    const raster = picture(41);
    const { job, planning } = toPlan("pocket", raster, STOCK);
    const mine = job.cuts[0].cutter;
    const files = onePicture(raster);
    const helped = chooseAll(job, SHOP.cutters, files, planning.kept, { fixed: { own: true, helpers: false } });
    expect(helped.job.cuts[0].cutter).toEqual(mine);
    expect(helped.choices.length).toBe(1);
    for (const helpers of [true, undefined]) {
      const kept = chooseAll(job, SHOP.cutters, files, planning.kept, { fixed: { own: true, helpers } });
      expect(kept).toEqual({ job, choices: [] });
    }
    const alone = chooseAll(job, SHOP.cutters, files, planning.kept, { fixed: { helpers: true } });
    expect(alone.job.cuts.length).toBe(1);
  });
});

describe("roughing cutters by themselves", () => {
  /** Steep steps from white to black. */
  const steps = drawn((x, y) => Math.floor(x / 30 + y / 40) % 2 === 0);

  it("come before a surface that is deeper than finishing takes at once, and leave it no more than that", () => {
    const { job, planning } = toPlan("relief", steps, STOCK);
    job.makings.find((m) => m.kind === "height")!.settings = { depth: 8 };
    const { job: chosen, choices } = chooseAll(job, SHOP.cutters, onePicture(steps), planning.kept);
    expect(chosen.cuts.map((c) => c.kind)).toContain("rough");
    const [{ tried }] = choices;
    const without = tried.find((t) => t.cutters.length === 0)!;
    expect(without.seconds).toBeLessThan(tried[0].seconds);
    expect(without.left.area).toBeGreaterThan(without.left.spare);
    // In the corners of upright steps every cutter leaves some.
    const least = Math.min(...tried.map((t) => t.left.area));
    expect(tried[0].left.area).toBeLessThanOrEqual(least + tried[0].left.spare);
    expect(least).toBeLessThan(without.left.area / 5);
  });

  it("are none that have nothing to do, and none promises to be faster without having been planned", () => {
    // Slots 4 mm wide, which the wider cutters cannot enter.
    const slots = drawn((x, y) => (x + 0.3 * y) % 12 < 4);
    const { job, planning } = toPlan("relief", slots, STOCK);
    job.makings.find((m) => m.kind === "height")!.settings = { depth: 6 };
    const [{ tried }] = chooseAll(job, SHOP.cutters, onePicture(slots), planning.kept).choices;
    const [taken, ...others] = tried;
    expect(taken.cutters.length).toBeGreaterThan(0);
    for (const { cutters } of tried) for (const c of cutters) expect(c.diameter).toBeLessThan(4);
    const rivals = others.filter((t) => !t.isPlanned && t.left.area <= taken.left.area);
    // Fewer cutters are taken where they take up to 3 % longer, and more are planned where they promise 3 % less.
    for (const { seconds } of rivals) expect(1.07 * seconds).toBeGreaterThan(taken.seconds);
  });

  it("have a way in wherever they cut, for a first look as for the programs", () => {
    const bowls = bowlsDrawn();
    for (const grain of [null, 0.8]) {
      const { job, planning } = toPlan("relief", bowls, STOCK);
      job.makings.find((m) => m.kind === "height")!.settings = { depth: 8 };
      const { job: chosen, choices } = chooseAll(job, SHOP.cutters, onePicture(bowls), planning.kept, { grain });
      expect(choices[0].tried[0].cutters.length).toBeGreaterThan(0);
      const notes = planCuts(chosen, { ...planning, grain }).flatMap((c) => c.notes);
      expect(notes.filter((n) => n.severity === "stop")).toEqual([]);
    }
  });

  it("are none before a shallow one", () => {
    const { job, planning } = toPlan("relief", steps, STOCK);
    job.makings.find((m) => m.kind === "height")!.settings = { depth: 0.5 };
    const { job: chosen } = chooseAll(job, SHOP.cutters, onePicture(steps), planning.kept);
    expect(chosen.cuts.map((c) => c.kind)).toEqual(["finish"]);
  });
});

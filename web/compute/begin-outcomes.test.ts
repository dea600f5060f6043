import { describe, expect, it } from "vitest";
import { usualStock } from "@oaken/core/job/document";
import { OUTCOMES } from "@oaken/core/job/outcomes";
import { Kept } from "@oaken/core/kept";
import type { Raster } from "@oaken/core/picture/raster";
import { SHOP } from "@oaken/core/testing/shop";
import "@oaken/core/testing/ready";
import { jobOf } from "../shop/begun.ts";
import type { BeginAsk, Picked } from "./begin-messages.ts";
import { Beginning } from "./begin-outcomes.ts";

/** A soft dark ring with a bar beside it, on white. */
function ringAndBar(width: number, height: number): Raster {
  const data = new Uint8Array(4 * width * height).fill(255);
  for (let k = 0; k < width * height; k++) {
    const [x, y] = [k % width, Math.floor(k / width)];
    const ring = Math.abs(Math.hypot(x - 0.35 * width, y - 0.5 * height) - 0.3 * height) - 0.1 * height;
    const bar = Math.max(Math.abs(x - 0.8 * width) - 0.06 * width, Math.abs(y - 0.5 * height) - 0.4 * height);
    data.fill(Math.max(20, Math.min(240, 130 + 60 * Math.min(ring, bar))), 4 * k, 4 * k + 3);
  }
  return { width, height, data };
}

const raster = ringAndBar(300, 200);
const asset = { sha: "0".repeat(64), name: "ring.png", width: raster.width, height: raster.height };
const stock = { ...usualStock(SHOP), width: 90, height: 60 };
const ask: BeginAsk = {
  seq: 1,
  sha: asset.sha,
  jobs: OUTCOMES.map((o) => jobOf(SHOP, o.id, asset, stock, null, {})),
  rack: SHOP.cutters,
  first: null,
};
/** What is done, step by step: which outcome, and whether its cutters were chosen by then. */
function stepsOf(beginning: Beginning, first: (done: number) => Picked | null): string[] {
  const steps: string[] = [];
  let before = JSON.stringify([]);
  for (let isMore = true; isMore;) {
    isMore = beginning.step(first(steps.length));
    const now = beginning.said.outcomes.map((o) => `${o.id}${o.isChosen ? "" : " usual"}`);
    steps.push(now.find((name) => !(JSON.parse(before) as string[]).includes(name))!);
    before = JSON.stringify(now);
  }
  return steps;
}

describe("what a picture could become", () => {
  const beginning = new Beginning(ask, raster, new Kept());
  const steps = stepsOf(beginning, () => null);
  const { said } = beginning;

  it("is looked at as a whole with the usual cutters, before any are chosen", () => {
    const looks = steps.slice(0, OUTCOMES.length);
    expect(looks.map((s) => s.replace(" usual", ""))).toEqual(said.order);
    const open = looks.filter((s) => s.endsWith(" usual")).map((s) => s.replace(" usual", ""));
    expect(open.length).toBeGreaterThan(3);
    expect(steps.slice(OUTCOMES.length)).toEqual(open);
  });

  it("comes with cutters of the rack, times and verdicts in the end, and a picture from the first look on", () => {
    for (const o of said.outcomes) {
      expect(o.isChosen, o.id).toBe(true);
      expect(o.picture, o.id).not.toBeNull();
      expect(o.suits, o.id).not.toBeNull();
      if (o.suits!.good) expect(o.seconds, o.id).toBeGreaterThan(0);
    }
    const early = new Beginning(ask, raster, new Kept());
    early.step(null);
    const [only] = early.said.outcomes;
    expect(only).toMatchObject({ id: said.order[0], isChosen: false, seconds: 0, suits: null, plans: [] });
    expect(only.picture).not.toBeNull();
  });

  it("what somebody waits for is looked at and chosen for before all others", () => {
    const third = said.order.filter((id) => steps.includes(`${id} usual`))[2];
    const waited = new Beginning({ ...ask, seq: 2 }, raster, new Kept());
    const order = stepsOf(waited, (done) => (done === 0 ? null : { id: third, isPrepared: false }));
    expect(order.slice(0, 3)).toEqual([steps[0], `${third} usual`, third]);
    expect([...order].sort()).toEqual([...steps].sort());
  });
});

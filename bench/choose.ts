import { type Cutter, describeCutters } from "@oaken/core/cutters/profile";
import { chooseAll } from "@oaken/core/job/choose";
import { isMore, leastOf } from "@oaken/core/job/leaves";
import { planCuts } from "@oaken/core/job/plan";
import { totalSeconds } from "@oaken/core/job/prove";
import { onePicture } from "@oaken/core/job/tools";
import { estimateWith, leftWith, secondsWith, setsFor, toPlan } from "@oaken/core/testing/choosing";
import { SHOP } from "@oaken/core/testing/shop";
import type { Raster } from "@oaken/core/picture/raster";
import { decodePicture } from "@oaken/files/decode";
import { benchColdChoice } from "./choose-cold.ts";
import { middle, row } from "./measure.ts";
import { picturesOfCharacters, STOCK } from "./pictures.ts";

/**
 * How often choosing and planning are done by turns, first to warm them up, then timed. Where a turn is short there are
 * more of them: as many as there is time for, ms.
 */
const WARM_UP = { least: 6, most: 15, time: 6000 };
const TIMED = { least: 9, most: 31, time: 12000 };

/**
 * Cutters chosen by themselves against every set of up to two that leaves as little, fully planned: how much slower,
 * how near the estimates were, and what choosing costs beyond planning the chosen set.
 */
export async function benchChoose(): Promise<void> {
  console.log("Cutters chosen by themselves, against all sets of up to two that leave as little, fully planned");
  const estimates: number[] = [];
  let [worst, dearest] = [1, 0];
  for (const [name, bytes] of await picturesOfCharacters()) {
    const raster = await decodePicture(bytes, `${name}.png`);
    for (const outcome of ["sign", "raised", "pocket", "cutout"]) {
      turns(WARM_UP, outcome, raster);
      const { chosen, again, mine, cost } = turns(TIMED, outcome, raster);
      const { choices } = chosen;
      if (choices.length === 0) continue;
      dearest = Math.max(dearest, cost);
      const [{ tried }] = choices;
      // Sets that leave more than can be had are no rivals.
      const least = leastOf(tried.map((t) => t.left));
      const leaves = (set: Cutter[]) => leftWith(again.job, again.planning, set)!;
      const sets = setsFor(again.job).filter((set) => !isMore(leaves(set), least));
      const all = sets.map((set) => secondsWith(again.job, again.planning, set));
      const best = Math.min(...all);
      sets.forEach((set, k) => {
        if (all[k] < 2 * best) estimates.push(estimateWith(again.job, again.planning, set) / all[k]);
      });
      worst = Math.max(worst, mine / best);
      const words = describeCutters(tried[0].cutters) || "none";
      row(
        `${name}, ${outcome}: ${words}`,
        `${(mine / best).toFixed(3)} ×`,
        `${Math.round(mine)} s; chosen in ${cost.toFixed(2)} × its planning`,
      );
    }
  }
  const near = estimates.filter((e) => Math.abs(e - 1) < 0.15).length;
  row("the slowest choice against the fastest set", `${worst.toFixed(3)} ×`, "asked 1.05");
  row("the dearest choice against planning what was chosen", `${dearest.toFixed(2)} ×`, "asked 1.5");
  row("estimates within 15 % of the planned time, of sets under twice the best", `${near} of ${estimates.length}`);
  await benchColdChoice();
}

/**
 * The first of some turns, and what choosing cost in all of them against planning: the middle of what each turn shows,
 * since the machine is now fast, now slow. More turns than the first are not held: they take memory.
 */
function turns({ least, most, time }: typeof TIMED, outcome: string, raster: Raster) {
  const from = performance.now();
  const first = turn(outcome, raster);
  const costs = [first.cost];
  const isTimeLeft = () => performance.now() - from < time;
  while (costs.length < least || (costs.length < most && isTimeLeft())) costs.push(turn(outcome, raster).cost);
  return { ...first, cost: middle(costs) };
}

/** Choosing and then planning what was chosen, each from nothing. */
function turn(outcome: string, raster: Raster) {
  const fresh = toPlan(outcome, raster, STOCK);
  const t0 = performance.now();
  const chosen = chooseAll(fresh.job, SHOP.cutters, onePicture(raster), fresh.planning.kept);
  const choosing = performance.now() - t0;
  const again = toPlan(outcome, raster, STOCK);
  const t1 = performance.now();
  const mine = totalSeconds(chosen.job, planCuts(chosen.job, again.planning));
  return { chosen, again, mine, cost: choosing / (performance.now() - t1) };
}

import { describeCutters } from "@oaken/core/cutters/profile";
import { chooseAll, type ChosenJob } from "@oaken/core/job/choose";
import { planCuts } from "@oaken/core/job/plan";
import { totalSeconds } from "@oaken/core/job/prove";
import { onePicture } from "@oaken/core/job/tools";
import { estimateWith, secondsWith, setsFor, toPlan } from "@oaken/core/testing/choosing";
import { SHOP } from "@oaken/core/testing/shop";
import { decodePicture } from "@oaken/files/decode";
import { row } from "./measure.ts";
import { picturesOfCharacters } from "./pictures.ts";

const STOCK = { width: 300, height: 200, thickness: 18 };
/** How often choosing and planning are timed. */
const TURNS = 3;

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
    for (const outcome of ["sign", "raised", "pocket"]) {
      // By turns, each from nothing: the machine is now faster, now slower.
      let [choosing, planning] = [Infinity, Infinity];
      let [chosen, again, mine] = [null as ChosenJob | null, toPlan(outcome, raster, STOCK), 0];
      for (let k = 0; k < TURNS; k++) {
        const fresh = toPlan(outcome, raster, STOCK);
        let t0 = performance.now();
        chosen = chooseAll(fresh.job, SHOP.cutters, onePicture(raster), fresh.planning.kept);
        choosing = Math.min(choosing, performance.now() - t0);
        again = toPlan(outcome, raster, STOCK);
        t0 = performance.now();
        mine = totalSeconds(chosen.job, planCuts(chosen.job, again.planning));
        planning = Math.min(planning, performance.now() - t0);
      }
      const { choices } = chosen!;
      if (choices.length === 0) continue;
      dearest = Math.max(dearest, choosing / planning);
      const [{ tried, own }] = choices;
      const finest = tried[0].cutters[tried[0].cutters.length - 1]?.diameter ?? Infinity;
      // Sets of a pocket that end with a wider cutter leave more: they are no rivals.
      const sets = setsFor(again.job).filter((set) => !own || set[set.length - 1].diameter <= finest);
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
        `${Math.round(mine)} s; chosen in ${(choosing / planning).toFixed(1)} × its planning`,
      );
    }
  }
  const near = estimates.filter((e) => Math.abs(e - 1) < 0.15).length;
  row("the slowest choice against the fastest set", `${worst.toFixed(3)} ×`, "asked 1.05");
  row("the dearest choice against planning what was chosen", `${dearest.toFixed(2)} ×`, "asked 1.5");
  row("estimates within 15 % of the planned time, of sets under twice the best", `${near} of ${estimates.length}`);
}

import type { Cutter } from "@oaken/core/cutters/profile";
import { describeCutters } from "@oaken/core/cutters/profile";
import { graphOf } from "@oaken/core/job/build";
import { chooseAll } from "@oaken/core/job/choose";
import type { BoardJob } from "@oaken/core/job/document";
import { setHelpers } from "@oaken/core/job/edit";
import type { Made } from "@oaken/core/job/graph";
import { planCuts, type Planning } from "@oaken/core/job/plan";
import { totalSeconds } from "@oaken/core/job/prove";
import { onePicture } from "@oaken/core/job/tools";
import { Kept } from "@oaken/core/kept";
import type { Raster } from "@oaken/core/picture/raster";
import { noProgress } from "@oaken/core/problem";
import { begun, SHOP } from "@oaken/core/testing/shop";
import { decodePicture } from "@oaken/files/decode";
import { beeWalk, type Drawing, fox, ginkgo, moth, scan, seedDrawer } from "../demo/art.ts";
import { HARD_PICTURES } from "../demo/hard.ts";
import { row } from "./measure.ts";

const STOCK = { width: 300, height: 200, thickness: 18 };
const FAULTS = { blur: 1, jpeg: 85 };

/** A job on a picture, with the makings that its cuts read. */
function jobOf(outcome: string, raster: Raster): { job: BoardJob; planning: Planning } {
  const asset = { sha: "0".repeat(64), name: "art.png", width: raster.width, height: raster.height };
  const job = begun(outcome, asset, STOCK);
  const kept = new Kept(40);
  const graph = graphOf(job, onePicture(raster), kept);
  const makings = new Map<string, Made>(job.makings.map(({ id }) => [id, graph.made(id)]));
  return { job, planning: { makings, kept, grain: null, step: () => noProgress, now: () => 0 } };
}

/** None, each, and every two of the rack's flat cutters, the larger first. */
function sets(): Cutter[][] {
  const flats = SHOP.cutters.filter((c) => c.kind === "flat").sort((a, b) => b.diameter - a.diameter);
  return [[], ...flats.map((c) => [c]), ...flats.flatMap((a, i) => flats.slice(i + 1).map((b) => [a, b]))];
}

/** Seconds with these cutters before the carve, fully planned; Infinity where they leave places out. */
function planned(job: BoardJob, planning: Planning, cutters: readonly Cutter[]): number {
  const own = structuredClone(job);
  setHelpers(
    own,
    own.cuts.find((c) => c.id === "carve")!,
    "clear",
    cutters,
  );
  const cuts = planCuts(own, planning);
  const isOut = cuts.some((c) => c.id !== "carve" && c.notes.some((n) => n.severity === "stop"));
  return isOut ? Infinity : totalSeconds(own, cuts);
}

/**
 * Clearing cutters chosen by themselves against every set of up to two, fully planned: how much slower, how near the
 * estimates were, and what choosing costs beyond planning the chosen set.
 */
export async function benchChoose(): Promise<void> {
  console.log("Clearing cutters chosen by themselves, against all sets of up to two from the rack, fully planned");
  const drawings: [string, Drawing][] = [
    ["ginkgo", ginkgo()],
    ["seed drawer", seedDrawer()],
    ["moth", moth()],
    ["bee walk", beeWalk()],
    ["fox", fox()],
  ];
  const pictures: [string, Buffer][] = [];
  for (const [name, d] of drawings) pictures.push([name, await scan(d, FAULTS)]);
  for (const { name, picture } of HARD_PICTURES) pictures.push([name, await picture()]);
  const estimates: number[] = [];
  let worst = 1;
  for (const [name, bytes] of pictures) {
    const raster = await decodePicture(bytes, `${name}.png`);
    for (const outcome of ["sign", "raised"]) {
      const fresh = jobOf(outcome, raster);
      let t0 = performance.now();
      const { job, choices } = chooseAll(fresh.job, SHOP.cutters, onePicture(raster), fresh.planning.kept);
      const choosing = performance.now() - t0;
      if (choices.length === 0) continue;
      const again = jobOf(outcome, raster);
      t0 = performance.now();
      const mine = totalSeconds(job, planCuts(job, again.planning));
      const planning = performance.now() - t0;
      const all = sets().map((set) => planned(again.job, again.planning, set));
      const best = Math.min(...all);
      const [{ tried }] = choices;
      for (const t of tried) {
        const at = sets().findIndex((set) => describeCutters(set) === describeCutters(t.cutters));
        if (!t.isPlanned && all[at] < 2 * best) estimates.push(t.seconds / all[at]);
      }
      worst = Math.max(worst, mine / best);
      const words = describeCutters(tried[0].cutters) || "none";
      row(
        `${name}, ${outcome}: ${words}`,
        `${(mine / best).toFixed(3)} ×`,
        `${Math.round(mine)} s; chosen in ${(choosing / planning).toFixed(1)} × its planning`,
      );
    }
  }
  estimates.sort((a, b) => a - b);
  const near = estimates.filter((e) => Math.abs(e - 1) < 0.15).length;
  row("the slowest choice against the fastest set", `${worst.toFixed(3)} ×`, "asked 1.05");
  row("estimates within 15 % of the planned time, of sets under twice the best", `${near} of ${estimates.length}`);
}

import { Parts } from "@oaken/core/cuts/area/parts";
import { describeCutters, profileOf } from "@oaken/core/cutters/profile";
import { clearanceOf, inset, withLoss } from "@oaken/core/geometry/clearance/clearance";
import { type Rings } from "@oaken/core/geometry/rings";
import { SegmentGrid } from "@oaken/core/geometry/segmentgrid";
import { chooseAll } from "@oaken/core/job/choose";
import type { BoardJob } from "@oaken/core/job/document";
import { type CutResult, planCuts } from "@oaken/core/job/plan";
import { onePicture } from "@oaken/core/job/tools";
import { maskOf } from "@oaken/core/geometry/mask";
import { newSurface } from "@oaken/core/proof/surface";
import { sweep } from "@oaken/core/proof/sweep";
import { toPlan } from "@oaken/core/testing/choosing";
import { SHOP } from "@oaken/core/testing/shop";
import { moveCount, PLUNGE, type Toolpath } from "@oaken/core/toolpath/toolpath";
import { decodePicture } from "@oaken/files/decode";
import { row } from "./measure.ts";
import { neededLength } from "./needed.ts";
import { picturesOfCharacters, STOCK } from "./pictures.ts";

/** Side of the cells in which it is found what the clearing cutters left open, mm. */
const CELL = 0.1;
/** What lifting over to another stroke may take, s. */
const STROKE_SECONDS = 2;
/** Branches that change the wall by less than this, or by less than half the hold, are not needed, mm. */
const LEAST_LOSS = 0.01;
/** A floor as deep as this below the wanted one is there, mm. */
const THERE = 0.01;

/**
 * Machining time of carves against the way that they cannot do without, at their feed, and 2 s for each piece that a
 * pass carves.
 */
export async function benchCarving(): Promise<void> {
  console.log(
    "\nMachining time of carves against (way needed ÷ feed) + 2 s for each piece of a pass, asked 1.5 × at most",
  );
  for (const [name, bytes] of await picturesOfCharacters()) {
    const raster = await decodePicture(bytes, `${name}.png`);
    const fresh = toPlan("sign", raster, STOCK);
    const chosen = chooseAll(fresh.job, SHOP.cutters, onePicture(raster), fresh.planning.kept).job;
    const art = [...fresh.planning.makings.values()].map((m) => m.product).find((p) => p.is === "shapes");
    const held = art?.is === "shapes" ? art.held : 0;
    const alone = { ...chosen, cuts: chosen.cuts.filter((c) => !c.target) };
    for (const job of alone.cuts.length < chosen.cuts.length ? [alone, chosen] : [alone]) {
      const cuts = planCuts(job, fresh.planning);
      const { ratio, detail } = against(job, cuts, held);
      const clearing = describeCutters(job.cuts.filter((c) => c.target).map((c) => c.cutter)) || "none";
      row(`${name}, clearing: ${clearing}`, `${ratio.toFixed(2)} ×`, detail);
    }
  }
}

function against(job: BoardJob, cuts: readonly CutResult[], held: number): { ratio: number; detail: string } {
  const carve = cuts.find((c) => c.cut.kind === "vcarve")!;
  const region = carve.within!;
  const profile = profileOf(carve.cut.cutter);
  const floor = Number(carve.values.floor);
  const rho = profile.r(floor);
  const open = openFloor(region, job, cuts, rho, floor);
  const apart = 2 * profile.r(Number(carve.values.ridge));
  const c = withLoss(clearanceOf(region), Math.max(LEAST_LOSS, held / 2));
  let needed = 0;
  let pieces = 0;
  const deepest = Math.min(floor, profile.h(Math.min(c.widest, profile.radius)));
  for (let top = 0; top < deepest - THERE; top += Number(carve.values.stepdown)) {
    const from = profile.r(top);
    needed += neededLength(c, { rho, slope: floor / rho, apart, from }, open);
    pieces += new Parts(top === 0 ? region : inset(c, from).rings).count;
  }
  const least = (60 * needed) / Number(carve.values.feed) + STROKE_SECONDS * pieces;
  const { toolpath, seconds, figures } = carve;
  const detail =
    `${Math.round(seconds)} of ${Math.round(least)} s; way ${(figures.cutLength / needed).toFixed(2)} ×, ` +
    `${pieces} pieces, ${plunges(toolpath)} plunges`;
  return { ratio: seconds / least, detail };
}

/** What the clearing cutters left of the floor. */
function openFloor(region: Rings, job: BoardJob, cuts: readonly CutResult[], rho: number, floor: number) {
  const { width, height, thickness } = job.stock;
  const s = newSurface(width, height, CELL, thickness);
  cuts.forEach((c, k) => {
    if (c.cut.target) sweep(s, c.toolpath, profileOf(c.cut.cutter), k + 1);
  });
  const inside = maskOf(region, s.width, s.height, CELL);
  const edges = new SegmentGrid(region);
  let cells = 0;
  for (let k = 0; k < inside.length; k++) {
    if (!inside[k] || s.z[k] < THERE - floor) continue;
    const [x, y] = [((k % s.width) + 0.5) * CELL, (Math.floor(k / s.width) + 0.5) * CELL];
    if (edges.distance(x, y, rho + 1) > rho) cells++;
  }
  return {
    area: cells * CELL * CELL,
    isOpen: (x: number, y: number) => s.z[Math.floor(y / CELL) * s.width + Math.floor(x / CELL)] > THERE - floor,
  };
}

const plunges = (t: Toolpath): number => {
  let n = 0;
  for (let i = 1; i < moveCount(t); i++) if (t.kind[i] === PLUNGE) n++;
  return n;
};

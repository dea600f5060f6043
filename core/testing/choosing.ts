import "./ready.ts";
import type { Cutter } from "../cutters/profile.ts";
import { graphOf } from "../job/build.ts";
import type { Left } from "../cuts/kind.ts";
import { choosable } from "../cuts/register.ts";
import type { BoardJob, JobCut, StockSettings } from "../job/document.ts";
import { takeCutters } from "../job/edit.ts";
import type { Made } from "../job/graph.ts";
import { estimateCut, leastOfCut, leftByCut, planCuts, type Planning } from "../job/plan.ts";
import { totalSeconds, withChanges } from "../job/prove.ts";
import { onePicture } from "../job/tools.ts";
import { Kept } from "../kept.ts";
import type { Raster } from "../picture/raster.ts";
import { noProgress } from "../problem.ts";
import { isOwned } from "../shop/shop.ts";
import { begun, SHOP } from "./shop.ts";

/** Plans and what they follow from, for every set of cutters of a picture. */
const MOST_KEPT = 40;

/** A job on a picture, with the makings that its cuts read. */
export function toPlan(
  outcome: string,
  raster: Raster,
  stock: Partial<StockSettings>,
): { job: BoardJob; planning: Planning } {
  const asset = { sha: "0".repeat(64), name: "art.png", width: raster.width, height: raster.height };
  const job = begun(outcome, asset, stock);
  const kept = new Kept(MOST_KEPT);
  const graph = graphOf(job, onePicture(raster), kept);
  const makings = new Map<string, Made>(job.makings.map(({ id }) => [id, graph.made(id)]));
  return { job, planning: { makings, kept, grain: null, step: () => noProgress, now: () => 0 } };
}

/** None, each, and every two of the rack's flat cutters, the larger first. */
export function setsOfFlats(): Cutter[][] {
  const flats = SHOP.cutters.filter((c) => c.kind === "flat" && isOwned(c)).sort((a, b) => b.diameter - a.diameter);
  return [[], ...flats.map((c) => [c]), ...flats.flatMap((a, i) => flats.slice(i + 1).map((b) => [a, b]))];
}

/** The cut whose cutters are chosen: the one that helps none. */
const mainCut = (job: BoardJob): JobCut => job.cuts.find((c) => !c.target)!;

/** Sets of flats that a job's main cut could have: of its own cutter and one after it there is always a first. */
export function setsFor(job: BoardJob): Cutter[][] {
  const { own, help } = choosable(mainCut(job).kind)!;
  return setsOfFlats().filter((set) => set.length >= (own ? 1 : 0) && set.length <= (help ? 2 : 1));
}

/** What the main cut leaves with these cutters; null where its art cannot be made. */
export function leftWith(job: BoardJob, planning: Planning, cutters: readonly Cutter[]): Left | null {
  const own = withCutters(job, cutters);
  return leftByCut(own, mainCut(own).id, planning);
}

/** A job whose main cut has these cutters. */
function withCutters(job: BoardJob, cutters: readonly Cutter[]): BoardJob {
  const own = structuredClone(job);
  const main = mainCut(own);
  const way = choosable(main.kind)!;
  takeCutters(own, main, { own: way.own, kind: way.help?.kind ?? null }, cutters);
  return own;
}

/** Seconds with these cutters for the main cut, fully planned; Infinity where they leave places out. */
export function secondsWith(job: BoardJob, planning: Planning, cutters: readonly Cutter[]): number {
  const own = withCutters(job, cutters);
  const { id, kind } = mainCut(own);
  const cuts = planCuts(own, planning);
  const isOut = cuts.some((c) => (choosable(kind)!.own || c.id !== id) && c.notes.some((n) => n.severity === "stop"));
  return isOut ? Infinity : totalSeconds(own, cuts);
}

/** The same without planning anything: what choosing goes by. */
export function estimateWith(job: BoardJob, planning: Planning, cutters: readonly Cutter[]): number {
  const own = withCutters(job, cutters);
  const parts = own.cuts.map((c) => ({ cutter: c.cutter, seconds: estimateCut(own, c.id, planning) ?? 0 }));
  return withChanges(
    own.machine,
    parts.filter((p) => p.seconds > 0),
  );
}

/** What the last of some cutters takes at least, and what it takes planned, s. */
export function lastOf(job: BoardJob, planning: Planning, cutters: Cutter[]): { least: number; taken: number } {
  const own = withCutters(job, cutters);
  const { id } = own.cuts.findLast((c) => c.target)!;
  const [{ seconds }] = planCuts(own, planning, (c) => c.id === id);
  return { least: leastOfCut(own, id, planning)!, taken: seconds };
}
